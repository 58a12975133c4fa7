import * as v from 'valibot';
import { fraction, LIST_CAP, nonNegative, TOO_LARGE } from '../bounds.ts';

/** K or S in three bands, a mm, at 1 mL/L of a colourant or of the plain plastic. */
const coefficients = (title: string) =>
  v.pipe(v.strictTuple([nonNegative(1e4), nonNegative(1e4), nonNegative(1e4)]), v.title(title));
/** Reflectance in three bands. */
export const reflected = v.strictTuple([fraction, fraction, fraction]);
export const optics = v.strictObject({
  k: coefficients('Absorbs: red, green, blue'),
  s: coefficients('Scatters: red, green, blue'),
});
/** Millilitres in a litre of plastisol: never more than all of it. */
export const mlPerL = v.pipe(nonNegative(1000), v.title('Dosed, mL in a litre'));
export const dosed = v.strictObject({ ...optics.entries, mlPerL });
export const thickness = v.pipe(nonNegative(1e4), v.title('Thick'));
export const thicknesses = v.pipe(
  v.array(thickness),
  v.minLength(1),
  v.maxLength(LIST_CAP, TOO_LARGE),
  v.title('Or at each of, mm'),
);
export const hexText = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'a colour is written like #3fa27b'));
