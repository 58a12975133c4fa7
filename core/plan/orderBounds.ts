/** What one line of an order may want at most, and how many lines an order has: more than any workshop packs in a season. */
export const LINE_MOST = { packs: 5000, perPack: 1000, baits: 20_000 };
export const LINES_MOST = 200;
