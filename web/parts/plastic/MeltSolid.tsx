import { useMemo } from 'react';
import type { Melt } from '../../../core/colour/foresee.ts';
import type { GroundId } from '../../../core/colour/grounds.ts';
import { seamsOf } from '../../../core/colour/layered.ts';
import type { Chords } from '../../../core/shape/chords.ts';
import { Solid } from '../solid/Solid.tsx';
import { tintsIn } from './tints.ts';
import { useSolidOf } from './useChords.ts';

/** A bait of one melt as a solid that is turned by hand: each place as deep in colour as it is thick there. Flake is not drawn on it. */
export function MeltSolid({
  meshId,
  melt,
  side,
  ground,
  name,
}: {
  meshId: string;
  melt: Melt;
  side: Chords;
  ground: GroundId;
  name: string;
}) {
  const { data, error } = useSolidOf(meshId);
  const drawn = useMemo(() => {
    if (!data) return null;
    const parts = [{ place: 'whole' as const, share: 1, optics: melt.optics }];
    const tints = tintsIn(data.inward, { parts, seams: seamsOf(parts, side) }, ground);
    return [{ ...data.solid, colour: '--bait', tints }];
  }, [data, melt, side, ground]);
  if (error) return <p className="warn">Its shape could not be read; the picture from the side holds.</p>;
  return (
    <div className="min-h-72 flex flex-col border border-[var(--edge)]">
      {drawn ? (
        <Solid layers={drawn} heightPx={280} says={`${name} as a solid.`} />
      ) : (
        <p className="soft p-4">Drawing {name} …</p>
      )}
    </div>
  );
}
