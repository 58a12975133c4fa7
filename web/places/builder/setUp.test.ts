import { expect, test } from 'vitest';
import { wishSchema } from '../../../core/mold/buildWish.ts';
import { check } from '../../../core/validate.ts';
import type { DrawnMold } from '../../workers/molder.ts';
import { setUpRows } from './setUp.ts';

const mold = {
  blockMm: [140, 60, 35],
  halfMm: [20, 15],
  depthMm: [8.2, 7.9],
  pinTallMm: 5,
  seamMm: { low: 0, high: 0 },
  layout: { noses: [{}, {}], pins: [{}, {}, {}, {}], clamps: [{}, {}] },
  vents: [],
  thinnestWall: { mm: 1.85, where: 'outside a pin' },
} as unknown as DrawnMold;
const rows = (of: Partial<DrawnMold>, wish: object, cutter: Parameters<typeof setUpRows>[2] = null) =>
  new Map(setUpRows({ ...mold, ...of }, check(wishSchema, { kind: 'machined', count: 2, ...wish }), cutter));

test('pins that are part of the lower half come out of its stock; dowels do not', () => {
  // 140, 60 and 20 + 5, each with 1.5 a face.
  expect(rows({}, {}).get('Stock')).toMatch(/^143 × 63 × 28 and 143 × 63 × 18,/);
  const doweled = rows({ pinTallMm: 0 }, { pins: { dowels: true } });
  expect(doweled.get('Stock')).toMatch(/^143 × 63 × 23 and/);
  expect(doweled.get('Pins')).toBe(
    '4 steel dowels of 6.0, pressed into the lower half, the upper half’s holes 0.15 wider a side',
  );
  expect(rows({}, {}).get('Pins')).toBe('4 × 6.0, 5.0 out of the lower half, sockets 0.15 wider a side');
});

test('both pairs of electrodes by the figures of their stops, the screw of an insert, the pin of a rod', () => {
  expect(rows({}, { sparkGapMm: 0.05, sparkRoughGapMm: 0.2 }).get('Electrodes')).toMatch(
    /finishing: one a half, 0.05 smaller all round; roughing: one a half, 0.30 smaller \(gap 0.20, and 0.10 left for finishing\); depth 8.2 lower, 7.9 upper/,
  );
  expect(rows({}, { hookSlot: { fromNoseMm: 30, lengthMm: 20, depthMm: 4 } }).get('Slot inserts')).toMatch(
    /M3 grub screw, core hole 2.5 × 8.0, reached through 4.0/,
  );
  expect(rows({}, { coreRodMm: 8.6, rodHeld: 'both' }).get('Core rods')).toMatch(/a pin of 2.0 through nose and gate/);
});

test('a cutter that was not found is named with what is known, none is made up', () => {
  const none = { largestBallMm: null, knownFromMm: 0.5, leftoverMm: 0.234 };
  expect(rows({}, {}, none).get('Finishing cutter')).toBe(
    'none of the usual balls from 0.5 mm on reaches all: a 3 mm ball leaves 0.23; ease the corners or spark them',
  );
  expect(rows({}, {}, none).get('Smallest inside radius')).toBe('under 0.3');
  expect(rows({}, {}, { ...none, largestBallMm: 4 }).get('Smallest inside radius')).toBe('2.0 or more');
  expect(rows({}, {}).get('Finishing cutter')).toBe('being worked out');
});
