import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { check } from '../validate.ts';
import { type Production, type ProductionPlan, productionSchema } from './production.ts';
import { produced } from './productionPlan.ts';
import { workOf } from './productionWork.ts';

const DAYS = Array.from({ length: 60 }, (_, i) => new Date(Date.UTC(2026, 2, 2 + i)).toISOString().slice(0, 10));
const day = (n: number) => DAYS[n] as string;
const evenings = (count: number, handsMin = 180) => DAYS.slice(0, count).map((one) => ({ day: one, handsMin }));
const ASKED = {
  days: evenings(8),
  lines: [{ id: 'club', baitId: 'sandlance', colourId: 'sea pink', baits: 80, due: day(4) }],
  baits: [{ id: 'sandlance' }],
  molds: [{ id: 'A', baitId: 'sandlance', cavities: 4, handsS: 130, waitS: 200, shotMl: 50 }],
  colours: [
    { id: 'sea pink', lightness: 0.8 },
    { id: 'night ferry', lightness: 0.1 },
  ],
  timeLimitMs: 6000,
};
const clock = { nowMs: () => performance.now() };
const plan = async (change: object = {}, search: object = {}) =>
  produced(check(productionSchema, { ...ASKED, ...change }), { ...clock, ...search });
const pouredDays = ({ days }: ProductionPlan, colourId?: string) =>
  days.flatMap(({ cups }, at) => (cups.some((cup) => !colourId || cup.colourId === colourId) ? [at] : []));
const shotsIn = ({ days }: ProductionPlan) =>
  days.flatMap(({ cups }) => cups.flatMap(({ molds }) => molds)).reduce((sum, { shots }) => sum + shots, 0);

describe('what a bulk order takes', () => {
  // Rejects that make 1,200 good ones 344 shots of four.
  const bulk = {
    lines: [{ id: 'bulk', baitId: 'sandlance', colourId: 'sea pink', baits: 1200, due: day(5) }],
    baits: [{ id: 'sandlance', packS: 45 / 8 }],
    rejects: [{ baitId: 'sandlance', rejected: 101, made: 900 }],
    molds: [{ ...ASKED.molds[0], waitS: 0, shotMl: 40 }],
    timeLimitMs: 8000,
  };
  const shots = workOf(check(productionSchema, { ...ASKED, ...bulk })).products[0]?.shots as number;
  test(`344 shots of 130 s are 12.4 h of hands: five evenings of three hours, cured and packed on the sixth day`, async () => {
    expect(shots).toBe(344);
    const found = await plan(bulk);
    expect(pouredDays(found)).toEqual([0, 1, 2, 3, 4]);
    expect(shotsIn(found)).toBe(344);
    expect(found.days.reduce((sum, { pourMin }) => sum + pourMin, 0)).toBeCloseTo((344 * 130) / 60 + 5 * 25, 6);
    expect(found.lines).toEqual([{ lineId: 'bulk', packedOn: day(5), lateDays: 0, shortBaits: 0, why: null }]);
    // 150 bags of 45 s are 1.9 h.
    expect(found.days.reduce((sum, { packMin }) => sum + packMin, 0)).toBeCloseTo(112.5, 6);
    expect(found).toMatchObject({ lateBaitDays: 0, boundBaitDays: 0, gap: 0 });
  });
  test('a second mold makes it no shorter: hands decide', async () => {
    const found = await plan({ ...bulk, molds: [...bulk.molds, { ...bulk.molds[0], id: 'B' }] });
    expect(pouredDays(found)).toEqual([0, 1, 2, 3, 4]);
    expect(found.days[0]?.full).toEqual(['hands']);
    // Twins share.
    const [one, two] = found.days[0]?.cups[0]?.molds ?? [];
    expect(Math.abs((one?.shots as number) - (two?.shots as number))).toBeLessThanOrEqual(1);
  });
});

