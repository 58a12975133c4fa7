/** One closed pour as the charts need it, oldest first. */
export interface PourFigures {
  id: string;
  code: string;
  at: string;
  recipeName: string;
  hex: string;
  moldIds: string[];
  made: number;
  rejected: number;
  cookedG: number;
  goodG: number;
  returnedG: number;
  rejectG: number;
  /** Null: nobody weighed it. */
  residueG: number | null;
  degassedG: number | null;
  wantedScale: 'A' | '00' | null;
  wantedHardness: number | null;
  hardness: number | null;
}

export interface Insight {
  pours: PourFigures[];
  faults: { reason: string; count: number }[];
  /** Plain first pours of new molds since the first of these pours: they are in no yield; grams of those that were weighed. */
  firstPours: { count: number; weighed: number; grams: number };
}
