import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { rescue, rescueSchema } from './rescue.ts';

const ask = (input: Record<string, unknown>) => rescue(check(rescueSchema, input));
const mold = (id: string, cavities: number, cavityMl: number, secondsPerShot: number, wanted: number) => ({
  id,
  cavities,
  cavityMl,
  secondsPerShot,
  wanted,
});

test('by hand: 100 mL and four minutes make the eight that are wanted, and then what uses most', async () => {
  // Without feed: 40 mL and 60 s a shot of four; 12 mL and 90 s a shot of six of which none is wanted.
  const found = await ask({
    availableMl: 100,
    secondsLeft: 240,
    feedFraction: 0,
    molds: [mold('a', 4, 10, 60, 8), mold('b', 6, 2, 90, 0)],
  });
  expect(found.shots).toEqual([
    { id: 'a', shots: 2, baits: 8, wanted: 8 },
    { id: 'b', shots: 1, baits: 6, wanted: 0 },
  ]);
  expect([found.served, found.usedMl, found.leftMl, found.seconds]).toEqual([8, 92, 8, 210]);
});

test('a mold that has to cool between two shots is filled as often as it can be', async () => {
  const molds = [{ ...mold('a', 4, 10, 60, 8), mostShots: 1 }, mold('b', 6, 2, 90, 0)];
  const found = await ask({ availableMl: 100, secondsLeft: 600, feedFraction: 0, molds });
  expect(found.shots.map(({ id, shots }) => [id, shots])).toEqual([
    ['a', 1],
    ['b', 5],
  ]);
});

test('time is as scarce as plastic; with neither there is no shot', async () => {
  const molds = [mold('a', 4, 10, 60, 8)];
  expect((await ask({ availableMl: 100, secondsLeft: 119, feedFraction: 0, molds })).shots[0]?.shots).toBe(1);
  for (const less of [{ availableMl: 39.9 }, { secondsLeft: 59 }])
    await expect(ask({ availableMl: 100, secondsLeft: 240, feedFraction: 0, molds, ...less })).rejects.toMatchObject({
      code: 'cup-too-small',
    });
  await expect(async () =>
    ask({ availableMl: 100, secondsLeft: 240, molds: [...molds, ...molds] }),
  ).rejects.toBeInstanceOf(Failure);
  await expect(async () =>
    ask({ availableMl: 1, secondsLeft: 1, molds: Array.from({ length: 13 }, (_, i) => mold(`${i}`, 1, 1, 1, 1)) }),
  ).rejects.toMatchObject({ code: 'too-large' });
});

interface Tried {
  served: number;
  usedMl: number;
}

/** Every combination there is. */
function all(molds: ReturnType<typeof mold>[], availableMl: number, secondsLeft: number): Tried {
  let best: Tried = { served: -1, usedMl: 0 };
  const step = (i: number, ml: number, s: number, served: number) => {
    const one = molds[i];
    if (!one) {
      const usedMl = availableMl - ml;
      if (served > best.served || (served === best.served && usedMl > best.usedMl)) best = { served, usedMl };
      return;
    }
    const shotMl = one.cavities * one.cavityMl;
    for (let n = 0; n * shotMl <= ml + 1e-9 && n * one.secondsPerShot <= s + 1e-9; n++)
      step(i + 1, ml - n * shotMl, s - n * one.secondsPerShot, served + Math.min(one.wanted, n * one.cavities));
  };
  step(0, availableMl, secondsLeft, 0);
  return best;
}

test('property: as good as trying every combination', async () => {
  const some = fc.record({
    cavities: fc.integer({ min: 1, max: 6 }),
    cavityMl: fc.integer({ min: 2, max: 15 }),
    secondsPerShot: fc.integer({ min: 20, max: 120 }),
    wanted: fc.integer({ min: 0, max: 12 }),
  });
  await fc.assert(
    fc.asyncProperty(
      fc.array(some, { minLength: 1, maxLength: 4 }),
      fc.integer({ min: 20, max: 250 }),
      fc.integer({ min: 60, max: 600 }),
      async (rows, availableMl, secondsLeft) => {
        const molds = rows.map((row, i) => ({ id: `m${i}`, ...row }));
        const best = all(molds, availableMl, secondsLeft);
        if (best.usedMl === 0) {
          await expect(ask({ availableMl, secondsLeft, feedFraction: 0, molds })).rejects.toMatchObject({
            code: 'cup-too-small',
          });
          return;
        }
        const found = await ask({ availableMl, secondsLeft, feedFraction: 0, molds });
        expect([found.served, found.usedMl]).toEqual([best.served, best.usedMl]);
        expect(found.seconds).toBeLessThanOrEqual(secondsLeft);
        expect(found.usedMl).toBeLessThanOrEqual(availableMl + 1e-6);
      },
    ),
    { numRuns: 60 },
  );
});
