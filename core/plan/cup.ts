import { usual } from '../defaults.ts';
import type { Standing } from '../mold/stands.ts';
import { batchSize } from '../plastisol/batch.ts';
import { type RecipeLine, type ScaledItem, scaleLines } from '../plastisol/recipe.ts';
import type { Waits } from '../process/waits.ts';
import type { Measure } from '../units/convert.ts';
import type { Volumes } from './layers.ts';

/** Starting values of `batch.size`; a screen that uses them says so. */
export const CUP_DEFAULTS = {
  feedFraction: usual('feedFraction'),
  deadMl: usual('deadMl'),
  cupFilmMl: usual('cupFilmMl'),
  densityGPerMl: usual('plastisolGPerMl'),
};

/** A mold that a cup is drawn into; mL. */
export interface CupMold extends Volumes {
  id: string;
  cavities: number;
  /** What its injector holds; null where it is poured. */
  injectorMl: number | null;
  /** What the second of two injectors holds that are pushed together; nothing: as much as the first. */
  secondInjectorMl?: number | null | undefined;
}

export interface Drawn<M extends CupMold = CupMold> {
  mold: M;
  shots: number;
}

/** The injector that limits a load: the smallest, and only where every mold of the cup is injected. */
function injectorOf(drawn: Drawn[]): { injectorMl?: number } {
  const sizes = drawn.map(({ mold }) => mold.injectorMl);
  return sizes.every((size) => size !== null) ? { injectorMl: Math.min(...(sizes as number[])) } : {};
}

/**
 * What one cup for these shots holds, by the usual feed, film and dead volume; see `batch.size`.
 * @throws Failure `shot-exceeds-injector`.
 */
export const cupFor = (drawn: Drawn[]) =>
  batchSize({
    ...CUP_DEFAULTS,
    molds: drawn.map(({ mold: { id, cavities, cavityMl, sprueMl, runnerMl }, shots }) => ({
      id,
      cavities,
      cavityMl,
      sprueMl,
      runnerMl,
      shots,
      share: 1,
    })),
    ...injectorOf(drawn),
  });

/** All that a cup is laid out from, as it stands now. */
export interface CupWish {
  drawn: (Drawn & { opens?: Waits | undefined })[];
  /** A recipe's revision, and the lot that each line would be taken from. */
  recipe: { basisMl: number; lines: (RecipeLine & { materialName: string; lotCode: string | null })[] };
  measures: Measure[];
}

/** A cup as it was laid out: kept with the pour, whatever becomes of recipe, molds and lots. */
export interface PourPlan {
  cookMl: number;
  /** Of plastisol, before anything is dosed. */
  cookG: number;
  cups: number;
  yieldFraction: number;
  returnMl: number;
  molds: {
    moldId: string;
    shots: number;
    shotMl: number;
    loads: number;
    opens?: Waits;
    layersMl?: number[];
    cavityLayersMl?: number[];
    /** How high each layer stands in it, mm from the lowest point; null where no level was asked for. */
    layersMm?: (number | null)[];
    /** How it stands while it is filled, where a layer goes up to a level. */
    stands?: Standing;
  }[];
  /** All of it. */
  items: (ScaledItem & { materialId: string; materialName: string; lotCode: string | null })[];
  /** Of cups from before each glass was one: how many glasses it was cooked in, and what went into each. */
  glasses?: number;
  perGlass?: ScaledItem[];
}

/** What goes into a cup of so many mL, from the bottles that are in use. @throws Failure `unknown-unit`, `unit-mismatch`. */
export const cupItems = (
  { basisMl, lines }: CupWish['recipe'],
  cookMl: number,
  measures: Measure[],
): PourPlan['items'] =>
  scaleLines(lines, basisMl, cookMl, measures).map((item, index) => ({
    ...item,
    materialId: item.id,
    materialName: lines[index]?.materialName ?? '',
    lotCode: lines[index]?.lotCode ?? null,
  }));

/**
 * Lays out one cup: sized from its shots, its recipe scaled to it.
 * @throws Failure `shot-exceeds-injector`, `unknown-unit`, `unit-mismatch`.
 */
export function planCup({ drawn, recipe, measures }: CupWish): PourPlan {
  const { cookMl, cookG, cups, yieldFraction, returnMl, molds } = cupFor(drawn);
  return {
    cookMl,
    cookG,
    cups,
    yieldFraction,
    returnMl,
    molds: molds.map(({ id, shotMl, loads }, index) => {
      const { shots = 0, opens } = drawn[index] ?? {};
      return { moldId: id, shots, shotMl, loads, ...(opens ? { opens } : {}) };
    }),
    items: cupItems(recipe, cookMl, measures),
  };
}
