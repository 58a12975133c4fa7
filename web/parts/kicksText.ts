import type { WaterTest } from '../../contract/water.ts';

/** What a water test saw, in a line. */
export function kicksText(test: WaterTest): string {
  const heard = test.speeds
    .map((one) => `${one.pace} ${{ yes: 'kicks', weak: 'weakly', no: 'no' }[one.kicks]}`)
    .join(', ');
  return heard || (test.fish !== null ? `${test.fish} fish` : 'noted');
}