describe('what limits a plan', () => {
  const shots = workOf(check(productionSchema, ASKED)).products[0]?.shots as number;
  test('nothing is packed before it is cured, nor before it is dry', async () => {
    const due = [{ ...ASKED.lines[0], due: day(0) }];
    expect((await plan({ lines: due })).lines[0]).toMatchObject({ packedOn: day(1), lateDays: 1 });
    const slow = [{ id: 'sandlance', cureH: 40, dryH: 12 }];
    expect((await plan({ lines: due, baits: slow })).lines[0]).toMatchObject({ packedOn: day(3), lateDays: 3 });
  });
  test('a day off is none, a mold that still sets pours none, one that is retired no more', async () => {
    const off = [...evenings(1, 0), ...evenings(8).slice(1)];
    expect(pouredDays(await plan({ days: off }))[0]).toBe(1);
    expect(pouredDays(await plan({ molds: [{ ...ASKED.molds[0], from: day(2) }] }))[0]).toBe(2);
    // 28 shots a day at 330 s in 155 min; what is left has no mold.
    const gone = await plan({
      lines: [{ ...ASKED.lines[0], baits: 400 }],
      molds: [{ ...ASKED.molds[0], until: day(0) }],
    });
    expect(pouredDays(gone)).toEqual([0]);
    expect(gone.lines[0]).toMatchObject({ packedOn: null, why: 'no-time' });
  });
  test('no hours at all: nothing is promised, and it is said', async () => {
    const none = await plan({ days: evenings(5, 0) });
    expect(none.lines[0]).toEqual({ lineId: 'club', packedOn: null, lateDays: null, shortBaits: 80, why: 'no-time' });
    expect(pouredDays(none)).toEqual([]);
  });
  test('without a mold, and with one too large for a glass, the line says why', async () => {
    expect((await plan({ molds: [] })).lines[0]).toMatchObject({ shortBaits: 80, why: 'no-mold' });
    expect((await plan({ glassMl: 60, residueMl: 11 })).lines[0]?.why).toBe('too-large-for-a-glass');
  });
  test('what lies there is poured by nobody; what cures is packed when it has', async () => {
    const stock = [{ baitId: 'sandlance', colourId: 'sea pink', baits: 80, ready: day(3) }];
    const found = await plan({ stock });
    expect(shotsIn(found)).toBe(0);
    expect(found.lines[0]?.packedOn).toBe(day(3));
  });
  test('bags are full, but for what is over in the last one', async () => {
    // Eight, eight and four; a mold of four with 90 % certainty gives them in more than one evening of two shots.
    const lines = [{ ...ASKED.lines[0], baits: 20, perPack: 8 }];
    const { days } = await plan({
      lines,
      glassMl: 110,
      residueMl: 10,
      days: evenings(8).map((one) => ({ ...one, glasses: 1 })),
    });
    const packed = days.flatMap(({ packed: rows }) => rows.map(({ baits }) => baits));
    expect(packed.reduce((sum, n) => sum + n, 0)).toBe(20);
    expect(packed.slice(0, -1).every((n) => n % 8 === 0)).toBe(true);
    expect(packed.length).toBeGreaterThan(1);
  });
  test('glasses are whole, and no more of them than there are', async () => {
    // Two shots to a glass, three glasses: six shots an evening.
    const found = await plan({
      glassMl: 110,
      residueMl: 10,
      days: evenings(8).map((one) => ({ ...one, glasses: 3 })),
    });
    expect(found.days[0]).toMatchObject({ full: ['glasses'], cups: [{ glasses: 3, molds: [{ shots: 6 }] }] });
    expect(shotsIn(found)).toBe(shots);
  });
  test('light before dark; what takes remelt of the others last', async () => {
    const lines = ['night ferry', 'sea pink', 'old pot'].map((colourId) => ({
      ...ASKED.lines[0],
      id: colourId,
      colourId,
      baits: 8,
    }));
    const colours = [...ASKED.colours, { id: 'old pot', lightness: 0.9, takesRemelt: true }];
    const { days } = await plan({ lines, colours });
    expect(days.flatMap(({ cups }) => cups.map(({ colourId }) => colourId))).toEqual([
      'sea pink',
      'night ferry',
      'old pot',
    ]);
  });
});

describe('what is fixed by hand', () => {
  test('stays where it was put, and what it costs is told', async () => {
    const found = await plan({ pins: [{ colourId: 'sea pink', day: day(4) }] });
    expect(pouredDays(found, 'sea pink')).toEqual([4]);
    expect(found.days[4]?.cups[0]?.pinned).toBe(true);
    // Eighty baits a day late, where none was.
    expect(found.lateBaitDays).toBe(80);
    expect((await plan()).lateBaitDays).toBe(0);
  });
  test('an evening it is taken off is none of its own; the others are', async () => {
    const found = await plan({ pins: [0, 2].map((n) => ({ colourId: 'sea pink', day: day(n), on: false })) });
    expect(pouredDays(found)).toEqual([1]);
  });
  test('on a day that nobody works nothing is fixed', async () => {
    const days = evenings(8).map((one, n) => ({ ...one, handsMin: n === 1 ? 0 : 180 }));
    expect(pouredDays(await plan({ days, pins: [{ colourId: 'sea pink', day: day(1) }] }))).toEqual([0]);
  });
  test('of a colour that nobody wants nothing is poured', async () =>
    expect(pouredDays(await plan({ pins: [{ colourId: 'night ferry', day: day(1) }] }), 'night ferry')).toEqual([]));
});

