import { PDFDocument, StandardFonts } from 'pdf-lib';
import type { Bag, Order } from '../../../contract/orders.ts';
import { PAPERS, type Paper } from '../../../core/mold/tiles.ts';
import { LABEL_SHEETS, type LabelSheet, labelPlaces } from '../../../core/plan/labels.ts';
import { totalsOf } from '../../../core/plan/prices.ts';
import { dateText, dayText } from '../../parts/dates.ts';
import { MmPage } from '../../parts/pdf.ts';

const MARGIN = 18;

async function begun(title: string) {
  const file = await PDFDocument.create();
  file.setTitle(title);
  const plain = await file.embedFont(StandardFonts.Helvetica);
  const bold = await file.embedFont(StandardFonts.HelveticaBold);
  return { file, page: (size: readonly [number, number]) => new MmPage(file, plain, bold, size) };
}

async function squarePng(text: string): Promise<Uint8Array> {
  const { toDataURL } = await import('qrcode');
  const url = await toDataURL(text, { margin: 1, width: 300 });
  return Uint8Array.from(atob(url.split(',')[1] as string), (letter) => letter.charCodeAt(0));
}

/** As much of a text as goes into a width that is known by its letters. */
const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}.` : text);

/** A label a bag, as many to a sheet as it has: what is in it, how many, its code in words and as a square. */
export async function labelsPdf(bags: Bag[], sheet: LabelSheet, home: string, skip = 0): Promise<Uint8Array> {
  const { file, page } = await begun('Labels');
  const { paperMm, labelMm } = LABEL_SHEETS[sheet];
  const places = labelPlaces(sheet, bags.length, skip);
  const pages: MmPage[] = [];
  for (const [i, bag] of bags.entries()) {
    const { page: nth, xMm, yMm } = places[i] as (typeof places)[number];
    while (pages.length <= nth) pages.push(page(paperMm));
    const on = pages[nth] as MmPage;
    const side = Math.min(labelMm[1] - 4, 27);
    const top = yMm + (labelMm[1] - side) / 2;
    await on.picture(file, await squarePng(`${home}/bags/${bag.code}`), [xMm + 2, top], [side, side]);
    const left = xMm + side + 4;
    const letters = Math.floor((labelMm[0] - side - 6) / 2);
    const [first] = bag.contents;
    // A set names each of its baits; a bag of one kind has room for large words.
    if (bag.contents.length > 1)
      bag.contents.slice(0, 4).forEach(({ baits, baitName, colourwayName }, row) => {
        const words = cut(`${baits} ${baitName} ${colourwayName}`, Math.floor(letters * 1.45));
        on.text(words, [left, top + 3.6 + row * 4], 2.8, row === 0);
      });
    else {
      on.text(cut(first?.baitName ?? '', letters), [left, top + 4.6], 4, true);
      on.text(cut(first?.colourwayName ?? '', Math.floor(letters * 1.2)), [left, top + 9.6], 3.4);
      on.text(`${bag.baits} baits`, [left, top + 15], 3.8, true);
    }
    on.text(bag.code, [left, top + side - 1.6], 4, true);
  }
  return file.save();
}

interface Row {
  cells: string[];
  bold?: boolean;
}

/** Rows of a table down the pages, each column at its place. */
class Sheet {
  private at: MmPage;
  private y: number;
  constructor(
    private readonly page: () => MmPage,
    private readonly columns: readonly number[],
    private readonly tallMm: number,
  ) {
    this.at = page();
    this.y = MARGIN + 4;
  }

  words(text: string, sizeMm: number, bold = false): void {
    this.room(sizeMm * 1.5);
    this.at.text(text, [MARGIN, this.y], sizeMm, bold);
    this.y += sizeMm * 1.5;
  }

  paragraph(text: string, wideMm: number): void {
    this.room(14);
    this.y += this.at.paragraph(text, [MARGIN, this.y], wideMm, 3.6) + 1;
  }

  row({ cells, bold = false }: Row): void {
    this.room(7);
    cells.forEach((cell, i) => {
      this.at.text(cell, [this.columns[i] as number, this.y], 3.8, bold);
    });
    this.y += 6.4;
  }

  rule(wideMm: number): void {
    this.at.line([MARGIN, this.y - 4.4], [MARGIN + wideMm, this.y - 4.4], 0.3);
    this.y += 1.2;
  }

  box(): void {
    const [x, y] = [MARGIN, this.y - 3.4];
    this.at.outline([
      [x, y],
      [x + 4, y],
      [x + 4, y + 4],
      [x, y + 4],
    ]);
  }

  space(mm: number): void {
    this.y += mm;
  }

  private room(mm: number): void {
    if (this.y + mm < this.tallMm - MARGIN) return;
    this.at = this.page();
    this.y = MARGIN + 4;
  }
}

const live = (order: Order) => order.bags.filter((bag) => !bag.unpacked);

interface Said {
  workshop: { name: string; taxFraction: number };
  contact: string;
  money(minor: number): string;
}

/** What goes with the parcel: lines, packs, prices where they are agreed, tax where there is one, the bags by their codes. */
export async function deliveryPdf(order: Order, paper: Paper, { workshop, contact, money }: Said): Promise<Uint8Array> {
  const { file, page } = await begun(`Delivery note ${order.code}`);
  const size = PAPERS[paper];
  const wide = size[0] - 2 * MARGIN;
  const sheet = new Sheet(() => page(size), [MARGIN, MARGIN + 14, size[0] - 80, size[0] - 56, size[0] - 34], size[1]);
  sheet.words(workshop.name, 5, true);
  sheet.space(2);
  sheet.words(`Delivery note ${order.code}`, 8, true);
  sheet.words(`To ${order.customer}${contact ? `, ${contact}` : ''}`, 4.2);
  sheet.words(
    `${order.sentAt ? `Sent ${dateText(order.sentAt)}` : `Packed ${dateText(new Date().toISOString())}`}, due ${dayText(order.dueOn)}`,
    4.2,
  );
  sheet.space(4);
  sheet.row({ cells: ['Packs', 'What', 'To a pack', 'A pack', 'In all'], bold: true });
  sheet.rule(wide);
  for (const line of order.lines)
    sheet.row({
      cells: [
        String(line.packed),
        `${line.baitName} ${line.colourwayName}`,
        String(line.perPack),
        line.priceMinor === null ? '–' : money(line.priceMinor),
        line.priceMinor === null ? '–' : money(line.packed * line.priceMinor),
      ],
    });
  const total = totalsOf(
    order.lines.map(({ packed, priceMinor }) => ({ packs: packed, priceMinor })),
    workshop.taxFraction,
  );
  sheet.rule(wide);
  if (order.gift) sheet.row({ cells: ['', 'A gift: nothing is to be paid', '', '', ''], bold: true });
  else if (total.netMinor > 0) {
    if (total.taxMinor > 0) {
      sheet.row({ cells: ['', '', '', 'Net', money(total.netMinor)] });
      sheet.row({ cells: ['', '', '', 'Tax', money(total.taxMinor)] });
    }
    sheet.row({ cells: ['', '', '', 'In all', money(total.totalMinor)], bold: true });
    if (total.unpriced > 0) sheet.paragraph('Lines with a dash have no price yet and are not in the sum.', wide);
  }
  const missing = order.lines.filter(({ packs, packed }) => packed < packs);
  if (missing.length > 0) {
    sheet.space(3);
    sheet.words('To follow', 4.6, true);
    for (const line of missing)
      sheet.row({ cells: [String(line.packs - line.packed), `${line.baitName} ${line.colourwayName}`] });
  }
  sheet.space(3);
  sheet.words('Bags', 4.6, true);
  sheet.paragraph(
    live(order)
      .map(({ code, baits }) => `${code} (${baits})`)
      .join(', ') || 'None yet.',
    wide,
  );
  sheet.paragraph('The code of a bag leads back to its cup: say it if anything is wrong with what is in it.', wide);
  return file.save();
}

/** What stands beside the packer: a box to tick for each line, what is packed of it already, no prices. */
export async function packingPdf(order: Order, paper: Paper): Promise<Uint8Array> {
  const { file, page } = await begun(`Packing list ${order.code}`);
  const size = PAPERS[paper];
  const wide = size[0] - 2 * MARGIN;
  const sheet = new Sheet(() => page(size), [MARGIN + 8, MARGIN + 24, size[0] - 84, size[0] - 50], size[1]);
  sheet.words(`Packing list ${order.code}`, 8, true);
  sheet.words(`${order.customer}, due ${dayText(order.dueOn)}`, 4.2);
  if (order.notes) sheet.paragraph(order.notes, wide);
  sheet.space(4);
  sheet.row({ cells: ['Packs', 'What', 'To a pack', 'Packed'], bold: true });
  sheet.rule(wide);
  for (const line of order.lines) {
    sheet.box();
    sheet.row({
      cells: [
        String(line.packs),
        `${line.baitName} ${line.colourwayName}`,
        String(line.perPack),
        `${line.packed} of ${line.packs}`,
      ],
    });
  }
  return file.save();
}
