import { PDFDocument, StandardFonts } from 'pdf-lib';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import { PAPERS, type Paper } from '../../../core/mold/tiles.ts';
import type { Cutter } from '../../../core/shape/toolReach.ts';
import { MmPage } from '../../parts/pdf.ts';
import type { DrawnMold } from '../../workers/molder.ts';
import type { Pictured } from '../../workers/shadow.ts';
import { mm, setUpPlaces, setUpRows } from './setUp.ts';

/** A shadow as a grey picture that a printer does not drown in. */
async function asPng({ picture }: Pictured): Promise<Uint8Array> {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [picture.width, picture.height];
  const context = canvas.getContext('2d');
  if (!context) throw new Error('The browser cannot draw the sheet.');
  context.drawImage(picture, 0, 0);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = '#c9d2d0';
  context.fillRect(0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done));
  if (!blob) throw new Error('The browser cannot draw the sheet.');
  return new Uint8Array(await blob.arrayBuffer());
}

/** The set-up sheet for a machine shop: drawing with places, sizes and tolerances, as a PDF. */
export async function setUpPdf(
  mold: DrawnMold,
  wish: MoldWish,
  of: string,
  cutter: Cutter | null,
  paper: Paper,
): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  file.setTitle(`Set-up sheet: mold for ${of}`);
  const plain = await file.embedFont(StandardFonts.Helvetica);
  const bold = await file.embedFont(StandardFonts.HelveticaBold);
  const size = PAPERS[paper];
  const newPage = () => new MmPage(file, plain, bold, size);
  const page = newPage();
  page.text(`Set-up sheet: mold for ${of}`, [16, 22], 6.5, true);
  page.text(
    'All sizes in millimetres; places from the lower left corner of the lower half, seen from above.',
    [16, 29],
    3.4,
  );

  const [long, wide] = mold.blockMm;
  const scale = Math.min(1, 160 / long, 96 / wide);
  const [left, top] = [28, 38];
  const at = (x: number, y: number): [number, number] => [left + x * scale, top + (wide - y) * scale];
  const { plan, layout } = mold;
  await page.picture(file, await asPng(plan), at(plan.leftMm + mold.cornerMm[0], plan.topMm + mold.cornerMm[1]), [
    plan.columns * plan.cellMm * scale,
    plan.rows * plan.cellMm * scale,
  ]);
  page.outline([at(0, 0), at(long, 0), at(long, wide), at(0, wide)], 0.5);
  for (const [i, { x, y }] of layout.pins.entries()) {
    page.circle(at(x, y), (wish.pins.diameterMm / 2) * scale);
    const aside = (wish.pins.diameterMm / 2) * scale + 0.8;
    page.text(`P${i + 1}`, [at(x, y)[0] + (x > long / 2 ? -aside - 4 : aside), at(x, y)[1] + 1], 2.8);
  }
  for (const [i, { x, y }] of layout.noses.entries()) {
    const [px, py] = at(x, y);
    page.line([px - 2, py], [px + 2, py], 0.25);
    page.line([px, py - 2], [px, py + 2], 0.25);
    page.text(`N${i + 1}`, [px - 1.6, py - 2.6], 3, true);
  }
  for (const [i, { x, y }] of layout.clamps.entries()) {
    const [px, py] = at(x, y);
    const out = y > 0 ? -5 : 5;
    page.line([px, py], [px, py + out], 0.8);
    page.text(String(i + 1), [px + 1, py + out * 0.9 + (y > 0 ? 0 : 1)], 2.8);
  }
  const below = top + wide * scale + 9;
  page.line([left, below], [left + long * scale, below], 0.25);
  page.text(mm(long), [left + (long * scale) / 2 - 4, below + 4.4], 3.6, true);
  page.line([left - 6, top], [left - 6, top + wide * scale], 0.25);
  page.text(mm(wide), [left - 14, top + (wide * scale) / 2], 3.6, true);
  page.text(
    scale === 1 ? 'Drawn 1 : 1' : `Drawn 1 : ${(1 / scale).toFixed(2)}`,
    [left + long * scale - 22, below + 4.4],
    2.8,
  );

  let sheet = page;
  let y = below + 13;
  for (const [name, value] of [...setUpRows(mold, wish, cutter), ...setUpPlaces(mold)]) {
    if (y > size[1] - 22) {
      sheet = newPage();
      y = 22;
    }
    sheet.text(name, [16, y], 3.5, true);
    const took = sheet.paragraph(value, [62, y], size[0] - 78, 3.5);
    y += Math.max(5.6, took + 1);
  }
  sheet.paragraph(
    'The STL and 3MF of all parts go with this sheet. Machines: licensed or trained people; the shop’s own rules win.',
    [16, Math.min(y + 4, size[1] - 14)],
    size[0] - 32,
    3.3,
  );
  return file.save();
}
