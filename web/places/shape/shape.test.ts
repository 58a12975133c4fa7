import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { STARTS } from '../../../core/shape/starts.ts';
import { box, sphere, torus } from '../../../core/shape/testing.ts';
import { shadowOf } from '../../workers/shadow.ts';
import { hzOf } from '../water/tap.ts';
import { type Change, changed, started } from './history.ts';
import { differences } from './words.ts';

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
  test.each([
    [{ ...spec, bodyMm: spec.bodyMm + 5.004 }, [{ what: 'body', from: String(spec.bodyMm), to: `${spec.bodyMm + 5}` }]],
    [
      { ...spec, wrist: { ...spec.wrist, thicknessMm: 3 } },
      [{ what: 'wrist thickness', from: String(spec.wrist.thicknessMm), to: '3' }],
    ],
    [
      { ...spec, fin: { fromAt: 0, toAt: 1, heightMm: 1, thicknessMm: 1 } },
      [{ what: 'fin', from: 'none', to: 'there' }],
    ],
    [spec, []],
  ])('case %#', (after, wanted) => expect(differences(spec, after)).toEqual(wanted));
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
