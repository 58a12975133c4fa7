import { describe, expect, test } from 'vitest';
import { alsoDiffers, compareRates, sideOf, type Tested } from './compared.ts';

const outing = (change: Partial<Tested> = {}): Tested => ({
  at: '2026-05-10T08:00:00Z',
  place: 'lake',
  placeName: 'north slip',
  rig: 'jig 10 g',
  waterC: 12,
  ageH: 72,
  minutes: 60,
  fish: 2,
  ending: 'whole',
  ...change,
});

test('a side counts outings, fish and minutes; void days not at all', () => {
  expect(
    sideOf([
      outing(),
      outing({ fish: 0, minutes: null, ending: 'torn' }),
      outing({ ending: 'void', fish: 9 }),
      outing({ fish: null }),
    ]),
  ).toEqual({ outings: 2, voidDays: 1, fish: 2, minutes: 60, timed: 1, timedFish: 2, torn: 1 });
});

describe('fish in so many minutes', () => {
  // Counted out by hand: of n fish, k in the first side's half or share of the minutes.
  test.each([
    [{ fish: 3, minutes: 60 }, { fish: 0, minutes: 60 }, 2 / 8],
    [{ fish: 6, minutes: 60 }, { fish: 0, minutes: 60 }, 2 / 64],
    [{ fish: 2, minutes: 60 }, { fish: 2, minutes: 60 }, 1],
    // A third of the minutes: 2 of 2 fish is 1/9, none other is as rare.
    [{ fish: 2, minutes: 30 }, { fish: 0, minutes: 60 }, 1 / 9],
    [{ fish: 0, minutes: 30 }, { fish: 0, minutes: 60 }, 1],
    [{ fish: 2, minutes: 0 }, { fish: 1, minutes: 60 }, null],
  ])('%o against %o', (a, b, p) => {
    const found = compareRates(a, b);
    if (p === null) expect(found).toBeNull();
    else expect(found).toBeCloseTo(p, 9);
  });
});

describe('what else differs', () => {
  test.each<[string, Partial<Tested>, string[]]>([
    ['nothing', {}, []],
    ['the season', { at: '2026-11-10T08:00:00Z' }, ['season: spring against autumn']],
    ['the place', { placeName: 'harbour' }, ['place: north slip against harbour']],
    ['the rig', { rig: 'weightless' }, ['rig: jig 10 g against weightless']],
    ['the water, by five degrees', { waterC: 7 }, ['water']],
    ['not by four', { waterC: 8.1 }, []],
    ['a bait that had not cured', { ageH: 2 }, ['age: one side was tried before it had cured']],
    ['a look in the tub and a void day tell of no outing', { fish: null, rig: 'none', placeName: 'tub' }, []],
    ['what was not noted says nothing', { rig: '', waterC: null, ageH: null }, []],
  ])('%s', (_, change, words) => {
    expect(alsoDiffers([outing()], [outing(change)])).toEqual(words);
  });

  test('December, January and February are one winter', () => {
    const months = ['2025-12-01', '2026-01-15', '2026-02-27'].map((day) => outing({ at: `${day}T08:00:00Z` }));
    expect(alsoDiffers([months[0] as Tested], months.slice(1))).toEqual([]);
  });
});
