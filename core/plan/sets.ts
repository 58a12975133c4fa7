interface OfASet {
  id: string;
  setName: string | null;
}

/** The lines of an order that go into one bag with this one, it among them, in their order. */
export const setOf = <T extends OfASet>(lines: T[], line: T): T[] =>
  line.setName === null ? [line] : lines.filter(({ setName }) => setName === line.setName);
