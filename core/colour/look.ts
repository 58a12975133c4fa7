import { usual } from '../defaults.ts';
import { hexOf, layerOver, type Optics, type Rgb } from './light.ts';

const WHITE: Rgb = [1, 1, 1];

/** How a melt looks where colours are compared: a piece as thick as they are matched at, over white, linear light. */
export const lookOf = (melt: Optics): Rgb => layerOver(melt, usual('matchedAtMm'), WHITE);

/** The same as a screen shows it. */
export const lookHex = (melt: Optics): string => hexOf(lookOf(melt));
