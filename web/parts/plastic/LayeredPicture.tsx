import { useMemo } from 'react';
import type { Layer } from '../../../contract/colourways.ts';
import { GROUNDS, lightOver } from '../../../core/colour/grounds.ts';
import { seamsOf } from '../../../core/colour/layered.ts';
import type { Chords } from '../../../core/shape/chords.ts';
import { LayerSection } from '../LayerSection.tsx';
import { partsOf, useMelts } from './LayeredBait.tsx';
import { Painted } from './Painted.tsx';
import { paintLayered } from './paint.ts';

/** A colour of layers as the bait that is poured of it, over white; cut across where no bait has a shape. */
export function LayeredPicture({
  layers,
  chords,
  name,
}: {
  layers: Layer[];
  chords: Chords | undefined;
  name: string;
}) {
  const melts = useMelts(layers);
  const paint = useMemo(() => {
    if (!chords || !melts || melts.some(({ unknown }) => unknown.length > 0)) return null;
    const parts = partsOf(layers, melts, chords);
    const model = { parts, melts, seams: seamsOf(parts, chords) };
    return () => paintLayered(chords, 'side', model, { linear: [...GROUNDS.white.linear], light: lightOver('white') });
  }, [layers, melts, chords]);
  if (!chords || !paint) return <LayerSection layers={layers} sizePx={132} name={name} />;
  return (
    <span className="w-40 shrink-0 p-2 border border-[var(--edge)] bg-[#f4f3ef] self-start">
      <Painted columns={chords.columns} rows={chords.rows} paint={paint} label={`A bait of ${name}`} />
    </span>
  );
}
