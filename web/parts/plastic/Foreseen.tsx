import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo, useState, useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import type { Melt } from '../../../core/colour/foresee.ts';
import { GROUND_IDS, GROUNDS, type GroundId } from '../../../core/colour/grounds.ts';
import { opacityOf } from '../../../core/colour/light.ts';
import { thinAndThick } from '../../../core/shape/chords.ts';
import { queries } from '../../api/queries.ts';
import { SelectField } from '../Fields.tsx';
import { useTaste } from '../taste.tsx';
import { BaitInPlastic } from './BaitInPlastic.tsx';
import { MeltSolid } from './MeltSolid.tsx';
import { useChords } from './useChords.ts';
import { Wedge } from './Wedge.tsx';

/** A recipe as it will look: the bait in it, the wedge over four grounds, how much each place hides, and what of that is a guess. */
export function Foreseen({ melt, name }: { melt: Melt; name: string }) {
  // The bait changes at once; the wedge may follow a frame later.
  const settled = useDeferredValue(melt);
  return (
    <section className="flex flex-col gap-4" aria-label="As it will look">
      <InABait melt={melt} name={name} />
      <Wedge melt={settled} />
      <Guesses melt={melt} />
    </section>
  );
}

/** Where a browser keeps which bait colours are looked at in. */
const SEEN_IN = 'blunko.seen-in';
/** Whatever shows a bait on this page hears when another is chosen. */
const hearers = new Set<() => void>();
const heard = (hear: () => void) => {
  hearers.add(hear);
  return () => {
    hearers.delete(hear);
  };
};
function choose(meshId: string): void {
  localStorage.setItem(SEEN_IN, meshId);
  for (const hear of hearers) hear();
}

/** A maker's baits that have a shape here, the first of them unless another is chosen. */
export function useShapes() {
  const masters = useQuery(queries.masters).data?.items ?? [];
  const shapes = masters.flatMap(({ name, awayAt, latest: { meshId, mesh } }) =>
    meshId && mesh?.volumeMl && !awayAt ? [{ name, meshId }] : [],
  );
  const chosen = useSyncExternalStore(heard, () => localStorage.getItem(SEEN_IN));
  const meshId = shapes.some((one) => one.meshId === chosen) ? chosen : (shapes[0]?.meshId ?? null);
  return { shapes, meshId };
}

/** Which bait a colour is looked at in, and over what: chosen once for all pages. */
export function useSeenIn() {
  const { shapes, meshId } = useShapes();
  const [ground, setGround] = useState<GroundId>('white');
  const controls = meshId !== null && (
    <>
      <SelectField
        label="In"
        value={meshId}
        options={shapes.map((one) => ({ value: one.meshId, label: one.name }))}
        onChange={choose}
        className="w-52"
      />
      <fieldset className="flex gap-1 flex-wrap pb-5">
        <legend className="sr-only">Held over</legend>
        {GROUND_IDS.map((id) => (
          <button
            key={id}
            type="button"
            aria-pressed={ground === id}
            className={`btn btn-sm ${ground === id ? 'btn-primary' : 'btn-line border'}`}
            onClick={() => setGround(id)}
          >
            {GROUNDS[id].title}
          </button>
        ))}
      </fieldset>
    </>
  );
  return { meshId, ground, controls, bait: shapes.find((one) => one.meshId === meshId)?.name ?? '' };
}

/** Said where no bait has a shape: there is nothing to draw a colour in. */
export const NoShape = ({ children }: { children: string }) => (
  <p className="soft">
    {children}{' '}
    <Link to="/masters" className="link">
      Sculpt or bring one
    </Link>
  </p>
);

export function InABait({ melt, name }: { melt: Melt; name: string }) {
  const { meshId, ground, controls, bait } = useSeenIn();
  const [leanDeg, setLean] = useState(12);
  const [solid, setSolid] = useState(false);
  const { data: chords, error } = useChords(meshId);
  const places = useMemo(() => chords && thinAndThick(chords), [chords]);
  if (meshId === null) return <NoShape>No bait has a shape here yet, so only the wedge is drawn.</NoShape>;
  return (
    <div className="flex flex-col gap-2 max-w-3xl">
      <div className="flex flex-wrap gap-4 items-end no-print">
        {controls}
        {melt.sheen > 0.05 && (
          <label className="flex items-center gap-2 pb-5 text-sm">
            lean it
            <input
              type="range"
              min={-45}
              max={45}
              value={leanDeg}
              onChange={(event) => setLean(Number(event.target.value))}
              className="w-32"
            />
          </label>
        )}
      </div>
      {error && <p className="warn">Its shape could not be drawn; the wedge holds all the same.</p>}
      {!chords && !error && <div className="h-32 soft">Drawing {bait} …</div>}
      {chords && places && (
        <>
          <BaitInPlastic
            chords={chords}
            melt={melt}
            ground={ground}
            lean={(leanDeg * Math.PI) / 180}
            label={`${bait} in ${name}, over ${GROUNDS[ground].title}`}
          />
          <button
            type="button"
            className="link self-start no-print"
            aria-expanded={solid}
            onClick={() => setSolid(!solid)}
          >
            {solid ? 'only from the side' : 'turn it as a solid'}
          </button>
          {solid && <MeltSolid meshId={meshId} melt={melt} side={chords} ground={ground} name={`${bait} in ${name}`} />}
          <Hidden melt={melt} places={places} />
        </>
      )}
    </div>
  );
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

/** Depth of colour as figures: what the tail and the body hide of what is behind them. */
function Hidden({ melt, places }: { melt: Melt; places: { tailMm: number; bodyMm: number } }) {
  const { text } = useTaste();
  const [tail, body] = [opacityOf(melt.optics, places.tailMm), opacityOf(melt.optics, places.bodyMm)];
  return (
    <p>
      Its tail of {text(places.tailMm, 'length')} hides <b className="figure text-xl">{percent(tail)}</b> of what is
      behind it, its body of {text(places.bodyMm, 'length')} <b className="figure text-xl">{percent(body)}</b>.
    </p>
  );
}

/** What is foreseen by a look and not by a measured step, and what nobody knows. */
export function Guesses({ melt }: { melt: Melt }) {
  const sized = melt.flakes.filter((flake) => flake.sizeByDefault);
  return (
    <>
      {melt.byLook.length > 0 && (
        <p className="text-sm">
          <span className="default-mark">default</span> {melt.byLook.join(', ')}{' '}
          {melt.byLook.length === 1 ? 'was' : 'were'} never measured: taken as strong and as cloudy as an ordinary
          colour of that look.{' '}
          <Link to="/store" className="link">
            Measure in the store
          </Link>
        </p>
      )}
      {melt.learnt.length > 0 && (
        <p className="text-sm">
          As it comes out here:{' '}
          {melt.learnt.map(({ name, looks }) => `${name}, by ${looks} ${looks === 1 ? 'look' : 'looks'}`).join('; ')}.
        </p>
      )}
      {sized.length > 0 && (
        <p className="text-sm">
          <span className="default-mark">default</span> {sized[0]?.sizeMm} mm is taken for{' '}
          {sized.map((flake) => flake.name).join(', ')}: its size is not told in the store.
        </p>
      )}
      {melt.unknown.length > 0 && (
        <p className="text-sm warn">
          Not known how {melt.unknown.join(', ')} {melt.unknown.length === 1 ? 'looks' : 'look'}: left out of the
          picture.
        </p>
      )}
    </>
  );
}
