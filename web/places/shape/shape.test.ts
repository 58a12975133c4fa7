import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { STARTS } from '../../../core/shape/starts.ts';
import { box, sphere, torus } from '../../../core/shape/testing.ts';
import type { Dimension } from '../../../core/units/dimension.ts';
import { showText, type UnitTaste } from '../../../core/units/show.ts';
import { shadowOf } from '../../workers/shadow.ts';
import { hzOf } from '../water/tap.ts';
import { type Change, changed, started } from './history.ts';
import { differences, inWords } from './words.ts';

describe('undo and redo', () => {
  const step = fc.oneof(
    fc.record({ kind: fc.constant('set' as const), value: fc.nat(99), about: fc.constantFrom(null, 'body', 'wrist') }),
    fc.constantFrom<Change<number>>({ kind: 'undo' }, { kind: 'redo' }, { kind: 'settle' }),
  );

  test('whatever was done, undone to the start and redone it is as it was', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const done = steps.reduce((history, change) => changed(history, change), started(-1));
        let back = done;
        while (back.past.length > 0) back = changed(back, { kind: 'undo' });
        expect(back.now).toBe(-1);
        expect(changed(back, { kind: 'undo' })).toBe(back);
        for (let turn = 0; turn < done.past.length; turn++) back = changed(back, { kind: 'redo' });
        expect([back.past, back.now, back.future]).toEqual([done.past, done.now, done.future]);
      }),
    );
  });

  test('a drag is one step, two drags are two', () => {
    const drag = (from: number) => [1, 2, 3].map((i) => ({ kind: 'set' as const, value: from + i, about: 'body' }));
    const after = [...drag(0), { kind: 'settle' as const }, ...drag(10)].reduce(changed<number>, started(0));
    expect(after.past).toEqual([0, 3]);
    expect(changed(after, { kind: 'undo' }).now).toBe(3);
  });
});

describe('what differs between two shapes', () => {
  const spec = (STARTS[0] as (typeof STARTS)[number]).spec;
  const read = (system: UnitTaste['system'], after: unknown) =>
    differences(spec, after).map((one) =>
      inWords(one, { text: (value, dimension) => showText(value, dimension, { system, temperature: 'C' }) }),
    );
  const thinner = { ...spec, wrist: { ...spec.wrist, thicknessMm: 2.54 } };
  test.each([
    ['us', { ...spec, bodyMm: 101.6 }, [{ what: 'body', from: '3.23 in', to: '4 in' }]],
    ['metric', { ...spec, bodyMm: 101.6 }, [{ what: 'body', from: '82 mm', to: '102 mm' }]],
    ['us', thinner, [{ what: 'wrist thickness', from: '0.16 in', to: '0.1 in' }]],
    [
      'metric',
      { ...spec, tail: { ...spec.tail, angleDeg: 12.345 } },
      [{ what: 'tail angle', from: '10°', to: '12.35°' }],
    ],
    ['metric', { ...spec, flatBelly: 0.5 }, [{ what: 'flat belly', from: '0', to: '0.5' }]],
    ['metric', { ...spec, fin: { heightMm: 1 } }, [{ what: 'fin', from: 'none', to: 'there' }]],
    [
      'metric',
      { ...spec, stations: spec.stations.map((one, i) => (i === 1 ? { ...one, topMm: 7 } : one)) },
      [{ what: 'stations 2 back', from: '8.6 mm', to: '7 mm' }],
    ],
    ['metric', { ...spec, bodyMm: spec.bodyMm + 0.3 }, [{ what: 'body', from: '82 mm', to: '82.3 mm' }]],
    ['metric', spec, []],
  ] as const)('%s %#', (system, after, wanted) => expect(read(system, after)).toEqual(wanted));

  test('one that two rounded figures would hide is told by itself', () => {
    const [one] = differences({ bodyMm: 250 }, { bodyMm: 249.7 });
    const text = (value: number, dimension: Dimension) =>
      showText(value, dimension, { system: 'metric', temperature: 'C' });
    expect(one && inWords(one, { text })).toEqual({ what: 'body', from: '250 mm', to: '250 mm − 0.3 mm' });
  });
});

describe('the shadow of a solid', () => {
  const seen = (shadow: ReturnType<typeof shadowOf>) => {
    const covered = shadow.pixels.filter((value, i) => i % 4 === 3 && value === 255).length;
    return covered * shadow.cellMm ** 2;
  };
  test.each([
    ['a box from the side', shadowOf(box(40, 20, 10), 2, 1, 600), 400],
    ['a box from above', shadowOf(box(40, 20, 10), 1, -1, 600), 800],
    ['a ball', shadowOf(sphere(10, 20_000), 2, 1, 600), Math.PI * 100],
    // A ring lying flat hides its hole from the side, and shows it from above.
    ['a ring from above its plane', shadowOf(torus(20, 5, 20_000), 1, -1, 600), Math.PI * (625 - 225)],
  ])('%s has its area', (_what, shadow, mm2) => expect(seen(shadow) / mm2).toBeCloseTo(1, 1.6));

  test('it lies where the solid is', () => {
    const { leftMm, topMm, columns, rows, cellMm } = shadowOf(box(40, 20, 10), 2, 1, 600);
    expect(leftMm).toBeCloseTo(-20 - cellMm, 6);
    expect(topMm).toBeCloseTo(5 + cellMm, 6);
    expect(columns * cellMm).toBeGreaterThan(40);
    expect(rows * cellMm).toBeGreaterThan(10);
  });
});

test.each([
  ['three are too few', [0, 250, 500], null],
  ['a steady hand', [0, 250, 500, 750, 1000], 4],
  ['uneven taps of the same count in the same time', [100, 200, 700, 1100], 3],
])('taps: %s', (_what, taps, hz) => {
  if (hz === null) expect(hzOf(taps)).toBeNull();
  else expect(hzOf(taps)).toBeCloseTo(hz, 9);
});
