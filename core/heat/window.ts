import * as v from 'valibot';
import { finite } from '../bounds.ts';
import { usual } from '../defaults.ts';

/** Kinds of molds as they are poured. */
export const MOLD_KINDS = [
  'silicone-open',
  'silicone-wrap',
  'silicone-two-piece',
  'aluminium',
  'printed',
  'cast',
  'dip-rods',
] as const;
export type MoldKind = (typeof MOLD_KINDS)[number];
/** Ways into a mold. */
export const FILLS = ['open-pour', 'injection', 'gravity', 'dip'] as const;
export type Fill = (typeof FILLS)[number];

interface MethodWindow {
  lowC: number;
  highC: number;
  name: string;
}

/** Usual cup temperatures by the way it gets into the mold; method sheets and the log win. */
const BY_FILL: Record<Fill, MethodWindow> = {
  'open-pour': { lowC: 165, highC: 177, name: 'open pour' },
  injection: { lowC: 158, highC: 180, name: 'hand injector' },
  gravity: { lowC: 165, highC: 177, name: 'gravity pour' },
  dip: { lowC: 150, highC: 160, name: 'dipping' },
};

/** A printed mold bursts or melts above this, whatever the way of filling. */
const PRINTED: MethodWindow = { lowC: 145, highC: 155, name: 'printed mold' };

/** Between which temperatures this kind of mold is filled in this way, °C. Source: common practice, as starting values. */
export const methodWindow = ({ kind, fill }: { kind: MoldKind; fill: Fill }): MethodWindow =>
  kind === 'printed' ? PRINTED : BY_FILL[fill];

/** Where a cup is poured when nobody says otherwise, °C. */
export const middleOf = ({ lowC, highC }: { lowC: number; highC: number }) => (lowC + highC) / 2;

export interface HeatLimit {
  name: string;
  c: number;
}

export interface CupWindow {
  lowC: number;
  highC: number;
  /** How it gets into the mold that allows least. */
  method: string;
  /** The flake or powder that cuts the window's upper end. */
  limit: HeatLimit | null;
  /** A limit under which nothing fills: the method's own window stands, and the conflict is said. */
  conflict: HeatLimit | null;
}

/**
 * The window that all molds of a cup share, cut by what is in it.
 * @param molds at least one. @param limits of flake and powder in the cup, °C.
 */
export function cupWindow(molds: { kind: MoldKind; fill: Fill }[], limits: HeatLimit[]): CupWindow {
  const windows = molds.map(methodWindow);
  const lowC = Math.max(...windows.map((window) => window.lowC));
  const least = windows.reduce((found, one) => (one.highC < found.highC ? one : found));
  const found = pourWindow({
    lowC,
    highC: least.highC,
    method: least.name,
    // By number, since any name may be given to a flake, "mold" too.
    flakeLimitsC: limits.map(({ c }, index) => ({ id: String(index), c })),
    scorchC: usual('scorchC'),
  });
  const limit = limits[Number(found.limitedBy)] ?? null;
  const clash = found.conflict ? limit : null;
  return {
    lowC,
    highC: clash ? least.highC : found.highC,
    method: least.name,
    limit,
    conflict: clash,
  };
}

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
    scorchC: v.optional(temperature, usual('scorchC')),
  }),
);

/**
 * Between which temperatures this pour may be drawn: the method's own window, cut by what flake, mold and plastic bear.
 * @returns °C, who sets the upper end, whether nothing is left, and the way out.
 * Source: the least of all limits; where it scorches is a default.
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
