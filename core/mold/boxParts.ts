/** One board of a box, as it is cut. */
export interface BoardPart {
  name: 'floor' | 'long side' | 'short side';
  count: number;
  lengthMm: number;
  widthMm: number;
}

export interface Inside {
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

/** What the sides stand over the line that is poured to, mm. */
export const LIP_MM = 5;
/** Glue tabs of a folded box, mm. */
const TAB_MM = 12;
const MARGIN_MM = 6;

/**
 * Boards for a box with this inside: the long sides run past the short ones, and all stand on the floor.
 * @param boardMm thickness of the board.
 */
export function boardParts({ lengthMm, widthMm, heightMm }: Inside, boardMm: number): BoardPart[] {
  const tall = heightMm + LIP_MM;
  return [
    { name: 'floor', count: 1, lengthMm: lengthMm + 2 * boardMm, widthMm: widthMm + 2 * boardMm },
    { name: 'long side', count: 2, lengthMm: lengthMm + 2 * boardMm, widthMm: tall },
    { name: 'short side', count: 2, lengthMm: widthMm, widthMm: tall },
  ];
}

type Point = [x: number, y: number];

/** The outline and the folds of a box to be cut from one card, and the size of the sheet, mm. */
export function boxNet({ lengthMm: l, widthMm: w, heightMm }: Inside) {
  const h = heightMm + LIP_MM;
  const [x0, x1, y0, y1] = [MARGIN_MM + h, MARGIN_MM + h + l, MARGIN_MM + h, MARGIN_MM + h + w];
  const slope = Math.min(TAB_MM / 2, h / 3);
  const tab = Math.min(TAB_MM, h);
  // Round from the upper left corner of the floor; the flaps over the long sides carry the tabs.
  const outline: Point[] = [
    [x0, y0],
    [x0 - tab, y0 - slope],
    [x0 - tab, y0 - h + slope],
    [x0, y0 - h],
    [x1, y0 - h],
    [x1 + tab, y0 - h + slope],
    [x1 + tab, y0 - slope],
    [x1, y0],
    [x1 + h, y0],
    [x1 + h, y1],
    [x1, y1],
    [x1 + tab, y1 + slope],
    [x1 + tab, y1 + h - slope],
    [x1, y1 + h],
    [x0, y1 + h],
    [x0 - tab, y1 + h - slope],
    [x0 - tab, y1 + slope],
    [x0, y1],
    [x0 - h, y1],
    [x0 - h, y0],
  ];
  const folds: [Point, Point][] = [
    [
      [x0, y0],
      [x1, y0],
    ],
    [
      [x0, y1],
      [x1, y1],
    ],
    [
      [x0, y0],
      [x0, y1],
    ],
    [
      [x1, y0],
      [x1, y1],
    ],
    [
      [x0, y0],
      [x0, y0 - h],
    ],
    [
      [x1, y0],
      [x1, y0 - h],
    ],
    [
      [x0, y1],
      [x0, y1 + h],
    ],
    [
      [x1, y1],
      [x1, y1 + h],
    ],
  ];
  return { outline, folds, sheetMm: [x1 + h + MARGIN_MM, y1 + h + MARGIN_MM] as Point };
}

/** The net as a drawing that prints at 1:1; a bar of 50 mm on it shows whether it did. */
export function netSvg(inside: Inside): string {
  const { outline, folds, sheetMm } = boxNet(inside);
  const [wide, tall] = sheetMm;
  const at = ([x, y]: Point) => `${Number(x.toFixed(2))} ${Number(y.toFixed(2))}`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${wide.toFixed(2)}mm" height="${tall.toFixed(2)}mm" viewBox="0 0 ${wide.toFixed(2)} ${tall.toFixed(2)}">`,
    `<path d="M${outline.map(at).join('L')}Z" fill="none" stroke="#000" stroke-width="0.4"/>`,
    ...folds.map(
      ([a, b]) =>
        `<path d="M${at(a)}L${at(b)}" fill="none" stroke="#000" stroke-width="0.3" stroke-dasharray="2 1.5"/>`,
    ),
    `<path d="M${MARGIN_MM} ${tall - 3}h50" stroke="#000" stroke-width="0.6"/>`,
    `<text x="${MARGIN_MM}" y="${tall - 4.2}" font-size="3" font-family="sans-serif">50 mm: measure it. Print at 100 %, not fitted to the page.</text>`,
    '</svg>',
  ].join('\n');
}
