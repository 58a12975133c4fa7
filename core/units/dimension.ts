/** What a quantity measures; each is stored in one unit, and shown and typed in a maker's own. */
export const DIMENSIONS = ['length', 'volume', 'mass', 'temperature', 'speed'] as const;
export type Dimension = (typeof DIMENSIONS)[number];

export const isDimension = (what: string): what is Dimension => (DIMENSIONS as readonly string[]).includes(what);
