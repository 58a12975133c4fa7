import jstat from 'jstat';
import { usual } from '../defaults.ts';

/** A test in water, as far as it tells of fish. */
export interface Tested {
  /** UTC ISO text. */
  at: string;
  place: 'tank' | 'lake';
  placeName: string;
  rig: string;
  waterC: number | null;
  ageH: number | null;
  minutes: number | null;
  fish: number | null;
  ending: 'whole' | 'torn' | 'lost' | 'void' | null;
}

/** What counts: a day with fish or without, not a void one, nor a look in the tub. */
const outingsOf = (tests: Tested[]) => tests.filter((test) => test.fish !== null && test.ending !== 'void');

/** What one side of a comparison rests on. */
export function sideOf(tests: Tested[]) {
  const counted = outingsOf(tests);
  const sum = (of: (test: Tested) => number | null) => counted.reduce((total, test) => total + (of(test) ?? 0), 0);
  return {
    outings: counted.length,
    voidDays: tests.filter((test) => test.ending === 'void').length,
    fish: sum((test) => test.fish),
    /** Of outings whose minutes were noted. */
    minutes: sum((test) => test.minutes),
    timed: counted.filter((test) => test.minutes !== null).length,
    timedFish: sum((test) => (test.minutes === null ? 0 : test.fish)),
    torn: counted.filter((test) => test.ending === 'torn').length,
  };
}

/**
 * Whether fish in so many minutes differ by more than luck: of all fish, the first's are binomial by its share of the minutes.
 * Two-sided: outcomes no likelier than the one seen, with a slack of 1e-7.
 * Source: Przyborowski & Wilenski (1940), the conditional test of two Poisson rates.
 * @returns null where no minutes were noted on a side.
 */
export function compareRates(
  a: { fish: number; minutes: number },
  b: { fish: number; minutes: number },
): number | null {
  if (a.minutes <= 0 || b.minutes <= 0) return null;
  const n = a.fish + b.fish;
  if (n === 0) return 1;
  const share = a.minutes / (a.minutes + b.minutes);
  const chance = Array.from({ length: n + 1 }, (_, k) => jstat.binomial.pdf(k, n, share));
  const seen = chance[a.fish] as number;
  return Math.min(
    1,
    chance.filter((one) => one <= seen * (1 + 1e-7)).reduce((sum, one) => sum + one, 0),
  );
}

const SEASONS = ['winter', 'spring', 'summer', 'autumn'] as const;
/** Of the northern half of the year. */
const seasonOf = (at: string) => SEASONS[Math.floor((new Date(at).getUTCMonth() + 1) / 3) % 4] as string;

/** All that a side was tested at, in words; what was not noted is left out. */
const told = (tests: Tested[], of: (test: Tested) => string | null) =>
  [...new Set(tests.map(of).filter((word): word is string => word !== null && word !== ''))].sort();

const mean = (values: number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
const noted = (tests: Tested[], of: (test: Tested) => number | null) =>
  tests.map(of).filter((one): one is number => one !== null);

/** What else differs between the sides, so that it may be the cause: season, place, rig, water, age of the bait. */
export function alsoDiffers(allA: Tested[], allB: Tested[]): string[] {
  const [a, b] = [outingsOf(allA), outingsOf(allB)];
  const words: [string, (test: Tested) => string | null][] = [
    ['season', (test) => seasonOf(test.at)],
    ['place', (test) => test.placeName || (test.place === 'tank' ? 'tank' : null)],
    ['rig', (test) => test.rig],
  ];
  const found = words.flatMap(([what, of]) => {
    const [one, two] = [told(a, of), told(b, of)];
    return one.length > 0 && two.length > 0 && one.join() !== two.join()
      ? [`${what}: ${one.join(', ')} against ${two.join(', ')}`]
      : [];
  });
  const [coldA, coldB] = [noted(a, (test) => test.waterC), noted(b, (test) => test.waterC)];
  if (coldA.length > 0 && coldB.length > 0 && Math.abs(mean(coldA) - mean(coldB)) >= usual('otherWaterC'))
    found.push('water');
  const young = (tests: Tested[]) => noted(tests, (test) => test.ageH).some((age) => age < usual('cureH'));
  if (young(a) !== young(b)) found.push('age: one side was tried before it had cured');
  return found;
}
