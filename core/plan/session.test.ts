import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { type SessionInput, type SessionPlan, sessionSchema, simulate, simulated } from './session.ts';
import type { Bar } from './sessionState.ts';

const plan = (input: SessionInput): SessionPlan => check(sessionSchema, input);
const go = (cupId: string, more: object = {}) => ({
  cupIds: [cupId],
  fillS: 70,
  drawS: 15,
  lowC: 158,
  highC: 180,
  ...more,
});

const ONE: SessionInput = {
  cups: [{ id: 'a', bursts: [60], reheatS: 45 }],
  molds: [{ id: 'm', openS: 60, demoldS: [100] }],
  shots: [{ moldId: 'm', count: 2, goes: [go('a')] }],
};

const hands = (timeline: Bar[]) =>
  timeline.filter(({ resource }) => resource === 'person').map(({ from, to, did }) => `${from}-${to} ${did}`);

describe('one cup, one mold, by hand', () => {
  test('kept warm: load, stir, fill, wait, open, and again', () => {
    const { timeline, totalS, idleS, exact, busy, bottleneck, moldsToKeepBusy, reheats } = simulate(plan(ONE));
    expect(hands(timeline)).toEqual([
      '0-10 start',
      '70-85 stir',
      '85-155 fill',
      '255-315 open',
      '315-385 fill',
      '485-545 open',
    ]);
    expect({ totalS, exact, reheats }).toEqual({ totalS: 545, exact: true, reheats: { a: 0 } });
    // 10 + 15 + 2 × 70 + 2 × 60 of hands.
    expect(idleS).toBe(545 - 285);
    expect(busy).toEqual([
      { resource: 'mold m', s: 460 },
      { resource: 'person', s: 285 },
      { resource: 'injector 1', s: 140 },
      { resource: 'oven', s: 60 },
    ]);
    expect(bottleneck).toBe('mold m');
    // Hands 130 s a shot, wait 100 s: two molds keep them busy.
    expect(moldsToKeepBusy).toBe(2);
  });

  test('let cool, it is 158 °C after 70 s: the second shot needs a reheat', () => {
    const { totalS, reheats } = simulate(plan({ ...ONE, keepWarm: false }));
    expect(reheats).toEqual({ a: 1 });
    // Reheated while the mold is opened, stirred when the hands are free.
    expect(totalS).toBe(560);
  });

  test('a printed mold waits until the cup has fallen to what it bears', () => {
    const { timeline } = simulate(
      plan({ ...ONE, shots: [{ moldId: 'm', count: 1, goes: [go('a', { lowC: 145, highC: 155 })] }] }),
    );
    const fill = timeline.find(({ resource, did }) => resource === 'person' && did === 'fill');
    // 600·ln((175 − 20)/(155 − 20)) = 82.9 s after the stir at 85 s.
    expect(fill?.from).toBeCloseTo(85 + 600 * Math.log(155 / 135), 6);
  });

  test('the second layer waits for the first; both cups are cooked', () => {
    const layered = plan({
      cups: [
        { id: 'a', bursts: [60], reheatS: 45 },
        { id: 'b', bursts: [60], reheatS: 45 },
      ],
      molds: [{ id: 'm', openS: 60, demoldS: [100] }],
      shots: [{ moldId: 'm', count: 1, goes: [go('a', { waitS: 200 }), go('b')] }],
      injectors: 2,
      keepWarm: false,
    });
    const { timeline, totalS } = simulate(layered);
    const fills = timeline.filter(({ resource, did }) => resource === 'person' && did === 'fill');
    expect(fills.map(({ cup }) => cup)).toEqual(['a', 'b']);
    expect((fills[1]?.from ?? 0) - (fills[0]?.to ?? 0)).toBeGreaterThanOrEqual(200);
    // Load, cook, stir, fill, wait, fill, cool, open, and nothing else in its way.
    expect(totalS).toBe(10 + 60 + 15 + 70 + 200 + 70 + 100 + 60);
  });

  test('under vacuum it waits for the pump, and only the pump', () => {
    const { timeline, totalS } = simulate(plan({ ...ONE, cups: [{ id: 'a', bursts: [60], reheatS: 45, degasS: 30 }] }));
    expect(timeline.filter(({ resource }) => resource === 'vacuum')).toEqual([
      { resource: 'vacuum', from: 95, to: 125, did: 'degas', cup: 'a' },
    ]);
    expect(totalS).toBe(545 + 40);
  });
});

