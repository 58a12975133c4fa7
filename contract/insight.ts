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
  residueG: number;
  wantedScale: 'A' | '00' | null;
  wantedHardness: number | null;
  hardness: number | null;
}

export interface Insight {
  pours: PourFigures[];
  faults: { reason: string; count: number }[];
}
