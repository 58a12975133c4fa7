import * as v from 'valibot';
import { finite, nonNegative, positive } from '../bounds.ts';

const place = v.strictTuple([
  v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)),
  v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)),
  v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)),
]);

export const trimSchema = v.strictObject({
  volumeMl: positive(1e6),
  massG: positive(1e7),
  centroidMm: place,
  extras: v.pipe(
    v.array(
      v.strictObject({
        massG: positive(1e6),
        volumeMl: v.optional(nonNegative(1e6), 0),
        atMm: place,
        /** Set into the plastic, which it takes the room of; otherwise beside it, as a hook's bend. */
        inside: v.optional(v.boolean(), true),
      }),
    ),
    v.maxLength(60, 'too-large'),
  ),
});

/** Nearer than this the two centres have no say, mm. */
const CENTRED_MM = 0.15;

/**
 * How a bait hangs at rest: the centre of buoyancy comes to lie straight above the centre of mass.
 * Axes: x from nose to tail, y to the right, z up through the back.
 * @returns both centres in mm; `noseUpDeg` above (+) or below (−) the horizontal; `rollDeg` from back-up, 180 is belly-up.
 * Source: hydrostatics of a wholly submerged body.
 */
export function trim({ volumeMl, massG, centroidMm, extras }: v.InferOutput<typeof trimSchema>) {
  const density = massG / volumeMl;
  const parts = [
    { mass: massG, volume: volumeMl, at: centroidMm },
    ...extras.flatMap(({ massG: mass, volumeMl: volume, atMm: at, inside }) =>
      inside
        ? // The plastic that it stands in the place of is not there.
          [
            { mass, volume, at },
            { mass: -density * volume, volume: -volume, at },
          ]
        : [{ mass, volume, at }],
    ),
  ];
  const sum = (weight: (part: (typeof parts)[number]) => number) =>
    parts.reduce((total, part) => total + weight(part), 0);
  const centre = (weight: 'mass' | 'volume') =>
    [0, 1, 2].map((k) => sum((part) => part[weight] * (part.at[k] as number)) / sum((part) => part[weight])) as [
      number,
      number,
      number,
    ];
  const [mass, buoyancy] = [centre('mass'), centre('volume')];
  const up = mass.map((m, k) => (buoyancy[k] as number) - m) as [number, number, number];
  const apart = Math.hypot(...up);
  const settled = apart >= CENTRED_MM;
  const noseUpDeg = settled ? (Math.asin(-up[0] / apart) * 180) / Math.PI : 0;
  const flat = Math.hypot(up[1], up[2]);
  const rollDeg = settled && flat > CENTRED_MM / 3 ? (Math.atan2(up[1], up[2]) * 180) / Math.PI : 0;
  return {
    massCentreMm: mass,
    buoyancyCentreMm: buoyancy,
    apartMm: apart,
    noseUpDeg,
    rollDeg,
    totalMassG: sum((part) => part.mass),
    totalVolumeMl: sum((part) => part.volume),
    sentence: sentence(settled, noseUpDeg, rollDeg),
  };
}

function sentence(settled: boolean, nose: number, roll: number): string {
  if (!settled) return 'Hangs as it is let go: its weight and its lift meet in one place.';
  const pitch =
    Math.abs(nose) < 8 ? 'level' : nose > 0 ? `nose up ${Math.round(nose)}°` : `nose down ${Math.round(-nose)}°`;
  const side =
    Math.abs(roll) > 120 ? 'belly up' : Math.abs(roll) > 8 ? `rolled ${Math.round(Math.abs(roll))}°` : 'on its keel';
  return `Hangs ${pitch}, ${side}.`;
}
