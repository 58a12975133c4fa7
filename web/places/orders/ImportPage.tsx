import { useQuery } from '@tanstack/react-query';
import { addDays, format } from 'date-fns';
import { useState } from 'react';
import { Link } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import type { OrderImport } from '../../../contract/imports.ts';
import { usual } from '../../../core/defaults.ts';
import {
  guessedMapping,
  meaningOf,
  NEEDED_COLUMNS,
  ORDER_COLUMNS,
  type OrderColumn,
  type OrderMapping,
  ordersOf,
} from '../../../core/plan/orderTable.ts';
import { useUndoImport } from '../../api/imports.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText, dayText } from '../../parts/dates.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { bodyOfImport, readTable, type Table } from './orderFile.ts';

const COLUMN_WORDS: Record<OrderColumn, string> = {
  customer: 'Customer',
  order: 'Their order',
  due: 'Due',
  bait: 'Bait',
  colour: 'Colour',
  packs: 'Packs',
  perPack: 'Baits to a pack',
  price: 'Price of a pack',
  notes: 'Notes',
};
const REMEMBERED = 'blunko.orderTable';
interface Remembered {
  /** By the headings of a table: which of its columns is which. */
  mappings: Record<string, OrderMapping>;
  means: Record<string, string>;
}
const remembered = (): Remembered => {
  try {
    return { mappings: {}, means: {}, ...JSON.parse(localStorage.getItem(REMEMBERED) ?? '{}') };
  } catch {
    // What another program left there is none of ours.
    return { mappings: {}, means: {} };
  }
};
const remember = (one: Remembered) => localStorage.setItem(REMEMBERED, JSON.stringify(one));

/** Orders out of a table: looked at before anything comes in, and taken back in one. */
export function ImportPage() {
  const [table, setTable] = useState<Table | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [came, setCame] = useState<OrderImport | null>(null);
  const bring = (file: File) => {
    setProblem(null);
    setCame(null);
    readTable(file)
      .then(setTable)
      .catch((error: Error) => {
        setTable(null);
        setProblem(error.message);
      });
  };
  return (
    <Page
      title="Orders out of a table"
      tab="Orders out of a table"
      under="A CSV file, a row a line of an order. Nothing comes in before it was looked at; what cannot be matched is kept and shown."
      actions={
        <Link to="/orders" className="btn btn-ghost border border-[var(--edge)]">
          All orders
        </Link>
      }
    >
      <label className="btn btn-primary self-start cursor-pointer">
        Choose a file
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          className="sr-only"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) bring(file);
          }}
        />
      </label>
      {problem && <p className="heat font-bold">{problem}</p>}
      {came && (
        <p role="status" className="text-xl rest font-bold">
          {came.orders.length} {came.orders.length === 1 ? 'order' : 'orders'} came in
          {came.leftOver.length > 0 && `, ${came.leftOver.length} rows are left over`}.
        </p>
      )}
      {table && (
        <Matching
          key={table.name + table.rows.length}
          table={table}
          onCame={(one) => {
            setTable(null);
            setCame(one);
          }}
        />
      )}
      <Files />
    </Page>
  );
}

