import { ceilNear } from '../rounding.ts';

export const PAPERS = { A4: [210, 297], Letter: [215.9, 279.4] } as const;
export type Paper = keyof typeof PAPERS;

export interface Tiling {
  /** As the paper lies: width and height, mm. */
  paperMm: [number, number];
  marginMm: number;
  columns: number;
  rows: number;
  /** Upper left corner of what each page shows, on the drawing, row by row, mm. */
  pages: [x: number, y: number][];
}

/** No printer reaches the edge; neighbours share a strip to be glued. */
const MARGIN_MM = 10;
const OVERLAP_MM = 12;

/**
 * Pages that show a drawing at 1:1, each sharing a strip with the next; the paper lies the way that takes fewer.
 * @param sheetMm width and height of the drawing.
 */
export function tilesOf([wide, tall]: readonly [number, number], paper: Paper): Tiling {
  const along = (sizeMm: number, roomMm: number) =>
    sizeMm <= roomMm ? 1 : 1 + Math.max(1, ceilNear((sizeMm - roomMm) / (roomMm - OVERLAP_MM)));
  const lie = ([w, h]: readonly [number, number]): Tiling => {
    const [roomX, roomY] = [w - 2 * MARGIN_MM, h - 2 * MARGIN_MM];
    const [columns, rows] = [along(wide, roomX), along(tall, roomY)];
    const pages = Array.from({ length: columns * rows }, (_, i): [number, number] => [
      (i % columns) * (roomX - OVERLAP_MM),
      Math.floor(i / columns) * (roomY - OVERLAP_MM),
    ]);
    return { paperMm: [w, h], marginMm: MARGIN_MM, columns, rows, pages };
  };
  const [short, long] = PAPERS[paper];
  const [upright, across] = [lie([short, long]), lie([long, short])];
  return across.pages.length < upright.pages.length ? across : upright;
}
