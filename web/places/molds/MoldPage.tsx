import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { Mold } from '../../../contract/molds.ts';
import { queries } from '../../api/queries.ts';
import { ComplaintsAbout } from '../../parts/Complaints.tsx';
import { dateText } from '../../parts/dates.ts';
import { gradesText } from '../../parts/grades.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { FILL_WORDS, MOLD_KIND_WORDS } from '../../parts/words/mold.ts';
import { Care } from './Care.tsx';
import { DipLog } from './DipLog.tsx';
import { Fitting } from './Fitting.tsx';
import { Heat } from './Heat.tsx';
import { Inserts } from './Inserts.tsx';
import { Making } from './Making.tsx';
import { Renew } from './Renew.tsx';
import { SparkLog } from './SparkLog.tsx';
import { Weighings } from './Weighings.tsx';

export function MoldPage() {
  const { id = '' } = useParams();
  const { data: mold, error } = useQuery(queries.mold(id));
  const { text } = useTaste();
  if (isGone(error, mold)) return <Missing error={error} back="All molds" backTo="/molds" />;
  if (!mold) return <Waiting />;
  return (
    <Page
      title={mold.name}
      tab={mold.name}
      under={
        <>
          {MOLD_KIND_WORDS[mold.kind]}, {FILL_WORDS[mold.fill]}. {mold.cavities} × {text(mold.cavityMl, 'volume')}
          {mold.sprueMl > 0 && `, sprue ${text(mold.sprueMl, 'volume')}`}
          {mold.master && (
            <>
              {' '}
              of{' '}
              <Link to={`/masters/${mold.master.masterId}`} className="link">
                {mold.baitName} v{mold.master.revisionNumber}
              </Link>
            </>
          )}
          . {mold.shots} shots.
        </>
      }
      actions={
        <>
          <Renew mold={mold} />
          <Link to={`/pours/new?mold=${mold.id}`} className="btn btn-primary">
            Pour it
          </Link>
        </>
      }
    >
      {mold.plan && <Making mold={mold} plan={mold.plan} />}
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-12">
        <div className="flex flex-col gap-8">
          <Care mold={mold} />
          {mold.fill === 'dip' ? <DipLog mold={mold} /> : <Heat mold={mold} />}
          {mold.kind === 'aluminium' && <SparkLog mold={mold} />}
          <Photos aboutType="mold" aboutId={mold.id} />
        </div>
        <div className="flex flex-col gap-8">
          <Weighings mold={mold} />
          <Inserts mold={mold} />
          <Fitting mold={mold} />
          <ComplaintsAbout of="moldId" id={mold.id} />
          <PoursFrom mold={mold} />
        </div>
      </div>
    </Page>
  );
}

function PoursFrom({ mold }: { mold: Mold }) {
  return (
    <section>
      <h2 className="mb-2">Pours from it</h2>
      {mold.pours.length === 0 && <p className="soft">None yet.</p>}
      <ul className="ruled">
        {mold.pours.map((pour) => (
          <li key={pour.id}>
            <Link to={`/pours/${pour.id}`} className="flex gap-3 py-2 items-center row-hover">
              <span className="w-4 h-4 rounded-full border border-[var(--ink)]" style={{ background: pour.hex }} />
              <span className="figure w-14">{pour.code}</span>
              <span className="flex-1 font-bold">{pour.colourwayName}</span>
              <span className="figure text-sm">
                {pour.shots} shots, {gradesText(pour)}
              </span>
              <span className="soft text-sm w-24 text-right">{dateText(pour.at)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
