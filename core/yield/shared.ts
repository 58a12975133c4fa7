export interface Giver {
  /** Grams that were drawn of it, by volume and density. */
  drawnG: number;
  /** Grams that were in it and did not come back or stay on its glass: no more of it can have become baits. */
  mostG: number;
}

/**
 * Shares out grams that were weighed once for several cups: by what was drawn of each, never more than left it. What one
 * cannot have given, the others did; where all together are too few, by what was drawn.
 * @returns grams of each, which add up to `totalG`.
 */
export function shareOutG(totalG: number, cups: Giver[]): number[] {
  const drawn = cups.reduce((sum, cup) => sum + cup.drawnG, 0);
  const weights = cups.map((cup) => (drawn > 0 ? cup.drawnG : Math.max(cup.mostG, 0) || 1));
  const most = cups.reduce((sum, cup) => sum + Math.max(0, cup.mostG), 0);
  const given = cups.map(() => 0);
  // Where all of it was used up, the last digit decides nothing.
  if (most < totalG * (1 - 1e-9)) {
    const all = weights.reduce((sum, one) => sum + one, 0);
    return weights.map((one) => totalG * (one / all));
  }
  const open = new Set(cups.keys());
  let left = totalG;
  while (left > 1e-12 * totalG && open.size > 0) {
    const all = [...open].reduce((sum, i) => sum + (weights[i] as number), 0);
    let over = false;
    for (const i of [...open]) {
      const room = Math.max(0, cups[i]?.mostG ?? 0) - (given[i] as number);
      const share = all > 0 ? left * ((weights[i] as number) / all) : left / open.size;
      if (share > room) {
        given[i] = (given[i] as number) + room;
        open.delete(i);
        over = true;
      }
    }
    if (!over) {
      for (const i of open)
        given[i] = (given[i] as number) + (all > 0 ? left * ((weights[i] as number) / all) : left / open.size);
      break;
    }
    left = totalG - given.reduce((sum, one) => sum + one, 0);
  }
  return given;
}
