import { describe, expect, test } from 'vitest';
import { check } from '../validate.ts';
import { type ProductionPlan, productionSchema } from './production.ts';
import { plannedAtOnce, produced } from './productionPlan.ts';
import { workOf } from './productionWork.ts';

const day = (n: number) => new Date(Date.UTC(2026, 2, 2 + n)).toISOString().slice(0, 10);
const evenings = (count: number, more: object = {}) =>
  Array.from({ length: count }, (_, n) => ({ day: day(n), handsMin: 180, ...more }));
const PINK = { id: 'sea pink', lightness: 0.8 };
const MOLD = { id: 'A', baitId: 'sandlance', cavities: 4, handsS: 100, waitS: 0, shotMl: 50 };
/** Two shots of four to a glass; by the hands 93 shots an evening. */
const ASKED = {
  days: evenings(12),
  lines: [{ id: 'club', baitId: 'sandlance', colourId: 'sea pink', baits: 80, due: day(8) }],
  baits: [{ id: 'sandlance' }],
  molds: [MOLD],
  colours: [PINK],
  glassMl: 110,
  residueMl: 10,
  timeLimitMs: 3000,
};
const asked = (change: object) => check(productionSchema, { ...ASKED, ...change });
const plan = async (change: object) => produced(asked(change), { nowMs: () => performance.now() });
const shotsOn = ({ days }: ProductionPlan) =>
  days.map(({ cups }) => cups.flatMap(({ molds }) => molds).reduce((sum, { shots }) => sum + shots, 0));
const SHOTS = workOf(asked({})).products[0]?.shots as number;

test('what the cases below count on: 23 shots, all of them on one evening', async () => {
  expect(SHOTS).toBe(23);
  expect(shotsOn(await plan({}))).toEqual([23, ...Array(11).fill(0)]);
});

describe('an evening has only so much of', () => {
  test.each([
    ['oven', { ovenMin: 50 }, { ovenMin: 12 }, 4],
    ['vacuum', { pumpMin: 20 }, { pumpMin: 4 }, 5],
  ] as const)('%s: as many glasses as go into its minutes', async (mean, ofDay, ofGlass, glasses) => {
    const found = await plan({ days: evenings(12, ofDay), colours: [{ ...PINK, ...ofGlass }] });
    expect(Math.max(...found.days.map(({ cups }) => cups[0]?.glasses ?? 0))).toBe(glasses);
    expect(found.days[0]?.full).toEqual([mean]);
    expect(shotsOn(found).filter((n) => n > 0)).toHaveLength(Math.ceil(SHOTS / (2 * glasses)));
  });

  test('boards: baits lie until they are cured, whatever day they are poured on', async () => {
    // Room for forty: ten shots an evening, cured the next; ten in two evenings where it takes two.
    const days = evenings(12, { boardBaits: 40 });
    expect(shotsOn(await plan({ days })).slice(0, 4)).toEqual([10, 10, 3, 0]);
    const slow = await plan({ days, baits: [{ id: 'sandlance', cureH: 48 }] });
    const shots = shotsOn(slow);
    expect(Math.max(...shots.map((n, at) => n + (shots[at - 1] ?? 0)))).toBe(10);
    expect(shots.reduce((sum, n) => sum + n, 0)).toBe(SHOTS);
    expect(slow.days[0]?.full).toEqual(['boards']);
  });
  test.each([
    // Eight shots are four glasses of 12 min to the minute; a thousandth less is three of them.
    ['to the minute', 48, 4],
    ['a thousandth of one less', 47.999, 3],
  ])('oven: %s', async (_, ovenMin, glasses) =>
    expect(
      Math.max(
        ...(await plan({ days: evenings(12, { ovenMin }), colours: [{ ...PINK, ovenMin: 12 }] })).days.map(
          ({ cups }) => cups[0]?.glasses ?? 0,
        ),
      ),
    ).toBe(glasses),
  );
  test('two melts take two glasses of it, and of pump and boards no more than their own', async () => {
    const two = { colours: [{ ...PINK, melts: 2, ovenMin: 6, pumpMin: 1 }] };
    const found = await plan({ ...two, days: evenings(12, { ovenMin: 48, pumpMin: 100, boardBaits: 1000 }) });
    expect(found.days[0]).toMatchObject({ full: ['oven'], cups: [{ glasses: 8 }] });
  });
  test('boards: what lies there already leaves less room, and none on one day', async () => {
    // It could lie there in parts; all at once is one colour less to begin each time, and in time.
    const days = [0, 8, 16, 400].map((boardBaits, n) => ({ day: day(n), handsMin: 180, boardBaits }));
    expect(
      shotsOn(
        await plan({ lines: [{ ...ASKED.lines[0], due: day(4) }], days: [...days, ...evenings(12).slice(4)] }),
      ).slice(0, 4),
    ).toEqual([0, 0, 0, 23]);
  });
});

