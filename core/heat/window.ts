import * as v from 'valibot';
import { finite } from '../validate.ts';

const temperature = v.pipe(finite, v.minValue(-60), v.maxValue(400));
const RESERVED = ['method', 'mold', 'scorch'];

export const windowSchema = v.pipe(
  v.strictObject({
    lowC: temperature,
    highC: temperature,
    /** What the window of the method is called by the maker. */
    method: v.pipe(v.string(), v.maxLength(120)),
    flakeLimitsC: v.pipe(
      v.array(
        v.strictObject({
          id: v.pipe(
            v.string(),
            v.minLength(1),
            v.maxLength(120),
            v.check((id) => !RESERVED.includes(id), 'this name is taken by the answer; give the flake another'),
          ),
          c: temperature,
        }),
      ),
      v.maxLength(60, 'too-large'),
    ),
    moldLimitC: v.optional(temperature),
    scorchC: v.optional(temperature, 195),
  }),
);

/**
 * Between which temperatures this pour may be drawn: the method's own window, cut by what flake, mold and plastic bear.
 * @returns °C, who sets the upper end, whether nothing is left, and the way out.
 * Source: the least of all limits; scorch at 195 °C is a starting value.
 */
export function pourWindow(input: v.InferOutput<typeof windowSchema>) {
  const limits: [by: string, c: number][] = [
    ['method', input.highC],
    ...input.flakeLimitsC.map((one): [string, number] => [one.id, one.c]),
    ...(input.moldLimitC === undefined ? [] : [['mold', input.moldLimitC] as [string, number]]),
    ['scorch', input.scorchC],
  ];
  const [limitedBy, highC] = limits.reduce((least, one) => (one[1] < least[1] ? one : least));
  const conflict = highC < input.lowC;
  return { lowC: input.lowC, highC, limitedBy, conflict, advice: adviceFor(limitedBy, highC, input.lowC, conflict) };
}

function adviceFor(by: string, highC: number, lowC: number, conflict: boolean): string {
  const top = `${Math.round(highC * 10) / 10} °C`;
  if (!conflict) {
    if (by === 'method') return `Draw it below ${top}.`;
    if (by === 'mold') return `The mold bears ${top}: let the cup cool to that before it is poured.`;
    if (by === 'scorch') return `Above ${top} it scorches: stop the heat in time.`;
    return `${by} bears ${top}: stir it in last, and let the cup cool to that first.`;
  }
  const low = `${Math.round(lowC * 10) / 10} °C`;
  if (by === 'mold') return `The mold bears only ${top}, and below ${low} it does not fill: take another mold.`;
  if (by === 'scorch') return `It would have to be drawn above ${low}, where it scorches: another method.`;
  if (by === 'method') return `The method’s own window is upside down: ${low} is above ${top}.`;
  return `${by} bears only ${top}, and below ${low} it does not fill: another flake, or stir it in last and pour cool.`;
}
