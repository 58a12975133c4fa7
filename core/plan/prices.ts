import { roundMoney } from '../rounding.ts';

/**
 * What a pack costs by a price list.
 * @param priceMinor the bait's own price; @param share what the list pays of it; @param roundMinor to so much, halves up.
 * @returns whole minor units.
 */
export const listPrice = (priceMinor: number, share: number, roundMinor: number): number =>
  roundMoney((priceMinor * share) / roundMinor) * roundMinor;
