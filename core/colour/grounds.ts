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

/**
 * Waters: what of daylight comes back out of them, and how fast it goes in them, a metre.
 * Sources: diffuse attenuation at 600, 530 and 470 nm, rounded: Jerlov’s oceanic type II and coastal types 1 and 5; of brown water by
 * its humic matter (0.4 /m at 440 nm a mg/L, falling by e each 71 nm), 5 mg/L. What comes back are starting guesses.
 */
export const WATERS = {
  clear: { title: 'clear sea', linear: [0.005, 0.02, 0.05], fadesPerM: [0.24, 0.08, 0.06] },
  coastal: { title: 'coastal water', linear: GROUNDS.water.linear, fadesPerM: [0.3, 0.13, 0.17] },
  green: { title: 'green water', linear: [0.012, 0.045, 0.02], fadesPerM: [0.44, 0.33, 0.57] },
  brown: { title: 'brown water', linear: [0.03, 0.018, 0.005], fadesPerM: [0.45, 0.67, 1.4] },
} as const satisfies Record<string, { title: string; linear: Rgb; fadesPerM: Rgb }>;
export type WaterId = keyof typeof WATERS;
export const WATER_IDS = Object.keys(WATERS) as WaterId[];

/** As bright as daylight: eyes get used to less, not to another hue. */
function asBright(left: Rgb): Rgb {
  const bright = luminance(left);
  return bands((i) => left[i] / bright);
}

/**
 * The light that is left of white daylight under so much water, made as bright as above it.
 * @param depthM metres.
 */
export const lightUnder = (depthM: number, water: WaterId = 'coastal'): Rgb =>
  asBright(bands((i) => Math.exp(-WATERS[water].fadesPerM[i] * depthM)));

/** Of a lamp’s hue eyes take away so much, and see the rest. Source: CIECAM02’s degree of adaptation in an ordinary room. */
const ADAPTED = 0.8;
/** A glowing lamp over daylight, linear light. Source: CIE illuminant A (x 0.4476, y 0.4074) in linear sRGB, Y 1. */
const ILLUMINANT_A: Rgb = [1.845, 0.826, 0.233];
export const LAMP_LIGHT: Rgb = asBright(bands((i) => ADAPTED + (1 - ADAPTED) * ILLUMINANT_A[i]));

/** A colour as that light shows it; what is brighter than white stays white. */
export const litBy = (linear: Rgb, light: Rgb): Rgb => bands((i) => Math.min(1, linear[i] * light[i]));

/** The light over a ground: daylight, or what the usual depth leaves of it. */
export const lightOver = (ground: GroundId, depthM = usual('seenDepthM')): Rgb =>
  ground === 'water' ? lightUnder(depthM) : [1, 1, 1];
