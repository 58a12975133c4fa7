import { ceilNear } from '../rounding.ts';
import { Table } from './productionPack.ts';
import { Standing } from './productionStanding.ts';
import { goodOf, type Product, type Work } from './productionWork.ts';

/** The first day whose baits of a product are not poured yet, and shots until they are; null: all of it is. */
function wantedNext({ products, days }: Work, standing: Standing, p: number): { due: number; shots: number } | null {
  const product = products[p] as Product;
  const left = standing.on(p, standing.count);
  if (left <= 0) return null;
  const have = goodOf(product, product.shots - left) + (product.stockBy.at(-1) as number);
  const due = product.dueBy.findIndex((baits) => baits > have);
  if (due < 0) return { due: days.length - 1, shots: left };
  const shots = Math.min(left, ceilNear(((product.dueBy[due] as number) - have) / product.goodAShot));
  return { due, shots: Math.max(1, shots) };
}

/** As many of these shots as a day has room for, poured. */
function take(standing: Standing, p: number, day: number, wanted: number, busyMin: number): number {
  let [took, step] = [0, wanted];
  while (step > 0) {
    standing.move(p, standing.count, day, step);
    if (standing.fits(day, busyMin)) took += step;
    else standing.move(p, day, standing.count, step);
    step = took === wanted ? 0 : Math.min(Math.floor(step / 2), wanted - took);
  }
  return took;
}

/**
 * A plan at once, without a search: each evening packs what is due first, then pours what is due first, a colour that
 * stands there before another is begun.
 * @param far days ahead of the most urgent one that a colour which stands is filled up for.
 */
export function greedy(work: Work, far: number): Standing {
  const { products, days, asked } = work;
  const standing = new Standing(work);
  const table = new Table(work);
  days.forEach(({ handsMin }, day) => {
    const packMin = table.pack(day, handsMin, standing.by);
    const barred = new Set<number>();
    const pour = (index: number, shots: number): void => {
      if (take(standing, index, day, shots, packMin) < shots) barred.add(index);
    };
    const open = () =>
      products.flatMap((product, index) => {
        const off = barred.has(index) || work.pins[product.colour]?.[day] === -1 || day + product.lag >= days.length;
        const wants = off ? null : wantedNext(work, standing, index);
        return wants ? [{ index, product, ...wants, due: wants.due - product.lag }] : [];
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
      const here = rows.filter(({ product, due }) => standing.drawn(product.colour, day) > 0 && due <= urgent + far);
      const [best] = (here.length > 0 ? here : rows).sort(
        (a, b) => a.due - b.due || a.product.colour - b.product.colour || a.index - b.index,
      );
      if (!best) break;
      pour(best.index, best.shots);
    }
  });
  return standing;
}
