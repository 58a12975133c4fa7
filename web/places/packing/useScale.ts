import { useState } from 'react';
import { type BaitMass, packCount } from '../../../core/plan/packCount.ts';
import { useInstruments } from '../../api/instruments.ts';

/** The scale at the packing table: what lies on it as baits; after a bag was packed nothing counts until it is taken off. */
export function useScale(orderId: string, wanted: number, mass: BaitMass | null) {
  const scales = useInstruments().filter(({ kind }) => kind === 'scale');
  const one = scales.find((scale) => scale.orderId === orderId) ?? scales[0];
  const here = one?.orderId === orderId;
  const believed = here && one.now?.trust === 'fine' ? one.now.value : null;
  const [waits, setWaits] = useState(false);
  // Less than half a bait lies there: the bag was taken off.
  if (waits && (!here || (believed !== null && mass !== null && believed < mass.eachG / 2))) setWaits(false);
  const empty = believed === null || mass === null || believed < mass.eachG / 2;
  return {
    one,
    here,
    orderId,
    grams: believed,
    trust: here ? (one.now?.trust ?? null) : null,
    said: waits || empty ? null : packCount({ wanted, grams: believed, scaleSdG: 0, ...mass }),
    /** What was packed still lies there. */
    full: waits,
    packed: () => {
      if (here && !empty) setWaits(true);
    },
  };
}

export type PackScale = ReturnType<typeof useScale>;
