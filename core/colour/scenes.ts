import { usual } from '../defaults.ts';
import { GROUNDS, LAMP_LIGHT, lightUnder, litBy, WATERS, type WaterId } from './grounds.ts';
import { layerOver, type Optics, type Rgb } from './light.ts';

/** Where a colour is looked at on its way from the cup to the water. */
export const SCENES = {
  cup: { title: 'in the cup', linear: GROUNDS.white.linear, light: LAMP_LIGHT },
  metal: { title: 'in a metal mold', linear: GROUNDS.metal.linear, light: LAMP_LIGHT },
  rubber: { title: 'in a rubber mold', linear: [0.42, 0.44, 0.46], light: LAMP_LIGHT },
  lamp: { title: 'by lamp light', linear: GROUNDS.white.linear, light: LAMP_LIGHT },
  day: { title: 'by daylight', linear: GROUNDS.white.linear, light: [1, 1, 1] },
} as const satisfies Record<string, { title: string; linear: Rgb; light: Rgb }>;
export type SceneId = keyof typeof SCENES;
export const SCENE_IDS = Object.keys(SCENES) as SceneId[];

export interface Scene {
  linear: Rgb;
  light: Rgb;
}

/** A water as a ground with its own light. @param depthM metres above the bait. */
export const inWater = (water: WaterId, depthM: number): Scene => ({
  linear: [...WATERS[water].linear],
  light: lightUnder(depthM, water),
});

/** What is behind a place of so many mm as it is looked at there: a cup is deep all over. */
export const thickIn = (scene: SceneId, bodyMm: number): number => (scene === 'cup' ? usual('cupDeepMm') : bodyMm);

/**
 * A melt as eyes see it there, linear light.
 * @param mm thick. Source: Kubelka–Munk over what is behind it, each band of the light by itself: three bands are no spectrum, and what
 *   only two lamps tell apart is not foreseen.
 */
export const seenIn = (melt: Optics, mm: number, { linear, light }: Scene): Rgb =>
  litBy(layerOver(melt, mm, [...linear]), [...light]);
