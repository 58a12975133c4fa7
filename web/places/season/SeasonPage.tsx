import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Season, SeasonRow } from '../../../contract/season.ts';
import { usual } from '../../../core/defaults.ts';
import { season } from '../../../core/plan/season.ts';
import { percentText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dayText } from '../../parts/dates.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';

const WEEKS = ['4', '8', '12', '26'] as const;
/** What one more that is sold brings beside what one that stays lying costs. */
const ODDS = ['1', '2', '4', '9'] as const;
const USUAL_ODDS = String(usual('soldToLying')) as (typeof ODDS)[number];

interface Told {
  row: SeasonRow;
  /** So many last in the share of seasons that is asked for. */
  baits: number;
  build: number;
}

/** What the weeks ahead will want, by the same weeks of earlier years: what to pour on free evenings, and what no more. */
export function SeasonPage() {
  const [weeks, setWeeks] = useState<(typeof WEEKS)[number]>('12');
  const [odds, setOdds] = useState(USUAL_ODDS);
  const { data } = useQuery(queries.season(Number(weeks)));
  if (!data) return <Waiting />;
  const [gainMinor, lossMinor] = [Number(odds), 1];
  const { ratio } = season({ sold: [0], gainMinor, lossMinor });
  const told = data.rows
    .map((row): Told => {
      const { baits } = season({ sold: row.sold, gainMinor, lossMinor });
      return { row, baits, build: Math.max(0, baits - row.ordered - row.free - row.wished) };
    })
    .sort((a, b) => b.build - a.build || b.baits - a.baits);
  return (
    <Page
      title="Stock for the season"
      tab="Stock for the season"
      under={`${dayText(data.from)} to ${dayText(data.to)}, by what the same weeks of earlier years ordered.`}
      actions={
        <Link to="/orders/plan" className="btn btn-ghost border border-[var(--edge)]">
          The evenings ahead
        </Link>
      }
    >
      <div className="flex gap-4 flex-wrap">
        <SelectField<(typeof WEEKS)[number]>
          label="Ahead"
          className="w-40"
          value={weeks}
          options={WEEKS.map((value) => ({ value, label: `${value} weeks` }))}
          onChange={setWeeks}
        />
        <SelectField<(typeof ODDS)[number]>
          label="One more sold, beside one left lying"
          className="w-72"
          value={odds}
          isDefault={odds === USUAL_ODDS}
          options={ODDS.map((value) => ({ value, label: `brings ${value} times what that costs` }))}
          hint={`enough in ${percentText(ratio)} of seasons`}
          onChange={setOdds}
        />
      </div>
      <div className="grid grid-cols-1 xl:grid-cols-[minmax(0,1fr)_340px] gap-x-12 gap-y-8 items-start">
        <Rows told={told} season={data} />
        <div className="flex flex-col gap-8">
          <Wishes season={data} />
          <Dead season={data} />
        </div>
      </div>
    </Page>
  );
}

function Rows({ told, season: { to } }: { told: Told[]; season: Season }) {
  const wish = useWrite<Season, { baitId: string; colourwayId: string; baits: number; dueOn: string }>((body) => ({
    path: '/season/wishes',
    body,
  }));
  if (told.length === 0)
    return (
      <p className="text-lg">
        Nothing was ordered in these weeks of an earlier year, or no earlier year is on record: what a season wants is
        not known yet.
      </p>
    );
  return (
    <section aria-label="What it wants">
      <ul className="ruled border-y border-[var(--rule)]">
        {told.slice(0, 60).map(({ row, baits, build }) => (
          <li
            key={`${row.baitId} ${row.colourwayId}`}
            className="py-2.5 grid grid-cols-1 sm:grid-cols-[minmax(0,1fr)_minmax(0,1.3fr)_auto] gap-x-5 gap-y-1 items-center"
          >
            <span className="flex gap-3 items-center">
              <span
                className="w-7 h-7 rounded-full border-2 border-[var(--ink)] shrink-0"
                style={{ background: row.hex }}
              />
              <span>
                <b className="block leading-tight">{row.baitName}</b>
                {row.colourwayName}
              </span>
            </span>
            <span className="leading-snug">
              <b className="figure text-xl">{baits}</b> baits will do
              <span className="soft block text-sm">
                {row.sold.map((n, i) => `${n} ${i === 0 ? 'last year' : `${i + 1} years ago`}`).join(', ')}
                {row.ordered > 0 && `; ${row.ordered} ordered already`}
                {row.free > 0 && `; ${row.free} lie free`}
                {row.wished > 0 && `; ${row.wished} wished for`}
              </span>
            </span>
            {build > 0 ? (
              <button
                type="button"
                className="btn btn-line"
                disabled={wish.isPending}
                onClick={() =>
                  wish.mutate({ baitId: row.baitId, colourwayId: row.colourwayId, baits: build, dueOn: to })
                }
              >
                Pour {build} on free evenings
              </button>
            ) : (
              <b className="rest">enough</b>
            )}
          </li>
        ))}
      </ul>
      <Refusal error={wish.error} />
    </section>
  );
}

/** What the plan pours for the rack beside the orders. */
function Wishes({ season: { wishes } }: { season: Season }) {
  const end = useWrite<Season, string>((id) => ({ path: `/season/wishes/${id}/end` }));
  return (
    <section aria-label="On free evenings">
      <h2 className="mb-1">On free evenings</h2>
      {wishes.length === 0 && <p className="soft">Nothing is poured for the rack yet.</p>}
      <ul className="ruled">
        {wishes.map((one) => (
          <li key={one.id} className="py-1.5 flex flex-wrap gap-x-3 items-baseline">
            <b className="figure">{one.baits}</b>
            <span>
              {one.baitName} {one.colourwayName}
            </span>
            <span className="soft">by {dayText(one.dueOn)}</span>
            <button type="button" className="link text-sm ml-auto" onClick={() => end.mutate(one.id)}>
              not after all
            </button>
          </li>
        ))}
      </ul>
      <Refusal error={end.error} />
    </section>
  );
}

/** Lies there, and nobody asked for it for a year. */
function Dead({ season: { dead } }: { season: Season }) {
  if (dead.length === 0) return null;
  return (
    <section aria-label="Stop pouring">
      <h2 className="mb-1">Stop pouring</h2>
      <p className="soft mb-1">On the rack, and nobody ordered it for a year: put it into sets, or give it away.</p>
      <ul className="ruled">
        {dead.map((one) => (
          <li key={`${one.baitId} ${one.colourwayId}`} className="py-1.5 flex flex-wrap gap-x-3 items-baseline">
            <span className="w-4 h-4 rounded-full border border-[var(--ink)]" style={{ background: one.hex }} />
            <b className="figure">{one.baits}</b>
            <span>
              {one.baitName} {one.colourwayName}
            </span>
            <span className="soft">{one.lastOn ? `last ${dayText(one.lastOn)}` : 'never ordered'}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
