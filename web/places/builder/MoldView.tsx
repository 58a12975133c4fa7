import { useMemo, useState } from 'react';
import { Solid } from '../../parts/solid/Solid.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { DrawnMold } from '../../workers/molder.ts';
import { layersOf } from './layers.ts';

/** The mold as it was built: closed, open, see-through, cut, and what would be caught in it. */
export function MoldView({ mold, cast }: { mold: DrawnMold | null; cast: boolean }) {
  const { text } = useTaste();
  const [open, setOpen] = useState(0.5);
  const [seeThrough, setSeeThrough] = useState(false);
  const [cutOpen, setCutOpen] = useState(false);
  const [caught, setCaught] = useState(false);
  // What comes free keeps its own colour; what is caught is the hotter the more of it is.
  const heat = useMemo(
    () => (caught ? (mold?.castingCaught?.map((share) => (share > 0.05 ? 0.4 * (1 - share) : -1)) ?? null) : null),
    [mold, caught],
  );
  const layers = useMemo(
    () => layersOf(mold, open, { seeThrough, sawn: cutOpen, caught: heat }),
    [mold, open, seeThrough, cutOpen, heat],
  );
  return (
    <section className="lg:overflow-auto min-w-0 px-4 py-3 flex flex-col gap-2" aria-label="The mold">
      <div className="flex items-center gap-4 flex-wrap text-sm">
        {!cast && (
          <label className="flex items-center gap-2">
            closed
            <input
              type="range"
              min={0}
              max={1}
              step={0.02}
              value={open}
              aria-label="How far it stands open"
              onChange={(event) => setOpen(Number(event.target.value))}
              className="w-40 accent-[var(--rest)]"
            />
            open
          </label>
        )}
        <Switch label="See through" on={seeThrough} onSwitch={setSeeThrough} />
        <Switch label="Cut open" on={cutOpen} onSwitch={setCutOpen} />
        {!cast && <Switch label="What is caught" on={caught} onSwitch={setCaught} />}
      </div>
      <Solid
        layers={layers}
        heightPx={320}
        says={`The mold, ${mold ? mold.blockMm.map((one) => text(one, 'length')).join(' by ') : 'being built'}.`}
      />
    </section>
  );
}

function Switch({ label, on, onSwitch }: { label: string; on: boolean; onSwitch(on: boolean): void }) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        checked={on}
        onChange={(event) => onSwitch(event.target.checked)}
      />
      {label}
    </label>
  );
}
