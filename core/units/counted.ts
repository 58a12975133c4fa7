/** Kinds of material that are counted: what a lot of them holds, and what is taken, are pieces and no grams. */
export const COUNTED: readonly string[] = ['eyes', 'bags', 'labels'];

export const isCounted = (kind: string): boolean => COUNTED.includes(kind);

export const piecesText = (count: number): string =>
  `${Math.round(count)} ${Math.round(count) === 1 ? 'piece' : 'pieces'}`;
