import { describe, expect, test } from 'vitest';
import type { Ticked } from '../process/evidence.ts';
import { WAYS } from '../process/ways.ts';
import { LESSONS, type Lesson, limitsOfItems } from './lessons.ts';
import { baitsOf, choicesOf, type DrawnShot, debrief } from './outcome.ts';
import { type DrillEvent, drawnShots, drillHeat, drillStirS } from './world.ts';

const RIGHT: DrawnShot = {
  index: 0,
  cavities: 4,
  way: WAYS.injector,
  roomC: 20,
  lowC: 158,
  highC: 180,
  drawnC: [170],
  flake: null,
  stir: { sinceS: 10, lastsS: 120 },
  hottestC: 176,
  cooked: true,
  waitedS: 120,
  waitS: 120,
  betweenS: [],
  said: { clamps: 'opposite', injector: 'warm', mold: 'warm', held: 'yes', topped: 'yes', lie: 'flat' },
};
const shot = (more: Partial<DrawnShot>, said: DrawnShot['said'] = {}): DrawnShot => ({
  ...RIGHT,
  ...more,
  said: { ...RIGHT.said, ...more.said, ...said },
});
const ids = (one: DrawnShot) => choicesOf(one).map(({ id, reason }) => `${id}: ${reason}`);

describe('what a choice leads to', () => {
  test('all done right, nothing', () => {
    expect(choicesOf(RIGHT)).toEqual([]);
    expect(baitsOf(RIGHT, 7).every(({ reason }) => reason === null)).toBe(true);
  });
  test.each<[string, DrawnShot, string]>([
    ['drawn too cold', shot({ drawnC: [150] }), 'too-cold: short'],
    ['drawn too hot into a closed mold', shot({ drawnC: [188] }), 'too-hot: flash'],
    [
      'drawn too hot into an open one',
      shot({ way: WAYS.open, drawnC: [188], said: { level: 'level' } }),
      'too-hot: hollow',
    ],
    ['scorched', shot({ hottestC: 196 }), 'scorched: yellow'],
    ['never cooked', shot({ cooked: false }), 'uncooked: sticky'],
    ['flake over its limit', shot({ flake: { hottestC: 174, bearsC: 170 } }), 'flake-turned: flake-turned'],
    ['not stirred', shot({ stir: { sinceS: 200, lastsS: 120 } }), 'not-stirred: flake-sank'],
    ['clamped on one side', shot({}, { clamps: 'same-side' }), 'clamps: flash'],
    ['a cold injector', shot({}, { injector: 'cold' }), 'cold-injector: short'],
    ['a cold shed', shot({ roomC: 4 }), 'cold-mold: dent'],
    ['let go early', shot({}, { held: 'no' }), 'held: short'],
    ['not topped up', shot({}, { topped: 'no' }), 'topped: hollow'],
    ['opened too early', shot({ waitedS: 60 }), 'too-early: bent'],
    ['in a heap', shot({}, { lie: 'heaped' }), 'lie: bent'],
    ['rods bare', shot({ way: WAYS.rods }, { rods: 'bare' }), 'rods: tear'],
    ['not level', shot({ way: WAYS.open }, { level: 'askew' }), 'not-level: short'],
    [
      'the layer before not melted again',
      shot({ way: WAYS.layers, drawnC: [170, 170], betweenS: [300] }, { level: 'level' }),
      'not-melted: peel',
    ],
    [
      'poured into a hot layer',
      shot({ way: WAYS.layers, drawnC: [170, 170], betweenS: [20] }, { level: 'level', surface: 'melted' }),
      'poured-into-hot: bleed',
    ],
  ])('%s', (_, one, expected) => expect(ids(one)).toEqual([expected]));
  test('a preheated mold stands a cold shed, and what nobody said was not done', () => {
    expect(ids(shot({ roomC: 4 }, { mold: 'preheated' }))).toEqual([]);
    expect(ids({ ...RIGHT, said: {} })).toEqual([
      'clamps: flash',
      'cold-injector: short',
      'held: short',
      'topped: hollow',
      'lie: bent',
    ]);
  });
});

describe('the debrief', () => {
  const bad = Array.from({ length: 12 }, (_, index) => shot({ index, drawnC: [148] }, { topped: 'no' }));
  test('what was spoiled adds up to what was lost, and the same luck is the same evening', () => {
    const found = debrief(bad, 7);
    expect(found).toEqual(debrief(bad, 7));
    expect(found.costs.reduce((sum, { spoiled }) => sum + spoiled, 0)).toBe(found.made - found.good);
    expect(found.good).toBeLessThan(found.made / 4);
    expect(debrief(bad, 8).costs).not.toEqual(found.costs);
  });
  test('put right alone it saves no more than it spoiled, and all of it put right all are good', () => {
    const { costs, made, good } = debrief(bad, 7);
    for (const { baits, spoiled } of costs) expect(baits).toBeLessThanOrEqual(spoiled);
    expect(costs[0]).toMatchObject({ id: 'too-cold', shots: 12 });
    expect(
      debrief(
        bad.map(({ index }) => shot({ index })),
        7,
      ),
    ).toEqual({ made, good: made, costs: [] });
    expect(good).toBeGreaterThan(0);
  });
  test('a chance is met as often as it says', () => {
    const many = Array.from({ length: 500 }, (_, index) => shot({ index }, { topped: 'no' }));
    const { costs, made } = debrief(many, 3);
    // 0.45 of 2000, within four standard deviations.
    expect(Math.abs((costs[0]?.spoiled ?? 0) / made - 0.45)).toBeLessThan(0.045);
  });
});

