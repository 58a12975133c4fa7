import * as v from 'valibot';
import { fraction, whole } from '../bounds.ts';
import { Failure } from '../failure.ts';
import { thickness } from './fields.ts';
import { meltOf, type Optics, opacityOf } from './light.ts';
import { meltFields } from './predict.ts';

export const doseSchema = v.strictObject({
  ...meltFields,
  /** Which of the items is dosed anew. */
  itemIndex: whole(0, 999),
  thicknessMm: thickness,
  opacityWanted: fraction,
});

/** More of a colourant than this is no dose, mL/L. */
const MOST_ML_PER_L = 1000;
const LEAST_ML_PER_L = 1e-4;
/** Steps of the scan: each a little under 2 % more than the last. */
const STEPS = 900;
const HALVINGS = 60;

/**
 * The least dose of one colourant that hides so much of the ground at this thickness. Opacity does not rise with every drop (a dark
 * colour hides less of a pale one's scatter), so doses are scanned from the least and the first crossing is refined.
 * @returns mL/L. @throws Failure `out-of-reach`.
 */
export function dose(input: v.InferOutput<typeof doseSchema>): { mlPerL: number; opacity: number } {
  const { base, items, itemIndex, thicknessMm, opacityWanted } = input;
  const item = items[itemIndex];
  if (!item)
    throw new Failure('invalid-input', `There are ${items.length} colourants; count them from 0.`, 'itemIndex');
  const opacityWith = (mlPerL: number) =>
    opacityOf(
      meltOf(
        base,
        items.map((one, i) => (i === itemIndex ? { ...item, mlPerL } : one)),
      ),
      thicknessMm,
    );
  const isEnough = (mlPerL: number) => opacityWith(mlPerL) >= opacityWanted;
  if (isEnough(0)) return { mlPerL: 0, opacity: opacityWith(0) };
  let low = 0;
  for (let step = 0; step <= STEPS; step++) {
    const high = LEAST_ML_PER_L * (MOST_ML_PER_L / LEAST_ML_PER_L) ** (step / STEPS);
    if (isEnough(high)) {
      const mlPerL = refined(low, high, isEnough);
      return { mlPerL, opacity: opacityWith(mlPerL) };
    }
    low = high;
  }
  throw new Failure(
    'out-of-reach',
    'No dose of it hides that much at this thickness; take a colourant that scatters more, or ask for less.',
    'opacityWanted',
  );
}

/**
 * How many times its colour a whole recipe needs to hide so much of the ground at this thickness: all of it more or less alike, so
 * that the hue stays. @param dosed the recipe’s colour without its plastic. @throws Failure `out-of-reach`.
 */
export function strengthFor(plain: Optics, dosed: Optics, thicknessMm: number, opacityWanted: number): number {
  return dose({
    base: plain,
    items: [{ ...dosed, mlPerL: 1 }],
    itemIndex: 0,
    thicknessMm,
    opacityWanted,
  }).mlPerL;
}

function refined(low: number, high: number, isEnough: (mlPerL: number) => boolean): number {
  let [under, over] = [low, high];
  for (let i = 0; i < HALVINGS && over - under > 1e-12 * over; i++) {
    const middle = (under + over) / 2;
    if (isEnough(middle)) over = middle;
    else under = middle;
  }
  return over;
}
