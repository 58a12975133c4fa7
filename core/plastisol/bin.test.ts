import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { binGrams, countBin, type Layer, returnedOf, takeFromBin } from './bin.ts';
import { cupState, gramsOf, mixHardness, withShare } from './parts.ts';

const layer = (grams: number, heats: number | null, saltG = 0, saltUnknownG = 0): Layer => ({
  heats,
  grams,
  saltG,
  saltUnknownG,
});
const layers = fc.array(
  fc.record({
    heats: fc.option(fc.nat(8), { nil: null }),
    grams: fc.double({ min: 0.5, max: 900, noNaN: true }),
    saltG: fc.double({ min: 0, max: 0.2, noNaN: true }),
    saltUnknownG: fc.double({ min: 0, max: 0.2, noNaN: true }),
  }),
  { minLength: 1, maxLength: 6 },
);
const salt = (all: Layer[]) => all.reduce((sum, one) => sum + one.saltG, 0);

describe('out of a bin', () => {
  test('of everything in it alike, its salt too', () => {
    expect(takeFromBin([layer(300, 1, 30), layer(100, 4, 0, 100)], 100)).toEqual([
      layer(75, 1, 7.5),
      layer(25, 4, 0, 25),
    ]);
  });

  test('more than was written in leaves as unknown, and nothing of it is lost', () => {
    expect(takeFromBin([layer(60, 2, 6)], 100)).toEqual([layer(60, 2, 6), layer(40, null, 0, 40)]);
    expect(takeFromBin([], 30)).toEqual([layer(30, null, 0, 30)]);
    // A bin below nothing gives only what nobody knows.
    expect(takeFromBin([layer(-20, null)], 30)).toEqual([layer(30, null, 0, 30)]);
  });

  test('grams and salt are conserved, whatever is taken', () => {
    fc.assert(
      fc.property(layers, fc.double({ min: 0.1, max: 3000, noNaN: true }), (all, grams) => {
        const taken = takeFromBin(all, grams);
        expect(binGrams(taken)).toBeCloseTo(grams, 6);
        const share = Math.min(1, grams / binGrams(all));
        expect(salt(taken)).toBeCloseTo(salt(all) * share, 6);
        expect(taken.every((one) => one.grams > 0)).toBe(true);
      }),
    );
  });
});

describe('a count', () => {
  test.each<[string, Layer[], number, Layer[]]>([
    ['more than was written in is unknown', [layer(60, 2)], 100, [layer(40, null, 0, 40)]],
    ['less is gone of everything alike', [layer(60, 2, 6), layer(40, 1)], 50, [layer(-30, 2, -3), layer(-20, 1)]],
    ['as it stands, nothing changes', [layer(60, 2)], 60, []],
    ['below nothing, it is mended', [layer(-20, null, 0, -20)], 5, [layer(25, null, 0, 25)]],
  ])('%s', (_what, before, actual, rows) => {
    const changed = countBin(before, actual).map((one) => ({
      ...one,
      saltG: one.saltG + 0,
      saltUnknownG: one.saltUnknownG + 0,
    }));
    expect(changed).toEqual(rows);
    expect(binGrams([...before, ...changed])).toBeCloseTo(actual, 9);
  });
});

