import * as v from 'valibot';
import { finite, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { MOLD_STUFF, PLASTISOL, train } from '../heat/demold.ts';
import { FILLS, MOLD_KINDS, type MoldKind, methodWindow, middleOf } from '../heat/window.ts';
import { type Waits, waitsByKind } from './waits.ts';

/** What a mold is made of, as heat goes through it; none for rods, which are dipped. */
export const STUFF_OF: Record<MoldKind, keyof typeof MOLD_STUFF | null> = {
  'silicone-open': 'silicone',
  'silicone-wrap': 'silicone',
  'silicone-two-piece': 'silicone',
  aluminium: 'aluminium',
  cast: 'aluminium',
  printed: 'pla',
  'dip-rods': null,
};

/** From this shot on the wall has taken all the heat it takes between two shots, near enough. */
export const WARM_AFTER_SHOTS = 8;

const temperature = v.pipe(finite, v.minValue(-60), v.maxValue(400));

export const openingSchema = v.strictObject({
  kind: v.picklist(MOLD_KINDS),
  fill: v.picklist(FILLS),
  /** Thickest section of the bait; left out: not known. */
  thicknessMm: v.optional(v.pipe(positive(500), v.minValue(0.1))),
  /** Left out: the usual one of its kind. */
  wallMm: v.optional(v.pipe(positive(1000), v.minValue(0.1))),
  roomC: temperature,
  shots: whole(1, 2000),
  pourC: v.optional(temperature),
  demoldC: v.optional(temperature, usual('demoldC')),
  openS: v.optional(nonNegative(1e5), usual('openBetweenS')),
  /** Of the mold before its first shot; left out: the room's. */
  moldC: v.optional(temperature),
  outerWPerM2K: v.optional(nonNegative(1e5), usual('stillAirWPerM2K')),
});
export type Opening = v.InferInput<typeof openingSchema>;

/** The wall between a bait and the air where nobody wrote one down, mm. */
export const wallOf = (kind: MoldKind) => usual(STUFF_OF[kind] === 'aluminium' ? 'metalWallMm' : 'siliconeWallMm');

/**
 * How long each shot waits in this mold until it is opened.
 * A bait in a closed mold is a cylinder of its thickest section; an open face gives little heat off over one of its four
 * sides, so it counts as a third thicker (equivalent diameter, 4 × section ÷ wetted perimeter).
 * @returns seconds a shot, and whether they come of the mold's heat or of its kind alone.
 * Source: transient conduction as in `heat.train`; equivalent diameter after Incropera et al. (2007); not under a minute.
 */
export function opensAfter(mold: v.InferOutput<typeof openingSchema>): Waits {
  const stuff = STUFF_OF[mold.kind];
  if (!stuff || mold.thicknessMm === undefined) return waitsByKind(mold.kind);
  try {
    const { demoldS } = train({
      shape: 'cylinder',
      thicknessMm: mold.fill === 'open-pour' ? (mold.thicknessMm * 4) / 3 : mold.thicknessMm,
      pourC: mold.pourC ?? middleOf(methodWindow(mold)),
      demoldC: mold.demoldC,
      criterion: 'mean',
      moldC: mold.moldC ?? mold.roomC,
      ambientC: mold.roomC,
      wallMm: mold.wallMm ?? wallOf(mold.kind),
      outerWPerM2K: mold.outerWPerM2K,
      mold: MOLD_STUFF[stuff],
      plastisol: PLASTISOL,
      shots: Math.min(mold.shots, WARM_AFTER_SHOTS),
      openS: mold.openS,
    });
    return { waitS: demoldS.map((seconds) => Math.max(usual('leastWaitS'), Math.round(seconds))), basis: 'heat' };
  } catch (error) {
    // Warmer than wanted all night: the kind's own guess is all there is.
    if (error instanceof Failure && error.code === 'never') return waitsByKind(mold.kind);
    throw error;
  }
}
