import { describe, expect, test } from 'vitest';
import type { Pour, PourMold, Shot } from '../../../contract/pours.ts';
import { type Cup, nextOf, windowOf } from './next.ts';

const NOW = Date.parse('2026-03-02T19:00:00Z');
const ago = (seconds: number) => new Date(NOW - seconds * 1000).toISOString();

const mold = (moldId: string, change: Partial<PourMold> = {}): PourMold => ({
  moldId,
  name: `Mold ${moldId}`,
  kind: 'aluminium',
  fill: 'injection',
  shape: 'paddle',
  baitId: 'b',
  baitName: 'Sandlance 110',
  cavities: 2,
  columns: 2,
  shots: 2,
  opensAt: null,
  ...change,
});

const shot = (moldId: string, marked: number, seq = 1): Shot => ({
  seq,
  id: `shot ${seq}`,
  moldId,
  doseSeq: 0,
  heatSeq: 0,
  at: ago(60),
  marks: Array.from({ length: marked }, (_, i) => ({ cavity: i + 1, result: 'good', reason: null })),
});

const heat = (c: number, secondsAgo = 30, seq = 1) => ({
  seq,
  id: `heat ${seq}`,
  kind: 'cook' as const,
  c,
  at: ago(secondsAgo),
});
const dose = {
  seq: 1,
  id: 'd',
  materialId: 'm',
  materialName: 'blue',
  amount: 5,
  unit: 'drop',
  reverses: null,
  at: ago(60),
};

function cup(change: { molds?: PourMold[] } & Partial<Omit<Cup, 'pour'>>): Cup {
  const { molds = [mold('A')], ...rest } = change;
  const pour = { molds, recipeItems: [{ id: 'i' }] } as unknown as Pour;
  return { pour, molds, doses: [dose], heats: [heat(172)], shots: [], nowMs: NOW, ...rest };
}

const next = (change: Parameters<typeof cup>[0]) => nextOf(cup(change), (c) => `${c} °C`);

describe('exactly one next thing', () => {
  test.each<[what: string, change: Parameters<typeof cup>[0], does: string, says: RegExp]>([
    ['a cold cup is cooked first', { heats: [], doses: [] }, 'heat', /^Cook to 175 °C/],
    ['a cooked one is coloured', { doses: [] }, 'dose', /^Put in the colour/],
    ['a coloured one is drawn from', {}, 'shot', /^Draw shot 1 of 2: Mold A/],
    ['under the window it is reheated', { heats: [heat(150)] }, 'heat', /^Reheat: 150 °C is under 158 °C/],
    ['over it, it is left to cool', { heats: [heat(185)] }, 'heat', /^Let it cool: 185 °C is over 180 °C/],
    ['a reading of six minutes ago is no reading', { heats: [heat(172, 360)] }, 'heat', /^Read the cup/],
    ['a filled mold that may be opened is looked at', { shots: [shot('A', 0)] }, 'look', /^Open Mold A and look/],
    [
      'one still cooling is waited for',
      { shots: [shot('A', 0)], molds: [mold('A', { opensAt: ago(-90) })] },
      'wait',
      /^All molds are full/,
    ],
    [
      'while one cools the other is drawn',
      { shots: [shot('A', 0)], molds: [mold('A', { opensAt: ago(-90) }), mold('B')] },
      'shot',
      /^Draw shot 1 of 2: Mold B/,
    ],
    ['a half-marked shot is not done', { shots: [shot('A', 1)] }, 'look', /and look/],
    [
      'when all is drawn, the last are waited for',
      { shots: [shot('A', 2), shot('A', 0, 2)], molds: [mold('A', { opensAt: ago(-30) })] },
      'wait',
      /^The last shots are cooling/,
    ],
    [
      'when all is looked at, it is weighed',
      { shots: [shot('A', 2), shot('A', 2, 2)] },
      'close',
      /^Weigh what came out/,
    ],
    [
      'a cold cup does not matter once all is drawn',
      { shots: [shot('A', 2), shot('A', 2, 2)], heats: [heat(90)] },
      'close',
      /^Weigh/,
    ],
  ])('%s', (_what, change, does, says) => {
    const found = next(change);
    expect(found.do).toBe(does);
    expect(found.say).toMatch(says);
  });

  test('how many baits wait to be marked is said', () => {
    expect(next({ shots: [shot('A', 1)] }).why).toContain('1 to mark');
  });
});

describe('the window all molds share', () => {
  test.each<[PourMold[], [number, number]]>([
    [[mold('A')], [158, 180]],
    [[mold('A', { fill: 'open-pour', kind: 'silicone-open' })], [165, 177]],
    [
      [mold('A'), mold('B', { fill: 'open-pour', kind: 'silicone-open' })],
      [165, 177],
    ],
    [[mold('A', { kind: 'printed' })], [145, 155]],
    [[mold('A', { fill: 'dip', kind: 'dip-rods' })], [150, 160]],
  ])('%#', (molds, [lowC, highC]) => {
    expect(windowOf(molds)).toMatchObject({ lowC, highC });
  });
});
