import type { Highs } from 'highs';
import type { Standing } from './productionStanding.ts';
import { glassesFor, type Poured, type Work } from './productionWork.ts';

/** Which column is what; -1: there is none. */
interface Columns {
  /** Shots of a product on a day; of all days up to it. */
  shots: number[][];
  sum: number[][];
  packed: number[][];
  late: number[][];
  glasses: number[][];
  colour: number[][];
  open: number[];
}

export interface Program {
  model: ReturnType<Highs['createModel']>;
  columns: Columns;
  count: number;
}

/** What is least: baits late; or colours that are begun and glasses, at no more lateness than that. */
export type Aim = { least: 'late' } | { least: 'changes'; mostLate: number };

/** A colour that is begun costs as much as so many glasses, and an evening as much as so many. */
const [GLASS_WEIGHS, EVENING_WEIGHS] = [0.05, 0.2];

/** Rows and columns as they are added, for the solver's sparse arrays. */
class Build {
  readonly cost: number[] = [];
  readonly lower: number[] = [];
  readonly upper: number[] = [];
  readonly whole: boolean[] = [];
  private readonly starts = [0];
  private readonly indices: number[] = [];
  private readonly values: number[] = [];
  readonly rowLower: number[] = [];
  readonly rowUpper: number[] = [];

  column(cost: number, upper: number, whole: boolean, lower = 0): number {
    this.cost.push(cost);
    this.lower.push(lower);
    this.upper.push(upper);
    this.whole.push(whole);
    return this.cost.length - 1;
  }

  row(lower: number, terms: [column: number, value: number][], upper: number): void {
    for (const [column, value] of terms) {
      if (column < 0 || value === 0) continue;
      this.indices.push(column);
      this.values.push(value);
    }
    this.starts.push(this.indices.length);
    this.rowLower.push(lower);
    this.rowUpper.push(upper);
  }

  made(highs: Highs): Program['model'] {
    const [numCols, numRows] = [this.cost.length, this.rowLower.length];
    const kinds = highs.constants.variableType;
    return highs.createModel({
      numCols,
      numRows,
      colCost: this.cost,
      colLower: this.lower,
      colUpper: this.upper,
      rowLower: this.rowLower,
      rowUpper: this.rowUpper,
      integrality: this.whole.map((whole) => (whole ? kinds.integer : kinds.continuous)),
      matrix: {
        format: 'csr',
        numRows,
        numCols,
        starts: this.starts,
        indices: this.indices,
        values: this.values,
      },
    });
  }
}

/**
 * The plan as a mixed-integer program: whole shots and glasses, days whose hands, molds and glasses are kept, baits packed
 * no sooner than they are cured, and lateness as baits that are not packed on their day, each day.
 */
