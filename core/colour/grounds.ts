import { usual } from '../defaults.ts';
import { bands, luminance, type Rgb } from './light.ts';

/** What a bait is held over: a plate, or water. Reflectance in three bands. */
export const GROUNDS = {
  white: { title: 'white', linear: [0.9, 0.9, 0.88] },
  black: { title: 'black', linear: [0.01, 0.01, 0.01] },
  metal: { title: 'bright metal', linear: [0.62, 0.62, 0.63] },
  water: { title: 'open water', linear: [0.008, 0.03, 0.042] },
} as const satisfies Record<string, { title: string; linear: Rgb }>;
export type GroundId = keyof typeof GROUNDS;
export const GROUND_IDS = Object.keys(GROUNDS) as GroundId[];

/** How fast daylight goes in coastal water, a metre of it. Source: diffuse attenuation at 600, 530 and 470 nm, Jerlov coastal type 1, rounded. */
const FADES_PER_M: Rgb = [0.3, 0.13, 0.17];

/**
 * The light that is left of white daylight under so much water, made as bright as above it: eyes get used to less, not to another hue.
 * @param depthM metres.
 */
export function lightUnder(depthM: number): Rgb {
  const left = bands((i) => Math.exp(-FADES_PER_M[i] * depthM));
  const bright = luminance(left);
  return bands((i) => left[i] / bright);
}

/** A colour as that light shows it; what is brighter than white stays white. */
export const litBy = (linear: Rgb, light: Rgb): Rgb => bands((i) => Math.min(1, linear[i] * light[i]));

/** The light over a ground: daylight, or what the usual depth leaves of it. */
export const lightOver = (ground: GroundId, depthM = usual('seenDepthM')): Rgb =>
  ground === 'water' ? lightUnder(depthM) : [1, 1, 1];
