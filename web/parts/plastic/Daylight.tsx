import { useMemo, useState } from 'react';
import type { Melt } from '../../../core/colour/foresee.ts';
import { litBy, WATER_IDS, WATERS, type WaterId } from '../../../core/colour/grounds.ts';
import { deltaE, labOf } from '../../../core/colour/lab.ts';
import { hexOf } from '../../../core/colour/light.ts';
import { inWater, SCENE_IDS, SCENES, type Scene, seenIn, thickIn } from '../../../core/colour/scenes.ts';
import { usual } from '../../../core/defaults.ts';
import { type Chords, thinAndThick } from '../../../core/shape/chords.ts';
import { depthText } from '../../../core/units/show.ts';
import { SelectField } from '../Fields.tsx';
import { useTaste } from '../taste.tsx';
import { useShapes } from './Foreseen.tsx';
import { Painted } from './Painted.tsx';
import { paintBait } from './paint.ts';
import { useChords } from './useChords.ts';

const MOST_M = 12;
/** A little towards the light, radians. */
const LEAN = 0.2;

/** The same melt in the cup, in the mold, by lamp, by day and under water: what looks right at the bench may not out there. */
export function Daylight({ melt, name }: { melt: Melt; name: string }) {
  const { taste } = useTaste();
  const { meshId } = useShapes();
  const { data: chords } = useChords(meshId, 'small');
  const [water, setWater] = useState<WaterId>('coastal');
  const [depthM, setDepth] = useState(usual('seenDepthM'));
  const under = useMemo(() => inWater(water, depthM), [water, depthM]);
  if (!chords) return null;
  return (
    <section className="flex flex-col gap-3" aria-label="From the cup to the water">
      <h2>From the cup to the water</h2>
      <div className="grid grid-cols-2 md:grid-cols-3 gap-3 max-w-3xl">
        {SCENE_IDS.map((id) => (
          <Seen
            key={id}
            melt={melt}
            chords={chords}
            scene={SCENES[id]}
            cup={id === 'cup'}
            title={SCENES[id].title}
            name={name}
          />
        ))}
        <Seen
          melt={melt}
          chords={chords}
          scene={under}
          title={`${WATERS[water].title}, ${depthText(depthM, taste)} down`}
          name={name}
        />
      </div>
      <div className="flex flex-wrap gap-4 items-end no-print">
        <SelectField
          label="Water"
          value={water}
          options={WATER_IDS.map((id) => ({ value: id, label: WATERS[id].title }))}
          onChange={setWater}
          className="w-48"
        />
        <label className="pb-5">
          <span className="label-small block">
            <b className="figure">{depthText(depthM, taste)}</b> down
          </span>
          <input
            type="range"
            min={0}
            max={MOST_M}
            step={0.5}
            value={depthM}
            onChange={(event) => setDepth(Number(event.target.value))}
            className="w-56"
          />
        </label>
      </div>
      <p className="label-small max-w-3xl">
        ΔE from how its body looks by daylight on white. Three bands are no spectrum: what only another lamp tells apart
        is not foreseen. Light and waters are starting guesses.
      </p>
    </section>
  );
}

interface SeenProps {
  melt: Melt;
  chords: Chords;
  scene: Scene;
  cup?: boolean;
  title: string;
  name: string;
}

function Seen({ melt, chords, scene, cup = false, title, name }: SeenProps) {
  const { text } = useTaste();
  const paint = useMemo(
    () => () => paintBait(chords, melt, { linear: [...scene.linear], light: [...scene.light] }, LEAN),
    [chords, melt, scene],
  );
  const bodyMm = thinAndThick(chords).bodyMm;
  const seen = seenIn(melt.optics, cup ? thickIn('cup', bodyMm) : bodyMm, scene);
  const off = deltaE(labOf(seen), labOf(seenIn(melt.optics, bodyMm, SCENES.day)));
  const plate = hexOf(litBy([...scene.linear], [...scene.light]));
  return (
    <figure>
      <div
        className="border border-[var(--edge)] p-2 h-24 flex items-center justify-center"
        style={{ background: cup ? hexOf(seen) : plate }}
        {...(cup ? { role: 'img', 'aria-label': `${name} ${title}` } : {})}
      >
        {!cup && (
          <div className="w-full max-w-56">
            <Painted columns={chords.columns} rows={chords.rows} paint={paint} label={`A bait of ${name}, ${title}`} />
          </div>
        )}
      </div>
      <figcaption className="flex justify-between gap-2 text-sm mt-0.5">
        <span>
          {title}
          {cup && <span className="soft">, {text(thickIn('cup', bodyMm), 'length')} deep</span>}
        </span>
        {off >= 0.05 && <span className="figure whitespace-nowrap">ΔE {off.toFixed(0)}</span>}
      </figcaption>
    </figure>
  );
}
