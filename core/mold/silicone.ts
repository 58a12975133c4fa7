import * as v from 'valibot';
import { celsius, list, nonNegative, positive, signed, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { atMost, ceilNear, roundMoney } from '../rounding.ts';
import { mm, say } from '../units/say.ts';
import { BONDS_POT_LIVES } from './inMixes.ts';
import { mixSchema, type Parts, roomFactor, splitMix } from './rubber.ts';

const SIDE_CAP_MM = 1e5;
/** Walls and gaps that a box of one's own must leave, at the very least. */
const LEAST_WALL_MM = 3;

export const planSchema = v.strictObject({
  pour: v.picklist(['open-face', 'wrap', 'two-piece']),
  masters: list(
    v.strictObject({
      volumeMl: positive(1e6),
      lengthMm: positive(SIDE_CAP_MM),
      widthMm: positive(SIDE_CAP_MM),
      heightMm: positive(SIDE_CAP_MM),
      count: v.optional(whole(1, 1000), 1),
    }),
  ),
  box: v.optional(
    v.strictObject({
      lengthMm: positive(SIDE_CAP_MM),
      widthMm: positive(SIDE_CAP_MM),
      heightMm: positive(SIDE_CAP_MM),
    }),
  ),
  wallMm: v.optional(nonNegative(1e4), usual('siliconeWallMm')),
  gapMm: v.optional(nonNegative(1e4), usual('siliconeGapMm')),
  coverMm: v.optional(nonNegative(1e4), usual('siliconeCoverMm')),
  wasteFraction: v.optional(nonNegative(10), usual('siliconeWasteFraction')),
  mix: mixSchema,
  potLifeMin: positive(1e6),
  demoldMin: positive(1e6),
  ratedC: v.optional(celsius, usual('ratedC')),
  roomC: v.optional(celsius, usual('ratedC')),
  mixCupMl: v.optional(positive(1e9)),
  pricePerKgMinor: v.optional(nonNegative(1e9)),
});
export type PlanInput = v.InferOutput<typeof planSchema>;

export interface Pour extends Parts {
  netMl: number;
  mixMl: number;
  mixes: number;
}

export interface SiliconePlan {
  boxLengthMm: number;
  boxWidthMm: number;
  boxHeightMm: number;
  columns: number;
  rows: number;
  pours: Pour[];
  totalMixMl: number;
  vacuumCupMl: number;
  potLifeMin: number;
  demoldMin: number;
  costMinor?: number;
}

interface Grid {
  columns: number;
  rows: number;
  lengthMm: number;
  widthMm: number;
}

interface Cell {
  lengthMm: number;
  widthMm: number;
  tallestMm: number;
  count: number;
}

function cellOf(masters: PlanInput['masters']): Cell {
  return {
    lengthMm: Math.max(...masters.map((master) => master.lengthMm)),
    widthMm: Math.max(...masters.map((master) => master.widthMm)),
    tallestMm: Math.max(...masters.map((master) => master.heightMm)),
    count: masters.reduce((sum, master) => sum + master.count, 0),
  };
}

/** Every grid that holds the masters, columns across the width, fewest columns first. */
function* grids(cell: Cell, wallMm: number, gapMm: number): Generator<Grid> {
  for (let columns = 1; columns <= cell.count; columns++) {
    const rows = Math.ceil(cell.count / columns);
    yield {
      columns,
      rows,
      lengthMm: rows * cell.lengthMm + (rows - 1) * gapMm + 2 * wallMm,
      widthMm: columns * cell.widthMm + (columns - 1) * gapMm + 2 * wallMm,
    };
  }
}

const clearlyLess = (a: number, b: number) => a < b - 1e-9 * Math.max(1, Math.abs(b));

/** Smallest base area, then nearest to a square, then fewest columns. */
function smallestGrid(cell: Cell, wallMm: number, gapMm: number): Grid {
  let best: Grid | undefined;
  for (const grid of grids(cell, wallMm, gapMm)) {
    if (!best) {
      best = grid;
      continue;
    }
    const area = grid.lengthMm * grid.widthMm;
    const bestArea = best.lengthMm * best.widthMm;
    const skew = Math.abs(grid.lengthMm - grid.widthMm);
    const bestSkew = Math.abs(best.lengthMm - best.widthMm);
    if (clearlyLess(area, bestArea) || (!clearlyLess(bestArea, area) && clearlyLess(skew, bestSkew))) best = grid;
  }
  return best as Grid;
}

function fitInto(box: NonNullable<PlanInput['box']>, cell: Cell, twoPiece: boolean): Grid {
  const neededMm = cell.tallestMm + (twoPiece ? 2 * LEAST_WALL_MM : LEAST_WALL_MM);
  if (!atMost(neededMm, box.heightMm)) {
    throw new Failure(
      'box-too-small',
      say`The box must be at least ${mm(neededMm)} high for these masters.`,
      'box.heightMm',
    );
  }
  for (const grid of grids(cell, LEAST_WALL_MM, LEAST_WALL_MM)) {
    if (atMost(grid.lengthMm, box.lengthMm) && atMost(grid.widthMm, box.widthMm)) {
      return { ...grid, lengthMm: box.lengthMm, widthMm: box.widthMm };
    }
  }
  const least = smallestGrid(cell, LEAST_WALL_MM, LEAST_WALL_MM);
  throw new Failure(
    'box-too-small',
    say`With walls of ${mm(3)} these masters need a box of ${mm(least.lengthMm)} × ${mm(least.widthMm)}, masters not turned.`,
    'box',
  );
}

/**
 * Box, amounts, mixes and times for a silicone mold. Lengths mm, volumes mL, masses g, times min, money minor units.
 * Without a box: the grid of masters with the smallest base; a given box keeps its own size.
 * Net volume: open-face and wrap L·W·H − ΣV; two-piece, each half its share of the block less half the masters.
 * @throws Failure `box-too-small` when the masters do not fit with 3 mm around them or leave no room for rubber.
 * Source: geometry of the block; pot life and demold by the ten-degree rule (a rate doubles per 10 °C); vacuum cup
 *   four times the mix, the usual allowance for the rise.
 */
export function plan(input: PlanInput): SiliconePlan {
  const cell = cellOf(input.masters);
  const mastersMl = input.masters.reduce((sum, master) => sum + master.volumeMl * master.count, 0);
  const twoPiece = input.pour === 'two-piece';
  const grid = input.box ? fitInto(input.box, cell, twoPiece) : smallestGrid(cell, input.wallMm, input.gapMm);
  const heightMm = input.box?.heightMm ?? cell.tallestMm + (twoPiece ? 2 : 1) * input.coverMm;
  const blockMl = (grid.lengthMm * grid.widthMm * heightMm) / 1000;
  const pourCount = twoPiece ? 2 : 1;
  const netMl = (blockMl - mastersMl) / pourCount;
  if (netMl <= 1e-9 * blockMl) {
    throw new Failure('box-too-small', 'The masters fill the whole box; there is no room left for rubber.');
  }
  const mixMl = netMl * (1 + input.wasteFraction);
  const mixes = input.mixCupMl === undefined ? 1 : ceilNear(mixMl / input.mixCupMl);
  const parts = splitMix(mixMl, input.mix);
  const pour: Pour = { netMl, mixMl, ...parts, mixes };
  const factor = roomFactor(input.ratedC, input.roomC);
  const grams = (parts.gramsA + parts.gramsB) * pourCount;
  return {
    boxLengthMm: grid.lengthMm,
    boxWidthMm: grid.widthMm,
    boxHeightMm: heightMm,
    columns: grid.columns,
    rows: grid.rows,
    pours: Array.from({ length: pourCount }, () => ({ ...pour })),
    totalMixMl: mixMl * pourCount,
    vacuumCupMl: (4 * mixMl) / mixes,
    potLifeMin: input.potLifeMin * factor,
    demoldMin: input.demoldMin * factor,
    ...(input.pricePerKgMinor === undefined ? {} : { costMinor: roundMoney((grams / 1000) * input.pricePerKgMinor) }),
  };
}

export const topUpSchema = v.strictObject({
  mix: mixSchema,
  boxLengthMm: positive(SIDE_CAP_MM),
  boxWidthMm: positive(SIDE_CAP_MM),
  missingDepthMm: positive(SIDE_CAP_MM),
  wasteFraction: v.optional(nonNegative(10), usual('siliconeWasteFraction')),
  minutesSinceMixed: v.pipe(signed(1e9), v.minValue(0)),
  potLifeMin: positive(1e6),
});

/**
 * The second mix when the first came up short: base area × missing depth, with the same waste.
 * Bonds to the first pour while it is younger than three pot lives (a working rule; the rubber's own sheet wins).
 */
export function topUp(input: v.InferOutput<typeof topUpSchema>) {
  const mixMl = ((input.boxLengthMm * input.boxWidthMm * input.missingDepthMm) / 1000) * (1 + input.wasteFraction);
  return {
    mixMl,
    ...splitMix(mixMl, input.mix),
    minutesLeft: input.potLifeMin - input.minutesSinceMixed,
    bondsToFirst: input.minutesSinceMixed < BONDS_POT_LIVES * input.potLifeMin,
  };
}
