import {
  clip,
  endPath,
  type PDFDocument,
  type PDFFont,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
} from 'pdf-lib';

const PT_PER_MM = 72 / 25.4;
type Point = readonly [x: number, y: number];

/** A page drawn on in millimetres from its upper left corner, as a sheet on the bench is measured. */
export class MmPage {
  private readonly page: PDFPage;
  private readonly tall: number;
  /** What is drawn is moved by this. */
  shift: Point = [0, 0];

  constructor(
    document: PDFDocument,
    private readonly plain: PDFFont,
    private readonly bold: PDFFont,
    [wideMm, tallMm]: Point,
  ) {
    this.page = document.addPage([wideMm * PT_PER_MM, tallMm * PT_PER_MM]);
    this.tall = tallMm;
  }

  private at = ([x, y]: Point) => ({
    x: (x + this.shift[0]) * PT_PER_MM,
    y: (this.tall - y - this.shift[1]) * PT_PER_MM,
  });

  line(from: Point, to: Point, thickMm = 0.3, dashed = false): void {
    this.page.drawLine({
      start: this.at(from),
      end: this.at(to),
      thickness: thickMm * PT_PER_MM,
      ...(dashed ? { dashArray: [2 * PT_PER_MM, 1.5 * PT_PER_MM] } : {}),
    });
  }

  outline(points: readonly Point[], thickMm = 0.4): void {
    points.forEach((point, i) => {
      this.line(point, points[(i + 1) % points.length] as Point, thickMm);
    });
  }

  circle(middle: Point, radiusMm: number): void {
    this.page.drawCircle({ ...this.at(middle), size: radiusMm * PT_PER_MM, borderWidth: 0.4 * PT_PER_MM, opacity: 0 });
  }

  /** `sizeMm` is the height of a line; what the font cannot write is left as a question mark. */
  text(words: string, at: Point, sizeMm = 3.6, bold = false): void {
    const font = bold ? this.bold : this.plain;
    this.page.drawText(writable(words, font), { ...this.at(at), size: sizeMm * PT_PER_MM, font });
  }

  /** Words broken into lines no wider than `wideMm`; returns the height they took, mm. */
  paragraph(words: string, [x, y]: Point, wideMm: number, sizeMm = 3.6): number {
    const font = this.plain;
    const lines: string[] = [''];
    for (const word of writable(words, font).split(' ')) {
      const longer = lines.at(-1) === '' ? word : `${lines.at(-1)} ${word}`;
      if (font.widthOfTextAtSize(longer, sizeMm * PT_PER_MM) > wideMm * PT_PER_MM && lines.at(-1) !== '')
        lines.push(word);
      else lines[lines.length - 1] = longer;
    }
    lines.forEach((line, i) => {
      this.text(line, [x, y + i * sizeMm * 1.35], sizeMm);
    });
    return lines.length * sizeMm * 1.35;
  }

  /** Draws only within a rectangle of the page. */
  within([x, y]: Point, [wide, high]: Point, draw: () => void): void {
    const corner = this.at([x - this.shift[0], y + high - this.shift[1]]);
    this.page.pushOperators(
      pushGraphicsState(),
      rectangle(corner.x, corner.y, wide * PT_PER_MM, high * PT_PER_MM),
      clip(),
      endPath(),
    );
    draw();
    this.page.pushOperators(popGraphicsState());
  }

  async picture(document: PDFDocument, png: Uint8Array, [x, y]: Point, [wide, high]: Point): Promise<void> {
    const image = await document.embedPng(png);
    this.page.drawImage(image, { ...this.at([x, y + high]), width: wide * PT_PER_MM, height: high * PT_PER_MM });
  }
}

function writable(words: string, font: PDFFont): string {
  const known = new Set(font.getCharacterSet());
  return [...words].map((letter) => (known.has(letter.codePointAt(0) ?? 0) ? letter : '?')).join('');
}