describe('a solver that gives none', () => {
  const many = {
    lines: [0, 1, 2, 3].map((n) => ({ id: `${n}`, baitId: 'sandlance', colourId: 'sea pink', baits: 80, due: day(n) })),
  };
  test('is said, and the plan by due dates stands', async () => {
    const found = await plan(many, { solver: () => Promise.reject(new Error('out of memory')) });
    expect(found).toMatchObject({ by: 'heuristic', stopped: 'failed', fault: 'out of memory' });
    expect(found.lines.every(({ why }) => why === null)).toBe(true);
  });
  test('one that breaks while it looks leaves what stood by then', async () => {
    const broken = () =>
      Promise.resolve({
        infinity: Number.POSITIVE_INFINITY,
        constants: { variableType: { integer: 1, continuous: 0 } },
        createModel: () => {
          throw new Error('memory access out of bounds');
        },
      });
    const found = await plan({ ...many, days: evenings(8, 60) }, { solver: broken });
    expect(found).toMatchObject({ stopped: 'failed', fault: 'memory access out of bounds' });
    expect(shotsIn(found)).toBeGreaterThan(0);
  });
  test('no time: the same, and nothing is said to be proved', async () =>
    expect(await plan({ ...many, timeLimitMs: 0 })).toMatchObject({
      by: 'heuristic',
      stopped: 'time',
      boundBaitDays: null,
      gap: null,
    }));
  test('whoever looks on may stop it', async () =>
    expect((await plan(many, { stopped: () => true })).stopped).toBe('asked'));
});

describe('bad input', () => {
  test.each([
    ['a day twice', { days: [...evenings(1), ...evenings(1)] }, 'days.1.day'],
    ['a day left out', { days: [evenings(1)[0], evenings(3)[2]] }, 'days.1.day'],
    ['no such day', { days: [{ day: '2026-02-30', handsMin: 10 }] }, 'days.0.day'],
    ['a bait that is not there', { lines: [{ ...ASKED.lines[0], baitId: 'eel' }] }, 'lines.0.baitId'],
    ['a line twice', { lines: [ASKED.lines[0], ASKED.lines[0]] }, 'lines.1.id'],
    ['hours below none', { days: evenings(2, -1) }, 'days.0.handsMin'],
    ['a pin on no day of it', { pins: [{ colourId: 'sea pink', day: day(50) }] }, 'pins.0.day'],
  ])('%s is refused', async (_, change, path) =>
    expect(await plan(change).catch((error: unknown) => error)).toMatchObject({ code: 'invalid-input', path }),
  );
});

