import { useCallback } from 'react';
import type { Melt } from '../../../core/colour/foresee.ts';
import { GROUNDS, type GroundId, lightOver } from '../../../core/colour/grounds.ts';
import { bands, hexOf } from '../../../core/colour/light.ts';
import type { Chords } from '../../../core/shape/chords.ts';
import { Painted } from './Painted.tsx';
import { paintBait } from './paint.ts';

/** What a ground looks like beside the bait, in its own light. */
export const plateOf = (ground: GroundId) => {
  const light = lightOver(ground);
  return hexOf(bands((i) => Math.min(1, GROUNDS[ground].linear[i] * light[i])));
};

interface Props {
  chords: Chords;
  melt: Melt;
  ground: GroundId;
  /** How far it is leant towards the light, radians: a pearl’s sheen goes with it. */
  lean?: number;
  label: string;
}

/** A bait in soft plastic: pale where it is thin, deep where it is thick, on the ground it is held over. */
export function BaitInPlastic({ chords, melt, ground, lean = 0.2, label }: Props) {
  const paint = useCallback(
    () => paintBait(chords, melt, { linear: [...GROUNDS[ground].linear], light: lightOver(ground) }, lean),
    [chords, melt, ground, lean],
  );
  return (
    <div className="p-4 border border-[var(--edge)]" style={{ background: plateOf(ground) }}>
      <Painted columns={chords.columns} rows={chords.rows} paint={paint} label={label} />
    </div>
  );
}
