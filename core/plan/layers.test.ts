import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cupsIn, dealt, drawnOf, intoGlasses, MOST_CUPS, usableMl } from './glasses.ts';
import { goes, type Join, layerShares, layersOfShot, levelsIn, meltsOf } from './layers.ts';

const share = (amount: number, joins: Join | null = null) => ({ measure: 'share' as const, amount, joins });
const inMl = (amount: number, joins: Join | null = null) => ({ measure: 'ml' as const, amount, joins });
const upTo = (amount: number, joins: Join | null = null) => ({ measure: 'level' as const, amount, joins });
const rest = (joins: Join | null = null) => ({ measure: 'rest' as const, amount: null, joins });

describe('how much of a bait each layer is', () => {
  test.each([
    ['shares as they are', [share(0.4), share(0.6)], [0.4, 0.6]],
    ['millilitres by the cavity', [inMl(2), rest()], [0.2, 0.8]],
    ['all three', [inMl(1), share(0.5), rest()], [0.1, 0.5, 0.4]],
    ['millilitres alone, where they fill it', [inMl(4), inMl(6)], [0.4, 0.6]],
  ])('%s', (_, layers, shares) => {
    const found = layerShares(layers, { cavityMl: 10 });
    found.forEach((one, i) => {
      expect(one).toBeCloseTo(shares[i] as number, 12);
    });
  });

  test.each([
    ['too little', [share(0.4), share(0.5)], 'fill only 90.0 %'],
    ['too much', [inMl(8), share(0.5)], 'fill 130.0 % of a cavity of this mold and leave nothing'],
    ['nothing left for the rest', [inMl(10), rest()], 'fill 100.0 % of a cavity of this mold and leave nothing'],
    ['too little of a rest that comes first', [rest(), share(1)], 'leave nothing'],
    ['two rests', [rest(), rest()], 'Only one layer'],
  ])('%s is refused', (_, layers, words) => {
    expect(() => layerShares(layers, { cavityMl: 10 })).toThrow(words);
  });
});

describe('layers up to a level', () => {
  // Under 40 % of its height lies a quarter of it, under 70 % two thirds.
  const cavity = { cavityMl: 12, levels: { '0.4': 0.25, '0.7': 2 / 3, '1': 1 } };
  test.each([
    ['the first is what lies under it', [upTo(0.4), rest()], [1 / 4, 3 / 4]],
    ['the next fills up from there', [upTo(0.4), upTo(0.7), rest()], [1 / 4, 5 / 12, 1 / 3]],
    ['to the very top', [upTo(0.7), upTo(1)], [2 / 3, 1 / 3]],
    ['over what was given in mL', [inMl(2), upTo(0.7), rest()], [1 / 6, 1 / 2, 1 / 3]],
    ['what comes after it lies elsewhere', [upTo(0.4), share(0.25), rest()], [1 / 4, 1 / 4, 1 / 2]],
  ])('%s', (_, layers, shares) => {
    const found = layerShares(layers, cavity);
    found.forEach((one, i) => {
      expect(one).toBeCloseTo(shares[i] as number, 12);
    });
  });

  test.each([
    ['of a bait whose shape nobody knows', [upTo(0.4), rest()], null, 'level-unknown', 'layers.0'],
    ['of a level that was not worked out', [upTo(0.4), upTo(0.5), rest()], cavity.levels, 'level-unknown', 'layers.1'],
    [
      'that the layer under it is over already',
      [share(0.3), upTo(0.4), rest()],
      cavity.levels,
      'layers-not-whole',
      'layers.1',
    ],
    ['that it reaches exactly', [inMl(3), upTo(0.4), rest()], cavity.levels, 'layers-not-whole', 'layers.1'],
    ['and nothing to the rest', [upTo(1), rest()], cavity.levels, 'layers-not-whole', 'layers'],
  ])('nothing is said %s', (_, layers, levels, code, path) => {
    expect(() => layerShares(layers, { cavityMl: 12, levels })).toThrow(expect.objectContaining({ code, path }));
  });

  test('a level that is reached already says how far, and by how much', () => {
    expect(() => layerShares([share(0.305), upTo(0.4), rest()], cavity)).toThrow(
      /Up to 40 % of the height .* what lies under it is 30\.5 % of a cavity/,
    );
  });

  test('in a mold whose height is known it is also so many mm', () => {
    const mold = { ...cavity, cavities: 3, sprueMl: 4, runnerMl: 0, tallMm: 16 };
    expect(layersOfShot(mold, [upTo(0.4), rest('melted')])).toEqual({
      layersMl: [9, 31],
      cavityLayersMl: [3, 9],
      layersMm: [6.4, null],
    });
    const { tallMm: _, ...unknown } = mold;
    expect(layersOfShot(unknown, [upTo(0.4), rest('melted')]).layersMm).toEqual([null, null]);
    expect(levelsIn([upTo(0.4), share(0.2), upTo(0.7), upTo(0.4)])).toEqual([0.4, 0.7]);
  });
});

