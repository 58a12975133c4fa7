import { useQuery } from '@tanstack/react-query';
import { addDays, format } from 'date-fns';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ColourwayRow } from '../../../contract/colourways.ts';
import { inUse } from '../../../contract/fields.ts';
import { type Customer, type Order, orderBody } from '../../../contract/orders.ts';
import type { Bait } from '../../../contract/workshop.ts';
import { isLate } from '../../../core/plan/evening.ts';
import { priceFor } from '../../../core/plan/prices.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { todayIso } from '../../parts/dates.ts';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { ChoiceIn, FigureIn, NoteIn, TextIn, TickIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { Promised } from './Promised.tsx';

interface WantedLine {
  baitId: string;
  colourwayId: string;
  packs: number | null;
  perPack: number | null;
  priceMinor: number | null;
}

interface ByTheme {
  baitId: string;
  theme: string;
  packs: number | null;
  perPack: number | null;
}

interface Typed {
  customerId: string;
  newCustomer: { name: string; contact: string };
  dueOn: string;
  notes: string;
  gift: boolean;
  lines: WantedLine[];
  /** Of a theme and no colour yet. */
  tastes: ByTheme[];
}

const SOMEBODY_NEW = 'new';

const bodyOf = ({ customerId, newCustomer, ...order }: Typed) =>
  customerId === SOMEBODY_NEW ? { newCustomer, ...order } : { customerId, ...order };

export function NewOrder() {
  const all = [
    useQuery(queries.baits).data,
    useQuery(queries.colourways).data,
    useQuery(queries.customers).data,
  ] as const;
  if (!all[0] || !all[1] || !all[2]) return <Waiting />;
  const [baits, colours, customers] = [inUse(all[0].items), inUse(all[1].items), inUse(all[2].items)];
  const [bait, recipe] = [baits[0], colours[0]];
  if (!bait)
    return (
      <Page title="Take an order" tab="Take an order">
        <Empty
          say="An order needs a bait."
          then="Measure a master, or add a mold you have."
          to="/masters/new"
          action="Measure a master"
        />
      </Page>
    );
  if (!recipe)
    return (
      <Page title="Take an order" tab="Take an order">
        <Empty
          say="An order needs a colour."
          then="Write one recipe first."
          to="/colours/new"
          action="Write a recipe"
        />
      </Page>
    );
  return (
    <Page
      title="Take an order"
      tab="Take an order"
      under="Packs of a bait in a colour. What is short, and what to pour, follows at once."
    >
      <OrderSheet baits={baits} colours={colours} customers={customers} />
    </Page>
  );
}

interface Known {
  baits: Bait[];
  colours: ColourwayRow[];
  customers: Customer[];
}

/** A bait's price as a customer pays it. */
function usePrices(customers: Customer[]) {
  const { workshop } = useTaste();
  return ({ priceMinor }: Bait, customerId: string) =>
    priceFor(customers.find(({ id }) => id === customerId)?.priceList ?? 'private', priceMinor, workshop);
}

type PriceOf = ReturnType<typeof usePrices>;

/** Prices that nobody typed are those of who pays them. */
const pricedFor = (lines: WantedLine[], baits: Bait[], priceOf: PriceOf, before: string, now: string) =>
  lines.map((line) => {
    const bait = baits.find((one) => one.id === line.baitId);
    return bait && line.priceMinor === priceOf(bait, before) ? { ...line, priceMinor: priceOf(bait, now) } : line;
  });

