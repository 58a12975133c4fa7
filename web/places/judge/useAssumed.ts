import { useState } from 'react';
import type { Master } from '../../../contract/masters.ts';
import { ASSUMED, type Assumed } from '../../../core/water/assumed.ts';

/** What the judging assumes of a bait, to begin with. */
export function useAssumed(master?: Master) {
  const bait = master?.bait;
  const [assumed, setAssumed] = useState<Assumed>({
    ...ASSUMED,
    ...(bait?.wantedHardness && bait.wantedScale ? { hardness: bait.wantedHardness, scale: bait.wantedScale } : {}),
  });
  return [assumed, (part: Partial<Assumed>) => setAssumed((now) => ({ ...now, ...part }))] as const;
}
