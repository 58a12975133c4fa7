import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { STARTS, startFor } from '../../../core/shape/starts.ts';
import { queries } from '../../api/queries.ts';
import { useWidth } from '../../parts/Fitted.tsx';
import { isGone, Missing, Waiting } from '../../parts/Page.tsx';
import { Solid } from '../../parts/solid/Solid.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Judge } from '../judge/Judge.tsx';
import { Brought } from './Brought.tsx';
import { FigureTable, Legend } from './Figures.tsx';
import { Keep } from './Keep.tsx';
import { Outline } from './Outline.tsx';
import { SpecForm } from './SpecForm.tsx';
import { type SculptingProps, type SculptingState, useSculpting } from './useSculpting.ts';

/** The shape bench of a master: its newest revision, or the one that is asked for. */
export function ShapeBench() {
  const { id = '' } = useParams();
  const [search] = useSearchParams();
  const { data: master, error } = useQuery(queries.master(id));
  if (isGone(error, master)) return <Missing error={error} back="All masters" backTo="/masters" />;
  if (!master) return <Waiting />;
  const wanted = search.get('revision');
  const revision = master.revisions.find((row) => row.id === wanted) ?? master.latest;
  if (!revision.spec && revision.meshId) return <Brought key={revision.id} master={master} revision={revision} />;
  const first = revision.spec ?? startFor(master.shape, revision.lengthMm, revision.widthMm, revision.heightMm);
  return <Sculpting key={revision.id} place={master.id} first={first} master={master} revision={revision} />;
}

/** Sculpting a master that is not there yet, from one of the starting shapes or a copy of a finished one. */
export function NewShape() {
  const [search] = useSearchParams();
  const copied = search.get('copy');
  if (copied) return <Copied masterId={copied} revisionId={search.get('revision')} />;
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

/** A finished shape to begin with: the master that it is copied from stays as it is. */
function Copied({ masterId, revisionId }: { masterId: string; revisionId: string | null }) {
  const { data: master, error } = useQuery(queries.master(masterId));
  if (isGone(error, master)) return <Missing error={error} back="All masters" backTo="/masters" />;
  if (!master) return <Waiting />;
  const revision = master.revisions.find((row) => row.id === revisionId) ?? master.latest;
  if (!revision.spec)
    return (
      <Missing
        error={new Error(`${master.name} v${revision.number} was not sculpted here, so there are no figures to copy.`)}
        back={master.name}
        backTo={`/masters/${masterId}`}
      />
    );
  return (
    <Sculpting
      key={revision.id}
      place={`copy-${revision.id}`}
      first={revision.spec}
      startShape={master.shape}
      startName={`Copy of ${master.name} v${revision.number}`}
    />
  );
}

function Sculpting(props: SculptingProps) {
  const { first, master, revision, startShape } = props;
  const state = useSculpting(props);
  const { shape, view, station, setStation } = state;
  const [keeping, setKeeping] = useState(false);
  useEffect(() => {
    document.title = `${master?.name ?? 'New shape'}, shape bench · Blunko`;
  }, [master]);
  return (
    <div
      className="h-full flex flex-col"
      data-redraw-ms={view.solid?.tookMs.toFixed(0)}
      data-fine={view.fine}
      data-judged={view.done === 1}
    >
      <Head {...props} state={state} onKeep={() => setKeeping(!keeping)} />
      {keeping && (
        <Keep
          spec={shape.spec}
          master={master}
          revision={revision}
          startShape={startShape}
          tailFrom={state.tailFrom}
          changes={shape.changes}
          onKept={shape.kept}
          onClose={() => setKeeping(false)}
        />
      )}
      <div className="flex-1 min-h-0 overflow-auto lg:overflow-visible grid grid-cols-1 lg:grid-cols-[272px_minmax(0,1fr)_330px]">
        <aside
          className="order-2 lg:order-none lg:overflow-auto px-5 py-2 border-r border-[var(--rule)]"
          aria-label="Figures of the shape"
        >
          <SpecForm
            spec={shape.spec}
            donors={state.donors}
            meshes={state.meshes}
            onTail={state.takeTail}
            onChange={shape.set}
            onSettle={shape.settle}
            station={station}
            onStation={setStation}
          />
          {shape.changes.length > 0 && (
            <button type="button" className="link text-sm mt-3" onClick={() => shape.set(first, null)}>
              Back to how it was{revision?.spec ? ` in v${revision.number}` : ''}
            </button>
          )}
        </aside>
        <Views state={state} />
        <aside className="order-1 lg:order-none lg:overflow-auto px-5 py-2 border-l border-[var(--rule)]">
          <Judge
            spec={shape.spec}
            judged={view.judged}
            done={view.done}
            problem={view.problem}
            assumed={view.assumed}
            onAssume={view.assume}
            shown={view.shown}
            onShow={view.show}
            tests={state.tests}
            materials={state.materials}
          />
        </aside>
      </div>
    </div>
  );
}

interface HeadProps extends SculptingProps {
  state: SculptingState;
  onKeep(): void;
}

/** Whose shape it is, what was changed, its size, and the way back and on. */
function Head({ master, revision, startName, state: { shape, view }, onKeep }: HeadProps) {
  const { text, say } = useTaste();
  const size = view.solid?.measured.sizeMm;
  const { changes } = shape;
  return (
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
        {view.refused ? (
          <span className="heat font-bold">{say(view.refused)}</span>
        ) : changes.length === 0 ? (
          'drag a station, or type any figure'
        ) : (
          `${changes.length} figure${changes.length === 1 ? '' : 's'} changed, not kept yet`
        )}
      </p>
      {size && <p className="figure text-sm whitespace-nowrap">{size.map((mm) => text(mm, 'length')).join(' × ')}</p>}
      <button
        type="button"
        className="btn btn-sm btn-line"
        disabled={!shape.canUndo}
        onClick={shape.undo}
        title="Ctrl Z"
      >
        Undo
      </button>
      <button
        type="button"
        className="btn btn-sm btn-line"
        disabled={!shape.canRedo}
        onClick={shape.redo}
        title="Ctrl Shift Z"
      >
        Redo
      </button>
      <button type="button" className="btn btn-sm btn-primary" onClick={onKeep}>
        {master ? `Keep as v${master.latest.number + 1}` : 'Keep as a master'}
      </button>
    </header>
  );
}

/** The outline that is dragged, the solid that comes of it, and the same in figures. */
function Views({ state: { shape, view, station, setStation } }: { state: SculptingState }) {
  const { text } = useTaste();
  const [box, width] = useWidth(560);
  const size = view.solid?.measured.sizeMm;
  return (
    <section className="lg:overflow-auto px-4 py-2 flex flex-col gap-1 min-w-0" ref={box} aria-label="The shape">
      <Outline
        spec={shape.spec}
        side={view.solid?.side ?? null}
        top={view.solid?.top ?? null}
        onChange={shape.set}
        onSettle={shape.settle}
        station={station}
        onStation={setStation}
        widthPx={width}
        lengthMm={size?.[0] ?? null}
        hook={view.hook}
      />
      {view.shown !== 'plain' && <Legend shown={view.shown} />}
      <Solid
        layers={view.layers}
        marks={view.marks}
        heightPx={220}
        says={`The solid, ${size ? size.map((mm) => text(mm, 'length')).join(' by ') : 'being made'}.`}
      />
      <FigureTable judged={view.judged} changes={shape.changes} />
    </section>
  );
}
