import type { MoldWish } from '../../../core/mold/buildWish.ts';
import { MmField } from '../../parts/MmField.tsx';
import type { DrawnMold } from '../../workers/molder.ts';
import { Tick } from './Tick.tsx';

type ByHandVent = NonNullable<MoldWish['ventsAt']>[number];

interface Props {
  wish: MoldWish;
  mold: DrawnMold | null;
  onChange(how: (now: MoldWish) => MoldWish): void;
}

const tenth = (mm: number) => Math.round(mm * 10) / 10;

/** What the builder works out by itself, and a maker may set: how high the halves meet, where air gets out. */
export function ByHand({ wish, mold, onChange }: Props) {
  const { ventsAt } = wish;
  const vents = (next: ByHandVent[]) => onChange((now) => ({ ...now, ventsAt: next }));
  const worked = (): ByHandVent[] =>
    (mold?.ventsFrom ?? []).map(({ kind, fromNoseMm, asideMm }) => ({
      kind,
      fromNoseMm: Math.max(0, tenth(fromNoseMm)),
      asideMm: tenth(asideMm),
    }));
  return (
    <>
      <Tick
        label="Seam’s height by hand"
        on={wish.planeMm !== undefined}
        onTick={(on) =>
          onChange(({ planeMm: _, ...now }) => (on ? { ...now, planeMm: tenth(mold?.planeMm ?? 0) } : now))
        }
      />
      {wish.planeMm !== undefined && (
        <MmField
          label="over the bait’s axis"
          value={wish.planeMm}
          least={-100}
          most={100}
          step={0.1}
          onChange={(planeMm) => onChange((now) => ({ ...now, planeMm }))}
        />
      )}
      {wish.kind !== 'silicone-box' && wish.ventMm > 0 && (
        <Tick
          label="Vents by hand"
          on={ventsAt !== undefined}
          onTick={(on) => (on ? vents(worked()) : onChange(({ ventsAt: _, ...now }) => now))}
        />
      )}
      {ventsAt?.map((vent, i) => (
        <fieldset
          // biome-ignore lint/suspicious/noArrayIndexKey: vents have no name but their place in the list
          key={i}
          className="flex flex-col gap-1 border-b border-[var(--rule)] pb-1.5"
          aria-label={`Vent ${i + 1}`}
        >
          <div className="flex gap-2 items-center text-sm">
            <select
              className="select select-xs flex-1"
              aria-label={`Vent ${i + 1} is a`}
              value={vent.kind}
              onChange={(event) =>
                vents(
                  ventsAt.map((one, n) => (n === i ? { ...one, kind: event.target.value as ByHandVent['kind'] } : one)),
                )
              }
            >
              <option value="groove">groove, behind the tail</option>
              <option value="hole">hole, up or down</option>
            </select>
            <button type="button" className="link" onClick={() => vents(ventsAt.filter((_, n) => n !== i))}>
              Out
            </button>
          </div>
          {vent.kind === 'hole' && (
            <MmField
              label="from the nose"
              value={vent.fromNoseMm}
              least={0}
              most={1000}
              step={0.5}
              onChange={(fromNoseMm) => vents(ventsAt.map((one, n) => (n === i ? { ...one, fromNoseMm } : one)))}
            />
          )}
          <MmField
            label="to the right of the gate"
            value={vent.asideMm}
            least={-500}
            most={500}
            step={0.5}
            onChange={(asideMm) => vents(ventsAt.map((one, n) => (n === i ? { ...one, asideMm } : one)))}
          />
        </fieldset>
      ))}
      {ventsAt && ventsAt.length < 24 && (
        <button
          type="button"
          className="btn btn-xs btn-line self-start"
          onClick={() => vents([...ventsAt, { kind: 'hole', fromNoseMm: 20, asideMm: 0 }])}
        >
          + a vent
        </button>
      )}
    </>
  );
}
