import { expect, test } from 'vitest';
import { sparkLog, sparkPlan } from './spark.ts';

test('electrodes smaller by their gap, roughing by what it leaves as well, by hand', () => {
  const [rough, fine] = sparkPlan(8, { gapMm: 0.2, amps: 20 }, { gapMm: 0.05, amps: 3 });
  // 8 deep: roughing leaves 0.1 and burns 0.2 further than its face; finishing burns 0.05.
  expect(rough).toMatchObject({ undersizeMm: expect.closeTo(0.3, 9), feedMm: expect.closeTo(7.7, 9) });
  expect(rough?.looksAtMm).toEqual([0.3, expect.closeTo(7.2, 9)]);
  expect(fine).toMatchObject({ undersizeMm: 0.05, feedMm: expect.closeTo(7.95, 9) });
});

test.each([
  ['finishing with the wider gap', 8, 0.05, 0.2],
  ['a gap as deep as the cavity', 0.3, 0.25, 0.05],
])('%s is refused', (_what, depth, rough, fine) => {
  expect(() => sparkPlan(depth, { gapMm: rough, amps: 9 }, { gapMm: fine, amps: 2 })).toThrow();
});

test('the log gives each pass its rate, what is left, and what was seen says what to do', () => {
  const run = { electrode: 'E1', pass: 'roughing' as const, amps: 12, efficiency: 0.5, seen: 'clean' as const };
  const log = [
    { ...run, fromMm: 0, toMm: 2, minutes: 40 },
    { ...run, fromMm: 2, toMm: 5, minutes: 35 },
  ];
  // 5 mm in 75 min; 2 mm are left: 30 min at 1/15 mm a minute.
  expect(sparkLog(log, 7)).toMatchObject({
    roughingMmPerMin: expect.closeTo(1 / 15, 9),
    leftMin: expect.closeTo(30, 9),
  });
  expect(sparkLog(log, 7).finishingMmPerMin).toBeNull();
  expect(sparkLog([{ ...run, fromMm: 0, toMm: 1, minutes: 9, seen: 'arc' }], 7).advice).toMatch(/less current/);
  expect(sparkLog([], 7)).toMatchObject({ leftMin: null, runs: [] });
});
