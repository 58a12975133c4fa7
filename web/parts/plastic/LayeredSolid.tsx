import { type ReactNode, useMemo } from 'react';
import type { Layer } from '../../../contract/colourways.ts';
import type { Melt } from '../../../core/colour/foresee.ts';
import { GROUNDS, type GroundId } from '../../../core/colour/grounds.ts';
import { type Part, type Seams, seamsOf } from '../../../core/colour/layered.ts';
import { hexOf, layerOver } from '../../../core/colour/light.ts';
import { partsIn, thickAtMiddle } from '../../../core/colour/solidSeen.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import type { Chords } from '../../../core/shape/chords.ts';
import type { Section } from '../../../core/shape/section.ts';
import { Solid } from '../solid/Solid.tsx';
import { useTaste } from '../taste.tsx';
import { partsOf } from './LayeredBait.tsx';
import { Painted } from './Painted.tsx';
import { tintsIn } from './tints.ts';
import { CUTS, useSolidOf } from './useChords.ts';

/** A cut is looked at as if so much of it were cut off. */
const SLICE_MM = 4;

interface Props {
  meshId: string;
  layers: Layer[];
  melts: Melt[];
  side: Chords;
  ground: GroundId;
  name: string;
  /** As it is seen flat, beside the solid. */
  picture: ReactNode;
}

/** A bait of layers as a solid that is turned by hand, and cut across where its layers lie, each as thick as it is there. */
export function LayeredSolid({ meshId, layers, melts, side, ground, name, picture }: Props) {
  const { data, error } = useSolidOf(meshId);
  const model = useMemo(() => {
    const parts = partsOf(layers, melts, side);
    return { parts, seams: seamsOf(parts, side) };
  }, [layers, melts, side]);
  const drawn = useMemo(() => {
    if (!data) return null;
    return [{ ...data.solid, colour: '--bait', tints: tintsIn(data.inward, model, ground) }];
  }, [data, model, ground]);
  return (
    <>
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-6">
        {picture}
        <div className="min-h-72 flex flex-col border border-[var(--edge)]">
          {drawn ? (
            <Solid layers={drawn} heightPx={280} says={`${name} as a solid, its melts where they lie.`} />
          ) : (
            <p className={error ? 'warn p-4' : 'soft p-4'}>
              {error ? 'Its shape could not be read for a cut; the picture beside this holds.' : `Cutting ${name} …`}
            </p>
          )}
        </div>
      </div>
      {data && (
        <div className="grid grid-cols-3 gap-4 items-end max-w-3xl">
          {data.sections.map((section, i) => (
            <Cut key={section.at} section={section} where={CUTS[i]?.where ?? ''} layers={layers} {...model} />
          ))}
        </div>
      )}
    </>
  );
}

function Cut({
  section,
  where,
  layers,
  parts,
  seams,
}: {
  section: Section;
  where: string;
  layers: Layer[];
  parts: Part[];
  seams: Seams;
}) {
  const { text } = useTaste();
  const found = useMemo(() => {
    const lying = partsIn(section, seams);
    const colours = parts.map(({ optics }) => hexOf(layerOver(optics, SLICE_MM, [...GROUNDS.white.linear])));
    return { lying, colours, thick: thickAtMiddle(section, lying) };
  }, [section, parts, seams]);
  const paint = useMemo(
    () => () => {
      const { columns, rows } = section;
      const image = new ImageData(columns, rows);
      found.lying.forEach((part, at) => {
        if (part < 0) return;
        const hex = found.colours[part] as string;
        for (let k = 0; k < 3; k++) image.data[4 * at + k] = Number.parseInt(hex.slice(1 + 2 * k, 3 + 2 * k), 16);
        // The line where two melts meet.
        const [above, left] = [found.lying[at - columns], found.lying[at - 1]];
        const isSeam =
          (above !== undefined && above >= 0 && above !== part) || (left !== undefined && left >= 0 && left !== part);
        if (isSeam) for (let k = 0; k < 3; k++) image.data[4 * at + k] = (image.data[4 * at + k] as number) * 0.45;
        image.data[4 * at + 3] = 255;
      });
      return image;
    },
    [section, found],
  );
  const told = [...found.thick].map(([part, mm]) => ({ place: PLACES[layers[part]?.place ?? 'whole'], mm }));
  return (
    <figure>
      <Painted
        columns={section.columns}
        rows={section.rows}
        paint={paint}
        label={`Cut ${where}: ${told.map(({ place, mm }) => `${place} ${text(mm, 'length')}`).join(', ')}`}
      />
      <figcaption className="mt-1">
        <span className="label-small block">{where}</span>
        {told.map(({ place, mm }) => (
          <span key={place} className="flex justify-between gap-2 text-sm">
            <span>{place}</span>
            <b className="figure">{text(mm, 'length')}</b>
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