export function programOf(highs: Highs, work: Work, aim: Aim): Program {
  const { products, days, asked, baits } = work;
  const build = new Build();
  const [inf, changes] = [highs.infinity, aim.least === 'changes'];
  const column = (cost: number, upper: number, whole = false) => build.column(cost, upper, whole);
  const late = changes ? 0 : 1;
  const columns: Columns = {
    shots: products.map(({ shots, lag, bait }) =>
      days.map((_, day) =>
        shots > 0 && day + lag < days.length
          ? column(0, Math.min(shots, baits[bait]?.mostShots[day] as number), true)
          : -1,
      ),
    ),
    sum: products.map(({ shots }) => days.map(() => (shots > 0 ? column(0, shots) : -1))),
    packed: products.map(({ wanted }) => days.map(() => column(0, wanted))),
    late: products.map(({ dueBy }) => days.map((_, day) => ((dueBy[day] as number) > 0 ? column(late, inf) : -1))),
    glasses: asked.colours.map((_, colour) =>
      days.map(({ glasses }, day) =>
        column(changes ? GLASS_WEIGHS : 0, work.pins[colour]?.[day] === -1 ? 0 : glasses, true),
      ),
    ),
    colour: asked.colours.map((_, colour) =>
      days.map((_, day) => column(changes ? 1 : 0, work.pins[colour]?.[day] === -1 ? 0 : 1, true)),
    ),
    open: days.map(({ handsMin }) => column(changes ? EVENING_WEIGHS : 0, handsMin > 0 ? 1 : 0, true)),
  };
  const at = (of: number[][], index: number, day: number) => of[index]?.[day] ?? -1;
  products.forEach((product, p) => {
    days.forEach((_, day) => {
      const before = day > 0 ? at(columns.sum, p, day - 1) : -1;
      if (product.shots > 0)
        build.row(
          0,
          [
            [at(columns.sum, p, day), 1],
            [before, -1],
            [at(columns.shots, p, day), -1],
          ],
          0,
        );
      const cured = day - product.lag >= 0 ? at(columns.sum, p, day - product.lag) : -1;
      build.row(
        -inf,
        [
          [at(columns.packed, p, day), 1],
          [cured, -product.goodAShot],
        ],
        product.stockBy[day] as number,
      );
      if (day > 0)
        build.row(
          0,
          [
            [at(columns.packed, p, day), 1],
            [at(columns.packed, p, day - 1), -1],
          ],
          inf,
        );
      if (at(columns.late, p, day) >= 0)
        build.row(
          product.dueBy[day] as number,
          [
            [at(columns.late, p, day), 1],
            [at(columns.packed, p, day), 1],
          ],
          inf,
        );
    });
  });
  days.forEach(({ handsMin, glasses, ovenMin, pumpMin, boardBaits }, day) => {
    const hands: [number, number][] = [[columns.open[day] as number, asked.setUpMin - asked.changeMin]];
    products.forEach(({ handsMin: each, packMin }, p) => {
      hands.push([at(columns.shots, p, day), each], [at(columns.packed, p, day), packMin]);
      if (day > 0) hands.push([at(columns.packed, p, day - 1), -packMin]);
    });
    for (const row of columns.colour) hands.push([row[day] as number, asked.changeMin]);
    build.row(-inf, hands, handsMin);
    baits.forEach(({ mostShots }, bait) => {
      const mine = products.flatMap((product, p): [number, number][] =>
        product.bait === bait ? [[at(columns.shots, p, day), 1]] : [],
      );
      if (mine.length > 1) build.row(-inf, mine, mostShots[day] as number);
    });
    build.row(
      -inf,
      asked.colours.map(({ melts }, colour) => [at(columns.glasses, colour, day), melts]),
      glasses,
    );
    for (const [most, of] of [
      [ovenMin, 'ovenMin'],
      [pumpMin, 'pumpMin'],
    ] as const)
      if (Number.isFinite(most))
        build.row(
          -inf,
          asked.colours.map((mix, colour) => [at(columns.glasses, colour, day), mix.melts * mix[of]]),
          most,
        );
    if (Number.isFinite(boardBaits))
      build.row(
        -inf,
        products.flatMap(({ cavities, lies }, p): [number, number][] => [
          [at(columns.sum, p, day), cavities],
          [at(columns.sum, p, day - lies), -cavities],
        ]),
        boardBaits,
      );
    asked.colours.forEach((_, colour) => {
      const mine = products.flatMap((product, p): [number, number][] =>
        product.colour === colour ? [[at(columns.shots, p, day), product.ml]] : [],
      );
      const [glass, begun] = [at(columns.glasses, colour, day), at(columns.colour, colour, day)];
      build.row(-inf, [...mine, [glass, -work.drawnMl]], 0);
      build.row(
        -inf,
        [
          [glass, 1],
          [begun, -glasses],
        ],
        0,
      );
      build.row(
        -inf,
        [
          [begun, 1],
          [columns.open[day] as number, -1],
        ],
        0,
      );
      // Said of each bait too: without it a sliver of a colour's set-up serves all of them, and the bound tells nothing.
      products.forEach((product, p) => {
        const most = Math.min(product.shots, baits[product.bait]?.mostShots[day] as number);
        if (product.colour === colour && most > 0)
          build.row(
            -inf,
            [
              [at(columns.shots, p, day), 1],
              [begun, -most],
            ],
            0,
          );
      });
      const wants = products.some(
        ({ colour: of, shots, lag }) => of === colour && shots > 0 && day + lag < days.length,
      );
      if (work.pins[colour]?.[day] === 1 && wants)
        build.row(
          1,
          mine.map(([index]) => [index, 1]),
          inf,
        );
    });
  });
  for (const { g, until, gPerMl } of work.stuffs)
    build.row(
      -inf,
      days
        .slice(0, until)
        .flatMap((_, day) => [
          ...products.map(({ colour, ml }, p): [number, number] => [
            at(columns.shots, p, day),
            ml * (gPerMl[colour] as number),
          ]),
          ...gPerMl.map((each, colour): [number, number] => [at(columns.glasses, colour, day), each * asked.residueMl]),
        ]),
      g,
    );
  if (aim.least === 'changes')
    build.row(
      -inf,
      columns.late.flat().map((index) => [index, 1]),
      aim.mostLate,
    );
  return { model: build.made(highs), columns, count: build.cost.length };
}

/** What a solution pours. */
export const pouredIn = ({ shots }: Columns, values: ArrayLike<number>): Poured =>
  shots.map((row) => row.map((index) => (index < 0 ? 0 : Math.round(values[index] as number))));

/** A plan that stands already as the program's figures, so that the search begins with it. @param packed baits of each product up to each day. */
export function startOf({ columns, count }: Program, work: Work, standing: Standing, packed: number[][]): Float64Array {
  const values = new Float64Array(count);
  const set = (index: number | undefined, value: number) => {
    if (index !== undefined && index >= 0) values[index] = value;
  };
  work.products.forEach((product, p) => {
    let sum = 0;
    work.days.forEach((_, day) => {
      const [shots, done] = [standing.on(p, day), packed[p]?.[day] as number];
      sum += shots;
      set(columns.shots[p]?.[day], shots);
      set(columns.sum[p]?.[day], sum);
      set(columns.packed[p]?.[day], done);
      set(columns.late[p]?.[day], Math.max(0, (product.dueBy[day] as number) - done));
    });
  });
  work.days.forEach((_, day) => {
    for (const colour of standing.coloursOn(day)) {
      set(columns.glasses[colour]?.[day], glassesFor(standing.drawn(colour, day), work.drawnMl));
      set(columns.colour[colour]?.[day], 1);
      set(columns.open[day], 1);
    }
  });
  return values;
}
