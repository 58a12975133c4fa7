import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Looked, learntOf } from './learnt.ts';
import { bands, layerOver, meltOf, type Optics, type Rgb } from './light.ts';
import { PLAIN, WHITE } from './testing.ts';

const BLUE: Optics = { k: [0.05, 0.02, 0.006], s: [0.004, 0.006, 0.01] };
const RUST: Optics = { k: [0.006, 0.03, 0.05], s: [0.01, 0.006, 0.004] };

/** A look at so much of both, where each really absorbs so many times what was foreseen. */
function look(blueMl: number, rustMl: number, times: { blue: Rgb; rust: Rgb }, thicknessMm = 5): Looked {
  const foreseen = meltOf(PLAIN, [
    { ...BLUE, mlPerL: blueMl },
    { ...RUST, mlPerL: rustMl },
  ]);
  const really = meltOf(PLAIN, [
    { k: bands((i) => BLUE.k[i] * times.blue[i]), s: BLUE.s, mlPerL: blueMl },
    { k: bands((i) => RUST.k[i] * times.rust[i]), s: RUST.s, mlPerL: rustMl },
  ]);
  const part = (materialId: string, { k }: Optics, ml: number) => ({ materialId, k: bands((i) => k[i] * ml) });
  return {
    foreseen: {
      optics: foreseen,
      parts: [part('blue', BLUE, blueMl), part('rust', RUST, rustMl)].filter(({ k }) => k[0] > 0),
    },
    thicknessMm,
    seen: layerOver(really, thicknessMm, WHITE),
  };
}
const SAME = { blue: [1, 1, 1] as Rgb, rust: [1, 1, 1] as Rgb };

test('nothing was looked at: nothing is learnt', () => {
  expect(learntOf([]).size).toBe(0);
});

test('a colour that comes out as foreseen stays as it is', () => {
  const found = learntOf([look(3, 0, SAME), look(2, 2, SAME)]);
  for (const { factor } of found.values()) for (const one of factor) expect(one).toBeCloseTo(1, 3);
  expect([found.get('blue')?.looks, found.get('rust')?.looks]).toEqual([2, 1]);
});

test('a bottle half again as strong is told from the other by looks at each, the surer the more there are', () => {
  const times = { blue: [1.5, 1.5, 1.5] as Rgb, rust: [1, 1, 1] as Rgb };
  const some = [look(3, 0, times), look(1.5, 2, times), look(2, 4, times)];
  const few = learntOf(some.slice(0, 1)).get('blue');
  const found = learntOf([...some, ...some, ...some, ...some]);
  // One look is believed for the most part, and no more.
  expect(few?.factor[0]).toBeGreaterThan(1.25);
  expect(few?.factor[0]).toBeLessThan(1.45);
  expect(found.get('blue')?.factor[0]).toBeCloseTo(1.5, 1);
  expect(found.get('rust')?.factor[2]).toBeCloseTo(1, 1);
  expect(found.get('blue')?.sdLn[0]).toBeLessThan((few?.sdLn[0] ?? 0) / 2);
});

test('one look by hand: half again as much is believed by four fifths of its logarithm, less where the look hardly tells', () => {
  const seen = (mm: number) => {
    const foreseen = { k: bands((i) => BLUE.k[i] * 4), s: bands((i) => BLUE.s[i] * 4) };
    const really = { k: bands((i) => foreseen.k[i] * 1.5), s: foreseen.s };
    const look = {
      foreseen: { optics: foreseen, parts: [{ materialId: 'blue', k: foreseen.k }] },
      thicknessMm: mm,
      seen: layerOver(really, mm, WHITE),
    };
    return { learnt: learntOf([look]).get('blue'), really };
  };
  for (const mm of [2, 60]) {
    const { learnt, really } = seen(mm);
    // How steeply the look changes with the logarithm of its absorption.
    const at = (times: number) => layerOver({ k: bands((i) => really.k[i] * times), s: really.s }, mm, WHITE)[0];
    const slope = (at(1.001) - at(1 / 1.001)) / (2 * Math.log(1.001));
    const sd = Math.hypot(0.15, 0.01 / Math.abs(slope));
    const believed = sd ** -2 / (sd ** -2 + 0.3 ** -2);
    expect(learnt?.factor[0]).toBeCloseTo(1.5 ** believed, 2);
    expect(learnt?.sdLn[0]).toBeCloseTo((sd ** -2 + 0.3 ** -2) ** -0.5, 2);
  }
});

test('a melt without any absorption teaches nothing, and breaks nothing', () => {
  const clear = {
    optics: { k: [0, 0, 0] as Rgb, s: [0.1, 0.1, 0.1] as Rgb },
    parts: [{ materialId: 'a', k: [0, 0, 0] as Rgb }],
  };
  expect(learntOf([{ foreseen: clear, thicknessMm: 3, seen: [0.5, 0.5, 0.5] }]).get('a')?.factor).toEqual([1, 1, 1]);
});

test('a look too deep to tell anything changes little', () => {
  const times = { blue: [1.5, 1.5, 1.5] as Rgb, rust: [1, 1, 1] as Rgb };
  const deep = learntOf([look(40, 0, times, 60)]).get('blue');
  expect(deep?.factor[2]).toBeGreaterThan(0.99);
  expect((deep?.factor[0] ?? 9) - 1).toBeLessThan(0.45);
});

test('property: what is learnt lies between what was foreseen and what was seen, in any order of the looks', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.4, max: 2.5, noNaN: true }),
      fc.array(fc.double({ min: 1, max: 4, noNaN: true }), { minLength: 1, maxLength: 6 }),
      (times, doses) => {
        const all = { blue: [times, times, times] as Rgb, rust: SAME.rust };
        const looks = doses.map((ml) => look(ml, 0, all));
        const found = learntOf(looks).get('blue')?.factor[0] as number;
        expect(found).toBeGreaterThanOrEqual(Math.min(1, times) - 1e-6);
        expect(found).toBeLessThanOrEqual(Math.max(1, times) + 1e-6);
        expect(learntOf([...looks].reverse()).get('blue')?.factor[0]).toBeCloseTo(found, 9);
      },
    ),
    { numRuns: 60 },
  );
});
