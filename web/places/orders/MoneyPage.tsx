import { useQuery } from '@tanstack/react-query';
import { format, subMonths } from 'date-fns';
import { useState } from 'react';
import { Link } from 'react-router';
import { COST_BEGUN } from '../../../contract/costs.ts';
import { wageWish } from '../../../contract/money.ts';
import { usual } from '../../../core/defaults.ts';
import { giftsOf, MARGINS_BY, type Margin, type MarginsBy, marginsBy } from '../../../core/plan/margins.ts';
import { hoursText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { dayText, todayIso } from '../../parts/dates.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { FigureIn } from '../../parts/sheet/In.tsx';
import { Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

const BY_WORDS: Record<MarginsBy, string> = {
  bait: 'by bait',
  colour: 'by colour',
  customer: 'by customer',
  order: 'by order',
  evening: 'by evening',
};
const SPANS = { '3': 'the last three months', '12': 'the last twelve months', '24': 'the last two years' } as const;
type Span = keyof typeof SPANS;

/** What orders that were sent brought, after what they cost here: the best and the worst hour. */
export function MoneyPage() {
  const [months, setMonths] = useState<Span>('12');
  const [by, setBy] = useState<MarginsBy>('bait');
  const from = format(subMonths(new Date(), Number(months)), 'yyyy-MM-dd');
  const { data } = useQuery(queries.money(from, todayIso()));
  const sheet = useSheet({
    schema: wageWish,
    keep: 'cost/wage',
    seen: { wagePerHourMinor: COST_BEGUN.wagePerHourMinor },
  });
  if (!data) return <Waiting />;
  const wage = sheet.values.wagePerHourMinor ?? 0;
  const margins = marginsBy(data.rows, by, wage);
  const gifts = giftsOf(data.rows, wage);
  const unsold = new Set(data.rows.filter(({ revenueMinor }) => revenueMinor === null).map(({ code }) => code));
  return (
    <Page
      title="What it earns"
      tab="What it earns"
      under="Orders that were sent, at what their own lots cost and what hands take here."
      actions={
        <Link to="/orders/cost" className="btn btn-ghost border border-[var(--edge)]">
          What it costs
        </Link>
      }
    >
      <Sheet
        of={sheet}
        by={{ error: null, isPending: false }}
        onSend={() => {}}
        className="flex gap-4 flex-wrap items-start"
      >
        <SelectField<Span>
          label="Due in"
          className="w-56"
          value={months}
          options={(Object.keys(SPANS) as Span[]).map((value) => ({ value, label: SPANS[value] }))}
          onChange={setMonths}
        />
        <SelectField<MarginsBy>
          label="Told"
          className="w-44"
          value={by}
          options={MARGINS_BY.map((value) => ({ value, label: BY_WORDS[value] }))}
          onChange={setBy}
        />
        <FigureIn at="wagePerHourMinor" className="w-44" hint="0: an hour’s money is yours" />
      </Sheet>
      {margins.length === 0 ? (
        <Empty
          say="Nothing was sold in these days."
          then="An order counts once it is sent and its packs have a price."
          to="/orders"
          action="To the orders"
        />
      ) : (
        <Told margins={margins} by={by} wage={wage} />
      )}
      <div className="flex flex-col gap-1">
        <p className="soft">
          Plastic by what a cavity holds, at {usual('plastisolGPerMl')} g/mL{' '}
          <span className="default-mark">default</span> and the price of what went into its cup; hands as they are
          learnt at each mold, those of rejects too, and a starting guess <span className="default-mark">default</span>{' '}
          where none were; remelt was paid for before.
        </p>
        {gifts.baits > 0 && <Gifts {...gifts} />}
        {unsold.size > 0 && (
          <p className="warn font-bold">Without a price, and in no sum: {[...unsold].slice(0, 8).join(', ')}.</p>
        )}
        {data.unpriced.length > 0 && (
          <p className="warn">
            No price is known of {data.unpriced.slice(0, 8).join(', ')}: what they are in costs more than is told.{' '}
            <Link to="/store" className="link">
              The store
            </Link>
          </p>
        )}
      </div>
    </Page>
  );
}

function Gifts({ baits, costMinor }: { baits: number; costMinor: number }) {
  const { money } = useTaste();
  return (
    <p>
      Given away: <b className="figure">{baits}</b> baits that cost{' '}
      <b className="figure">{money(Math.round(costMinor))}</b>.
    </p>
  );
}

/** The best and the worst in a sentence, then each of them compared. */
function Told({ margins, by, wage }: { margins: Margin[]; by: MarginsBy; wage: number }) {
  const { money } = useTaste();
  const [best, worst] = [margins[0] as Margin, margins.at(-1) as Margin];
  const most = Math.max(1, ...margins.map(({ perHourMinor }) => perHourMinor ?? 0));
  const sum = (of: 'revenueMinor' | 'materialMinor' | 'labourMinor' | 'marginMinor' | 'minutes') =>
    margins.reduce((all, one) => all + one[of], 0);
  const nameOf = ({ name }: Margin) => (by === 'evening' ? dayText(name) : name);
  const hour = (one: Margin) => (one.perHourMinor === null ? 'not known' : money(Math.round(one.perHourMinor)));
  return (
    <section aria-label="What it earned" className="flex flex-col gap-5">
      <p className="text-2xl">
        <b>{money(Math.round(sum('marginMinor')))}</b> is left of {money(sum('revenueMinor'))}
        {wage > 0 && `, wages of ${money(Math.round(sum('labourMinor')))} paid`}, from {hoursText(sum('minutes') / 60)}{' '}
        of hands.{' '}
        {margins.length > 1 && (
          <>
            Best: <b className="rest">{nameOf(best)}</b>, {hour(best)} an hour. Worst:{' '}
            <b className="heat">{nameOf(worst)}</b>, {hour(worst)} an hour.
          </>
        )}
      </p>
      <div className="overflow-x-auto">
        <table className="table w-full">
          <thead>
            <tr>
              <th className="text-left">
                {BY_WORDS[by].replace('by ', '').replace(/^./, (letter) => letter.toUpperCase())}
              </th>
              <th className="text-right hidden sm:table-cell">Baits</th>
              <th className="text-right hidden sm:table-cell">Paid</th>
              <th className="text-right hidden sm:table-cell">Materials</th>
              {wage > 0 && <th className="text-right hidden sm:table-cell">Wages</th>}
              <th className="text-right">Left</th>
              <th className="text-right">An hour brings</th>
              <th aria-hidden className="w-40 hidden md:table-cell" />
            </tr>
          </thead>
          <tbody>
            {margins.slice(0, 200).map((one) => (
              <tr key={one.key}>
                <td className="font-bold">
                  {by === 'order' ? (
                    <Link to={`/orders/${one.key}`} className="link">
                      {one.name}
                    </Link>
                  ) : by === 'customer' ? (
                    <Link to={`/customers/${one.key}`} className="link">
                      {one.name}
                    </Link>
                  ) : (
                    nameOf(one)
                  )}
                </td>
                <td className="figure text-right hidden sm:table-cell">{one.baits}</td>
                <td className="figure text-right hidden sm:table-cell">{money(one.revenueMinor)}</td>
                <td className="figure text-right hidden sm:table-cell">{money(Math.round(one.materialMinor))}</td>
                {wage > 0 && (
                  <td className="figure text-right hidden sm:table-cell">{money(Math.round(one.labourMinor))}</td>
                )}
                <td className={`figure text-right ${one.marginMinor < 0 ? 'heat font-bold' : ''}`}>
                  {money(Math.round(one.marginMinor))}
                </td>
                <td className="figure text-right font-bold">{hour(one)}</td>
                <td aria-hidden className="pl-5 hidden md:table-cell">
                  <HourScale of={one.perHourMinor ?? 0} most={most} hex={one.hex ?? 'var(--rest)'} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {margins.some(({ marginMinor }) => marginMinor < 0) && (
        <p className="heat font-bold">
          Sold under its cost:{' '}
          {margins
            .filter(({ marginMinor }) => marginMinor < 0)
            .map(nameOf)
            .join(', ')}
          .
        </p>
      )}
    </section>
  );
}

/** Money an hour on a scale with ten marks, the same for all rows. */
function HourScale({ of, most, hex }: { of: number; most: number; hex: string }) {
  const [wide, high] = [150, 16];
  return (
    <svg width={wide + 2} height={high} className="block" aria-hidden>
      <rect
        x={1}
        y={6}
        width={(Math.max(0, of) / most) * wide}
        height={9}
        fill={hex}
        stroke="var(--edge)"
        strokeWidth={0.6}
      />
      <line x1={1} x2={wide + 1} y1={15} y2={15} stroke="var(--edge)" />
      {Array.from({ length: 11 }, (_, i) => (
        <line
          // biome-ignore lint/suspicious/noArrayIndexKey: marks of a scale
          key={i}
          x1={1 + (i * wide) / 10}
          x2={1 + (i * wide) / 10}
          y1={i % 5 === 0 ? 2 : 9}
          y2={15}
          stroke="var(--edge)"
        />
      ))}
    </svg>
  );
}
