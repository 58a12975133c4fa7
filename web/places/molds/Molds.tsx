import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { queries } from '../../api/queries.ts';
import { MoldBlock } from '../../parts/MoldBlock.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Ready } from '../../parts/Ready.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { FILL_WORDS, MOLD_KIND_WORDS } from '../../parts/words/mold.ts';

export function Molds() {
  const { data } = useQuery(queries.molds);
  const { text } = useTaste();
  if (!data) return <Waiting />;
  const actions = (
    <>
      <Link to="/molds/new" className="btn btn-line">
        Add a mold you have
      </Link>
      <Link to="/molds/plan" className="btn btn-primary">
        Plan a silicone mold
      </Link>
    </>
  );
  if (data.items.length === 0) {
    return (
      <Page title="Molds" tab="Molds" actions={actions}>
        <Empty
          say="No mold yet."
          then="Plan one around a master: the box is drawn to scale and both parts of the rubber are computed, so that nothing is mixed twice."
          to="/molds/plan"
          action="Plan the first mold"
        />
      </Page>
    );
  }
  const live = data.items.filter((mold) => !mold.retiredAt);
  const retired = data.items.filter((mold) => mold.retiredAt);
  return (
    <Page
      title="Molds"
      tab="Molds"
      actions={actions}
      under="What each makes, how often it was shot, and what it rejects."
    >
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,340px),1fr))] gap-x-10 gap-y-8">
        {live.map((mold) => (
          <li key={mold.id}>
            <Link to={`/molds/${mold.id}`} className="flex gap-4 row-hover rounded p-2 -m-2">
              <MoldBlock mold={mold} widthPx={150} />
              <span className="flex-1 min-w-0">
                <span className="block text-lg font-bold leading-tight">{mold.name}</span>
                <span className="label-small block">
                  {MOLD_KIND_WORDS[mold.kind]}, {FILL_WORDS[mold.fill]}
                </span>
                <span className="block mt-1.5">
                  <b className="figure">{mold.cavities}</b> × <b className="figure">{text(mold.cavityMl, 'volume')}</b>
                </span>
                <span className="block text-sm">
                  <Ready readyAt={mold.readyAt} />
                </span>
                <span className="block text-sm">
                  <b className="figure">{mold.shots}</b> shots,{' '}
                  {mold.made === 0 ? (
                    'none counted yet'
                  ) : (
                    <>
                      <b className={`figure ${mold.rejected / mold.made > 0.1 ? 'warn' : ''}`}>
                        {((100 * mold.rejected) / mold.made).toFixed(1)} %
                      </b>{' '}
                      rejects of {mold.made}
                    </>
                  )}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {retired.length > 0 && (
        <p className="soft">
          Retired:{' '}
          {retired.map((mold, index) => (
            <span key={mold.id}>
              {index > 0 && ', '}
              <Link to={`/molds/${mold.id}`} className="link">
                {mold.name}
              </Link>
            </span>
          ))}
        </p>
      )}
    </Page>
  );
}
