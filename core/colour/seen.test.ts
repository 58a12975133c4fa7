import { expect, test } from 'vitest';
import { isHeic } from '../picture.ts';
import { strengthFor } from './dose.ts';
import { flakesIn } from './flakes.ts';
import { meltOfIngredients } from './foresee.ts';
import { LAMP_LIGHT, lightUnder, WATER_IDS } from './grounds.ts';
import { luminance, meltOf, opacityOf } from './light.ts';
import { PLAIN_PLASTIC } from './nominal.ts';
import { SCENES, seenIn, thickIn } from './scenes.ts';
import { stirOf } from './stir.ts';

test('flakes by hand: 10 g/L of 1 mm squares, 0.05 mm of 1.38 g/mL, are 144.9 a mL', () => {
  // Each weighs 1 · 1 · 0.05 · 1.38 / 1000 = 0.000069 g. Behind 10 mm lie as many a cm²; half their face covers 1 − e^−0.7246.
  const { perMl, behind } = flakesIn({ gPerL: 10, sizeMm: 1, cut: 'square', thicknessMm: 0.05, densityGPerMl: 1.38 });
  expect(perMl).toBeCloseTo(144.93, 2);
  expect(behind(10).perCm2).toBeCloseTo(144.93, 2);
  expect(behind(10).covered).toBeCloseTo(0.5155, 4);
  // A hexagon is 0.866 of its square, so there are more of them.
  expect(flakesIn({ gPerL: 10, sizeMm: 1, cut: 'hex' }).perMl / perMl).toBeCloseTo(1 / 0.8660254, 6);
});

test('a stir lasts as long as what sinks first: 0.4 mm flake 10 mm in 319 s by hand', () => {
  // 3π · 380 · 9.80665 · 0.0002 · 0.00005 / (32 · 0.35) m/s = 0.03136 mm/s.
  const flake = { name: 'gold', kind: 'flake', sizeMm: 0.4, gPerL: 9 };
  const salt = { name: 'salt', kind: 'salt', sizeMm: 0.08, gPerL: 140 };
  expect(stirOf([salt, flake])).toMatchObject({ name: 'gold', everyS: expect.closeTo(318.9, 1), sizeByDefault: false });
  expect(stirOf([{ ...flake, sizeMm: null }])?.sizeByDefault).toBe(true);
  expect(
    stirOf([
      { ...flake, gPerL: 0 },
      { ...flake, kind: 'colourant' },
    ]),
  ).toBeNull();
});

test('so many times its colour hides just as much as was wanted', () => {
  const dosed = { k: [0.05, 0.1, 0.02], s: [0.02, 0.02, 0.03] } as const;
  const own = { k: [...dosed.k], s: [...dosed.s] } as { k: [number, number, number]; s: [number, number, number] };
  const times = strengthFor(PLAIN_PLASTIC, own, 4, 0.7);
  expect(opacityOf(meltOf(PLAIN_PLASTIC, [{ ...own, mlPerL: times }]), 4)).toBeCloseTo(0.7, 6);
  expect(opacityOf(meltOf(PLAIN_PLASTIC, [{ ...own, mlPerL: 0.98 * times }]), 4)).toBeLessThan(0.7);
});

test('what nobody measured is told as that, what nobody knows is left out, salt clouds', () => {
  const of = (kind: string, more: object = {}) => ({
    id: kind,
    name: kind,
    kind,
    hex: '#1f5f8b' as string | null,
    optics: null,
    mlPerL: 3,
    gPerL: 3,
    sizeMm: null,
    cut: null,
    ...more,
  });
  const melt = meltOfIngredients([of('colourant'), of('powder', { hex: null }), of('flake'), of('softener')]);
  expect([melt.byLook, melt.unknown, melt.flakes[0]?.sizeByDefault]).toEqual([['colourant'], ['powder'], true]);
  // 200 g/L at 0.0003 a mm a g/L are 0.06 a mm on top of the plastic's 0.001.
  expect(meltOfIngredients([of('salt', { gPerL: 200 })]).optics.s[0]).toBeCloseTo(0.061, 9);
});