const lesson = (id: string) => LESSONS.find((one) => one.id === id) as Lesson;
const S = 1000;
const cooked = (cup: number, atS = 0): DrillEvent[] => [
  { what: 'burst', ms: atS * S, cup, seconds: 120, level: 1 },
  { what: 'stir', ms: (atS + 121) * S, cup },
];

describe('the world behind an evening', () => {
  test('a burst warms a cup by its mass, a shed takes its heat faster', () => {
    const injection = lesson('injection');
    // 900 W × 0.52 × 120 s ÷ (210 mL × 1.02 g/mL × 1.8 J/gK) = 145.6 K.
    expect(drillHeat(injection, cooked(0), 0, 120 * S).c).toBeCloseTo(20 + 145.66, 1);
    const cold = lesson('cold-shed');
    const lost = (one: Lesson) => drillHeat(one, cooked(0), 0, 120 * S).c - drillHeat(one, cooked(0), 0, 320 * S).c;
    expect(lost(cold)).toBeGreaterThan(1.4 * lost(injection));
  });
  test('nothing sinks before the flake is in', () => {
    const injection = lesson('injection');
    expect(drillStirS(injection, cooked(0), 0)).toBeNull();
    expect(drillStirS(injection, [{ what: 'dose', ms: 0, cup: 0, itemId: 'silver', amount: 0.5 }], 0)).toBeGreaterThan(
      30,
    );
  });
  test('a shot is told as it was drawn: its heat, its stir, its wait and what was said of it', () => {
    const events: DrillEvent[] = [
      ...cooked(0),
      { what: 'dose', ms: 130 * S, cup: 0, itemId: 'silver', amount: 0.5 },
      { what: 'stir', ms: 140 * S, cup: 0 },
      { what: 'draw', ms: 150 * S, shotId: 's1', moldId: 'block', layers: [0] },
      { what: 'open', ms: 230 * S, shotId: 's1' },
    ];
    const ticks: Ticked[] = [
      { id: 't', what: 'clamps', said: 'opposite', moldId: 'block', nth: 1, layer: null, at: '2026-01-01T00:00:00Z' },
      { id: 'u', what: 'clamps', said: 'none', moldId: 'block', nth: 2, layer: null, at: '2026-01-01T00:00:00Z' },
    ];
    const [one] = drawnShots(lesson('injection'), events, ticks, 999 * S) as [DrawnShot];
    expect(one).toMatchObject({ waitedS: 80, waitS: 100, cooked: true, said: { clamps: 'opposite' }, betweenS: [] });
    expect(one.stir?.sinceS).toBe(10);
    expect(one.drawnC[0]).toBeCloseTo(drillHeat(lesson('injection'), events, 0, 150 * S).c, 9);
  });
  test('tender flake counts from when it went in, not from the cooking before', () => {
    const tender = lesson('tender-flake');
    const hot: DrillEvent[] = [
      { what: 'burst', ms: 0, cup: 0, seconds: 110, level: 1 },
      { what: 'dose', ms: 112 * S, cup: 0, itemId: 'copper', amount: 0.5 },
      { what: 'draw', ms: 130 * S, shotId: 's', moldId: 'block', layers: [0] },
    ];
    const late = hot.map((event) => (event.what === 'burst' ? event : { ...event, ms: event.ms + 400 * S }));
    const flake = (events: DrillEvent[]) => drawnShots(tender, events, [], 999 * S)[0]?.flake;
    expect(flake(hot)?.hottestC).toBeGreaterThan(185);
    expect(flake(late)?.hottestC).toBeLessThan(145);
    expect(drawnShots(tender, hot, [], 999 * S)[0]?.hottestC).toBeGreaterThan(190);
  });
  test('two layers of one shot are one shot, with the wait between them', () => {
    const events: DrillEvent[] = [
      ...cooked(0),
      ...cooked(1, 200),
      { what: 'draw', ms: 150 * S, shotId: 's', moldId: 'worm', layers: [0] },
      { what: 'draw', ms: 450 * S, shotId: 's', moldId: 'worm', layers: [1] },
    ];
    const shots = drawnShots(lesson('laminate'), events, [], 500 * S);
    expect(shots).toHaveLength(1);
    expect(shots[0]).toMatchObject({ betweenS: [300], waitedS: 50 });
    expect(shots[0]?.drawnC).toHaveLength(2);
  });
});

test('every lesson can be done: its cup holds its shots, its window is one, its melts have what they need', () => {
  expect(LESSONS.map(({ id }) => id)).toEqual(['open-pour', 'injection', 'tender-flake', 'cold-shed', 'laminate']);
  for (const one of LESSONS) {
    const shots = one.molds.reduce((sum, mold) => sum + mold.shots * mold.cavities * mold.cavityMl, 0);
    expect(one.cookMl * one.layers.length).toBeGreaterThan(shots * 1.06);
    for (const { items } of one.layers) {
      expect(items.length).toBeGreaterThan(0);
      for (const { c } of limitsOfItems(items)) expect(c).toBeGreaterThan(158);
    }
  }
});