describe('what each layer takes of a shot', () => {
  // Four cavities of 10 mL, a sprue of 5 and a runner of 3.
  const mold = { cavities: 4, cavityMl: 10, sprueMl: 5, runnerMl: 3 };
  test('injected together, each fills its share of sprue and runner', () => {
    const { layersMl, cavityLayersMl } = layersOfShot(mold, [share(0.25), share(0.75, 'together')]);
    expect(layersMl).toEqual([12, 36]);
    expect(cavityLayersMl).toEqual([2.5, 7.5]);
  });
  test('one after the other, the last fills them', () => {
    const { layersMl } = layersOfShot(mold, [share(0.25), share(0.25, 'melted'), rest('melted')]);
    expect(layersMl).toEqual([10, 10, 28]);
  });
  test('the last two together share them', () => {
    const { layersMl } = layersOfShot(mold, [share(0.5), share(0.125, 'hot'), rest('together')]);
    expect(layersMl).toEqual([20, 5 + 2, 15 + 6]);
  });

  const layer = fc.record({
    part: fc.double({ min: 0.01, max: 1, noNaN: true }),
    join: fc.constantFrom<Join>('together', 'melted', 'hot', 'cooked'),
  });
  test('together they are always the whole mold', () => {
    fc.assert(
      fc.property(fc.array(layer, { minLength: 1, maxLength: 6 }), (parts) => {
        const sum = parts.reduce((total, { part }) => total + part, 0);
        const layers = parts.map(({ part, join }, i) => share(part / sum, i === 0 ? null : join));
        const { layersMl } = layersOfShot(mold, layers);
        expect(layersMl.reduce((total, ml) => total + ml, 0)).toBeCloseTo(48, 9);
        expect(Math.min(...layersMl)).toBeGreaterThan(0);
      }),
    );
  });

  test('layers go in as they join, and a melt that is in twice is one melt', () => {
    const layers = [share(0.2), share(0.3, 'together'), share(0.2, 'melted'), share(0.3, 'together')];
    expect(goes(layers)).toEqual([
      [0, 1],
      [2, 3],
    ]);
    expect(meltsOf(['a', 'b', 'a'].map((recipeId) => ({ recipeId })))).toEqual([
      { recipeId: 'a', layers: [0, 2] },
      { recipeId: 'b', layers: [1] },
    ]);
  });
});