function OrderSheet({ baits, colours, customers }: Known) {
  const navigate = useNavigate();
  const priceOf = usePrices(customers);
  const lineOf = (bait: Bait): WantedLine => ({
    baitId: bait.id,
    colourwayId: colours[0]?.id ?? '',
    packs: 1,
    perPack: bait.packCount,
    priceMinor: priceOf(bait, customers[0]?.id ?? ''),
  });
  const [begun] = useState<Typed>(() => ({
    customerId: customers[0]?.id ?? SOMEBODY_NEW,
    newCustomer: { name: '', contact: '' },
    dueOn: format(addDays(new Date(), 7), 'yyyy-MM-dd'),
    notes: '',
    gift: false,
    lines: [lineOf(baits[0] as Bait)],
    tastes: [],
  }));
  const sheet = useSheet<Typed>({ schema: orderBody, keep: 'order', seen: begun, body: bodyOf });
  const { customerId, dueOn, lines } = sheet.values;
  // What was begun before there were any.
  const tastes = sheet.values.tastes ?? [];
  const all = [...lines, ...tastes];
  const add = useWrite<Order>(
    () => ({ path: '/orders', body: bodyOf(sheet.values) }),
    (order) => {
      sheet.done();
      navigate(`/orders/${order.id}`);
    },
  );
  const total = all.every((line) => line.packs !== null && line.perPack !== null)
    ? all.reduce((sum, line) => sum + (line.packs ?? 0) * (line.perPack ?? 0), 0)
    : null;
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="flex flex-col gap-5 max-w-4xl">
      <div className="grid grid-cols-2 sm:grid-cols-3 gap-4">
        <ChoiceIn
          at="customerId"
          options={[
            ...customers.map((row) => ({ value: row.id, label: row.name })),
            { value: SOMEBODY_NEW, label: 'somebody new…' },
          ]}
          onPicked={(id) => sheet.set('lines', pricedFor(lines, baits, priceOf, customerId, id))}
        />
        {customerId === SOMEBODY_NEW && <TextIn at="newCustomer.name" />}
        {customerId === SOMEBODY_NEW && <TextIn at="newCustomer.contact" />}
        <TextIn
          at="dueOn"
          type="date"
          hint={dueOn !== '' && isLate(dueOn, todayIso()) ? 'that day is past: late from the start' : ''}
        />
      </div>
      <div className="flex flex-col gap-2">
        {lines.map((line, i) => (
          <LineFields
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place on the sheet
            key={i}
            at={`lines.${i}`}
            baits={baits}
            colours={colours}
            onBait={(id) => {
              const bait = baits.find((one) => one.id === id);
              if (bait)
                sheet.set(`lines.${i}`, {
                  ...line,
                  baitId: id,
                  perPack: bait.packCount,
                  priceMinor: priceOf(bait, customerId),
                });
            }}
            onOut={all.length > 1 ? () => sheet.takeOut('lines', i) : undefined}
          />
        ))}
        {tastes.map((wish, i) => (
          <ThemeFields
            // biome-ignore lint/suspicious/noArrayIndexKey: a wish is its place on the sheet
            key={i}
            at={`tastes.${i}`}
            baits={baits}
            onBait={(id) => {
              const bait = baits.find((one) => one.id === id);
              if (bait) sheet.set(`tastes.${i}`, { ...wish, baitId: id, perPack: bait.packCount });
            }}
            onOut={() => sheet.takeOut('tastes', i)}
          />
        ))}
        <div className="flex gap-2 flex-wrap">
          <button
            type="button"
            className="btn btn-sm btn-line"
            onClick={() => sheet.set('lines', [...lines, lineOf(baits[0] as Bait)])}
          >
            One more line
          </button>
          <button
            type="button"
            className="btn btn-sm btn-line"
            onClick={() => {
              const { baitId, packs, perPack } = lineOf(baits[0] as Bait);
              sheet.set('tastes', [...tastes, { baitId, theme: '', packs, perPack }]);
            }}
          >
            One by taste
          </button>
        </div>
      </div>
      <NoteIn at="notes" rows={2} />
      <TickIn at="gift" />
      <p className="figure text-2xl">{total ?? '—'} baits</p>
      <Promised lines={lines} dueOn={dueOn} onTake={(day) => sheet.set('dueOn', day)} />
      <Send>Keep this order</Send>
    </Sheet>
  );
}

interface LineProps {
  at: string;
  baits: Bait[];
  colours: ColourwayRow[];
  onBait(id: string): void;
  onOut: (() => void) | undefined;
}

function LineFields({ at, baits, colours, onBait, onOut }: LineProps) {
  return (
    <div className="grid grid-cols-2 lg:grid-cols-[90px_1fr_1fr_130px_130px_auto] gap-3 items-start">
      <FigureIn at={`${at}.packs`} />
      <ChoiceIn
        at={`${at}.baitId`}
        options={baits.map((one) => ({ value: one.id, label: one.name }))}
        onPicked={onBait}
      />
      <ChoiceIn at={`${at}.colourwayId`} options={colours.map((one) => ({ value: one.id, label: one.name }))} />
      <FigureIn at={`${at}.perPack`} />
      <FigureIn at={`${at}.priceMinor`} hint="empty: not known yet" />
      <button
        type="button"
        className="btn btn-ghost btn-sm mt-7"
        aria-label="Take this line out"
        disabled={!onOut}
        onClick={onOut}
      >
        ✕
      </button>
    </div>
  );
}

interface ThemeProps {
  at: string;
  baits: Bait[];
  onBait(id: string): void;
  onOut(): void;
}

/** A bait of a theme and no colour: three are proposed once the order is kept. */
function ThemeFields({ at, baits, onBait, onOut }: ThemeProps) {
  return (
    <div className="grid grid-cols-2 lg:grid-cols-[90px_1fr_2fr_130px_auto] gap-3 items-start">
      <FigureIn at={`${at}.packs`} />
      <ChoiceIn
        at={`${at}.baitId`}
        options={baits.map((one) => ({ value: one.id, label: one.name }))}
        onPicked={onBait}
      />
      <TextIn at={`${at}.theme`} hint="three are proposed, and approved by a picture" />
      <FigureIn at={`${at}.perPack`} />
      <button type="button" className="btn btn-ghost btn-sm mt-7" aria-label="Take this wish out" onClick={onOut}>
        ✕
      </button>
    </div>
  );
}
