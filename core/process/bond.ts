import { usual } from '../defaults.ts';
import { tried } from '../failure.ts';
import { demold, MOLD_STUFF, PLASTISOL } from '../heat/demold.ts';
import type { Join } from '../plan/layers.ts';

export interface BondWish {
  joins: Join;
  /** The layer before it, where it is thickest, mm; null: nobody knows its shape. */
  underMm: number | null;
  moldStuff?: 'silicone' | 'aluminium';
  wallMm?: number;
  roomC?: number;
  /** Of a mold that is kept hot. */
  moldC?: number;
  pourC?: number;
}

export interface Bond {
  /** Where the two meet, °C, if nothing else is done. */
  meetC: number;
  /** The layer before must be at least so hot for that to fuse. */
  neededC: number;
  /** It is, for so long after it was poured, s; null: not known. */
  hotForS: number | null;
  /** Cold and firm after, s; null: not known. */
  firmAfterS: number | null;
  /** Whether they hold as they are joined; `if-melted`, `if-hot`: only if that is done. */
  holds: 'yes' | 'no' | 'if-melted' | 'if-hot' | 'if-cooked';
}

/** Seconds until a layer on a cold wall has come down to this; null where its thickness is not known, or it never does. */
function comesTo(
  c: number,
  { underMm, moldStuff = 'silicone', wallMm, roomC = usual('roomC'), pourC = usual('layerPourC') }: BondWish,
): number | null {
  if (underMm === null || !(underMm > 0)) return null;
  const wall = wallMm ?? usual(moldStuff === 'aluminium' ? 'metalWallMm' : 'siliconeWallMm');
  const { value } = tried(() =>
    demold({
      shape: 'slab',
      thicknessMm: Math.max(0.2, underMm),
      pourC,
      demoldC: c,
      criterion: 'mean',
      moldC: roomC,
      ambientC: roomC,
      wallMm: wall,
      outerWPerM2K: usual('stillAirWPerM2K'),
      mold: MOLD_STUFF[moldStuff],
      plastisol: PLASTISOL,
    }),
  );
  return value?.seconds ?? null;
}

/**
 * Whether a layer holds on the one before it. Where hot plastic meets cold plastic of its kind, both take the mean of their
 * temperatures at once; below that at which plastisol fuses they only lie on each other, and peel.
 * @returns °C, s. Source: contact of two half-spaces of equal effusivity (Carslaw & Jaeger 1959); how a layer cools as in
 *   `heat.demold`, the open side taken for a wall; at what it fuses and is firm are defaults.
 */
export function bondOf(wish: BondWish): Bond {
  const { joins, roomC = usual('roomC'), pourC = usual('layerPourC'), moldC = usual('cookC') } = wish;
  const fusesC = usual('fusesC');
  const neededC = 2 * fusesC - pourC;
  const underC = joins === 'together' ? pourC : joins === 'hot' ? moldC : roomC;
  const meetC = (underC + pourC) / 2;
  const holds: Bond['holds'] =
    joins === 'together'
      ? pourC >= fusesC
        ? 'yes'
        : 'no'
      : joins === 'hot'
        ? 'if-hot'
        : joins === 'melted'
          ? 'if-melted'
          : 'if-cooked';
  return {
    meetC,
    neededC,
    hotForS: joins === 'together' ? null : comesTo(neededC, wish),
    firmAfterS: joins === 'melted' ? comesTo(usual('firmC'), wish) : null,
    holds,
  };
}