/** Every day's own sums, taken from the plan alone and by other code. */
function faults(asked: Production, found: ProductionPlan): string[] {
  const said: string[] = [];
  const packedOf = new Map<string, number>();
  const made: { at: number; baits: number }[] = [];
  let takenG = 0;
  const cavitiesOf = (moldId: string) => asked.molds.find(({ id }) => id === moldId)?.cavities ?? 0;
  const curesIn = Math.ceil((asked.baits[0]?.cureH as number) / 24);
  const poured = new Map<string, { at: number; baits: number }[]>();
  found.days.forEach((one, at) => {
    const mine = asked.days[at] as Production['days'][number];
    const shots = one.cups.flatMap(({ molds }) => molds);
    const hands =
      shots.reduce(
        (sum, row) => sum + row.shots * (asked.molds.find(({ id }) => id === row.moldId)?.handsS as number),
        0,
      ) / 60;
    const setUp = one.cups.length === 0 ? 0 : asked.setUpMin + (one.cups.length - 1) * asked.changeMin;
    const pack = one.packed.reduce((sum, { lineId, baits }) => {
      const line = asked.lines.find(({ id }) => id === lineId) as Production['lines'][number];
      packedOf.set(lineId, (packedOf.get(lineId) ?? 0) + baits);
      const key = `${line.baitId} ${line.colourId}`;
      const ready = (poured.get(key) ?? [])
        .filter((row) => row.at <= at - curesIn)
        .reduce((all, row) => all + row.baits, 0);
      const taken = asked.lines
        .filter((row) => `${row.baitId} ${row.colourId}` === key)
        .reduce((all, row) => all + (packedOf.get(row.id) ?? 0), 0);
      if (taken > ready) said.push(`${mine.day}: packed ${taken} of ${ready}`);
      return sum + (baits * (asked.baits.find(({ id }) => id === line.baitId)?.packS as number)) / 60;
    }, 0);
    if (hands + setUp + pack > mine.handsMin + 1e-6)
      said.push(`${mine.day}: ${hands + setUp + pack} min of ${mine.handsMin}`);
    for (const mold of asked.molds) {
      const busyS =
        shots.filter((row) => row.moldId === mold.id).reduce((sum, row) => sum + row.shots, 0) *
        (mold.handsS + mold.waitS);
      if (busyS > 60 * Math.max(0, mine.handsMin - asked.setUpMin) + 1e-6)
        said.push(`${mine.day}: ${mold.id} for ${busyS} s`);
    }
    if (one.cups.reduce((sum, { glasses }) => sum + glasses, 0) > (mine.glasses ?? 200))
      said.push(`${mine.day}: glasses`);
    const perGlass = (of: 'ovenMin' | 'pumpMin') =>
      one.cups.reduce(
        (sum, cup) => sum + cup.glasses * (asked.colours.find(({ id }) => id === cup.colourId)?.[of] ?? 0),
        0,
      );
    if (perGlass('ovenMin') > (mine.ovenMin ?? Number.POSITIVE_INFINITY)) said.push(`${mine.day}: oven`);
    if (perGlass('pumpMin') > (mine.pumpMin ?? Number.POSITIVE_INFINITY)) said.push(`${mine.day}: vacuum`);
    for (const cup of one.cups)
      for (const row of cup.molds) made.push({ at, baits: row.shots * cavitiesOf(row.moldId) });
    const lie = made.filter((row) => row.at > at - curesIn).reduce((sum, { baits }) => sum + baits, 0);
    if (lie > (mine.boardBaits ?? Number.POSITIVE_INFINITY)) said.push(`${mine.day}: ${lie} lie on the boards`);
    takenG += one.cups.reduce((sum, { drawnMl, glasses }) => sum + drawnMl + glasses * asked.residueMl, 0);
    const [firm] = asked.materials;
    if (firm && (!firm.from || mine.day < firm.from) && takenG > firm.g + 0.01)
      said.push(`${mine.day}: ${takenG} g taken`);
    for (const cup of one.cups)
      for (const row of cup.molds) {
        const key = `${row.baitId} ${cup.colourId}`;
        poured.set(key, [...(poured.get(key) ?? []), { at, baits: row.baits }]);
      }
  });
  for (const line of found.lines) {
    const asks = asked.lines.find(({ id }) => id === line.lineId) as Production['lines'][number];
    if ((packedOf.get(line.lineId) ?? 0) + line.shortBaits !== asks.baits) said.push(`${line.lineId}: some are lost`);
    if (line.shortBaits > 0 !== (line.why !== null)) said.push(`${line.lineId}: short without a reason`);
  }
  if (found.boundBaitDays !== null && found.lateBaitDays < found.boundBaitDays - 1e-6)
    said.push('better than the best');
  return said;
}

const some = fc.record({
  handsMin: fc.array(fc.constantFrom(0, 60, 120, 240), { minLength: 3, maxLength: 6 }),
  lines: fc.array(
    fc.record({ bait: fc.nat(2), colour: fc.nat(2), baits: fc.integer({ min: 1, max: 120 }), due: fc.nat(5) }),
    { minLength: 1, maxLength: 8 },
  ),
  molds: fc.array(
    fc.record({ bait: fc.nat(2), cavities: fc.constantFrom(2, 4), waitS: fc.constantFrom(0, 120, 600) }),
    { maxLength: 5 },
  ),
  glasses: fc.constantFrom(1, 2, 9),
  packS: fc.constantFrom(0, 6),
  cureH: fc.constantFrom(24, 48),
  boardBaits: fc.constantFrom(undefined, 8, 40),
  ovenMin: fc.constantFrom(undefined, 10, 30),
  pumpMin: fc.constantFrom(undefined, 4, 9),
  firm: fc.constantFrom(undefined, { g: 300 }, { g: 200, from: day(2) }),
});
type Some = typeof some extends fc.Arbitrary<infer T> ? T : never;
const askedOf = ({ handsMin, lines, molds, glasses, packS, cureH, firm, ...of }: Some) =>
  check(productionSchema, {
    days: handsMin.map((minutes, at) => ({
      day: day(at),
      handsMin: minutes,
      glasses,
      ...Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)),
    })),
    materials: firm ? [{ id: 'firm', ...firm }] : [],
    lines: lines.map((line, at) => ({
      id: `${at}`,
      baitId: `${line.bait}`,
      colourId: `${line.colour}`,
      baits: line.baits,
      due: day(line.due),
    })),
    baits: [0, 1, 2].map((n) => ({ id: `${n}`, packS, cureH })),
    molds: molds.map((mold, at) => ({
      id: `m${at}`,
      baitId: `${mold.bait}`,
      cavities: mold.cavities,
      handsS: 120,
      waitS: mold.waitS,
      shotMl: 60,
    })),
    colours: [0, 1, 2].map((n) => ({
      id: `${n}`,
      lightness: n / 2,
      ovenMin: 5,
      pumpMin: 2,
      takes: [{ materialId: 'firm', gPerMl: 1 }],
    })),
    glassMl: 400,
    residueMl: 20,
    timeLimitMs: 150,
  });

