import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { carry, Field, type Form, halfSection, type Stuff } from './conduction.ts';

const PLASTISOL: Stuff = { conductivityWPerMK: 0.16, densityKgPerM3: 1020, cpJPerKgK: 1800 };
const ALUMINIUM: Stuff = { conductivityWPerMK: 160, densityKgPerM3: 2700, cpJPerKgK: 900 };
const RUBBER: Stuff = { conductivityWPerMK: 0.25, densityKgPerM3: 1150, cpJPerKgK: 1500 };

const effusivity = ({ conductivityWPerMK: k, densityKgPerM3: d, cpJPerKgK: c }: Stuff) => Math.sqrt(k * d * c);

/** A bait at `hot` in a wall at `cold`, all told by one section. */
function poured(form: Form, halfM: number, wallM: number, wall: Stuff, hot: number, cold: number, air: number) {
  const section = halfSection(form, halfM, wallM, PLASTISOL, wall, air);
  const c = Float64Array.from(section.capacity, (_, cell) => (cell < section.bait ? hot : cold));
  return { section, c, field: new Field(section, c, 0, cold) };
}

const heatIn = (capacity: Float64Array, c: Float64Array) =>
  capacity.reduce((sum, held, i) => sum + held * (c[i] ?? 0), 0);

describe('the half section', () => {
  test.each([
    // A square metre of 7 mm: 1020 × 1800 × 0.007 J/K; a metre and radian of rod: … × 0.007² / 2.
    ['slab', 0.007, 1020 * 1800 * 0.007, 2700 * 900 * 0.012],
    ['cylinder', 0.007, (1020 * 1800 * 0.007 ** 2) / 2, (2700 * 900 * (0.019 ** 2 - 0.007 ** 2)) / 2],
  ] as const)('of a %s holds what its bait and its wall hold', (form, halfM, bait, wall) => {
    const section = halfSection(form, halfM, 0.012, PLASTISOL, ALUMINIUM, 12);
    const held = (from: number, to?: number) => section.capacity.slice(from, to).reduce((sum, one) => sum + one, 0);
    expect(held(0, section.bait) / bait).toBeCloseTo(1, 9);
    expect(held(section.bait) / wall).toBeCloseTo(1, 9);
  });

  test('cells in a row conduct as the whole does: thickness over conductivity, and the air after it', () => {
    const section = halfSection('slab', 0.006, 0.01, PLASTISOL, RUBBER, 12);
    const resistance = section.between.reduce((sum, one) => sum + 1 / one, 0) + 1 / section.outer;
    const fromFirst =
      resistance +
      (1 / (2 * 0.16)) *
        (0.006 - section.capacity.slice(1, section.bait).reduce((sum, one) => sum + one, 0) / (1020 * 1800));
    expect(fromFirst).toBeCloseTo(0.006 / 0.16 + 0.01 / 0.25 + 1 / 12, 6);
  });
});

describe('against what is known exactly', () => {
  test.each([
    ['aluminium', ALUMINIUM],
    ['rubber', RUBBER],
  ])('where bait and %s meet it is at once at the contact temperature', (_name, wall) => {
    const { field } = poured('slab', 0.02, 0.05, wall, 168, 20, 0);
    carry(field, 0.5);
    const [bait, mold] = [effusivity(PLASTISOL), effusivity(wall)];
    // Carslaw and Jaeger, two half spaces in contact: weighed by √(kρc), as long as neither end is felt.
    expect(field.skin()).toBeCloseTo((bait * 168 + mold * 20) / (bait + mold), 0);
    expect(field.centre()).toBeCloseTo(168, 6);
  });

  test.each(['slab', 'cylinder'] as const)('a %s that loses nothing keeps its heat, and ends even', (form) => {
    const { section, c, field } = poured(form, 0.006, 0.01, ALUMINIUM, 168, 20, 0);
    const before = heatIn(section.capacity, c);
    carry(field, 20);
    expect(heatIn(section.capacity, c) / before).toBeCloseTo(1, 9);
    carry(field, 50_000);
    const even = before / section.capacity.reduce((sum, one) => sum + one, 0);
    expect([field.mean(), field.centre(), field.skin()].map((one) => Number(one.toFixed(3)))).toEqual(
      Array.from({ length: 3 }, () => Number(even.toFixed(3))),
    );
  });

  test('an open mold of thin metal cools by both faces alike: e to the minus 2ht/(ρc d)', () => {
    const section = halfSection('slab', 0.006, 0.004, PLASTISOL, ALUMINIUM, 12);
    const c = new Float64Array(section.capacity.length).fill(80);
    const field = new Field(section, c, section.bait, 20);
    carry(field, 300);
    const share = Math.exp((-2 * 12 * 300) / (2700 * 900 * 0.004));
    expect(c.at(-1)).toBeCloseTo(20 + 60 * share, 1);
    // There is no bait in it: what stood there stays as it was.
    expect([...c.slice(0, section.bait)]).toEqual(Array.from({ length: section.bait }, () => 80));
  });

  test('left alone long enough, all of it comes to the room', () => {
    const { c, field } = poured('cylinder', 0.005, 0.008, RUBBER, 168, 23, 12);
    carry(field, 200_000);
    expect(Math.max(...c) - 23).toBeLessThan(1e-3);
  });
});

test('no place ever gets hotter than the plastic was, or colder than the room and the mold', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<Form>('slab', 'cylinder'),
      fc.constantFrom(ALUMINIUM, RUBBER),
      fc.double({ min: 0.002, max: 0.015, noNaN: true }),
      fc.double({ min: 0.004, max: 0.02, noNaN: true }),
      fc.double({ min: 1, max: 2000, noNaN: true }),
      (form, wall, halfM, wallM, untilS) => {
        const { c, field } = poured(form, halfM, wallM, wall, 168, 20, 12);
        let means = 168;
        carry(field, untilS, (_from, _to) => {
          expect(field.mean()).toBeLessThan(means + 1e-6);
          means = field.mean();
        });
        expect(Math.max(...c)).toBeLessThan(168 + 1e-6);
        expect(Math.min(...c)).toBeGreaterThan(20 - 1e-6);
        // From the middle outwards it only falls.
        expect([...c].every((value, i) => i === 0 || value <= (c[i - 1] as number) + 1e-6)).toBe(true);
      },
    ),
    { numRuns: 30 },
  );
});

test('what is watched is every step, end to end', () => {
  const { field } = poured('slab', 0.006, 0.01, RUBBER, 168, 20, 12);
  const seen: [number, number][] = [];
  carry(field, 90, (from, to) => seen.push([from, to]));
  expect([seen[0]?.[0], seen.at(-1)?.[1]]).toEqual([0, 90]);
  expect(seen.every(([from], i) => i === 0 || from === seen[i - 1]?.[1])).toBe(true);
});
