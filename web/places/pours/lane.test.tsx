// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { PourLayer, PourMold, Shot } from '../../../contract/pours.ts';
import { Page } from '../../testing/page.tsx';
import type { Cup } from './cupState.ts';
import { Lane } from './Lane.tsx';

const NOW = Date.parse('2026-03-02T19:00:00Z');
const mold = {
  moldId: 'm',
  name: 'Sandlance × 4',
  shape: 'paddle',
  kind: 'aluminium',
  fill: 'injection',
  cavities: 4,
  columns: 2,
  shots: 3,
  opensAt: null,
  rods: false,
  inserted: false,
  opens: { waitS: [84], basis: 'heat' },
  layersMl: [45],
} as unknown as PourMold;
const shot = (id: string, ...grades: ('sell' | 'own' | 'remelt' | 'unmarked')[]) =>
  ({
    id,
    moldId: 'm',
    parts: [{ layer: 0 }],
    gone: 1,
    marks: grades.map((grade, i) => ({ cavity: i + 1, grade, reason: null })),
  }) as unknown as Shot;
const LAYERS = [{ place: 'whole', joins: null, hex: '#4f8796' }] as PourLayer[];
const ALL = ['sell', 'sell', 'remelt', 'sell'] as const;

let page: Page;
afterEach(() => page.close());
const did = { draw: vi.fn(), tap: vi.fn(), rest: vi.fn(), say: vi.fn() };

function Drawn() {
  const [shots, setShots] = useState<Shot[]>([]);
  const cup = { shots, molds: [mold], ticks: [], nowMs: NOW } as unknown as Cup;
  const more = { active: false, layers: LAYERS, hex: '#4f8796', onTap: did.tap, onRest: did.rest, onSay: did.say };
  return <Lane mold={mold} cup={cup} {...more} onDraw={() => setShots([shot('new')])} />;
}

async function open(shots: Shot[], more: Partial<PourMold> = {}, active = false) {
  for (const one of Object.values(did)) one.mockClear();
  const cup = { shots, molds: [mold], ticks: [], nowMs: NOW } as unknown as Cup;
  page = await Page.open(
    <Lane
      mold={{ ...mold, ...more }}
      cup={cup}
      active={active}
      layers={LAYERS}
      hex="#4f8796"
      onDraw={did.draw}
      onTap={did.tap}
      onRest={did.rest}
      onSay={did.say}
    />,
  );
}
const inSeconds = (seconds: number) => new Date(NOW + seconds * 1000).toISOString();

describe('one mold at the bench', () => {
  test.each([
    ['nothing was drawn', [], {}, '3 shots to draw', 'nextempty'],
    ['it cools as computed', [shot('a')], { opensAt: inSeconds(84) }, 'shot 1 of 3', '1:24cooling, as computed'],
    [
      'it cools by a default',
      [shot('a')],
      { opensAt: inSeconds(300), opens: { waitS: [300], basis: 'kind' } },
      'shot 1 of 3',
      '5:00cooling, by a default',
    ],
    ['its time is over', [shot('a')], { opensAt: inSeconds(-1) }, 'shot 1 of 3', 'nowopen it'],
    ['a cavity is left to look at', [shot('a', 'sell', 'own', 'remelt')], {}, 'shot 1 of 3', 'nowopen it'],
    [
      'one mark was taken off again',
      [shot('a', 'sell', 'unmarked', 'remelt', 'sell')],
      {},
      'shot 1 of 3',
      'nowopen it',
    ],
    ['all are marked, more to draw', [shot('a', ...ALL)], {}, 'shot 1 of 3', 'nextempty'],
    ['all is done', ['a', 'b', 'c'].map((id) => shot(id, ...ALL)), {}, 'shot 3 of 3', 'doneall shots'],
    ['one more than planned', ['a', 'b', 'c', 'd'].map((id) => shot(id, ...ALL)), {}, 'shot 4 of 3', 'doneall shots'],
  ] as const)('%s', async (_, shots, more, drawn, state) => {
    await open([...shots] as Shot[], more as Partial<PourMold>);
    expect(page.text).toContain(drawn);
    expect(page.text).toContain(state);
  });

  test('the rest is good only of what was not looked at, and of the newest shot', async () => {
    await open([shot('a', ...ALL), shot('b', 'remelt')]);
    await new Promise((done) => setTimeout(done, 600));
    await page.press('Rest good');
    expect(did.rest.mock.calls.map(([one]) => (one as Shot).id)).toEqual(['b']);
    await page.close();
    await open([shot('a', ...ALL)]);
    expect(() => page.button('Rest good')).toThrow();
  });

  test('a shot is drawn here unless the large card already asks for it', async () => {
    await open([]);
    await new Promise((done) => setTimeout(done, 600));
    await page.press('Shot drawn');
    expect(did.draw).toHaveBeenCalledTimes(1);
    await page.close();
    await open([], {}, true);
    expect(() => page.button('Shot drawn')).toThrow();
  });

  test('a second tap of a glove, where the map has come to lie meanwhile, is none of a cavity', async () => {
    did.tap.mockClear();
    page = await Page.open(<Drawn />);
    await new Promise((done) => setTimeout(done, 1000));
    await page.press('Shot drawn');
    const cavity = () => page.box.querySelector<HTMLButtonElement>('[aria-label^="Cavity 2"]');
    await page.does(() => cavity()?.click());
    expect([did.tap.mock.calls, cavity()?.getAttribute('aria-disabled')]).toEqual([[], 'true']);
    await page.does(() => new Promise((done) => setTimeout(done, 1000)));
    await page.does(() => cavity()?.click());
    expect(did.tap.mock.calls.map(([, number]) => number)).toEqual([2]);
  });

  test('each cavity is a target of its own', async () => {
    await open([shot('a', 'sell')]);
    const targets = [...page.box.querySelectorAll<HTMLButtonElement>('[aria-label^="Cavity"]')];
    expect(targets.map((one) => one.getAttribute('aria-label'))).toEqual([
      'Cavity 1: good',
      ...[2, 3, 4].map((n) => `Cavity ${n}: not marked`),
    ]);
    await page.does(() => targets[2]?.click());
    expect(did.tap.mock.calls.map(([one, cavity]) => [(one as Shot).id, cavity])).toEqual([['a', 3]]);
  });
});
