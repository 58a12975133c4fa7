import type { Melt } from '../../../core/colour/foresee.ts';
import { lookHex } from '../../../core/colour/look.ts';
import { Puck } from '../Puck.tsx';
import { BaitInPlastic } from './BaitInPlastic.tsx';
import { useShapes } from './Foreseen.tsx';
import { useChords } from './useChords.ts';

/** What is being written, as it will look, beside the figures that make it; and its look, taken over with one tap. */
export function DraftPicture({
  melt,
  name,
  hex,
  onTake,
}: {
  melt: Melt;
  name: string;
  hex: string;
  onTake(hex: string): void;
}) {
  const { meshId } = useShapes();
  const { data: chords } = useChords(meshId, 'small');
  const foreseen = lookHex(melt.optics);
  return (
    <div className="w-full flex flex-col gap-3">
      {chords ? (
        <BaitInPlastic chords={chords} melt={melt} ground="white" label={`A bait of ${name}`} />
      ) : (
        <Puck hex={foreseen} sizePx={200} name={name} />
      )}
      {foreseen !== hex.toLowerCase() && (
        <button type="button" className="link self-start" onClick={() => onTake(foreseen)}>
          Take {foreseen} as its look
        </button>
      )}
    </div>
  );
}
