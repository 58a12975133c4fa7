import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { ml, say } from '../units/say.ts';
import { cupFor, type Drawn } from './cup.ts';
import { goes, layerVolumes, meltsOf, type Poured } from './layers.ts';

/** What may be cooked in a glass: it froths. mL. */
export const usableMl = (glassMl: number) => glassMl * (1 - usual('frothHeadroom'));

/** A bound on one laying out; more is for another evening. */
export const MOST_CUPS = 24;

/** What these shots take of some of their layers; what is pushed beside the first comes out of the second injector. @param ofEach how many cups of the melt share each shot. */
export function drawnOf<D extends Drawn>(drawn: D[], layers: Poured[], which: number[], ofEach: number): D[] {
  return drawn.map((one) => {
    const volumes = layerVolumes(one.mold, layers);
    const sum = (of: 'cavityMl' | 'sprueMl' | 'runnerMl') =>
      which.reduce((total, index) => total + (volumes[index]?.[of] ?? 0), 0) / ofEach;
    const second = goes(layers).some((together) => together.indexOf(which[0] as number) === 1);
    const mold: D['mold'] = {
      ...one.mold,
      injectorMl: second ? (one.mold.secondInjectorMl ?? one.mold.injectorMl) : one.mold.injectorMl,
      cavityMl: sum('cavityMl'),
      sprueMl: sum('sprueMl'),
      runnerMl: sum('runnerMl'),
    };
    return { ...one, mold };
  });
}

/** Shots of each mold dealt out evenly; what does not go up begins with another cup for each mold. */
export function dealt<D extends Drawn>(drawn: D[], groups: number): D[][] {
  let begin = 0;
  const dealtTo: D[][] = Array.from({ length: groups }, () => []);
  for (const one of drawn) {
    const [each, over] = [Math.floor(one.shots / groups), one.shots % groups];
    for (let group = 0; group < groups; group++) {
      const shots = each + ((group - begin + groups) % groups < over ? 1 : 0);
      if (shots > 0) dealtTo[group]?.push({ ...one, shots });
    }
    begin = (begin + over) % groups;
  }
  return dealtTo.filter((group) => group.length > 0);
}

export interface Glasses<D extends Drawn> {
  /** Cups of one melt that share every shot, because one glass does not hold a single one. */
  ofEach: number;
  /** Shots of each glass, or of each set of glasses where a bait is of several melts. */
  groups: D[][];
}

/** Every cup of these sets: of which melt, and how much is cooked in it. */
export function cupsIn<D extends Drawn>({ groups, ofEach }: Glasses<D>, layers: (Poured & { recipeId: string })[]) {
  return groups.flatMap((group) =>
    meltsOf(layers).flatMap(({ recipeId, layers: which }) => {
      const cup = { recipeId, ...cupFor(drawnOf(group, layers, which, ofEach)) };
      return Array.from({ length: ofEach }, () => cup);
    }),
  );
}

/**
 * The fewest cups, all within their glass, that give these shots.
 * @param layers of the bait, each with its melt.
 * @param glassMl what a glass holds, to the brim.
 * @throws Failure `too-many-cups`, `shot-exceeds-injector`, `layers-not-whole`, `level-unknown`.
 */
export function intoGlasses<D extends Drawn>(
  drawn: D[],
  layers: (Poured & { recipeId: string })[],
  glassMl: number,
): Glasses<D> {
  const most = usableMl(glassMl);
  const melts = meltsOf(layers);
  const shots = drawn.reduce((sum, one) => sum + one.shots, 0);
  const cookMl = (group: D[], ofEach: number) =>
    Math.max(...melts.map((melt) => cupFor(drawnOf(group, layers, melt.layers, ofEach)).cookMl));
  for (let ofEach = 1; ofEach * melts.length <= MOST_CUPS; ofEach++) {
    const least = Math.max(1, Math.min(shots, Math.floor(cookMl(drawn, ofEach) / most)));
    for (let groups = least; groups <= shots && groups * ofEach * melts.length <= MOST_CUPS; groups++) {
      const each = dealt(drawn, groups);
      if (each.every((group) => cookMl(group, ofEach) <= most)) return { ofEach, groups: each };
    }
    // More cups to a shot only where a single shot is too much for one.
    if (dealt(drawn, shots).every((group) => cookMl(group, ofEach) <= most)) break;
  }
  throw new Failure(
    'too-many-cups',
    say`That is more than ${MOST_CUPS} cups of ${ml(most)} each. Lay out what one evening holds, then the rest.`,
    'molds',
  );
}
