import * as v from 'valibot';
import { fraction, LIST_CAP, nonNegative, positive, TOO_LARGE } from '../bounds.ts';

/** K or S in three bands, a mm, at 1 mL/L of a colourant or of the plain plastic. */
const coefficients = v.strictTuple([nonNegative(1e4), nonNegative(1e4), nonNegative(1e4)]);
/** Reflectance in three bands. */
export const reflected = v.strictTuple([fraction, fraction, fraction]);
export const optics = v.strictObject({ k: coefficients, s: coefficients });
/** Millilitres in a litre of plastisol: never more than all of it. */
export const mlPerL = nonNegative(1000);
export const dosed = v.strictObject({ ...optics.entries, mlPerL });
export const thickness = nonNegative(1e4);
export const thicknesses = v.pipe(v.array(thickness), v.minLength(1), v.maxLength(LIST_CAP, TOO_LARGE));
export const hexText = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'a colour is written like #3fa27b'));
export const pieceMl = positive(1e6);