test('a cup that is kept a little over one window and under the other is heated again', () => {
  const { reheats } = simulate(
    plan({
      cups: [{ id: 'a', bursts: [5], reheatS: 40, tauS: 616, degasS: 60 }],
      molds: [{ id: 'm', openS: 5, demoldS: [30] }],
      shots: [
        { moldId: 'm', count: 1, goes: [go('a')] },
        { moldId: 'm', count: 1, goes: [go('a', { lowC: 145, highC: 155 })] },
      ],
      plates: 1,
      keepWarm: false,
    }),
  );
  expect(reheats).toEqual({ a: 1 });
});

test('with one injector a lighter colour after a darker one costs the cleaning', () => {
  const both = (lightness: [number, number]) =>
    simulate(
      plan({
        cups: ['a', 'b'].map((id, i) => ({
          id,
          bursts: i === 0 ? [60] : [120, 120, 120, 120],
          reheatS: 45,
          lightness: lightness[i] as number,
        })),
        molds: ['m', 'n'].map((id) => ({ id, openS: 60, demoldS: [100] })),
        shots: [
          { moldId: 'm', count: 1, goes: [go('a')] },
          { moldId: 'n', count: 1, goes: [go('b')] },
        ],
        inOrder: true,
      }),
    )
      .timeline.filter(({ resource, did }) => resource === 'person' && did === 'clean')
      .map(({ from, to }) => to - from);
  expect(both([0.8, 0.2])).toEqual([30]);
  expect(both([0.2, 0.8])).toEqual([150]);
});

test('one more mold like the one that holds it up, and a free order, are tried', () => {
  const slow = plan({
    ...ONE,
    molds: [{ id: 'm', openS: 60, demoldS: [900] }],
    shots: [{ moldId: 'm', count: 4, goes: [go('a')] }],
  });
  const { helps, totalS } = simulated(slow);
  // Four shots after each other: 85 + 4 × (70 + 900 + 60); two molds: about half of the waits.
  expect(totalS).toBe(85 + 4 * 1030);
  expect(helps).toEqual([
    { change: 'one-more-mold', moldId: 'm', order: ['a'], totalS: 85 + 2 * 1030 + 130, savesS: 1930 },
  ]);
});

describe('refusals', () => {
  test.each([
    ['a mold that is not there', { shots: [{ moldId: 'x', count: 1, goes: [go('a')] }] }, 'invalid-input'],
    ['a cup that is not there', { shots: [{ moldId: 'm', count: 1, goes: [go('x')] }] }, 'invalid-input'],
    ['a cup that nobody wants', { cups: ['a', 'b'].map((id) => ({ id, bursts: [60], reheatS: 45 })) }, 'invalid-input'],
    ['an upside-down window', { shots: [{ moldId: 'm', count: 1, goes: [go('a', { lowC: 190 })] }] }, 'invalid-input'],
    [
      'two cups from one injector',
      { shots: [{ moldId: 'm', count: 1, goes: [{ ...go('a'), cupIds: ['a', 'a'] }] }] },
      'invalid-input',
    ],
    [
      'drawn longer than filled',
      { shots: [{ moldId: 'm', count: 1, goes: [go('a', { drawS: 71 })] }] },
      'invalid-input',
    ],
    [
      'too much of it',
      { shots: [{ moldId: 'm', count: 200, goes: Array.from({ length: 12 }, () => go('a')) }] },
      'too-large',
    ],
    [
      'a cup that falls out faster than it is drawn',
      { cups: [{ id: 'a', bursts: [60], reheatS: 45, tauS: 100 }], keepWarm: false },
      'never',
    ],
    ['never as hot as is wanted', { cups: [{ id: 'a', bursts: [60], reheatS: 45, cookedC: 150 }] }, 'never'],
  ])('%s', (_, change, code) => {
    try {
      simulate(plan({ ...ONE, ...change } as SessionInput));
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(Failure);
      expect((error as Failure).code).toBe(code);
    }
  });
});