test('under water red goes first, and white stays as bright', () => {
  expect(lightUnder(0)).toEqual([1, 1, 1]);
  const deep = lightUnder(3);
  expect(luminance(deep)).toBeCloseTo(1, 9);
  // e^(−0.3 · 3) over e^(−0.13 · 3).
  expect(deep[0] / deep[1]).toBeCloseTo(Math.exp(-0.51), 9);
});

test('HEIC is known by its brand', () => {
  const bytes = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
  expect(isHeic(bytes('\0\0\0\x18ftypheic\0\0\0\0'))).toBe(true);
  expect(isHeic(bytes('\0\0\0\x18ftypavif\0\0\0\0'))).toBe(false);
});

test('light under water by hand: 3 m of brown water leave red of a white, 1 m of it less of that; above it white is white', () => {
  // e^(−0.45·3), e^(−0.67·3), e^(−1.4·3) are 0.2592, 0.1340, 0.0150; together as bright as 0.1520.
  const [r, g, b] = lightUnder(3, 'brown');
  expect([r, g, b].map((one) => Number(one.toFixed(3)))).toEqual([1.705, 0.881, 0.099]);
  for (const water of WATER_IDS) {
    for (const one of lightUnder(0, water)) expect(one).toBeCloseTo(1, 12);
    expect(luminance(lightUnder(5, water))).toBeCloseTo(1, 12);
  }
  expect(lightUnder(1, 'brown')[2]).toBeGreaterThan(b);
});

test('a lamp warms what daylight shows, and is as bright', () => {
  expect(luminance(LAMP_LIGHT)).toBeCloseTo(1, 12);
  expect(LAMP_LIGHT[0]).toBeGreaterThan(1.1);
  expect(LAMP_LIGHT[2]).toBeLessThan(0.9);
  // In the cup everything is deep: a trace of colour that a bait hardly shows is full there.
  const weak = meltOf(PLAIN_PLASTIC, [{ k: [0.01, 0.04, 0.01], s: [0.01, 0.01, 0.01], mlPerL: 1 }]);
  expect(luminance(seenIn(weak, thickIn('cup', 8), SCENES.cup))).toBeLessThan(
    0.6 * luminance(seenIn(weak, thickIn('day', 8), SCENES.day)),
  );
});

test('a colour that was dosed in three goes is told of once, and is as strong as in one', () => {
  const drop = (mlPerL: number) => ({
    id: 'blue',
    name: 'Blue',
    kind: 'colourant',
    hex: '#3060a0',
    optics: null,
    mlPerL,
    gPerL: 0,
    sizeMm: null,
    cut: null,
    learnt: { factor: [1.2, 1.2, 1.2] as [number, number, number], looks: 2 },
  });
  const thrice = meltOfIngredients([drop(1), drop(2), drop(1)]);
  const once = meltOfIngredients([drop(4)]);
  expect([thrice.byLook, thrice.learnt]).toEqual([['Blue'], [{ name: 'Blue', looks: 2 }]]);
  expect(thrice.optics.k[0]).toBeCloseTo(once.optics.k[0], 12);
  // Learnt: a fifth more of what the colour itself absorbs.
  const untaught = meltOfIngredients([{ ...drop(4), learnt: null }]);
  expect(once.optics.k[0] - PLAIN_PLASTIC.k[0]).toBeCloseTo(1.2 * (untaught.optics.k[0] - PLAIN_PLASTIC.k[0]), 12);
});

test('flake that is wanted turned is drawn as it turns; what nobody told is not known', () => {
  const flake = {
    id: 'f',
    name: 'Gold',
    kind: 'flake',
    hex: '#c9a13b',
    optics: null,
    mlPerL: 0,
    gPerL: 5,
    sizeMm: 0.4,
    cut: null,
  };
  const hexes = (more: object) => meltOfIngredients([{ ...flake, ...more }]).flakes.map(({ hex }) => hex);
  expect(hexes({})).toEqual(['#c9a13b']);
  expect(hexes({ turnsHex: '#8f4a2b' })).toEqual(['#c9a13b']);
  expect(hexes({ turnsHex: '#8f4a2b', turned: true })).toEqual(['#8f4a2b']);
  expect(meltOfIngredients([{ ...flake, turned: true }])).toMatchObject({ flakes: [], unknown: ['Gold, turned'] });
});
