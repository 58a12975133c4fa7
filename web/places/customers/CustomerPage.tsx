import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { CustomerWith, OrderRow } from '../../../contract/orders.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { ComplaintList } from '../../parts/Complaints.tsx';
import { CustomerSheet } from '../../parts/CustomerSheet.tsx';
import { dayText } from '../../parts/dates.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { STATE_WORDS, stateColour } from '../../parts/words/order.ts';

/** One customer: how to reach them, what they took, what is open, what they found wrong. */
export function CustomerPage() {
  const { id = '' } = useParams();
  const { data: customer, error } = useQuery(queries.customer(id));
  if (isGone(error, customer)) return <Missing error={error} back="All customers" backTo="/customers" />;
  if (!customer) return <Waiting />;
  const open = customer.ordered.filter(({ sentAt, cancelledAt }) => !sentAt && !cancelledAt);
  const gone = customer.ordered.filter(({ sentAt, cancelledAt }) => sentAt || cancelledAt);
  return (
    <Page
      title={customer.name}
      tab={customer.name}
      under={customer.contact || 'No contact is written down.'}
      actions={
        <Link to="/customers" className="btn btn-ghost border border-[var(--edge)]">
          All customers
        </Link>
      }
    >
      {customer.mergedIntoId && (
        <p className="text-lg">
          All that was theirs is now{' '}
          <Link to={`/customers/${customer.mergedIntoId}`} className="link font-bold">
            with the other record
          </Link>
          .
        </p>
      )}
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_380px] gap-x-12 gap-y-8 items-start">
        <div className="flex flex-col gap-8">
          <section>
            <h2 className="mb-2">Open</h2>
            {open.length === 0 && <p className="soft">Nothing is on order.</p>}
            <OrderList orders={open} />
          </section>
          <Took customer={customer} />
          <section>
            <h2 className="mb-2">What they found wrong</h2>
            {customer.complaints.length === 0 && <p className="soft">Nothing so far.</p>}
            <ComplaintList items={customer.complaints} />
          </section>
          {gone.length > 0 && (
            <section>
              <h2 className="mb-2">Before</h2>
              <OrderList orders={gone} />
            </section>
          )}
        </div>
        <div className="flex flex-col gap-6">
          <CustomerSheet customer={customer} />
          <Merge customer={customer} />
        </div>
      </div>
    </Page>
  );
}

function OrderList({ orders }: { orders: OrderRow[] }) {
  const { money } = useTaste();
  return (
    <ul className="ruled">
      {orders.map((order) => {
        const sum = order.lines.reduce((all, { packs, priceMinor }) => all + packs * (priceMinor ?? 0), 0);
        return (
          <li key={order.id}>
            <Link
              to={`/orders/${order.id}`}
              className="grid grid-cols-[60px_1fr_auto] sm:grid-cols-[60px_150px_1fr_120px_100px] gap-x-4 py-1.5 row-hover"
            >
              <span className="figure">{order.code}</span>
              <span>{dayText(order.dueOn)}</span>
              <span className="soft hidden sm:block">
                {order.lines.reduce((all, { packs }) => all + packs, 0)} packs
              </span>
              <b style={{ color: stateColour(order.state) }}>
                {order.state === 'short' ? `short ${order.shortBaits}` : STATE_WORDS[order.state]}
              </b>
              <span className="figure text-right hidden sm:block">
                {order.gift ? 'gift' : sum > 0 ? money(sum) : '–'}
              </span>
            </Link>
          </li>
        );
      })}
    </ul>
  );
}

/** What they take most, so that the next order is short to write. */
function Took({ customer }: { customer: CustomerWith }) {
  const most = Math.max(1, ...customer.took.map(({ packs }) => packs));
  return (
    <section>
      <h2 className="mb-2">What they took</h2>
      {customer.took.length === 0 && <p className="soft">Nothing yet.</p>}
      <ul className="flex flex-col gap-1.5">
        {customer.took.map((row) => (
          <li
            key={`${row.baitId} ${row.colourwayId}`}
            className="grid grid-cols-[minmax(0,1fr)_120px] sm:grid-cols-[minmax(0,260px)_minmax(0,1fr)_130px] gap-x-4 items-center"
          >
            <span className="leading-tight">
              <b>{row.baitName}</b> {row.colourwayName}
            </span>
            <span className="hidden sm:block">
              <Graduated value={row.packs} most={most} label={`${row.packs} packs`} colour={row.hex} widthPx={240} />
            </span>
            <span className="text-right">
              <b className="figure">{row.packs}</b> packs
              <span className="soft block text-sm">last {dayText(row.lastOn)}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The same customer written down twice becomes one. */
function Merge({ customer }: { customer: CustomerWith }) {
  const navigate = useNavigate();
  const others = (useQuery(queries.customers).data?.items ?? []).filter(
    ({ id, mergedIntoId }) => id !== customer.id && mergedIntoId === null,
  );
  const [into, setInto] = useState('');
  const merge = useWrite<CustomerWith>(
    () => ({
      path: `/customers/${customer.id}/merge`,
      version: customer.version,
      body: { intoId: into },
    }),
    (other) => navigate(`/customers/${other.id}`),
  );
  if (customer.mergedIntoId || others.length === 0) return null;
  const other = others.find(({ id }) => id === into);
  return (
    <details>
      <summary className="cursor-pointer font-bold">The same as another</summary>
      <div className="flex flex-col gap-3 pt-2">
        <SelectField<string>
          label="They are"
          value={into}
          options={[{ value: '', label: 'choose' }, ...others.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={setInto}
        />
        {other && (
          <button
            type="button"
            className="btn btn-line self-start"
            disabled={merge.isPending}
            onClick={() => merge.mutate()}
          >
            All of {customer.name} to {other.name}
          </button>
        )}
        <Refusal error={merge.error} />
      </div>
    </details>
  );
}
