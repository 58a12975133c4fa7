/** How many drops of a bottle are a mL, and whether nobody weighed any of its own or its material's. */
export interface Drop {
  perMl: number;
  byDefault: boolean;
}

/** How a bottle drips: as was weighed of it, else of its material, else as the workshop's drop is. */
export const dropOf = (lotsPerMl: number | null, materialsPerMl: number | null, workshopsPerMl: number): Drop => ({
  perMl: lotsPerMl ?? materialsPerMl ?? workshopsPerMl,
  byDefault: lotsPerMl === null && materialsPerMl === null,
});

interface HoldingLot {
  id: string;
  levelG: number;
  createdAt: string;
}

/**
 * Lots that hold something, in the order in which they are used: the one that was chosen, then the oldest.
 * @param chosenId null: none was chosen.
 */
export const lotsInUse = <L extends HoldingLot>(lots: L[], chosenId: string | null): L[] =>
  lots
    .filter((lot) => lot.levelG > 0)
    .sort(
      (a, b) =>
        Number(b.id === chosenId) - Number(a.id === chosenId) || before(a.createdAt, b.createdAt) || before(a.id, b.id),
    );

const before = (a: string, b: string) => (a < b ? -1 : Number(a > b));
