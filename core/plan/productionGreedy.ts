import { floorNear } from '../rounding.ts';
import { Packer } from './productionPack.ts';
import { glassesFor, goodOf, type Poured, type Product, type Work } from './productionWork.ts';

/** What a day has left, while it is filled. */
class Evening {
  private readonly ml = new Map<number, number>();
  private readonly shots: number[];

  constructor(
    private readonly work: Work,
    private readonly day: number,
    private minutes: number,
  ) {
    this.shots = work.baits.map(({ mostShots }) => mostShots[day] as number);
  }

  /** Opens a colour, where there is time for it. */
  private opening(colour: number): number {
    if (this.ml.has(colour)) return 0;
    return this.ml.size === 0 ? this.work.asked.setUpMin : this.work.asked.changeMin;
  }

  /** Glasses that other colours take. */
  private taken(but: number): number {
    let sum = 0;
    for (const [colour, ml] of this.ml)
      if (colour !== but) sum += glassesFor(ml, this.work.drawnMl) * (this.work.asked.colours[colour]?.melts as number);
    return sum;
  }

  has(colour: number): boolean {
    return this.ml.has(colour);
  }

  /** As many of these shots as it has room for, poured. */
  take(product: Product, wanted: number): number {
    const { colour, bait, handsMin, ml } = product;
    const opens = this.opening(colour);
    const byHands = floorNear((this.minutes - opens) / handsMin);
    const melts = this.work.asked.colours[colour]?.melts as number;
    const glasses = Math.floor(((this.work.days[this.day]?.glasses as number) - this.taken(colour)) / melts);
    const byGlass = floorNear((glasses * this.work.drawnMl - (this.ml.get(colour) ?? 0)) / ml);
    const shots = Math.max(0, Math.min(wanted, byHands, this.shots[bait] as number, byGlass));
    if (shots === 0) return 0;
    this.minutes -= opens + shots * handsMin;
    this.shots[bait] = (this.shots[bait] as number) - shots;
    this.ml.set(colour, (this.ml.get(colour) ?? 0) + shots * ml);
    return shots;
  }
}

/**
 * A plan at once, without a search: each evening packs what is due first, then pours what is due first, a colour that
 * stands there before another is begun.
 * @param far days ahead of the most urgent one that a colour which stands is filled up for.
 */
export function greedy(work: Work, far: number): Poured {
  const { products, days, asked } = work;
  const poured: Poured = products.map(() => days.map(() => 0));
  const done = products.map(() => 0);
  const packer = new Packer(work);
  /** The first day whose baits are not poured yet; shots until they are. */
  const next = (index: number): { due: number; shots: number } | null => {
    const product = products[index] as Product;
    const left = product.shots - (done[index] as number);
    if (left <= 0) return null;
    const have = goodOf(product, done[index] as number) + (product.stockBy.at(-1) as number);
    const due = product.dueBy.findIndex((baits) => baits > have);
    if (due < 0) return { due: days.length - 1, shots: left };
    const shots = Math.min(left, Math.ceil(((product.dueBy[due] as number) - have) / product.goodAShot - 1e-9));
    return { due, shots: Math.max(1, shots) };
  };
  days.forEach(({ handsMin }, day) => {
    packer.pack(day, handsMin, poured);
    const evening = new Evening(work, day, handsMin - (packer.packMin[day] as number));
    const barred = new Set<number>();
    const pour = (index: number, shots: number): boolean => {
      const took = evening.take(products[index] as Product, shots);
      if (took < shots) barred.add(index);
      (poured[index] as number[])[day] = (poured[index]?.[day] as number) + took;
      done[index] = (done[index] as number) + took;
      return took > 0;
    };
    const open = () =>
      products.flatMap((product, index) => {
        const wants = barred.has(index) || work.pins[product.colour]?.[day] === -1 ? null : next(index);
        return wants && day + product.lag < days.length
          ? [{ index, product, ...wants, due: wants.due - product.lag }]
          : [];
      });
    // What is fixed by hand stands first, if by a single shot.
    asked.colours.forEach((_, colour) => {
      if (work.pins[colour]?.[day] !== 1) return;
      const [first] = open()
        .filter(({ product }) => product.colour === colour)
        .sort((a, b) => a.due - b.due);
      if (first) pour(first.index, 1);
    });
    for (;;) {
      const rows = open();
      if (rows.length === 0) break;
      const urgent = Math.min(...rows.map(({ due }) => due));
      const here = rows.filter(({ product, due }) => evening.has(product.colour) && due <= urgent + far);
      const [best] = (here.length > 0 ? here : rows).sort(
        (a, b) => a.due - b.due || a.product.colour - b.product.colour || a.index - b.index,
      );
      if (!best) break;
      pour(best.index, best.shots);
    }
  });
  return poured;
}
