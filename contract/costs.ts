import * as v from 'valibot';
import { usual } from '../core/defaults.ts';
import { called, count, from0, money } from './fields.ts';

const share = (most: number) => v.pipe(from0(most), v.maxValue(most));

/** What a cost is worked out with beside the records; nothing of it is kept but on the device. */
export const costWish = v.strictObject({
  wagePerHourMinor: called(money, 'Wage an hour'),
  marginFraction: called(share(0.95), 'Margin wanted'),
  wasteFraction: called(share(1), 'Film and spills, never melted again'),
  moldPriceMinor: called(money, 'The mold cost'),
  moldShots: called(count(1, 1_000_000), 'Shots in its life'),
  startUpMinor: called(money, 'Spent to begin'),
  boughtPackMinor: called(money, 'A bought pack costs'),
  packCount: called(count(1, 1000), 'Baits in it'),
  usableCount: called(count(1, 1000), 'Usable of them'),
});
export type CostWish = v.InferOutput<typeof costWish>;

/** Where nothing was typed yet. */
export const COST_BEGUN: CostWish = {
  wagePerHourMinor: 0,
  marginFraction: usual('marginWanted'),
  wasteFraction: usual('wasteFraction'),
  moldPriceMinor: 0,
  moldShots: usual('moldShots'),
  startUpMinor: 0,
  boughtPackMinor: 0,
  packCount: usual('packCount'),
  usableCount: usual('packCount'),
};