describe('injectors', () => {
  const two = { colours: [{ ...PINK, melts: 2, pushed: 2 }], molds: [{ ...MOLD, injected: true }] };
  test.each([
    ['one, for two that are pushed at once', { ...two, injectors: 1 }, 'too-few-injectors'],
    ['two', { ...two, injectors: 2 }, null],
    ['nobody said how many', two, null],
    ['poured by hand', { ...two, molds: [MOLD], injectors: 1 }, null],
  ])('%s', async (_, change, why) => expect((await plan(change)).lines[0]?.why).toBe(why));
});

describe('what the store holds', () => {
  const takes = [{ materialId: 'firm', gPerMl: 1 }];
  const stored = (g: number, from?: number) => ({
    colours: [{ ...PINK, takes }],
    materials: [{ id: 'firm', g, ...(from === undefined ? {} : { from: day(from) }) }],
  });
  // Twelve glasses and what stays in them: 1270 mL.
  test('enough of it is not spoken of', async () =>
    expect(await plan(stored(1500))).toMatchObject({ materials: [], lines: [{ why: null }] }));
  test('too little, and never more: so many shots are poured, and the rest is short of it', async () => {
    const found = await plan(stored(600));
    // Five glasses and 50 g: ten shots.
    expect(shotsOn(found)[0]).toBe(10);
    expect(found.lines[0]).toMatchObject({ packedOn: null, why: 'no-material' });
    expect(found.days[0]?.full).toEqual(['materials']);
    expect(found.materials).toEqual([{ materialId: 'firm', takesG: 550, wantedG: 1270, shortG: 670 }]);
    expect(found.materials[0]?.wantedG).toBeGreaterThanOrEqual(1270);
  });
  test('more comes: what is there is poured before, the rest from that day on', async () => {
    const lines = [{ ...ASKED.lines[0], due: day(3) }];
    const shots = shotsOn(await plan({ ...stored(600, 5), lines }));
    // In time for all of it: nothing is begun twice.
    expect(shotsOn(await plan(stored(600, 5)))[5]).toBe(SHOTS);
    expect(shots.slice(0, 5).reduce((sum, n) => sum + n, 0)).toBe(10);
    expect(shots.slice(5).reduce((sum, n) => sum + n, 0)).toBe(SHOTS - 10);
  });
  test('it is there today already: nothing waits', async () =>
    expect(await plan(stored(0, 0))).toMatchObject({ materials: [], lines: [{ why: null }] }));
  test('what is due first has it; what takes none of it is poured beside', async () => {
    const lines = [
      { ...ASKED.lines[0], id: 'later', due: day(9), baits: 40 },
      { ...ASKED.lines[0], id: 'first', baits: 32 },
      { ...ASKED.lines[0], id: 'plain', colourId: 'bare', baits: 40 },
    ];
    const { colours, materials } = stored(600);
    const found = await plan({ lines, materials, colours: [...colours, { id: 'bare' }] });
    expect(found.lines.map(({ lineId, shortBaits, why }) => [lineId, shortBaits === 0, why])).toEqual([
      ['later', false, 'no-material'],
      ['first', true, null],
      ['plain', true, null],
    ]);
  });
  test('the plan that is there at once keeps to it as well', () =>
    expect(plannedAtOnce(asked(stored(600))).materials[0]?.takesG).toBeLessThanOrEqual(600));
  test.each([
    [
      'a material twice',
      {
        materials: [
          { id: 'firm', g: 1 },
          { id: 'firm', g: 2 },
        ],
      },
      'materials.1.id',
    ],
    ['less than nothing in store', { materials: [{ id: 'firm', g: -1 }] }, 'materials.0.g'],
    ['half a bait on a board', { days: evenings(2, { boardBaits: 0.5 }) }, 'days.0.boardBaits'],
  ])('%s is refused', (_, change, path) =>
    expect(() => asked(change)).toThrow(expect.objectContaining({ code: 'invalid-input', path })),
  );
});