describe('a cup of fresh plastic and remelt', () => {
  test('half of three heats is four once it is cooked, and salty by half of it', () => {
    const state = cupState({ cupG: 400, freshG: 200, remelt: [layer(200, 3, 20)], dosedSaltG: 10 });
    expect(state).toEqual({
      heats: 4,
      unknownFraction: 0,
      remeltFraction: 0.5,
      saltFraction: 30 / 400,
      saltUnknownFraction: 0,
    });
  });

  test('what nobody knows stays unknown on its way through', () => {
    const state = cupState({ cupG: 400, freshG: 300, remelt: [layer(100, null, 0, 100)], dosedSaltG: 0 });
    expect(state).toMatchObject({ heats: 1, unknownFraction: 0.25, saltUnknownFraction: 0.25 });
    expect(returnedOf(80, state)).toEqual([layer(60, 1, 0, 15), layer(20, null, 0, 5)]);
  });

  test('melting never lowers heats: what comes back was cooked once more than what went in', () => {
    fc.assert(
      fc.property(
        layers,
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: 1, max: 300, noNaN: true }),
        (remelt, freshG, back) => {
          const cupG = freshG + binGrams(remelt);
          const state = cupState({ cupG, freshG, remelt, dosedSaltG: 0 });
          const returned = returnedOf(back, state);
          expect(binGrams(returned)).toBeCloseTo(back, 6);
          // Whatever makes a fifth of the cup or more comes back at least one heat older than it was.
          for (const one of remelt)
            if (one.heats !== null && one.grams >= 0.2 * cupG) expect(state.heats).toBeGreaterThan(one.heats);
          // And nothing comes back older than the most tired of it, and one.
          const oldest = Math.max(0, ...remelt.map((one) => one.heats ?? 0));
          expect(state.heats).toBeLessThanOrEqual(oldest + 1);
        },
      ),
    );
  });
});

describe('parts of a cup', () => {
  test.each<[string, { share: number; weighedG: number | null }[], number, number[]]>([
    [
      'none weighed: by their shares',
      [
        { share: 0.29, weighedG: null },
        { share: 0.71, weighedG: null },
      ],
      600,
      [174, 426],
    ],
    [
      'one weighed: the other is the rest',
      [
        { share: 0.29, weighedG: 180 },
        { share: 0.71, weighedG: null },
      ],
      600,
      [180, 420],
    ],
    [
      'both weighed: as weighed, whatever the cup weighs',
      [
        { share: 0.29, weighedG: 180 },
        { share: 0.71, weighedG: 430 },
      ],
      600,
      [180, 430],
    ],
    [
      'more weighed than there is: no part below nothing',
      [
        { share: 0.5, weighedG: 700 },
        { share: 0.5, weighedG: null },
      ],
      600,
      [700, 0],
    ],
    ['no parts', [], 600, []],
  ])('%s', (_what, parts, plasticG, grams) => {
    const found = gramsOf(parts, plasticG);
    expect(found.map((one) => Number(one.toFixed(9)))).toEqual(grams);
  });

  test('another share of one: the others give way, and all stay a whole', () => {
    const shares = fc.array(fc.double({ min: 0.01, max: 1, noNaN: true }), { minLength: 2, maxLength: 6 });
    fc.assert(
      fc.property(shares, fc.nat(5), fc.double({ min: 0, max: 1, noNaN: true }), (raw, at, share) => {
        const sum = raw.reduce((total, one) => total + one, 0);
        const parts = raw.map((one) => ({ share: one / sum }));
        const changed = withShare(parts, at % parts.length, share);
        expect(changed[at % parts.length]?.share).toBe(share);
        expect(changed.reduce((total, one) => total + one.share, 0)).toBeCloseTo(1, 9);
        expect(changed.every((one) => one.share >= 0)).toBe(true);
      }),
    );
  });

  test('hardness mixes by mass, and is not known where a part’s is not', () => {
    const soft = { share: 0.71, hardness: 23.55, sd: 1.74 };
    expect(mixHardness([soft, { share: 0.29, hardness: 59.55, sd: 1.74 }])?.value).toBeCloseTo(
      0.71 * 23.55 + 0.29 * 59.55,
      9,
    );
    expect(mixHardness([soft, { share: 0.29, hardness: 59.55, sd: 1.74 }])?.sd).toBeCloseTo(
      1.74 * Math.hypot(0.71, 0.29),
      9,
    );
    expect(mixHardness([soft, { share: 0.29, hardness: null, sd: null }])).toBeNull();
    expect(mixHardness([soft, { share: 0, hardness: null, sd: null }])).not.toBeNull();
    expect(mixHardness([])).toBeNull();
  });
});
