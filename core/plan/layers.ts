import { Failure } from '../failure.ts';
import type { CupMold } from './cup.ts';

/** Where in a bait a melt lies, in the words of the bench. */
export const PLACES = {
  whole: 'whole bait',
  belly: 'belly',
  back: 'back',
  side: 'side line',
  core: 'core',
  tail: 'tail',
  spots: 'spots',
  eyes: 'eyes',
  swirl: 'swirl',
} as const;
export type Place = keyof typeof PLACES;
export const PLACE_IDS = Object.keys(PLACES) as [Place, ...Place[]];

/** How a layer comes to hold on the one before it. Without one of these, layers peel apart. Source: workshop practice. */
export const JOINS = {
  together: 'injected together',
  melted: 'onto the cold layer, its surface melted again',
  hot: 'into the mold kept hot',
  cooked: 'all cooked together after',
} as const;
export type Join = keyof typeof JOINS;
export const JOIN_IDS = Object.keys(JOINS) as [Join, ...Join[]];

/** How much of a bait a layer is: a share of the cavity, mL in each bait, or what the others leave. */
export const MEASURES = ['share', 'ml', 'rest'] as const;
export type LayerMeasure = (typeof MEASURES)[number];

export interface LayerAmount {
  measure: LayerMeasure;
  /** 0 to 1, or mL; nothing where it is the rest. */
  amount: number | null;
}

export interface Poured extends LayerAmount {
  /** Nothing of the first layer, which joins nothing. */
  joins: Join | null;
}

const WHOLE = 1e-6;

/**
 * What of a cavity each layer fills, 0 to 1; together the whole.
 * @param cavityMl one cavity, mL.
 * @throws Failure `layers-not-whole`: too much, too little, or nothing left for the rest.
 */
export function layerShares(layers: LayerAmount[], cavityMl: number): number[] {
  const said = layers.map(({ measure, amount }) =>
    measure === 'rest' ? 0 : measure === 'ml' ? (amount as number) / cavityMl : (amount as number),
  );
  const sum = said.reduce((total, share) => total + share, 0);
  const rest = layers.filter(({ measure }) => measure === 'rest').length;
  if (rest === 0 && Math.abs(sum - 1) <= WHOLE) return said.map((share) => share / sum);
  if (rest === 1 && sum < 1 - WHOLE) return said.map((share, i) => (layers[i]?.measure === 'rest' ? 1 - sum : share));
  const percent = `${(sum * 100).toFixed(1)} %`;
  throw new Failure(
    'layers-not-whole',
    rest > 1
      ? 'Only one layer can be the rest; say how much of the others.'
      : sum > 1 || rest === 1
        ? `The layers fill ${percent} of a cavity of this mold and leave nothing for the rest; take less of one.`
        : `The layers fill only ${percent} of a cavity of this mold; say more of one, or let the last be the rest.`,
    'layers',
  );
}

export type Volumes = Pick<CupMold, 'cavityMl' | 'sprueMl' | 'runnerMl'>;

/**
 * What each layer takes of one shot of a mold, mL. Sprue and runner are filled by the last layer and by what is injected
 * together with it, by their shares; together the layers are the mold's whole volume.
 * @throws Failure `layers-not-whole`.
 */
export function layerVolumes(mold: Volumes, layers: Poured[]): Volumes[] {
  const shares = layerShares(layers, mold.cavityMl);
  let from = layers.length - 1;
  while (from > 0 && layers[from]?.joins === 'together') from -= 1;
  const last = shares.slice(from).reduce((sum, share) => sum + share, 0);
  return shares.map((share, i) => {
    const ofSprue = i < from ? 0 : share / last;
    return {
      cavityMl: mold.cavityMl * share,
      sprueMl: mold.sprueMl * ofSprue,
      runnerMl: mold.runnerMl * ofSprue,
    };
  });
}

/** mL of one shot of a mold: all cavities, sprue and runner. */
export const shotVolumeMl = ({ cavities, cavityMl, sprueMl, runnerMl }: Volumes & { cavities: number }) =>
  cavities * cavityMl + sprueMl + runnerMl;

/** What each layer takes of one shot of a mold, and of one of its cavities, mL. @throws Failure `layers-not-whole`. */
export function layersOfShot(mold: Volumes & { cavities: number }, layers: Poured[]) {
  const volumes = layerVolumes(mold, layers);
  return {
    layersMl: volumes.map((one) => shotVolumeMl({ cavities: mold.cavities, ...one })),
    cavityLayersMl: volumes.map((one) => one.cavityMl),
  };
}

/** Layers by the melt they are of, in the order of their first. */
export function meltsOf<L extends { recipeId: string }>(layers: L[]): { recipeId: string; layers: number[] }[] {
  const melts = new Map<string, number[]>();
  layers.forEach(({ recipeId }, index) => {
    melts.set(recipeId, [...(melts.get(recipeId) ?? []), index]);
  });
  return [...melts].map(([recipeId, indexes]) => ({ recipeId, layers: indexes }));
}

/** Layers that go into the mold in one go: the first of each is tapped for all that are injected together with it. */
export function goes(layers: { joins: Join | null }[]): number[][] {
  const found: number[][] = [];
  layers.forEach(({ joins }, index) => {
    if (index > 0 && joins === 'together') found.at(-1)?.push(index);
    else found.push([index]);
  });
  return found;
}
