import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { Master, MasterRow, Revision } from '../../../contract/masters.ts';
import { type ShapeSpec, shapeSpecSchema } from '../../../core/shape/spec.ts';
import { STARTS, startFor } from '../../../core/shape/starts.ts';
import { check } from '../../../core/validate.ts';
import { queries } from '../../api/queries.ts';
import { useWidth } from '../../parts/Fitted.tsx';
import { Missing, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Brought } from './Brought.tsx';
import { FigureTable, Legend } from './Figures.tsx';
import { useHistory } from './history.ts';
import { Judge } from './Judge.tsx';
import { CONE_DEG, POINT_SHARE, WAYS_UP } from './judging.tsx';
import { Keep } from './Keep.tsx';
import { Outline } from './Outline.tsx';
import { type Layer, Solid } from './Solid.tsx';
import { type Donor, SpecForm } from './SpecForm.tsx';
import { type Shown, sharesOf } from './show.ts';
import { useAssumed } from './useAssumed.ts';
import { useJudged, useSculpted } from './useSolid.ts';
import { differences } from './words.ts';

/** The shape bench of a master: its newest revision, or the one that is asked for. */
export function ShapeBench() {
  const { id = '' } = useParams();
  const [search] = useSearchParams();
  const { data: master, error } = useQuery(queries.master(id));
  if (error) return <Missing error={error} back="All masters" backTo="/masters" />;
  if (!master) return <Waiting />;
  const wanted = search.get('revision');
  const revision = master.revisions.find((row) => row.id === wanted) ?? master.latest;
  if (!revision.spec && revision.meshId) return <Brought key={revision.id} master={master} revision={revision} />;
  const first = revision.spec ?? startFor(master.shape, revision.lengthMm, revision.widthMm, revision.heightMm);
  return <Sculpting key={revision.id} place={master.id} first={first} master={master} revision={revision} />;
}

/** Sculpting a master that is not there yet, from one of the starting shapes. */
export function NewShape() {
  const [search] = useSearchParams();
  const start = STARTS.find((one) => one.id === search.get('start')) ?? STARTS[0];
  if (!start) return null;
  return (
    <Sculpting
      key={start.id}
      place={`new-${start.id}`}
      first={start.spec}
      startShape={start.shape}
      startName={start.name}
    />
  );
}

const shelf = (place: string) => `blunko.shape.${place}`;

/** What was not kept yet, from before a reload or a power cut; rubbish is no work. */
function unsaved(place: string): ShapeSpec | null {
  try {
    const text = localStorage.getItem(shelf(place));
    return text === null ? null : check(shapeSpecSchema, JSON.parse(text));
  } catch {
    return null;
  }
}

interface SculptingProps {
  place: string;
  first: ShapeSpec;
  master?: Master;
  revision?: Revision;
  startShape?: string;
  startName?: string;
}

/** Sculpted shapes whose tails can be taken over: this master's other revisions, and the newest of the others. */
function donorsFor(masters: MasterRow[], master?: Master, revision?: Revision): Donor[] {
  const own = (master?.revisions ?? [])
    .filter((row) => row.id !== revision?.id)
    .map((row) => ({ id: row.id, label: `v${row.number}: ${row.reason}`, spec: row.spec }));
  const others = masters
    .filter((row) => row.id !== master?.id)
    .map((row) => ({ id: row.latest.id, label: `${row.name} v${row.latest.number}`, spec: row.latest.spec }));
  return [...own, ...others].flatMap(({ spec, ...row }) => (spec ? [{ ...row, spec }] : []));
}

