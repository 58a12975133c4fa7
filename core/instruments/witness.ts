import { usual } from '../defaults.ts';
import type { Sample } from './trust.ts';

/** The mass on the scale went from one rest to another. */
export interface Step {
  /** When the new rest was first seen. */
  ms: number;
  fromG: number;
  toG: number;
  deltaG: number;
}

const mean = (values: number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;

/**
 * Reads steps out of a scale's figures: a rest is a few of them that lie together, and a step is what lies between two rests.
 * Drift carries the rest along with it and is no step.
 */
export class Witness {
  private rest: number | null = null;
  private recent: Sample[] = [];

  /** @returns the step that this figure completes. */
  take(sample: Sample): Step | null {
    this.recent = [...this.recent.slice(1 - usual('restReadings')), sample];
    if (this.recent.length < usual('restReadings')) return null;
    const values = this.recent.map(({ value }) => value);
    if (Math.max(...values) - Math.min(...values) > usual('restG')) return null;
    const here = mean(values);
    const from = this.rest;
    if (from === null || Math.abs(here - from) < usual('leastStepG')) {
      this.rest = here;
      return null;
    }
    this.rest = here;
    return { ms: (this.recent[0] as Sample).ms, fromG: from, toG: here, deltaG: here - from };
  }

  /** What it rests at, g; null: it does not. */
  get restG(): number | null {
    return this.rest;
  }
}

/** What may go into a cup next, as it would weigh. */
export interface MayGoIn {
  materialId: string;
  name: string;
  unit: string;
  /** One of its unit, g. */
  gEach: number;
  /** What the recipe still wants of it. */
  left: number;
}

/** What may be drawn from it next. */
export interface MayGoOut {
  moldId: string;
  name: string;
  /** A shot's part of this cup, g. */
  grams: number;
}

export type Seen =
  | { what: 'dose'; materialId: string; name: string; unit: string; amount: number; offG: number }
  | { what: 'shot'; moldId: string; name: string; offG: number }
  | { what: 'in' | 'out'; grams: number };

/** A shot is told by its mass where it is no farther off than this part of it. */
const SHOT_OFF = 0.15;

/**
 * What a step in a cup's mass was, as far as it can be told: so many drops or spoons of what the recipe wants next, or a shot
 * of the mold that it fits best. A proposal: whoever stands there says whether it is so.
 */
export function seenIn(step: Pick<Step, 'deltaG'>, goesIn: MayGoIn[], goesOut: MayGoOut[]): Seen {
  const { deltaG } = step;
  if (deltaG > 0) {
    const [next] = [...goesIn].filter(({ gEach }) => gEach > 0).sort((a, b) => Number(b.left > 0) - Number(a.left > 0));
    if (!next) return { what: 'in', grams: deltaG };
    const each = deltaG / next.gEach;
    // Drops are whole; of a spoon an eighth can be told.
    const amount = next.unit === 'drop' ? Math.max(1, Math.round(each)) : Math.max(0.125, Math.round(each * 8) / 8);
    const { materialId, name, unit } = next;
    return { what: 'dose', materialId, name, unit, amount, offG: deltaG - amount * next.gEach };
  }
  const fits = goesOut
    .map((one) => ({ ...one, off: Math.abs(-deltaG - one.grams) }))
    .filter(({ off, grams }) => off <= SHOT_OFF * grams)
    .sort((a, b) => a.off - b.off)[0];
  if (!fits) return { what: 'out', grams: -deltaG };
  return { what: 'shot', moldId: fits.moldId, name: fits.name, offG: -deltaG - fits.grams };
}

/**
 * Whether a bait is too light for its cavity: a hollow or a bubble that nobody sees from outside.
 * @param usualG what baits of this cavity weigh; @param of how many weighings say so, 0: its volume alone.
 * @returns the part that is missing; null: not light, as far as the scale can tell.
 */
export function tooLight(grams: number, usualG: number, of: number): number | null {
  // A volume alone may be off by as much as a mold's own.
  const slack = of >= usual('enoughWeighings') ? usual('lightFraction') : 2 * usual('lightFraction');
  const missing = (usualG - grams) / usualG;
  return missing > slack && usualG - grams > 3 * usual('scaleSdG') ? missing : null;
}