function Matching({ table, onCame }: { table: Table; onCame(one: OrderImport): void }) {
  const taste = useTaste();
  const all = [
    useQuery(queries.baits).data,
    useQuery(queries.colourways).data,
    useQuery(queries.customers).data,
  ] as const;
  const [kept, setKept] = useState(remembered);
  const headings = table.headings.join('\n');
  const [mapping, setMapping] = useState<OrderMapping>(() => kept.mappings[headings] ?? guessedMapping(table.headings));
  const add = useWrite<OrderImport, object>((body) => ({ path: '/orders/imports', body }), onCame);
  if (!all[0] || !all[1] || !all[2]) return <Waiting />;
  const [baits, colours, customers] = [inUse(all[0].items), inUse(all[1].items), inUse(all[2].items)];
  const put = (next: OrderMapping) => {
    setMapping(next);
    const now = { ...kept, mappings: { ...kept.mappings, [headings]: next } };
    setKept(now);
    remember(now);
  };
  const lacking = NEEDED_COLUMNS.filter((column) => mapping[column] === undefined);
  const { orders, left } =
    lacking.length > 0
      ? { orders: [], left: [] }
      : ordersOf(table.rows, mapping, {
          baits,
          colours,
          customers,
          means: kept.means,
          monthFirst: taste.taste.system === 'us',
          minorPerUnit: taste.minorPerUnit,
          usualDue: format(addDays(new Date(), usual('dueInDays')), 'yyyy-MM-dd'),
          usualCustomer: '',
        });
  const unknown = new Map(
    left.flatMap(({ unknown: one }) => (one?.name ? [[meaningOf(one.what, one.name), one] as const] : [])),
  );
  const lines = orders.reduce((sum, order) => sum + order.lines.length, 0);
  return (
    <section aria-label="What is in it" className="flex flex-col gap-6">
      <h2 className="text-2xl">
        {table.name}: {table.rows.length} {table.rows.length === 1 ? 'row' : 'rows'}
      </h2>
      <Columns table={table} mapping={mapping} onMapping={put} />
      {lacking.length > 0 && (
        <p className="warn font-bold">
          Say which column is {lacking.map((column) => COLUMN_WORDS[column].toLowerCase()).join(', ')}.
        </p>
      )}
      <Meanings
        unknown={unknown}
        baits={baits}
        colours={colours}
        onMeans={(key, id) => {
          const now = { ...kept, means: { ...kept.means, [key]: id } };
          setKept(now);
          remember(now);
        }}
      />
      {orders.length > 0 && (
        <div>
          <h3 className="mb-2">
            {orders.length} {orders.length === 1 ? 'order' : 'orders'}, {lines} {lines === 1 ? 'line' : 'lines'}
          </h3>
          <ul className="ruled border-y border-[var(--rule)] max-h-96 overflow-auto">
            {orders.slice(0, 200).map((order, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: an order of the file is its place in it
              <li key={i} className="py-1.5 grid grid-cols-1 sm:grid-cols-[220px_110px_minmax(0,1fr)] gap-x-4">
                <b>
                  {order.newCustomer ?? customers.find(({ id }) => id === order.customerId)?.name}
                  {order.newCustomer && <span className="warn"> new</span>}
                </b>
                <span>{dayText(order.dueOn)}</span>
                <span className="soft">
                  {order.lines
                    .slice(0, 6)
                    .map(
                      ({ packs, baitId, colourwayId }) =>
                        `${packs} ${baits.find(({ id }) => id === baitId)?.name} ${colours.find(({ id }) => id === colourwayId)?.name}`,
                    )
                    .join(', ')}
                  {order.lines.length > 6 && ` and ${order.lines.length - 6} more`}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
      <LeftOver left={left} />
      <div className="flex gap-3 items-center flex-wrap">
        <button
          type="button"
          className="btn btn-primary btn-lg"
          disabled={orders.length === 0 || add.isPending}
          onClick={() => add.mutate(bodyOfImport(table.name, orders, left))}
        >
          Take {orders.length === 1 ? 'this order' : `these ${orders.length} orders`}
        </button>
        {left.length > 0 && orders.length > 0 && <span className="soft">and keep {left.length} rows for later</span>}
      </div>
      <Refusal error={add.error} />
    </section>
  );
}

interface ColumnsProps {
  table: Table;
  mapping: OrderMapping;
  onMapping(next: OrderMapping): void;
}

/** Which of the table's columns is which. */
function Columns({ table, mapping, onMapping }: ColumnsProps) {
  return (
    <div className="grid grid-cols-2 sm:grid-cols-3 lg:grid-cols-5 gap-3">
      {ORDER_COLUMNS.map((column) => (
        <SelectField<string>
          key={column}
          label={COLUMN_WORDS[column]}
          value={mapping[column] === undefined ? '' : String(mapping[column])}
          options={[
            { value: '', label: NEEDED_COLUMNS.includes(column) ? 'choose' : 'not in it' },
            ...table.headings.map((heading, i) => ({ value: String(i), label: heading || `column ${i + 1}` })),
          ]}
          hint={
            mapping[column] !== undefined
              ? table.rows[0]?.[mapping[column]]?.slice(0, 40)
              : column === 'due'
                ? `in ${usual('dueInDays')} days, a default`
                : ''
          }
          onChange={(value) => {
            const { [column]: _, ...others } = mapping;
            onMapping(value === '' ? others : { ...others, [column]: Number(value) });
          }}
        />
      ))}
    </div>
  );
}

interface MeaningsProps {
  unknown: Map<string, { what: 'bait' | 'colour'; name: string }>;
  baits: { id: string; name: string }[];
  colours: { id: string; name: string }[];
  onMeans(key: string, id: string): void;
}

/** Names of the table that are none of ours: said once, and remembered on this device. */
function Meanings({ unknown, baits, colours, onMeans }: MeaningsProps) {
  if (unknown.size === 0) return null;
  return (
    <div>
      <h3 className="mb-2">What do they mean by</h3>
      <div className="grid grid-cols-1 sm:grid-cols-2 lg:grid-cols-3 gap-3">
        {[...unknown].slice(0, 30).map(([key, { what, name }]) => (
          <SelectField<string>
            key={key}
            label={`${what === 'bait' ? 'Bait' : 'Colour'} “${name}”`}
            value=""
            options={[
              { value: '', label: 'nothing of ours' },
              ...(what === 'bait' ? baits : colours).map((one) => ({ value: one.id, label: one.name })),
            ]}
            onChange={(id) => onMeans(key, id)}
          />
        ))}
      </div>
    </div>
  );
}

function LeftOver({ left }: { left: OrderImport['leftOver'] }) {
  if (left.length === 0) return null;
  return (
    <details open={left.length < 20}>
      <summary className="cursor-pointer font-bold warn">
        {left.length} {left.length === 1 ? 'row is' : 'rows are'} left over
      </summary>
      <ul className="ruled max-h-96 overflow-auto">
        {left.slice(0, 500).map(({ row, cells, why }) => (
          <li key={row} className="py-1 flex flex-wrap gap-x-3">
            <span className="figure">row {row}</span>
            <b>{why}</b>
            <span className="soft wrap-anywhere">{cells.join(' · ')}</span>
          </li>
        ))}
      </ul>
      {left.length > 500 && <p className="soft">and {left.length - 500} more</p>}
    </details>
  );
}

/** The files that were read in last, each taken back in one. */
function Files() {
  const files = useQuery(queries.orderImports).data?.items ?? [];
  const back = useUndoImport();
  if (files.length === 0) return null;
  return (
    <section>
      <h2 className="mb-2">Read in before</h2>
      <ul className="ruled border-y border-[var(--rule)]">
        {files.map((file) => (
          <li key={file.id} className="py-2 flex flex-col gap-1">
            <span className="flex flex-wrap gap-x-4 items-baseline">
              <b>{file.name}</b>
              <span className="soft">{dateText(file.at)}</span>
              {file.takenBackAt ? (
                <span className="soft">taken back</span>
              ) : (
                <>
                  <span className="figure">
                    {file.orders
                      .slice(0, 3)
                      .map(({ code }) => code)
                      .join(', ')}
                    {file.orders.length > 3 && ` … ${file.orders.at(-1)?.code}`}
                  </span>
                  <button
                    type="button"
                    className="btn btn-sm btn-line"
                    disabled={back.isPending}
                    onClick={() => back.mutate(file.id)}
                  >
                    Take all of it back
                  </button>
                </>
              )}
            </span>
            <LeftOver left={file.leftOver} />
          </li>
        ))}
      </ul>
      <Refusal error={back.error} />
    </section>
  );
}