function Sculpting({ place, first, master, revision, startShape, startName }: SculptingProps) {
  const { text, say } = useTaste();
  const history = useHistory(unsaved(place) ?? first);
  const { now: spec, set, settle, undo, redo } = history;
  const { solid, fine, problem: sculptProblem } = useSculpted(spec);
  const [assumed, assume] = useAssumed(master);
  const [shown, setShown] = useState<Shown>('plain');
  const [station, setStation] = useState(1);
  const [keeping, setKeeping] = useState(false);
  const [box, width] = useWidth(560);
  const [judgedOf, setJudgedOf] = useState<Float32Array | null>(null);
  useEffect(() => {
    if (fine && solid) setJudgedOf(solid.positions);
  }, [fine, solid]);
  const { judged, done, problem } = useJudged(judgedOf, {
    ballMm: assumed.ballMm,
    coneDeg: CONE_DEG,
    up: WAYS_UP[assumed.wayUp],
  });
  const tests = useQuery({ ...queries.waterTests(master?.id ?? ''), enabled: master !== undefined }).data?.items ?? [];
  const materials = useQuery(queries.materials).data?.items ?? [];
  const changes = useMemo(() => differences(first, spec), [first, spec]);
  const { data: masters } = useQuery(queries.masters);
  const donors = useMemo(() => donorsFor(masters?.items ?? [], master, revision), [masters, master, revision]);
  const [tailFrom, setTailFrom] = useState('');
  const takeTail = useCallback(
    (donor: Donor) => {
      set({ ...spec, wrist: donor.spec.wrist, tail: donor.spec.tail }, null);
      setTailFrom(donor.id);
    },
    [spec, set],
  );
  const hook = useMemo(
    () => (assumed.withHook ? { ...assumed.hook, pointShare: POINT_SHARE } : null),
    [assumed.withHook, assumed.hook],
  );

  useEffect(() => {
    if (changes.length === 0) localStorage.removeItem(shelf(place));
    else localStorage.setItem(shelf(place), JSON.stringify(spec));
  }, [place, spec, changes]);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [undo, redo]);
  useEffect(() => {
    document.title = `${master?.name ?? 'New shape'}, shape bench · Blunko`;
  }, [master]);

  // Colours belong to the solid that was judged; a newer one is drawn plain until it is.
  const layers = useMemo<Layer[]>(() => {
    if (!solid) return [];
    const shares = solid.positions === judgedOf ? sharesOf(shown, judged, solid.positions.length / 9) : null;
    return [{ ...solid, colour: '--bait', shares }];
  }, [solid, judgedOf, shown, judged]);
  const marks = useMemo(
    () =>
      shown === 'air' && solid?.positions === judgedOf
        ? (judged.traps ?? []).map((trap) => ({ at: trap.pointMm, colour: trap.pour ? '--rest' : '--heat' }))
        : [],
    [shown, judged.traps, solid, judgedOf],
  );
  const size = solid?.measured.sizeMm;
  return (
    <div
      className="h-full flex flex-col"
      data-redraw-ms={solid?.tookMs.toFixed(0)}
      data-fine={fine}
      data-judged={done === 1}
    >
      <header className="flex flex-wrap lg:flex-nowrap items-center gap-x-3 gap-y-1.5 px-4 sm:px-6 py-2.5 border-b border-[var(--rule)]">
        <h1 className="text-[1.6rem]">
          {master ? (
            <Link to={`/masters/${master.id}`} className="hover:underline">
              {master.name}
            </Link>
          ) : (
            startName
          )}{' '}
          <span className="figure text-base soft">
            {revision ? (revision.spec ? `v${revision.number}` : `from v${revision.number}’s sizes`) : 'new'}
          </span>
        </h1>
        <p className="soft text-sm flex-1 min-w-40" role="status">
          {sculptProblem ? (
            <span className="heat font-bold">{say(sculptProblem)}</span>
          ) : changes.length === 0 ? (
            'drag a station, or type any figure'
          ) : (
            `${changes.length} figure${changes.length === 1 ? '' : 's'} changed, not kept yet`
          )}
        </p>
        {size && <p className="figure text-sm whitespace-nowrap">{size.map((mm) => text(mm, 'length')).join(' × ')}</p>}
        <button type="button" className="btn btn-sm btn-line" disabled={!history.canUndo} onClick={undo} title="Ctrl Z">
          Undo
        </button>
        <button
          type="button"
          className="btn btn-sm btn-line"
          disabled={!history.canRedo}
          onClick={redo}
          title="Ctrl Shift Z"
        >
          Redo
        </button>
        <button type="button" className="btn btn-sm btn-primary" onClick={() => setKeeping(!keeping)}>
          {master ? `Keep as v${master.latest.number + 1}` : 'Keep as a master'}
        </button>
      </header>
      {keeping && (
        <Keep
          spec={spec}
          master={master}
          revision={revision}
          startShape={startShape}
          tailFrom={tailFrom}
          changes={changes}
          onKept={() => localStorage.removeItem(shelf(place))}
          onClose={() => setKeeping(false)}
        />
      )}
      <div className="flex-1 min-h-0 overflow-auto lg:overflow-visible grid grid-cols-1 lg:grid-cols-[272px_minmax(0,1fr)_330px]">
        <aside
          className="order-2 lg:order-none lg:overflow-auto px-5 py-2 border-r border-[var(--rule)]"
          aria-label="Figures of the shape"
        >
          <SpecForm
            spec={spec}
            donors={donors}
            onTail={takeTail}
            onChange={set}
            onSettle={settle}
            station={station}
            onStation={setStation}
          />
          {changes.length > 0 && (
            <button type="button" className="link text-sm mt-3" onClick={() => set(first, null)}>
              Back to how it was{revision?.spec ? ` in v${revision.number}` : ''}
            </button>
          )}
        </aside>
        <section className="lg:overflow-auto px-4 py-2 flex flex-col gap-1 min-w-0" ref={box} aria-label="The shape">
          <Outline
            spec={spec}
            side={solid?.side ?? null}
            top={solid?.top ?? null}
            onChange={set}
            onSettle={settle}
            station={station}
            onStation={setStation}
            widthPx={width}
            lengthMm={size?.[0] ?? null}
            hook={hook}
          />
          {shown !== 'plain' && <Legend shown={shown} />}
          <Solid
            layers={layers}
            marks={marks}
            heightPx={220}
            says={`The solid, ${size ? size.map((mm) => text(mm, 'length')).join(' by ') : 'being made'}.`}
          />
          <FigureTable judged={judged} changes={changes} />
        </section>
        <aside className="order-1 lg:order-none lg:overflow-auto px-5 py-2 border-l border-[var(--rule)]">
          <Judge
            spec={spec}
            judged={judged}
            done={done}
            problem={problem}
            assumed={assumed}
            onAssume={assume}
            shown={shown}
            onShow={setShown}
            tests={tests.filter((test) => test.revisionId === revision?.id)}
            materials={materials}
          />
        </aside>
      </div>
    </div>
  );
}
