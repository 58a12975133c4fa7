import type { MoldWish } from '../../../core/mold/buildWish.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import { MmField } from '../../parts/MmField.tsx';
import type { DrawnMold } from '../../workers/molder.ts';
import { BuilderExtras } from './BuilderExtras.tsx';
import { ByHand } from './ByHand.tsx';
import { LeftOut } from './LeftOut.tsx';
import { Tick } from './Tick.tsx';

const KINDS: Record<MoldWish['kind'], string> = {
  printed: 'Printed halves',
  machined: 'Machined halves',
  'silicone-box': 'Boxes to cast silicone in',
};
const PULLS: [name: string, direction: MoldWish['direction']][] = [
  ['best', undefined],
  ['back and belly', [0, 0, 1]],
  ['left and right', [0, 1, 0]],
];

interface Props {
  wish: MoldWish;
  onWish(wish: MoldWish): void;
  /** What the bait was sculpted from; null: a mesh that was brought. */
  spec: ShapeSpec | null;
  /** What was built last. */
  mold: DrawnMold | null;
}

/** Everything about the mold that the maker decides. */
export function WishForm(props: Props) {
  const { wish, onWish, spec, mold } = props;
  const change = (how: (now: MoldWish) => MoldWish) => onWish(how(wish));
  return (
    <aside
      className="lg:overflow-auto px-5 py-3 border-r border-[var(--rule)] flex flex-col gap-1.5"
      aria-label="What it shall be"
    >
      <Arranged {...props} />
      <BuilderExtras wish={wish} onChange={change} />
      <LeftOut wish={wish} spec={spec} onChange={change} />
      <Channels {...props} />
      <MmField
        label="Larger for shrinking, %"
        value={wish.shrinkFraction * 100}
        least={0}
        most={10}
        step={0.1}
        plain
        onChange={(percent) => onWish({ ...wish, shrinkFraction: percent / 100 })}
      />
      <p className="label-small">
        <span className="default-mark">default</span> 1.5 %: measure a bait against its master, and correct it.
      </p>
      <ByHand wish={wish} mold={mold} onChange={change} />
    </aside>
  );
}

/** What kind, how many, how they lie and how it comes apart. */
function Arranged({ wish, onWish }: Props) {
  return (
    <>
      <select
        className="select select-sm w-full"
        aria-label="Kind of mold"
        value={wish.kind}
        onChange={(event) => onWish({ ...wish, kind: event.target.value as MoldWish['kind'] })}
      >
        {Object.entries(KINDS).map(([kind, words]) => (
          <option key={kind} value={kind}>
            {words}
          </option>
        ))}
      </select>
      <MmField
        label="Cavities"
        value={wish.count}
        least={1}
        most={12}
        step={1}
        plain
        onChange={(count) => onWish({ ...wish, count: Math.round(count) })}
      />
      <Choice
        label="Noses to the runner from"
        value={wish.layout ?? (wish.count > 3 ? 'both-sides' : 'one-side')}
        options={[
          ['one-side', 'one side'],
          ['both-sides', 'both sides'],
        ]}
        onChange={(layout) => onWish({ ...wish, layout: layout as NonNullable<MoldWish['layout']> })}
      />
      <Choice
        label="Halves pulled toward"
        value={PULLS.find(([, direction]) => String(direction) === String(wish.direction))?.[0] ?? 'best'}
        options={PULLS.map(([name]) => [name, name])}
        onChange={(name) => {
          const { direction: _, ...rest } = wish;
          const direction = PULLS.find(([one]) => one === name)?.[1];
          onWish(direction ? { ...rest, direction } : rest);
        }}
      />
    </>
  );
}

/** Walls, the way in, the ways out for air, and what holds the halves together. */
function Channels({ wish, onWish }: Props) {
  const figure = (
    label: string,
    key: 'wallMm' | 'gapMm' | 'sprueMm' | 'runnerMm' | 'gateMm' | 'ventMm',
    least: number,
    most: number,
  ) => (
    <MmField
      label={label}
      value={wish[key]}
      least={least}
      most={most}
      step={0.5}
      onChange={(value) => onWish({ ...wish, [key]: value })}
    />
  );
  const pins = (part: Partial<MoldWish['pins']>) => onWish({ ...wish, pins: { ...wish.pins, ...part } });
  return (
    <>
      {figure('Wall, all round', 'wallMm', 2, 40)}
      {figure('Between cavities', 'gapMm', 1, 40)}
      {figure('Sprue, mouth', 'sprueMm', 3, 40)}
      {figure('Runner', 'runnerMm', 2, 30)}
      {figure('Gates', 'gateMm', 1, 15)}
      {wish.kind !== 'silicone-box' && (
        <>
          {figure('Vents (0: none)', 'ventMm', 0, 5)}
          <MmField
            label="Pins"
            value={wish.pins.diameterMm}
            least={2}
            most={20}
            step={0.5}
            onChange={(diameterMm) => pins({ diameterMm })}
          />
          <Tick label="Steel dowels" on={wish.pins.dowels} onTick={(dowels) => pins({ dowels })} />
          <MmField
            label="Sockets wider by"
            value={wish.pins.clearanceMm}
            least={0}
            most={1}
            step={0.05}
            fine
            onChange={(clearanceMm) => pins({ clearanceMm })}
          />
        </>
      )}
    </>
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: [string, string][];
  onChange(value: string): void;
}) {
  return (
    <label className="grid grid-cols-[1fr_116px] items-center gap-2 text-sm leading-tight">
      {label}
      <select className="select select-sm" value={value} onChange={(event) => onChange(event.target.value)}>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