/** Each colour is shared out to the three molds: both together must not give one more than its day. */
const TWO_COLOURS_IN_TWINS: Some = {
  handsMin: [0, 120, 0],
  lines: [
    { bait: 1, colour: 0, baits: 3, due: 0 },
    { bait: 1, colour: 1, baits: 57, due: 0 },
  ],
  molds: [
    { bait: 1, cavities: 2, waitS: 120 },
    { bait: 1, cavities: 2, waitS: 600 },
    { bait: 1, cavities: 2, waitS: 600 },
  ],
  glasses: 9,
  packS: 0,
  cureH: 24,
  boardBaits: undefined,
  ovenMin: undefined,
  pumpMin: undefined,
  firm: undefined,
};

test('each day keeps its hands, molds and glasses; all is packed or named; nothing is better than the bound', async () => {
  await fc.assert(
    fc.asyncProperty(some, async (one) => {
      const asked = askedOf(one);
      expect(faults(asked, await produced(asked, clock))).toEqual([]);
    }),
    { numRuns: 90, examples: [[TWO_COLOURS_IN_TWINS]] },
  );
}, 60_000);

test('with time enough it is as little late as the best of all plans of tiny weeks, counted one by one', async () => {
  const tiny = fc.record({
    handsMin: fc.array(fc.constantFrom(40, 50, 90), { minLength: 3, maxLength: 3 }),
    lines: fc.array(fc.record({ colour: fc.nat(1), shots: fc.integer({ min: 1, max: 4 }), due: fc.nat(2) }), {
      minLength: 1,
      maxLength: 3,
    }),
  });
  await fc.assert(
    fc.asyncProperty(tiny, async ({ handsMin, lines }) => {
      // One bait a shot, none rejected that is known of: a confidence of one half asks for as many shots as baits, or one more.
      const asked = check(productionSchema, {
        ...ASKED,
        days: handsMin.map((minutes, at) => ({ day: day(at), handsMin: minutes })),
        lines: lines.map(({ colour, shots, due }, at) => ({
          id: `${at}`,
          baitId: 'sandlance',
          colourId: ASKED.colours[colour]?.id,
          baits: shots,
          due: day(due),
        })),
        molds: [{ ...ASKED.molds[0], cavities: 1, handsS: 600, waitS: 0 }],
        confidence: 0.5,
        timeLimitMs: 4000,
      });
      const work = workOf(asked);
      const found = await produced(asked, clock);
      // Shots of each colour on the first two days: what is poured on the last is packed on none.
      let least = Number.POSITIVE_INFINITY;
      const totals = work.products.map(({ shots }) => shots);
      const late = (poured: number[][]) => {
        let sum = 0;
        for (let at = 0; at < 3; at++)
          work.products.forEach((product, p) => {
            const shots = (poured[p] as number[]).slice(0, at).reduce((all, n) => all + n, 0);
            const good = shots >= product.shots ? product.need : Math.floor(product.goodAShot * shots + 1e-9);
            sum += Math.max(0, (product.dueBy[at] as number) - good);
          });
        return sum;
      };
      const fits = (poured: number[][]) =>
        [0, 1].every((at) => {
          const on = poured.map((row) => row[at] as number);
          const colours = on.filter((n) => n > 0).length;
          const minutes = colours === 0 ? 0 : 25 + 10 * (colours - 1) + 10 * on.reduce((all, n) => all + n, 0);
          const most = Math.floor(((handsMin[at] as number) - 25) / 10);
          return minutes <= (handsMin[at] as number) && on.reduce((all, n) => all + n, 0) <= most;
        });
      const tried = (p: number, poured: number[][]): void => {
        if (p === totals.length) {
          if (fits(poured)) least = Math.min(least, late(poured));
          return;
        }
        for (let a = 0; a <= (totals[p] as number); a++)
          for (let b = 0; a + b <= (totals[p] as number); b++) tried(p + 1, [...poured, [a, b]]);
      };
      tried(0, []);
      expect(found.stopped).toBe('done');
      expect(found.lateBaitDays).toBe(least);
    }),
    { numRuns: 30 },
  );
}, 120_000);
