/** How closely a solid is drawn: a draft follows the hand, the fine one is measured and kept. */
export type Grain = 'draft' | 'fine';
export const GRAIN: Record<Grain, number> = { draft: 0.45, fine: 1.15 };
/** An even count of points, by the grain. */
export const many = (count: number, g: number) => Math.max(6, 2 * Math.round((count * g) / 2));
export const RAD = Math.PI / 180;
/** What a part is pushed into its neighbour, so that the two are one, mm. */
export const OVERLAP = 0.8;
