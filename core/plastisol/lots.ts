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
