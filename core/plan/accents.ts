/** So much of a melt that a colourway needs of it in one place, for what is short. */
export interface AccentPart {
  recipeId: string;
  colourwayId: string;
  colourwayName: string;
  place: string;
  baits: number;
  ml: number;
}

export interface Accent {
  recipeId: string;
  /** All of it together, mL. */
  neededMl: number;
  /** What is cooked for it: with what stays in the cup, and never less than can be cooked. */
  cookMl: number;
  /** What is left of that. */
  leftMl: number;
  /** Cooked alone, so many of its parts would each be less than can be cooked. */
  tooSmallAlone: number;
  parts: AccentPart[];
}

/**
 * Melts of which a single colour needs less than can be cooked, summed over all that want them.
 * @param leastMl the smallest cup that can be cooked. @param filmMl what stays in it.
 */
export function accentsOf(parts: AccentPart[], { leastMl, filmMl }: { leastMl: number; filmMl: number }): Accent[] {
  const melts = new Map<string, AccentPart[]>();
  for (const part of parts) if (part.ml > 0) melts.set(part.recipeId, [...(melts.get(part.recipeId) ?? []), part]);
  return [...melts]
    .map(([recipeId, mine]): Accent => {
      const neededMl = mine.reduce((sum, { ml }) => sum + ml, 0);
      const cookMl = Math.max(leastMl, neededMl + filmMl);
      return {
        recipeId,
        neededMl,
        cookMl,
        leftMl: Math.max(0, cookMl - neededMl - filmMl),
        tooSmallAlone: mine.filter(({ ml }) => ml + filmMl < leastMl).length,
        parts: mine,
      };
    })
    .filter(({ tooSmallAlone }) => tooSmallAlone > 0);
}
