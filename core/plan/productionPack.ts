import { floorNear } from '../rounding.ts';
import type { PlannedLine } from './production.ts';
import { goodOf, type Poured, pourMinOf, type Work } from './productionWork.ts';

/** Who gets what is ready: lines by their day, the least late first. */
interface Open {
  line: number;
  product: number;
  due: number;
  perPack: number;
  left: number;
  packedOn: number | null;
}

export interface Packed {
  /** Of each day, baits of each line. */
  days: { line: number; baits: number }[][];
  packMin: number[];
  lateBaitDays: number;
  open: Open[];
}

/** Days of a plan, by number, that a line is due on; what is due later counts for the last. */
const dueOf = (work: Work, due: string) =>
  Math.min(work.days.length - 1, Math.round((Date.parse(due) - Date.parse(work.days[0]?.day as string)) / 86_400_000));

/** Full bags of so many baits; the last one of a line holds what is over. */
export const inBags = ({ left, perPack }: { left: number; perPack: number }, baits: number): number =>
  baits >= left ? left : baits - (baits % perPack);

/** Packs by the lines' own order as the plan goes on; one day at a time, so that what is poured may go by what was packed. */
export class Packer {
  readonly days: Packed['days'] = [];
  readonly packMin: number[] = [];
  lateBaitDays = 0;
  readonly open: Open[];
  private packed: number[];

  constructor(private readonly work: Work) {
    const index = new Map(work.products.map((product, at) => [`${product.baitId} ${product.colour}`, at]));
    const colours = new Map(work.asked.colours.map(({ id }, at) => [id, at]));
    this.packed = work.products.map(() => 0);
    this.open = work.asked.lines
      .map((line, at) => ({
        line: at,
        product: index.get(`${line.baitId} ${colours.get(line.colourId)}`) as number,
        due: dueOf(work, line.due),
        perPack: line.perPack,
        left: line.baits,
        packedOn: null,
      }))
      .sort((a, b) => a.due - b.due || a.line - b.line);
  }

  /** What can be packed on a day of this product, less what was. */
  private ready(product: number, day: number, poured: Poured): number {
    const one = this.work.products[product] as Work['products'][number];
    let shots = 0;
    for (let d = 0; d <= day - one.lag; d++) shots += poured[product]?.[d] as number;
    return (one.stockBy[day] as number) + goodOf(one, shots) - (this.packed[product] as number);
  }

  /** @param minutes that hands have for it. */
  pack(day: number, minutes: number, poured: Poured): void {
    let left = minutes;
    const rows: { line: number; baits: number }[] = [];
    for (const one of this.open) {
      if (one.left === 0) continue;
      const { packMin } = this.work.products[one.product] as Work['products'][number];
      const inTime = packMin > 0 ? Math.max(0, floorNear(left / packMin)) : Number.POSITIVE_INFINITY;
      const baits = inBags(one, Math.min(one.left, inTime, this.ready(one.product, day, poured)));
      if (baits <= 0) continue;
      one.left -= baits;
      left -= baits * packMin;
      this.packed[one.product] = (this.packed[one.product] as number) + baits;
      if (one.left === 0) one.packedOn = day;
      rows.push({ line: one.line, baits });
    }
    this.days.push(rows);
    this.packMin.push(minutes - left);
    for (const one of this.open) if (one.due <= day) this.lateBaitDays += one.left;
  }
}

/** Packs what these shots give, with the hands that pouring leaves. */
export function packedOf(work: Work, poured: Poured): Packer {
  const packer = new Packer(work);
  for (const [day, { handsMin }] of work.days.entries())
    packer.pack(day, Math.max(0, handsMin - pourMinOf(work, poured, day)), poured);
  return packer;
}

/** When each line is whole, and how many days late; of what is not, how many are missing and why. */
export function linesOf(work: Work, { open }: Packer): PlannedLine[] {
  const first = Date.parse(work.days[0]?.day as string);
  const lines = open.map((one): PlannedLine & { at: number } => {
    const asked = work.asked.lines[one.line] as Work['asked']['lines'][number];
    const packedOn = one.packedOn === null ? null : (work.days[one.packedOn]?.day as string);
    return {
      at: one.line,
      lineId: asked.id,
      packedOn,
      lateDays:
        one.packedOn === null
          ? null
          : Math.max(0, one.packedOn - Math.round((Date.parse(asked.due) - first) / 86_400_000)),
      shortBaits: one.left,
      why: one.left > 0 ? (work.products[one.product]?.lack ?? 'no-time') : null,
    };
  });
  return lines.sort((a, b) => a.at - b.at).map(({ at: _, ...line }) => line);
}
