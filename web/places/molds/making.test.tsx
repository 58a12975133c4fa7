// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Mold } from '../../../contract/molds.ts';
import { plan } from '../../../core/mold/silicone.ts';
import { Page } from '../../testing/page.tsx';
import { Making } from './Making.tsx';

const NOW = Date.parse('2026-03-02T19:00:00Z');
const input = {
  pour: 'two-piece' as const,
  masters: [{ volumeMl: 12, lengthMm: 110, widthMm: 16, heightMm: 17, count: 1 }],
  wallMm: 10,
  gapMm: 8,
  coverMm: 10,
  wasteFraction: 0.07,
  mix: { partA: 10, partB: 1, by: 'mass' as const, densityAGPerMl: 1.1, densityBGPerMl: 1.1 },
  potLifeMin: 20,
  demoldMin: 240,
  ratedC: 23,
  roomC: 23,
};
const worked = plan(input);
// Two halves that do not take the same: each has to be shown its own.
const [half] = worked.pours;
const output = {
  ...worked,
  pours: [
    { ...(half as NonNullable<typeof half>), gramsA: 200, gramsB: 20 },
    { ...(half as NonNullable<typeof half>), gramsA: 150, gramsB: 15 },
  ],
};
const ago = (minutes: number) => new Date(NOW - minutes * 60_000).toISOString();
const mixed = (minutes: number) => ({ id: `m${minutes}`, kind: 'mixed', step: null, detail: null, at: ago(minutes) });
const step = (id: string, kind = 'step') => ({ id: `${kind} ${id}`, kind, step: id, detail: null, at: ago(1) });

const mold = (events: object[], more: object = {}) =>
  ({
    id: 'block',
    name: 'Block',
    kind: 'silicone-two-piece',
    shape: 'paddle',
    cavities: 1,
    cavityMl: 12,
    sprueMl: 0,
    runnerMl: 0,
    making: null,
    readyAt: ago(-99),
    events,
    plan: { input, output },
    ...more,
  }) as unknown as Mold;

let page: Page;
const open = async (of: Mold, system: 'metric' | 'us' = 'metric') => {
  page = await Page.open(<Making mold={of} plan={of.plan as NonNullable<Mold['plan']>} />, { system });
};
beforeEach(() => vi.useFakeTimers({ now: NOW, toFake: ['Date'] }));
afterEach(async () => {
  await page.close();
  vi.useRealTimers();
});

describe('rubber from the plan to the demold', () => {
  test('before the first mix: the first half, and one tap starts both clocks', async () => {
    await open(mold([]));
    expect(page.text).toContain('First half: 200 g of A, 20 g of B');
    await page.press('Mixed now: start the clocks');
    expect(page.sent).toEqual([{ path: '/api/molds/block/events', method: 'POST', body: { kind: 'mixed' } }]);
  });

  test.each([
    [5, 'Still workable', '15 min'],
    [20, 'Setting', '3 h 40'],
    [239, 'Setting', '1:00'],
  ])('%d minutes after the mix: %s, %s', async (minutes, stage, left) => {
    await open(mold([mixed(minutes)]));
    expect(page.text).toContain(`${stage}${left}`);
    expect(page.text).toContain('I came up short');
    expect(page.text.includes('Some is left in the cup')).toBe(minutes < 20);
  });

  test('the first half is set: the second half’s own amounts, and no mix before the release agent', async () => {
    await open(mold([mixed(240)]));
    expect(page.text).toContain('First half is set');
    expect(page.text).toContain('Second half: 150 g of A, 15 g of B');
    expect(page.text).toContain('Release agent first');
    expect(page.button('Second half mixed now').disabled).toBe(true);
    await page.close();
    await open(mold([mixed(240), step('release')]));
    expect(page.text).not.toContain('Release agent first');
    await page.press('Second half mixed now');
    expect(page.sent.map((one) => one.body)).toEqual([{ kind: 'mixed' }]);
    await page.close();
    await open(mold([mixed(240), step('release'), step('release', 'step-undone')]));
    expect(page.button('Second half mixed now').disabled).toBe(true);
  });

  test('both are set, and then it was taken out', async () => {
    const done = [mixed(700), mixed(240)];
    await open(mold(done));
    expect(page.text).toContain('Ready to demoldnow');
    expect(page.text).not.toContain('I came up short');
    await page.close();
    await open(mold(done, { readyAt: null }));
    expect(page.text).toContain('taken out since: it is a mold');
    expect(page.text).not.toContain('Ready to demold');
  });

  test('it came up short by 4 mm: how much more, whether it bonds, and what is noted', async () => {
    await open(mold([mixed(25)]));
    await page.press('I came up short');
    await page.type('How far below the line does it stand?', '4 mm');
    // Past its pot life of 20 by five minutes.
    expect(page.text).toMatch(/Pot life is past by 5:00/);
    const ml = (output.boxLengthMm * output.boxWidthMm * 4 * 1.07) / 1000;
    // 130 × 36 × 4 mm and 7 %: 20.03 mL, ten parts of eleven of its 22 g are A.
    expect(Math.round((ml * 1.1 * 10) / 11)).toBe(20);
    expect(page.text).toMatch(/20 g18\.2 mLPart A.*2 g1\.82 mLPart B/);
    await page.press('Topped up');
    expect(page.sent.map((one) => one.body)).toEqual([{ kind: 'topped-up', missingDepthMm: 4 }]);
  });

  test('a maker in ounces reads ounces', async () => {
    await open(mold([]), 'us');
    expect(page.text).toContain(`First half: ${(200 / 28.349523).toFixed(2)} oz of A`);
  });
});
