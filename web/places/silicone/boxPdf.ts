import { PDFDocument, StandardFonts } from 'pdf-lib';
import { boardParts, boxNet, type Inside } from '../../../core/mold/boxParts.ts';
import { type Paper, tilesOf } from '../../../core/mold/tiles.ts';
import { MmPage } from '../../parts/pdf.ts';

/** The boards to cut, and the net to fold at 1:1, over as many pages as it takes. */
export async function boxPdf(inside: Inside, boardMm: number, name: string, paper: Paper): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.setTitle(`Box for ${name}`);
  const plain = await document.embedFont(StandardFonts.Helvetica);
  const bold = await document.embedFont(StandardFonts.HelveticaBold);
  const { outline, folds, sheetMm } = boxNet(inside);
  const tiling = tilesOf(sheetMm, paper);
  cutList(new MmPage(document, plain, bold, [210, 297]), inside, boardMm, name);
  const [wide, tall] = tiling.paperMm;
  const [roomX, roomY] = [wide - 2 * tiling.marginMm, tall - 2 * tiling.marginMm];
  tiling.pages.forEach(([x, y], i) => {
    const page = new MmPage(document, plain, bold, tiling.paperMm);
    page.within([tiling.marginMm, tiling.marginMm], [roomX, roomY], () => {
      page.shift = [tiling.marginMm - x, tiling.marginMm - y];
      page.outline(outline, 0.4);
      for (const [a, b] of folds) page.line(a, b, 0.3, true);
      page.shift = [0, 0];
    });
    const corner: [number, number][] = [
      [tiling.marginMm, tiling.marginMm],
      [wide - tiling.marginMm, tiling.marginMm],
      [wide - tiling.marginMm, tall - tiling.marginMm],
      [tiling.marginMm, tall - tiling.marginMm],
    ];
    for (const [cx, cy] of corner) {
      page.line([cx - 4, cy], [cx + 4, cy], 0.15);
      page.line([cx, cy - 4], [cx, cy + 4], 0.15);
    }
    const below = tall - 4;
    page.line([tiling.marginMm + 8, below - 2], [tiling.marginMm + 58, below - 2], 0.6);
    page.text('50 mm: measure it. Print at 100 %, not fitted to the page.', [tiling.marginMm + 62, below - 1], 3);
    const where =
      tiling.pages.length === 1
        ? ''
        : `, row ${Math.floor(i / tiling.columns) + 1}, column ${(i % tiling.columns) + 1}`;
    page.text(`${name}${where}`, [tiling.marginMm + 8, 6.5], 3, true);
  });
  return document.save();
}

function cutList(page: MmPage, inside: Inside, boardMm: number, name: string): void {
  page.text(`Box for ${name}`, [18, 26], 7, true);
  page.text(
    `Inside ${inside.lengthMm.toFixed(1)} × ${inside.widthMm.toFixed(1)} × ${inside.heightMm.toFixed(1)} mm to the line; board of ${boardMm} mm.`,
    [18, 35],
  );
  const parts = boardParts(inside, boardMm);
  parts.forEach((part, i) => {
    const y = 50 + i * 9;
    page.text(`${part.count} ×`, [18, y], 4.2, true);
    page.text(part.name, [34, y], 4.2);
    page.text(`${part.lengthMm.toFixed(1)} × ${part.widthMm.toFixed(1)} mm`, [78, y], 4.2, true);
    page.line([18, y + 2.6], [150, y + 2.6], 0.15);
  });
  const scale = Math.min(
    1,
    170 / Math.max(...parts.map((part) => part.lengthMm)),
    60 / Math.max(...parts.map((part) => part.widthMm)),
  );
  let y = 92;
  for (const part of parts) {
    const [w, h] = [part.lengthMm * scale, part.widthMm * scale];
    if (y + h > 280) break;
    page.outline([
      [18, y],
      [18 + w, y],
      [18 + w, y + h],
      [18, y + h],
    ]);
    page.text(`${part.name}, ${part.count} ×`, [20, y + Math.min(6, h - 1)], 3.4);
    page.text(`${part.lengthMm.toFixed(1)}`, [18 + w / 2 - 5, y + h + 4.2], 3.2);
    page.text(`${part.widthMm.toFixed(1)}`, [20 + w, y + h / 2 + 1], 3.2);
    y += h + 10;
  }
  if (scale < 1) page.text(`Drawn at 1 : ${(1 / scale).toFixed(1)}; the net on the next pages is 1 : 1.`, [18, 291], 3);
}
