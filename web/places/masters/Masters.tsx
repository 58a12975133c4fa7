import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { inUse } from '../../../contract/fields.ts';

import { unitSize } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { niceStep } from '../../parts/Cylinder.tsx';
import { useWidth } from '../../parts/Fitted.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Away } from '../../parts/PutAway.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** The longest bait is drawn so long, where there is room. */
const WIDTH_PX = 620;
const BESIDE_PX = 450;

/** Every master drawn to one scale against a ruler, so that sizes can be compared at a glance. */
export function Masters() {
  const [box, room] = useWidth(1200);
  const { data } = useQuery(queries.masters);
  const { text, taste } = useTaste();
  if (!data) return <Waiting />;
  if (data.items.length === 0) {
    return (
      <Page title="Masters" tab="Masters">
        <Empty
          say="A bait begins as a master."
          then="Measure its length, width, height and thickest section, and weigh it once. Box, rubber and plastic are computed from that."
          to="/masters/new"
          action="Measure the first master"
        />
      </Page>
    );
  }
  const [away, here] = [data.items.filter((master) => master.awayAt), inUse(data.items)];
  const unitMm = unitSize('length', taste);
  const longestMm = Math.max(1, ...here.map((master) => master.latest.lengthMm)) * 1.04;
  const widthPx = Math.min(WIDTH_PX, room < 720 ? room - 34 : room - BESIDE_PX);
  const pxPerMm = widthPx / longestMm;
  const step = niceStep(longestMm / unitMm);
  return (
    <Page
      title="Masters"
      tab="Masters"
      under="Drawn to one scale. The newest revision is shown; the old ones are kept."
      actions={
        <Link to="/masters/new" className="btn btn-primary">
          New master
        </Link>
      }
    >
      <div ref={box} className="grid grid-cols-1 md:grid-cols-[minmax(0,1fr)_auto] items-end gap-x-6">
        <svg width={widthPx + 30} height={34} role="img" aria-label={`Ruler to ${text(longestMm, 'length')}`}>
          <line x1={0} x2={widthPx} y1={33} y2={33} stroke="var(--ink)" strokeWidth={2} />
          {Array.from({ length: Math.floor((longestMm / unitMm / step) * 5) + 1 }, (_, i) => {
            const at = ((i * step) / 5) * unitMm * pxPerMm;
            return (
              <g key={at}>
                <line
                  x1={at}
                  x2={at}
                  y1={i % 5 === 0 ? 16 : 25}
                  y2={33}
                  stroke="var(--ink)"
                  strokeWidth={i % 5 === 0 ? 2 : 1}
                />
                {i % 5 === 0 && (
                  <text x={at + 4} y={14} fontSize={12} fill="var(--soft)">
                    {Number(((i * step) / 5).toPrecision(3))}
                    {i === 0 ? ` ${taste.system === 'us' ? 'in' : 'mm'}` : ''}
                  </text>
                )}
              </g>
            );
          })}
        </svg>
        <span className="hidden md:block" />
        {here.map((master) => {
          const { lengthMm, widthMm, heightMm, volumeMl, number } = master.latest;
          return (
            <Link key={master.id} to={`/masters/${master.id}`} className="contents group">
              <span className="md:border-b border-[var(--rule)] pt-3 md:pb-3 group-hover:bg-[var(--sheet)]">
                <svg
                  width={widthPx + 4}
                  height={Math.max(18, widthMm * pxPerMm + 6)}
                  role="img"
                  aria-label={`${master.name} from above`}
                >
                  <BaitShape
                    shape={master.shape}
                    bait={master.baitId}
                    x={2}
                    y={3}
                    lengthPx={lengthMm * pxPerMm}
                    widthPx={widthMm * pxPerMm}
                    fill="var(--liquid)"
                  />
                </svg>
              </span>
              <span className="border-b border-[var(--rule)] py-3 self-stretch flex gap-4 items-center group-hover:bg-[var(--sheet)]">
                <span className="flex-1 md:w-52 md:flex-none">
                  <span className="block text-lg font-bold leading-tight">
                    {master.name} <span className="figure text-sm soft">v{number}</span>
                  </span>
                  <span className="label-small figure">
                    {[lengthMm, widthMm, heightMm].map((mm) => text(mm, 'length').split(' ')[0]).join(' × ')}{' '}
                    {taste.system === 'us' ? 'in' : 'mm'}
                  </span>
                </span>
                <span className="w-24 text-right">
                  {volumeMl === null ? (
                    <span className="warn font-bold">weigh it</span>
                  ) : (
                    <span className="figure text-xl">{text(volumeMl, 'volume')}</span>
                  )}
                </span>
                <span className="w-20 soft">{master.molds === 1 ? '1 mold' : `${master.molds} molds`}</span>
              </span>
            </Link>
          );
        })}
      </div>
      <Away count={away.length}>
        {away.map((master) => (
          <li key={master.id}>
            <Link to={`/masters/${master.id}`} className="link">
              {master.name}
            </Link>
          </li>
        ))}
      </Away>
    </Page>
  );
}
