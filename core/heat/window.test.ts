import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { cupWindow, FILLS, MOLD_KINDS, methodWindow, middleOf, pourWindow, windowSchema } from './window.ts';

const metal = { kind: 'aluminium', fill: 'injection' } as const;
const open = { kind: 'silicone-open', fill: 'open-pour' } as const;
const printed = { kind: 'printed', fill: 'injection' } as const;
const dipped = { kind: 'dip-rods', fill: 'dip' } as const;

describe('by the way a mold is filled', () => {
  test.each([
    [open, 165, 177],
    [metal, 158, 180],
    [{ kind: 'silicone-two-piece', fill: 'gravity' } as const, 165, 177],
    [dipped, 150, 160],
    [printed, 145, 155],
    // A print bursts however it is filled.
    [{ kind: 'printed', fill: 'open-pour' } as const, 145, 155],
  ])('%j is drawn between %d and %d °C', (mold, lowC, highC) => {
    expect(methodWindow(mold)).toMatchObject({ lowC, highC });
    expect(middleOf(methodWindow(mold))).toBe((lowC + highC) / 2);
  });

  test('every kind and way has a window that is one, under the scorch', () => {
    for (const kind of MOLD_KINDS)
      for (const fill of FILLS) {
        const { lowC, highC } = methodWindow({ kind, fill });
        expect(lowC).toBeLessThan(highC);
        expect(highC).toBeLessThan(195);
      }
  });
});

describe('a cup over several molds', () => {
  test.each([
    ['one mold: its own', [metal], [], { lowC: 158, highC: 180, method: 'hand injector', limit: null, conflict: null }],
    ['two: what both bear', [metal, open], [], { lowC: 165, highC: 177, method: 'open pour' }],
    [
      'a print beside metal leaves nothing that both bear, and the print’s top stands',
      [metal, printed],
      [],
      { lowC: 158, highC: 155, method: 'printed mold' },
    ],
    [
      'a flake below the method’s top cuts it',
      [metal],
      [{ name: 'copper', c: 165 }],
      { lowC: 158, highC: 165, limit: { name: 'copper', c: 165 }, conflict: null },
    ],
    [
      'of two the one that bears less',
      [open],
      [
        { name: 'copper', c: 172 },
        { name: 'red', c: 168 },
      ],
      { highC: 168, limit: { name: 'red', c: 168 } },
    ],
    [
      'one that bears more than the method cuts nothing',
      [open],
      [{ name: 'copper', c: 190 }],
      { highC: 177, limit: null },
    ],
    ['exactly the low end is enough', [open], [{ name: 'copper', c: 165 }], { highC: 165, conflict: null }],
    [
      'under it nothing fills: the method’s own stands, and it is said',
      [open],
      [{ name: 'copper', c: 164 }],
      { lowC: 165, highC: 177, limit: { name: 'copper', c: 164 }, conflict: { name: 'copper', c: 164 } },
    ],
    [
      'a flake may be called whatever',
      [open],
      [{ name: 'mold', c: 170 }],
      { highC: 170, limit: { name: 'mold', c: 170 } },
    ],
  ] as const)('%s', (_what, molds, limits, expected) => {
    expect(cupWindow([...molds], [...limits])).toMatchObject(expected);
  });

  test('their order does not matter', () => {
    expect(cupWindow([metal, open], [])).toEqual(cupWindow([open, metal], []));
  });
});

describe('the window of one pour, with its way out', () => {
  const window = (more: object) =>
    pourWindow(check(windowSchema, { lowC: 165, highC: 177, method: 'open pour', flakeLimitsC: [], ...more }));
  test.each([
    [{}, 177, 'method', false, /below 177 °C/],
    [{ moldLimitC: 170 }, 170, 'mold', false, /mold bears 170 °C: let the cup cool/],
    [{ scorchC: 174.25 }, 174.25, 'scorch', false, /Above 174\.3 °C it scorches/],
    [{ flakeLimitsC: [{ id: 'copper', c: 168 }] }, 168, 'copper', false, /copper bears 168 °C: stir it in last/],
    [
      { flakeLimitsC: [{ id: 'copper', c: 160 }] },
      160,
      'copper',
      true,
      /copper bears only 160 °C, and below 165 °C it does not fill/,
    ],
    [{ moldLimitC: 155 }, 155, 'mold', true, /take another mold/],
    [{ scorchC: 160 }, 160, 'scorch', true, /another method/],
    [{ lowC: 180 }, 177, 'method', true, /upside down: 180 °C is above 177 °C/],
    // What comes first is named where two set the same end.
    [{ moldLimitC: 177 }, 177, 'method', false, /below 177/],
  ])('%j', (more, highC, limitedBy, conflict, advice) => {
    expect(window(more)).toMatchObject({ highC, limitedBy, conflict });
    expect(window(more).advice).toMatch(advice);
  });

  test.each([
    ['a flake under the answer’s own names', { flakeLimitsC: [{ id: 'scorch', c: 160 }] }, 'flakeLimitsC.0.id'],
    ['hotter than any oven', { highC: 401 }, 'highC'],
    ['a flake without a name', { flakeLimitsC: [{ id: '', c: 160 }] }, 'flakeLimitsC.0.id'],
  ])('%s is refused at its field', (_what, more, path) => {
    try {
      window(more);
      expect.unreachable();
    } catch (error) {
      expect((error as Failure).path).toBe(path);
    }
  });
});
