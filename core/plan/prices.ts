import { roundMoney } from '../rounding.ts';

/**
 * What a pack costs by a price list.
 * @param priceMinor the bait's own price; @param share what the list pays of it; @param roundMinor to so much, halves up.
 * @returns whole minor units.
 */
export const listPrice = (priceMinor: number, share: number, roundMinor: number): number =>
  roundMoney((priceMinor * share) / roundMinor) * roundMinor;

/** Who pays what: the bait's own price, or a share of it. */
export const PRICE_LISTS = ['private', 'club', 'shop'] as const;
export type PriceList = (typeof PRICE_LISTS)[number];

interface Terms {
  clubFraction: number;
  shopFraction: number;
  roundMinor: number;
}

/** A bait's price as somebody of that list pays it here; null where the bait has none. */
export function priceFor(
  list: PriceList,
  priceMinor: number | null,
  { clubFraction, shopFraction, roundMinor }: Terms,
) {
  const share = { private: 1, club: clubFraction, shop: shopFraction }[list];
  return priceMinor === null ? null : listPrice(priceMinor, share, roundMinor);
}

export interface Priced {
  packs: number;
  priceMinor: number | null;
}

/**
 * What packs come to, and what of it is tax, as a plain percentage on top.
 * @returns whole minor units; lines without a price are counted and left out.
 */
export function totalsOf(lines: Priced[], taxFraction: number) {
  const netMinor = lines.reduce((sum, { packs, priceMinor }) => sum + packs * (priceMinor ?? 0), 0);
  const taxMinor = roundMoney(netMinor * taxFraction);
  return {
    netMinor,
    taxMinor,
    totalMinor: netMinor + taxMinor,
    unpriced: lines.filter(({ priceMinor }) => priceMinor === null).length,
  };
}
