import { Failure } from '../failure.ts';
import { percentText } from '../units/show.ts';

/** Where in a bait a melt lies, in the words of the bench. */
export const PLACES = {
  whole: 'whole bait',
  belly: 'belly',
  back: 'back',
  side: 'side line',
  core: 'core',
  tail: 'tail',
  spots: 'spots',
  stripes: 'stripes',
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

/** How much of a bait a layer is: a share of the cavity, mL in each bait, up to a level of it, or what the others leave. */
export const MEASURES = ['share', 'ml', 'level', 'rest'] as const;
export type LayerMeasure = (typeof MEASURES)[number];

export interface LayerAmount {
  measure: LayerMeasure;
  /** Of the whole, 0 to 1; mL; of the cavity's height as it is filled, 0 to 1; nothing where it is the rest. */
  amount: number | null;
}

/** A cavity as layers fill it. */
export interface Cavity {
  /** mL. */
  cavityMl: number;
  /** What of it lies under each level that is asked for, 0 to 1, by the level; null: nobody knows its shape. */
  levels?: Record<string, number> | null | undefined;
}

/** The levels that these layers ask for. */
export const levelsIn = (layers: LayerAmount[]): number[] => [
  ...new Set(layers.flatMap(({ measure, amount }) => (measure === 'level' ? [amount as number] : []))),
];

export interface Poured extends LayerAmount {
  /** Nothing of the first layer, which joins nothing. */
  joins: Join | null;
}

const WHOLE = 1e-6;

/** What a layer that goes up to a level adds to what lies under it already. */
function upTo(to: number, under: number, { levels }: Cavity, at: number): number {
  const below = levels?.[to];
  if (below === undefined)
    throw new Failure(
      'level-unknown',
      'How much a level holds is not known for this mold: its bait has no shape here. Give its master a mesh, or say this layer as a share or in millilitres.',
      `layers.${at}`,
    );
  if (below - under > WHOLE) return below - under;
  throw new Failure(
    'layers-not-whole',
    `Up to ${percentText(to)} of the height there is nothing left to fill: what lies under it is ${percentText(under)} of a cavity of this mold already. Say a higher level.`,
    `layers.${at}`,
  );
}

/**
 * What of a cavity each layer fills, 0 to 1; together the whole. One that goes up to a level fills what those before it
 * leave of what lies under the level (`mesh.level` in the direction in which the mold stands).
 * @throws Failure `layers-not-whole`: too much, too little, or nothing left for a layer; `level-unknown`.
 */
export function layerShares(layers: LayerAmount[], cavity: Cavity): number[] {
  let sum = 0;
  const said = layers.map(({ measure, amount }, at) => {
    if (measure === 'rest') return 0;
    const value = amount as number;
    const share =
      measure === 'ml' ? value / cavity.cavityMl : measure === 'level' ? upTo(value, sum, cavity, at) : value;
    sum += share;
    return share;
  });
  const rest = layers.filter(({ measure }) => measure === 'rest').length;
  if (rest === 0 && Math.abs(sum - 1) <= WHOLE) return said.map((share) => share / sum);
  if (rest === 1 && sum < 1 - WHOLE) return said.map((share, i) => (layers[i]?.measure === 'rest' ? 1 - sum : share));
  const filled = `${(sum * 100).toFixed(1)} %`;
  throw new Failure(
    'layers-not-whole',
    rest > 1
      ? 'Only one layer can be the rest; say how much of the others.'
      : sum > 1 || rest === 1
        ? `The layers fill ${filled} of a cavity of this mold and leave nothing for the rest; take less of one.`
        : `The layers fill only ${filled} of a cavity of this mold; say more of one, or let the last be the rest.`,
    'layers',
  );
}

/** A cavity with what a shot fills besides, mL. */
export interface Volumes extends Cavity {
  sprueMl: number;
  runnerMl: number;
}

/**
 * What each layer takes of one shot of a mold, mL. Sprue and runner are filled by the last layer and by what is injected
 * together with it, by their shares; together the layers are the mold's whole volume.
 * @throws Failure `layers-not-whole`, `level-unknown`.
 */
export function layerVolumes(mold: Volumes, layers: Poured[]): Volumes[] {
  const shares = layerShares(layers, mold);
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

/**
 * What each layer takes of one shot of a mold, and of one of its cavities, mL; how high one that goes up to a level stands in
 * it, mm, where the mold's height is known.
 * @throws Failure `layers-not-whole`, `level-unknown`.
 */
export function layersOfShot(mold: Volumes & { cavities: number; tallMm?: number }, layers: Poured[]) {
  const volumes = layerVolumes(mold, layers);
  return {
    layersMl: volumes.map((one) => shotVolumeMl({ cavities: mold.cavities, ...one })),
    cavityLayersMl: volumes.map((one) => one.cavityMl),
    layersMm: layers.map(({ measure, amount }) =>
      measure === 'level' && mold.tallMm !== undefined ? mold.tallMm * (amount as number) : null,
    ),
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

/** Cups that are pushed into a mold at once, at the most: each takes an injector. */
export const pushedAtOnce = (layers: { joins: Join | null; recipeId: string }[]): number =>
  Math.max(1, ...goes(layers).map((go) => new Set(go.map((layer) => layers[layer]?.recipeId)).size));

/** @param injectors left out: nobody said how many there are. */
export const tooFewInjectors = (pushed: number, injectors: number | undefined): boolean =>
  injectors !== undefined && pushed > injectors;

/** @throws Failure `too-few-injectors`. */
export function refusePushed(layers: { joins: Join | null; recipeId: string }[], injectors: number | undefined): void {
  const pushed = pushedAtOnce(layers);
  if (tooFewInjectors(pushed, injectors))
    throw new Failure(
      'too-few-injectors',
      `${pushed} cups are pushed into it at once, which takes as many injectors, and this workshop has ${injectors}. Say under Settings how many there are.`,
      'injectors',
    );
}
