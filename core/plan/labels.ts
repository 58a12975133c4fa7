import { PAPERS } from '../mold/tiles.ts';

/** Sheets that labels come on: common cuts, measured on the sheet; a roll gives one at a time. */
export const LABEL_SHEETS = {
  A4: { paperMm: PAPERS.A4, columns: 3, rows: 8, labelMm: [70, 36], firstMm: [0, 4.5], stepMm: [70, 36] },
  Letter: {
    paperMm: PAPERS.Letter,
    columns: 3,
    rows: 10,
    labelMm: [66.7, 25.4],
    firstMm: [4.8, 12.7],
    stepMm: [69.85, 25.4],
  },
  Roll: { paperMm: [62, 29], columns: 1, rows: 1, labelMm: [62, 29], firstMm: [0, 0], stepMm: [62, 29] },
} as const;
export type LabelSheet = keyof typeof LABEL_SHEETS;

/** Upper left corner of each label, mm, page by page; `skip` labels of the first sheet are used up already. */
export function labelPlaces(sheet: LabelSheet, count: number, skip = 0): { page: number; xMm: number; yMm: number }[] {
  const { columns, rows, firstMm, stepMm } = LABEL_SHEETS[sheet];
  const perPage = columns * rows;
  const used = Math.min(Math.max(0, skip), perPage - 1);
  return Array.from({ length: count }, (_, i) => {
    const at = i + used;
    const onPage = at % perPage;
    return {
      page: Math.floor(at / perPage),
      xMm: firstMm[0] + (onPage % columns) * stepMm[0],
      yMm: firstMm[1] + Math.floor(onPage / columns) * stepMm[1],
    };
  });
}
