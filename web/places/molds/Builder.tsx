import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Master } from '../../../contract/masters.ts';
import { type MoldWish, wishSchema } from '../../../core/mold/buildWish.ts';
import { TRIAL_BALL_MM } from '../../../core/shape/toolReach.ts';
import { check } from '../../../core/validate.ts';
import { queries } from '../../api/queries.ts';
import { Caution } from '../../parts/Caution.tsx';
import { fileName, handOver } from '../../parts/files.ts';
import { MmField } from '../../parts/MmField.tsx';
import { Missing, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { DrawnMold } from '../../workers/molder.ts';
import { type Layer, Solid } from '../shape/Solid.tsx';
import { BuilderExtras } from './BuilderExtras.tsx';
import { MoldFigures } from './MoldFigures.tsx';
import { PrintSkin } from './PrintSkin.tsx';
import { SetUpSheet } from './SetUpSheet.tsx';
import { useMolder } from './useMolder.ts';
import { hundredths } from './words.ts';

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
const FIRST: MoldWish = check(wishSchema, { kind: 'printed', count: 2 });

/** From a master's shape to the solids of its mold: previewed closed, open, see-through and cut. */
export function Builder() {
  const [search] = useSearchParams();
  const id = search.get('master') ?? '';
  const again = search.get('mold') ?? '';
  const { data: master, error } = useQuery({ ...queries.master(id), enabled: id !== '' });
  const { data: built } = useQuery({ ...queries.mold(again), enabled: again !== '' });
  if (error || id === '')
    return <Missing error={error ?? new Error('No master was chosen.')} back="All masters" backTo="/masters" />;
  if (!master || (again && !built)) return <Waiting />;
  if (!master.latest.meshId)
    return (
      <Missing
        error={new Error(`${master.name} has no shape yet: sculpt it on the shape bench, or bring a mesh.`)}
        back="Its shape bench"
        backTo={`/masters/${id}/shape`}
      />
    );
  return <Building master={master} like={built?.build?.wish} />;
}

function Building({ master, like }: { master: Master; like: MoldWish | undefined }) {
  const { text, taste, say } = useTaste();
  const [sheetProblem, setSheetProblem] = useState<string | null>(null);
  const bore = master.latest.spec?.bore?.diameterMm;
  const [wish, setWish] = useState<MoldWish>(like ?? { ...FIRST, ...(bore ? { coreRodMm: bore } : {}) });
  const set = (part: Partial<MoldWish>) => setWish((now) => ({ ...now, ...part }));
  const { mold, stale, cutter, done, building, problem, stop, download } = useMolder(master.latest.meshId, wish);
  const [open, setOpen] = useState(0.5);
  const [seeThrough, setSeeThrough] = useState(false);
  const [cutOpen, setCutOpen] = useState(false);
  const [caught, setCaught] = useState(false);
  const mm = (
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
      onChange={(value) => set({ [key]: value })}
    />
  );
  const cast = wish.kind === 'silicone-box';
  const sheet = async () => {
    if (!mold) return;
    try {
      setSheetProblem(null);
      const { setUpPdf } = await import('./setUpPdf.ts');
      const of = `${master.name} v${master.latest.number}`;
      const bytes = await setUpPdf(mold, wish, of, cutter, taste.system === 'us' ? 'Letter' : 'A4');
      handOver(bytes, 'application/pdf', fileName(of, 'set-up.pdf'));
    } catch (error) {
      setSheetProblem(error instanceof Error ? error.message : String(error));
    }
  };
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
    <>
      {mold && !stale && wish.kind === 'machined' && (
        <SetUpSheet mold={mold} wish={wish} master={master} cutter={cutter} />
      )}
      <div className="h-full flex flex-col print:hidden" data-built={!stale}>
        <header className="flex flex-wrap items-center gap-x-4 px-4 sm:px-6 py-2.5 border-b border-[var(--rule)]">
          <h1 className="text-[1.6rem]">
            A mold for{' '}
            <Link to={`/masters/${master.id}`} className="hover:underline">
              {master.name}
            </Link>{' '}
            <span className="figure text-base soft">v{master.latest.number}</span>
          </h1>
          <p className="flex-1 text-sm" role="status">
            {problem ? (
              <span className="heat font-bold">{say(problem)}</span>
            ) : building ? (
              <span className="flex items-center gap-3">
                <progress className="w-40 h-3 accent-[var(--rest)]" value={done} max={1} aria-label="Building" />
                <button type="button" className="link" onClick={stop}>
                  Stop
                </button>
              </span>
            ) : (
              mold && `built: ${mold.blockMm.map((one) => text(one, 'length')).join(' × ')}`
            )}
          </p>
        </header>
        <div className="flex-1 min-h-0 overflow-auto lg:overflow-visible grid grid-cols-1 lg:grid-cols-[272px_minmax(0,1fr)_320px]">
          <aside
            className="lg:overflow-auto px-5 py-3 border-r border-[var(--rule)] flex flex-col gap-1.5"
            aria-label="What it shall be"
          >
            <select
              className="select select-sm w-full"
              aria-label="Kind of mold"
              value={wish.kind}
              onChange={(event) => set({ kind: event.target.value as MoldWish['kind'] })}
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
              onChange={(count) => set({ count: Math.round(count) })}
            />
            <Choice
              label="Noses to the runner from"
              value={wish.layout ?? (wish.count > 3 ? 'both-sides' : 'one-side')}
              options={[
                ['one-side', 'one side'],
                ['both-sides', 'both sides'],
              ]}
              onChange={(layout) => set({ layout: layout as NonNullable<MoldWish['layout']> })}
            />
            <Choice
              label="Halves pulled toward"
              value={PULLS.find(([, direction]) => String(direction) === String(wish.direction))?.[0] ?? 'best'}
              options={PULLS.map(([name]) => [name, name])}
              onChange={(name) =>
                setWish(({ direction: _, ...rest }) => {
                  const direction = PULLS.find(([one]) => one === name)?.[1];
                  return direction ? { ...rest, direction } : rest;
                })
              }
            />
            <BuilderExtras wish={wish} onChange={setWish} />
            {mm('Wall, all round', 'wallMm', 2, 40)}
            {mm('Between cavities', 'gapMm', 1, 40)}
            {mm('Sprue, mouth', 'sprueMm', 3, 40)}
            {mm('Runner', 'runnerMm', 2, 30)}
            {mm('Gates', 'gateMm', 1, 15)}
            {cast ? null : (
              <>
                {mm('Vents (0: none)', 'ventMm', 0, 5)}
                <MmField
                  label="Pins"
                  value={wish.pins.diameterMm}
                  least={2}
                  most={20}
                  step={0.5}
                  onChange={(diameterMm) => set({ pins: { ...wish.pins, diameterMm } })}
                />
                <MmField
                  label="Sockets wider by, mm"
                  value={wish.pins.clearanceMm}
                  least={0}
                  most={1}
                  step={0.05}
                  plain
                  onChange={(clearanceMm) => set({ pins: { ...wish.pins, clearanceMm } })}
                />
              </>
            )}
            <MmField
              label="Larger for shrinking, %"
              value={wish.shrinkFraction * 100}
              least={0}
              most={10}
              step={0.1}
              plain
              onChange={(percent) => set({ shrinkFraction: percent / 100 })}
            />
            <p className="label-small">
              <span className="default-mark">default</span> 1.5 %: measure a bait against its master, and correct it.
            </p>
            {bore && (
              <MmField
                label="Core rod"
                value={wish.coreRodMm ?? bore}
                least={1}
                most={40}
                onChange={(coreRodMm) => set({ coreRodMm })}
              />
            )}
          </aside>
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
          <aside className="lg:overflow-auto px-5 py-3 border-l border-[var(--rule)] flex flex-col gap-3">
            {mold && <MoldFigures mold={mold} wish={wish} master={master} onDownload={download} stale={stale} />}
            {wish.kind === 'printed' && <PrintSkin mold={mold} />}
            {wish.kind === 'machined' && (
              <div className="flex flex-col gap-1">
                <p className="text-sm">
                  {cutter === null
                    ? 'Working out the cutter …'
                    : cutter.largestBallMm === null
                      ? `No usual ball cutter reaches all: one of ${text(TRIAL_BALL_MM, 'length')} leaves ${hundredths(cutter.leftoverMm, { taste })}. Ease the corners, or spark them.`
                      : `A ball of ${text(cutter.largestBallMm, 'length')} reaches all of it: inside corners of ${text(cutter.largestBallMm / 2, 'length')} or more.`}
                </p>
                <button
                  type="button"
                  className="btn btn-sm btn-line self-start"
                  disabled={stale || cutter === null}
                  onClick={() => void sheet()}
                >
                  Set-up sheet (PDF)
                </button>
                {sheetProblem && <p className="heat text-sm">{sheetProblem}</p>}
                <button
                  type="button"
                  className="btn btn-sm btn-line self-start"
                  disabled={stale}
                  onClick={() => window.print()}
                >
                  Print the set-up sheet
                </button>
              </div>
            )}
            <Caution
              about={
                wish.kind === 'machined'
                  ? ['machine', 'hot']
                  : wish.kind === 'printed'
                    ? ['printed', 'hot']
                    : ['rubber']
              }
            />
          </aside>
        </div>
      </div>
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

const ASIDE = new Set(['core rod', 'slot insert', 'lower electrode', 'upper electrode']);

/** Halves apart along their pull, four pieces sideways too, what comes out of them between. */
function layersOf(
  mold: DrawnMold | null,
  open: number,
  { seeThrough, sawn, caught }: { seeThrough: boolean; sawn: boolean; caught: Float32Array | null },
): Layer[] {
  if (!mold) return [];
  const high = mold.halfMm[0] + mold.halfMm[1];
  const [, wide] = mold.blockMm;
  const boxes = mold.parts.some((part) => part.name.endsWith('box'));
  const shown = sawn ? mold.sawn : mold;
  let beside = 0;
  const layers: Layer[] = shown.parts.map((part) => {
    const upper = part.name.startsWith('upper');
    const aside = ASIDE.has(part.name);
    if (part.name.endsWith('electrode')) beside += 1;
    const apart = part.name.endsWith('left') ? -1 : part.name.endsWith('right') ? 1 : 0;
    const offset: [number, number, number] = boxes
      ? [0, upper ? 0 : wide * 1.25, 0]
      : aside
        ? [0, part.name.endsWith('electrode') ? wide * (0.4 + 0.9 * beside) : -wide * 0.8, 0]
        : [0, apart * open * 0.5 * wide, upper ? open * 1.6 * high : 0];
    return { ...part, colour: aside ? '--rest' : upper ? '--edge' : '--liquid', ghost: seeThrough && !aside, offset };
  });
  return boxes
    ? layers
    : [
        ...layers,
        {
          ...shown.casting,
          colour: '--bait',
          offset: [0, 0, open * 0.6 * high],
          shares: sawn ? null : caught,
        },
      ];
}
