import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { Bag, Recall } from '../../../contract/orders.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { handOver } from '../../parts/files.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Square } from '../../parts/Square.tsx';
import { CameFrom } from './CameFrom.tsx';
import { FoundWrong } from './FoundWrong.tsx';

/** The code of a bag in a square that a tablet's camera reads: it opens this page, by an address that the tablet can reach. */
function Code({ code }: { code: string }) {
  const { data } = useQuery(queries.network);
  if (!data) return <span className="w-[220px] h-[220px]" />;
  const home = data.urls[0] ?? location.origin;
  return (
    <div className="max-w-[220px]">
      <Square text={`${home}/bags/${code}`} says={`Code of bag ${code}`} />
      {data.urls.length === 0 && isHere() && (
        <p className="text-xs no-print">
          It leads to this computer only: start the workshop with --lan to read it with a tablet.
        </p>
      )}
    </div>
  );
}

/** The bags to call back, as a file: whose they are, when they were sent, how many of which cup lie in each. */
async function recallCsv(code: string, { bags, onRack }: Recall): Promise<void> {
  const { unparse } = await import('papaparse');
  const rows = [
    ...bags.map((bag) => ({
      bag: bag.code,
      cup: bag.pourCode,
      baits: bag.baits,
      customer: bag.customer ?? '',
      sent: bag.sentAt?.slice(0, 10) ?? '',
    })),
    ...onRack.map(({ pourCode, baits }) => ({ bag: 'on the rack', cup: pourCode, baits, customer: '', sent: '' })),
  ];
  handOver(unparse(rows, { escapeFormulae: true }), 'text/csv', `recall-${code}.csv`);
}

/** If something is at fault with it: which other bags came out of the same cups, and who has them. */
function Sisters({ code }: { code: string }) {
  const { data } = useQuery(queries.recall(code));
  if (!data) return null;
  const { bags, onRack } = data;
  return (
    <section aria-label="From the same cups">
      <div className="flex gap-4 items-baseline flex-wrap">
        <h2>From the same cups</h2>
        {bags.length > 0 && (
          <button type="button" className="link text-sm" onClick={() => void recallCsv(code, data)}>
            recall list as a table
          </button>
        )}
      </div>
      {bags.length + onRack.length === 0 && <p className="soft">Nothing else: all of them are in this bag, or gone.</p>}
      <ul className="ruled">
        {bags.map((bag) => (
          <li key={`${bag.code} ${bag.pourCode}`} className="py-1 flex flex-wrap gap-x-3">
            <Link to={`/bags/${bag.code}`} className="link figure">
              {bag.code}
            </Link>
            <span>
              {bag.baits} of {bag.pourCode}
            </span>
            <b>{bag.customer ?? 'nobody'}</b>
            <span className={bag.sentAt ? 'warn font-bold' : 'soft'}>
              {bag.sentAt ? `sent ${dateText(bag.sentAt)}` : 'still here'}
            </span>
          </li>
        ))}
        {onRack.map(({ pourCode, baits }) => (
          <li key={pourCode} className="py-1">
            <b className="figure">{baits}</b> of {pourCode} on the rack
          </li>
        ))}
      </ul>
    </section>
  );
}

const isHere = () => /^(localhost|127\.|\[::1\])/.test(location.hostname);

/** A bag leads back to its pour: a complaint ends at a cup, a mold and a cavity. */
export function BagPage() {
  const { code = '' } = useParams();
  const { data: bag, error } = useQuery(queries.bag(code));
  const unpack = useWrite<Bag>(() => ({ path: `/bags/${code}/unpack` }));
  if (isGone(error, bag)) return <Missing error={error} back="To the rack" backTo="/rack" />;
  if (!bag) return <Waiting />;
  return (
    <Page
      title={
        <>
          Bag <span className="figure">{bag.code}</span>
        </>
      }
      tab={`Bag ${bag.code}`}
      under={bag.unpacked ? 'Opened again; its baits are back on the rack.' : `Packed ${dateText(bag.at)}.`}
      actions={
        <>
          <button type="button" className="btn btn-line" onClick={() => window.print()}>
            Print the label
          </button>
          {!bag.unpacked && (
            <button type="button" className="btn btn-line" onClick={() => unpack.mutate()}>
              Open it again
            </button>
          )}
        </>
      }
    >
      <div className="grid grid-cols-1 lg:grid-cols-[auto_minmax(0,1fr)] gap-x-10 gap-y-6 items-start">
        <div
          className="border-4 rounded-lg p-4 sm:p-5 flex gap-4 sm:gap-5 bg-white text-black print-plain max-w-full"
          style={{ borderColor: bag.contents[0]?.hex }}
        >
          <Code code={bag.code} />
          <div className="flex flex-col gap-1 w-56 min-w-0">
            {bag.contents.map((row) => (
              <span key={`${row.baitId} ${row.colourwayId}`} className="flex flex-col">
                <span className="font-[family-name:var(--font-display)] text-2xl font-bold leading-tight">
                  {row.baitName}
                </span>
                <span className="text-xl">{row.colourwayName}</span>
                {bag.contents.length > 1 && <span className="figure text-xl">{row.baits}</span>}
              </span>
            ))}
            <span className="figure text-3xl mt-2">{bag.baits}</span>
            <span className="figure text-2xl mt-auto">{bag.code}</span>
          </div>
        </div>
        <div className="flex flex-col gap-4 no-print">
          <CameFrom code={bag.code} />
          {bag.order && (
            <section>
              <h2>Packed for</h2>
              <Link to={`/orders/${bag.order.id}`} className="link text-lg">
                {bag.order.customer}, {bag.order.code}
              </Link>
            </section>
          )}
          <FoundWrong bag={bag} />
          <Sisters code={bag.code} />
          <Refusal error={unpack.error} />
        </div>
      </div>
    </Page>
  );
}