const evening = fc.record({
  cups: fc.array(
    fc.record({
      bursts: fc.array(fc.integer({ min: 5, max: 120 }), { minLength: 1, maxLength: 3 }),
      tauS: fc.integer({ min: 400, max: 900 }),
      lightness: fc.double({ min: 0, max: 1, noNaN: true }),
      degasS: fc.constantFrom(0, 0, 60),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  molds: fc.array(
    fc.record({
      openS: fc.integer({ min: 5, max: 90 }),
      demoldS: fc.array(fc.integer({ min: 30, max: 600 }), { minLength: 1, maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  shots: fc.array(
    fc.record({
      mold: fc.nat(2),
      cup: fc.nat(2),
      count: fc.integer({ min: 1, max: 4 }),
      fillS: fc.integer({ min: 20, max: 90 }),
      printed: fc.boolean(),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  injectors: fc.integer({ min: 1, max: 2 }),
  plates: fc.integer({ min: 0, max: 1 }),
  keepWarm: fc.boolean(),
});
type Made = typeof evening extends fc.Arbitrary<infer T> ? T : never;

const asked = ({ cups, molds, shots, ...rest }: Made): SessionPlan =>
  plan({
    ...rest,
    cups: cups
      .map((one, i) => ({ ...one, id: `c${i}`, reheatS: 40 }))
      .filter((_, i) => shots.some(({ cup }) => cup % cups.length === i)),
    molds: molds.map((one, i) => ({ ...one, id: `m${i}` })),
    shots: shots.map(({ mold, cup, count, fillS, printed }) => ({
      moldId: `m${mold % molds.length}`,
      count,
      goes: [
        {
          cupIds: [`c${cup % cups.length}`],
          fillS,
          drawS: Math.min(15, fillS),
          ...(printed ? { lowC: 145, highC: 155 } : { lowC: 158, highC: 180 }),
        },
      ],
    })),
  });

describe('whatever is laid out', () => {
  test('nothing is in two places at once, all is drawn in its window, all is filled, and no resource works longer than the evening', () => {
    fc.assert(
      fc.property(evening, (made) => {
        const session = asked(made);
        const { timeline, totalS, idleS, busy, bottleneck } = simulate(session);
        const lanes = new Map<string, Bar[]>();
        for (const bar of timeline) lanes.set(bar.resource, [...(lanes.get(bar.resource) ?? []), bar]);
        for (const bars of lanes.values()) {
          const sorted = [...bars].sort((a, b) => a.from - b.from || a.to - b.to);
          sorted.forEach((bar, i) => {
            expect(bar.to).toBeGreaterThanOrEqual(bar.from);
            if (i > 0) expect(bar.from).toBeGreaterThanOrEqual((sorted[i - 1] as Bar).to - 1e-9);
          });
        }
        for (const { moldId, count } of session.shots) {
          const wanted = session.shots.reduce((sum, row) => sum + (row.moldId === moldId ? row.count : 0), 0);
          const fills = (lanes.get(`mold ${moldId}`) ?? []).filter(({ did }) => did === 'fill');
          expect(fills.length).toBe(wanted);
          expect(count).toBeLessThanOrEqual(wanted);
        }
        expect(totalS).toBeGreaterThanOrEqual(Math.max(...busy.map(({ s }) => s)) - 1e-9);
        expect(busy[0]?.resource).toBe(bottleneck);
        expect(idleS).toBeCloseTo(totalS - (busy.find(({ resource }) => resource === 'person')?.s ?? 0), 9);
        for (const heat of heatsAt(session, timeline)) {
          expect(heat.coldest).toBeGreaterThanOrEqual(heat.lowC - 1e-6);
          expect(heat.hottest).toBeLessThanOrEqual(heat.highC + 1e-6);
        }
      }),
      { numRuns: 30 },
    );
  }, 60_000);
});

/** Each draw's heat worked out again from the bars alone: for cups that nobody keeps warm. */
function heatsAt(session: SessionPlan, timeline: Bar[]) {
  if (session.keepWarm || session.plates > 0) return [];
  return timeline
    .filter(({ resource, did }) => resource.startsWith('cup ') && did === 'fill')
    .map(({ cup, from, to, mold }) => {
      const { tauS, cookedC } = session.cups.find(({ id }) => id === cup) as SessionPlan['cups'][number];
      const out = timeline
        .filter(
          (bar) => bar.resource === `cup ${cup}` && (bar.did === 'burst' || bar.did === 'reheat') && bar.to <= from,
        )
        .reduce((last, bar) => Math.max(last, bar.to), 0);
      const c = (s: number) => session.roomC + (cookedC - session.roomC) * Math.exp(-(s - out) / tauS);
      const rows = session.shots.filter((row) => row.moldId === mold && row.goes[0]?.cupIds[0] === cup);
      const fits = rows.map(({ goes: [one] }) => one as SessionPlan['shots'][number]['goes'][number]);
      return {
        hottest: c(from),
        coldest: c(to),
        lowC: Math.min(...fits.map(({ lowC }) => lowC)),
        highC: Math.max(...fits.map(({ highC }) => highC)),
      };
    });
}

/** All orders of the hands' work of a tiny evening, tried one by one, with rules of its own: cups keep their heat, injectors are many. */
function everyOrder({ cups, molds, shots, loadS, stirS }: SessionPlan): number {
  let best = Number.POSITIVE_INFINITY;
  const walk = (
    now: number,
    ovenFrom: number,
    cupAt: { burst: number; until: number }[],
    moldAt: { from: number; full: boolean; nth: number }[],
    left: number[],
    cooking: number,
  ): void => {
    if (now >= best) return;
    if (left.every((n) => n === 0) && moldAt.every(({ full }) => !full)) {
      best = now;
    }
    cupAt.forEach((cup, i) => {
      const { bursts } = cups[i] as SessionPlan['cups'][number];
      const set = (next: typeof cup) => cupAt.map((one, at) => (at === i ? next : one));
      if (cup.burst === 0 && cooking < 0) {
        const t = Math.max(now, ovenFrom) + loadS;
        walk(t, ovenFrom, set({ burst: 1, until: t + (bursts[0] as number) }), moldAt, left, i);
      } else if (cup.burst > 0 && cup.burst <= bursts.length) {
        const t = Math.max(now, cup.until) + stirS;
        const last = cup.burst === bursts.length;
        const until = last ? t : t + (bursts[cup.burst] as number);
        walk(t, last ? t : ovenFrom, set({ burst: cup.burst + 1, until }), moldAt, left, last ? -1 : cooking);
      }
    });
    moldAt.forEach((mold, m) => {
      const { id, openS, demoldS } = molds[m] as SessionPlan['molds'][number];
      const set = (next: typeof mold) => moldAt.map((one, at) => (at === m ? next : one));
      if (mold.full) {
        const t = Math.max(now, mold.from) + openS;
        walk(t, ovenFrom, cupAt, set({ ...mold, full: false, from: t }), left, cooking);
        return;
      }
      shots.forEach((row, r) => {
        if (row.moldId !== id || left[r] === 0) return;
        const [one] = row.goes as [SessionPlan['shots'][number]['goes'][number]];
        const i = cups.findIndex((cup) => cup.id === one.cupIds[0]);
        if (cupAt[i]?.burst !== (cups[i]?.bursts.length ?? 0) + 1) return;
        const t = Math.max(now, mold.from, cupAt[i]?.until ?? 0) + one.fillS;
        const wait = demoldS[Math.min(mold.nth, demoldS.length - 1)] as number;
        const then = left.map((n, at) => (at === r ? n - 1 : n));
        walk(t, ovenFrom, cupAt, set({ full: true, from: t + wait, nth: mold.nth + 1 }), then, cooking);
      });
    });
  };
  walk(
    0,
    0,
    cups.map(() => ({ burst: 0, until: 0 })),
    molds.map(() => ({ from: 0, full: false, nth: 0 })),
    shots.map(({ count }) => count),
    -1,
  );
  return best;
}

test('a tiny evening ends when the best of all orders of its work ends', () => {
  const tiny = fc.record({
    cups: fc.array(fc.array(fc.integer({ min: 5, max: 90 }), { minLength: 1, maxLength: 2 }), {
      minLength: 1,
      maxLength: 2,
    }),
    molds: fc.array(
      fc.record({
        openS: fc.integer({ min: 5, max: 60 }),
        demoldS: fc.array(fc.integer({ min: 10, max: 200 }), { minLength: 1, maxLength: 2 }),
      }),
      { minLength: 1, maxLength: 2 },
    ),
    shots: fc.array(
      fc.record({
        mold: fc.nat(1),
        cup: fc.nat(1),
        count: fc.integer({ min: 1, max: 2 }),
        fillS: fc.integer({ min: 10, max: 80 }),
      }),
      { minLength: 1, maxLength: 2 },
    ),
  });
  fc.assert(
    fc.property(tiny, ({ cups, molds, shots }) => {
      const session = plan({
        cups: cups
          .map((bursts, i) => ({ id: `c${i}`, bursts, reheatS: 30 }))
          .filter((_, i) => shots.some(({ cup }) => cup % cups.length === i)),
        molds: molds.map((one, i) => ({ ...one, id: `m${i}` })),
        shots: shots.map(({ mold, cup, count, fillS }) => ({
          moldId: `m${mold % molds.length}`,
          count,
          goes: [{ cupIds: [`c${cup % cups.length}`], fillS, lowC: 158, highC: 180 }],
        })),
        injectors: 2,
        plates: 2,
      });
      const { totalS, exact } = simulate(session);
      expect(exact).toBe(true);
      expect(totalS).toBeCloseTo(everyOrder(session), 6);
    }),
    { numRuns: 80 },
  );
}, 60_000);
