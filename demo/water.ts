import { addDays, subDays } from 'date-fns';
import type { Master } from '../contract/masters.ts';
import type { Ladder } from '../contract/water.ts';
import { beam, onset } from '../core/water/kick.ts';
import type { DemoMaker } from './maker.ts';
import type { Random } from './random.ts';
import type { Shelf } from './shelf.ts';

/** What this workshop's plastic really does: a little less water moves along, and it kicks a little later. */
const TRUTH = { addedMassCoefficient: 0.48, strouhal: 0.17 };

type Speeds = [pace: 'slow' | 'medium' | 'fast', mPerS: number, kicks: 'yes' | 'weak' | 'no'][];

/** A tail ladder drawn through the tub, four steps of five so far. */
async function ladder(maker: DemoMaker, random: Random, day: Date): Promise<void> {
  maker.now = day;
  const made = await maker.post<Ladder>('/ladders', {
    name: 'Ladder 1',
    scale: '00',
    hardness: 34,
    wristHeightMm: 6,
    wristLengthMm: 13,
    paddleDiameterMm: 15,
    paddleThicknessMm: 4,
    walkingMPerS: 0.6,
  });
  maker.now = addDays(day, 2);
  for (const step of [2, 3, 1, 0]) {
    const tail = made.steps[step];
    if (!tail) continue;
    const row = beam({
      tail: 'end-paddle',
      scale: '00',
      hardness: 34,
      ...tail,
      plastisolDensityGPerMl: 1.02,
      waterDensityGPerMl: 1,
    });
    const real = onset(row, TRUTH.addedMassCoefficient, TRUTH.strouhal);
    const kicks = real.onsetMPerS < 0.6;
    const hz = Math.round(real.naturalHz * random.between(0.94, 1.06) * 10) / 10;
    await maker.post(`/ladders/${made.id}/trials`, {
      step,
      ...(kicks ? { hz, kicksAtMPerS: 0.6 } : { notAtMPerS: 0.6 }),
    });
  }
}

/** What each revision of the Sandlance did: in the tub first, then with fish on. */
export async function inWater(maker: DemoMaker, shelf: Shelf, random: Random, now: Date): Promise<void> {
  const master = await maker.get<Master>(`/masters/${shelf.masters.get('Sandlance 110')?.id}`);
  const revision = (number: number) => master.revisions.find((row) => row.number === number)?.id;
  const note = (number: number, daysAgo: number, test: object) => {
    maker.now = subDays(now, daysAgo);
    return maker.post(`/masters/${master.id}/revisions/${revision(number)}/water-tests`, test);
  };
  const tub = (speeds: Speeds, more: object) => ({
    place: 'tank',
    placeName: 'the long tub',
    blend: 'Soft 22 and Firm 58',
    scale: '00',
    hardness: 34,
    waterC: 18,
    speeds: speeds.map(([pace, mPerS, kicks]) => ({ pace, mPerS, kicks })),
    ...more,
  });
  const outing = (fish: number, ending: string, notes = '') => ({
    place: 'lake',
    placeName: random.pick(['the north slip', 'under the light', 'Ferry rock']),
    blend: 'Soft 22 and Firm 58',
    rig: 'weedless, 5/0',
    weightG: 7,
    waterC: random.whole(8, 15),
    minutes: random.whole(25, 60),
    fish,
    ending,
    notes,
  });
  await ladder(maker, random, subDays(now, 150));
  await note(
    1,
    520,
    tub(
      [
        ['slow', 0.25, 'no'],
        ['medium', 0.5, 'no'],
        ['fast', 0.9, 'yes'],
      ],
      { roll: 'none', runs: 'true', notes: 'dead until fast' },
    ),
  );
  await note(
    2,
    400,
    tub(
      [
        ['slow', 0.25, 'no'],
        ['medium', 0.5, 'yes'],
        ['fast', 0.9, 'yes'],
      ],
      { roll: 'some', runs: 'true', sinkS: 4.6, sinkDepthMm: 300 },
    ),
  );
  await note(
    3,
    170,
    tub(
      [
        ['slow', 0.25, 'no'],
        ['medium', 0.5, 'weak'],
        ['fast', 0.9, 'yes'],
      ],
      { roll: 'some', runs: 'true', sinkS: 4.1, sinkDepthMm: 300, notes: 'slot gapes a little at speed' },
    ),
  );
  for (const [fish, ending] of [
    [3, 'torn'],
    [5, 'torn'],
    [2, 'lost'],
    [0, 'whole'],
    [4, 'torn'],
  ] as const)
    await note(2, 380 - fish, outing(fish, ending));
  for (const [fish, ending] of [
    [6, 'torn'],
    [9, 'torn'],
    [4, 'lost'],
    [7, 'whole'],
    [0, 'void'],
  ] as const)
    await note(3, 160 - fish, outing(fish, ending, ending === 'void' ? 'flood, gave up' : ''));
}
