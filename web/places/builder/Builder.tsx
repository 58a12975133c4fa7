import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import { type MoldWish, wishSchema } from '../../../core/mold/buildWish.ts';
import { check } from '../../../core/validate.ts';
import { queries } from '../../api/queries.ts';
import { Caution } from '../../parts/Caution.tsx';
import { isGone, Missing, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Machined } from './Machined.tsx';
import { MoldFigures } from './MoldFigures.tsx';
import { MoldView } from './MoldView.tsx';
import { PrintSkin } from './PrintSkin.tsx';
import { SetUpSheet } from './SetUpSheet.tsx';
import { type Built, useMolder } from './useMolder.ts';
import { WishForm } from './WishForm.tsx';

const DANGERS: Record<MoldWish['kind'], Parameters<typeof Caution>[0]['about']> = {
  machined: ['machine', 'hot'],
  printed: ['printed', 'hot'],
  'silicone-box': ['rubber'],
};
const FIRST: MoldWish = check(wishSchema, { kind: 'printed', count: 2 });

/** From a master's shape to the solids of its mold: previewed closed, open, see-through and cut. */
export function Builder() {
  const [search] = useSearchParams();
  const id = search.get('master') ?? '';
  const again = search.get('mold') ?? '';
  const { data: master, error } = useQuery({ ...queries.master(id), enabled: id !== '' });
  const { data: built } = useQuery({ ...queries.mold(again), enabled: again !== '' });
  if (id === '') return <Missing error={new Error('No master was chosen.')} back="All masters" backTo="/masters" />;
  if (isGone(error, master)) return <Missing error={error} back="All masters" backTo="/masters" />;
  if (!master || (again && !built)) return <Waiting />;
  const solids = master.revisions.filter((row) => row.meshId !== null);
  // The one that is asked for, or a kept mold's own; else the newest.
  const wanted = search.get('revision') ?? built?.revisionId;
  const revision = solids.find((row) => row.id === wanted) ?? solids[0];
  if (!revision)
    return (
      <Missing
        error={new Error(`${master.name} has no shape yet: sculpt it on the shape bench, or bring a mesh.`)}
        back="Its shape bench"
        backTo={`/masters/${id}/shape`}
      />
    );
  return <Building key={revision.id} master={master} revision={revision} solids={solids} like={built?.build?.wish} />;
}

interface BuildingProps {
  master: Master;
  revision: Revision;
  /** Revisions that have a solid. */
  solids: Revision[];
  like: MoldWish | undefined;
}

function Building({ master, revision, solids, like }: BuildingProps) {
  const boreMm = revision.spec?.bore?.diameterMm;
  const [wish, setWish] = useState<MoldWish>(
    // What was kept by an older program wishes nothing of what came since.
    like ? check(wishSchema, like) : { ...FIRST, ...(boreMm ? { coreRodMm: boreMm } : {}) },
  );
  const built = useMolder(revision.meshId, revision.spec, wish);
  const { mold, stale, cutter, download } = built;
  return (
    <>
      {mold && !stale && wish.kind === 'machined' && (
        <SetUpSheet mold={mold} wish={wish} of={`${master.name} v${revision.number}`} cutter={cutter} />
      )}
      <div className="h-full flex flex-col print:hidden" data-built={!stale}>
        <Head master={master} revision={revision} solids={solids} built={built} />
        <div className="flex-1 min-h-0 overflow-auto lg:overflow-visible grid grid-cols-1 lg:grid-cols-[272px_minmax(0,1fr)_320px]">
          <WishForm wish={wish} onWish={setWish} spec={revision.spec} mold={mold} />
          <MoldView mold={mold} cast={wish.kind === 'silicone-box'} />
          <aside className="lg:overflow-auto px-5 py-3 border-l border-[var(--rule)] flex flex-col gap-3">
            {mold && (
              <MoldFigures
                mold={mold}
                wish={wish}
                master={master}
                revision={revision}
                onDownload={download}
                stale={stale}
              />
            )}
            {wish.kind === 'printed' && <PrintSkin mold={mold} />}
            {wish.kind === 'machined' && (
              <Machined
                mold={mold}
                wish={wish}
                cutter={cutter}
                stale={stale}
                of={`${master.name} v${revision.number}`}
              />
            )}
            <Caution about={DANGERS[wish.kind]} />
          </aside>
        </div>
      </div>
    </>
  );
}

interface HeadProps extends Omit<BuildingProps, 'like'> {
  built: Built;
}

function Head({ master, revision, solids, built: { mold, problem, building, done, stop } }: HeadProps) {
  const { text, say } = useTaste();
  const [, setSearch] = useSearchParams();
  return (
    <header className="flex flex-wrap items-center gap-x-4 px-4 sm:px-6 py-2.5 border-b border-[var(--rule)]">
      <h1 className="text-[1.6rem]">
        A mold for{' '}
        <Link to={`/masters/${master.id}`} className="hover:underline">
          {master.name}
        </Link>{' '}
        {solids.length > 1 ? (
          <select
            className="select select-sm w-20 figure"
            aria-label="Which revision"
            value={revision.id}
            onChange={(event) => {
              const next = event.target.value;
              setSearch((now) => {
                now.set('revision', next);
                return now;
              });
            }}
          >
            {solids.map((row) => (
              <option key={row.id} value={row.id}>
                v{row.number}
              </option>
            ))}
          </select>
        ) : (
          <span className="figure text-base soft">v{revision.number}</span>
        )}
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
  );
}
