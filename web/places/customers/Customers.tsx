import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Customer } from '../../../contract/orders.ts';
import { queries } from '../../api/queries.ts';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Away } from '../../parts/PutAway.tsx';
import { LIST_WORDS } from '../../parts/words/order.ts';

/** Everybody who ever ordered. */
export function Customers() {
  const { data } = useQuery(queries.customers);
  if (!data) return <Waiting />;
  const here = data.items.filter(({ awayAt }) => awayAt === null);
  const away = data.items.filter(({ awayAt }) => awayAt !== null);
  return (
    <Page title="Customers" tab="Customers">
      {here.length === 0 && (
        <Empty
          say="Nobody has ordered yet."
          then="A customer is written down with their first order."
          to="/orders/new"
          action="Take an order"
        />
      )}
      <ul className="ruled border-y border-[var(--rule)]">
        {here.map((row) => (
          <Row key={row.id} row={row} />
        ))}
      </ul>
      <Away count={away.length}>
        {away.map((row) => (
          <li key={row.id}>
            <Link to={`/customers/${row.mergedIntoId ?? row.id}`} className="link">
              {row.name}
            </Link>
            {row.mergedIntoId && <span className="soft"> (merged)</span>}
          </li>
        ))}
      </Away>
    </Page>
  );
}

function Row({ row }: { row: Customer }) {
  return (
    <li>
      <Link
        to={`/customers/${row.id}`}
        className="grid grid-cols-[1fr_auto] sm:grid-cols-[minmax(0,1.3fr)_minmax(0,1.5fr)_160px_110px] gap-x-5 py-3 row-hover items-baseline"
      >
        <b className="text-lg leading-tight">{row.name}</b>
        <span className="soft hidden sm:block truncate">{row.contact || 'no contact'}</span>
        <span className="hidden sm:block">{LIST_WORDS[row.priceList]}</span>
        <span className="figure text-right">
          {row.orders} {row.orders === 1 ? 'order' : 'orders'}
        </span>
      </Link>
    </li>
  );
}