describe('cups that their glass holds', () => {
  const mold = (id: string, cavityMl = 10) => ({
    id,
    cavities: 4,
    cavityMl,
    sprueMl: 5,
    runnerMl: 0,
    injectorMl: null,
  });
  const one = [{ ...share(1), recipeId: 'a' }];
  // A shot of 45 mL and 6 % of feed is 47.7; the wall of each cup keeps 8.
  test.each([
    ['one holds it all', 6, (6 * 47.7 + 8) / 0.85 + 0.01, [[6]]],
    ['a drop too much is two', 6, (6 * 47.7 + 8) / 0.85 - 0.01, [[3], [3]]],
    ['seven are four and three', 7, (4 * 47.7 + 8) / 0.85 + 0.01, [[4], [3]]],
    ['a shot each', 3, (47.7 + 8) / 0.85 + 0.01, [[1], [1], [1]]],
  ])('%s', (_, shots, glassMl, cups) => {
    const { ofEach, groups } = intoGlasses([{ mold: mold('m'), shots }], one, glassMl);
    expect([ofEach, groups.map((group) => group.map((row) => row.shots))]).toEqual([1, cups]);
  });

  test('a shot that one glass does not hold is shared by two', () => {
    const { ofEach, groups } = intoGlasses([{ mold: mold('m'), shots: 2 }], one, 60);
    expect([ofEach, groups]).toMatchObject([2, [[{ shots: 1 }], [{ shots: 1 }]]]);
  });

  test('of two melts the larger decides, and both get the same shots', () => {
    const layers = [
      { ...share(0.75), recipeId: 'a' },
      { ...share(0.25, 'together'), recipeId: 'b' },
    ];
    const { groups } = intoGlasses([{ mold: mold('m'), shots: 8 }], layers, 300);
    // 8 × 47.7 × 0.75 + 8 = 294.2 mL are over 255: two sets.
    expect(groups.map((group) => group.map((row) => row.shots))).toEqual([[4], [4]]);
    const [belly] = drawnOf([{ mold: mold('m'), shots: 4 }], layers, [0], 1);
    expect(belly?.mold).toMatchObject({ cavityMl: 7.5, sprueMl: 3.75 });
  });

  test('each of two that are pushed together is loaded by its own size; its stub goes back for each load', () => {
    const layers = [
      { ...share(0.5), recipeId: 'a' },
      { ...share(0.5, 'together'), recipeId: 'b' },
    ];
    const two = { ...mold('m'), injectorMl: 80, secondInjectorMl: 30 };
    // Half of a shot is 23.85 mL: three of them go into 80 − 3, one into 30 − 3.
    const cups = cupsIn(intoGlasses([{ mold: two, shots: 6 }], layers, 473), layers);
    expect(cups.map((cup) => cup.molds.map((row) => row.loads))).toEqual([[2], [6]]);
    // 6 half shots, film, and 3 mL for each load; sprue and stub come back.
    expect(cups.map((cup) => cup.cookMl)).toEqual([
      expect.closeTo(6 * 23.85 + 8 + 6, 9),
      expect.closeTo(6 * 23.85 + 8 + 18, 9),
    ]);
    expect(cups.map((cup) => cup.returnMl)).toEqual([15 + 6, 15 + 18]);
    // One after the other they come out of the same one; the second fills the sprue too: 26.5 mL, two to a load.
    const apart = [layers[0], { ...layers[1], joins: 'melted' }] as typeof layers;
    const loads = cupsIn(intoGlasses([{ mold: two, shots: 6 }], apart, 473), apart).map((cup) => cup.molds[0]?.loads);
    expect(loads).toEqual([2, 3]);
  });

  test('more than an evening is refused, and says what to do', () => {
    expect(() => intoGlasses([{ mold: mold('m'), shots: 344 }], one, 473)).toThrow(`more than ${MOST_CUPS} cups`);
  });

  test('no cup is over its glass, no shot is lost, and none fewer would do', () => {
    const wish = fc.array(fc.tuple(fc.integer({ min: 1, max: 30 }), fc.double({ min: 2, max: 25, noNaN: true })), {
      minLength: 1,
      maxLength: 4,
    });
    fc.assert(
      fc.property(wish, (rows) => {
        const drawn = rows.map(([shots, cavityMl], i) => ({ mold: mold(`m${i}`, cavityMl), shots }));
        const cookMl = (group: typeof drawn) =>
          8 + group.reduce((sum, row) => sum + row.shots * (4 * row.mold.cavityMl + 5) * 1.06, 0);
        fc.pre(cookMl(drawn) < 20 * usableMl(473));
        const { groups } = intoGlasses(drawn, one, 473);
        for (const group of groups) expect(cookMl(group)).toBeLessThanOrEqual(usableMl(473) + 1e-9);
        drawn.forEach(({ mold: { id }, shots }) => {
          const all = groups.flat().filter((row) => row.mold.id === id);
          expect(all.reduce((sum, row) => sum + row.shots, 0)).toBe(shots);
        });
        if (groups.length > 1)
          expect(dealt(drawn, groups.length - 1).some((group) => cookMl(group) > usableMl(473))).toBe(true);
      }),
    );
  });
});
