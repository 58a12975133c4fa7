import { useQuery } from '@tanstack/react-query';
import { type Order, orderPatch } from '../../../contract/orders.ts';
import { isLate } from '../../../core/plan/evening.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { CustomerSheet } from '../../parts/CustomerSheet.tsx';
import { todayIso } from '../../parts/dates.ts';
import { FigureIn, NoteIn, TextIn, TickIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

/** What was agreed, and with whom: the due day, prices, notes, and how to reach them. */
export function Terms({ order }: { order: Order }) {
  const customers = useQuery(queries.customers).data?.items;
  const customer = customers?.find((row) => row.id === order.customerId);
  return (
    <details className="no-print">
      <summary className="cursor-pointer font-bold text-lg">Due day, prices, notes and the customer</summary>
      <div className="grid grid-cols-1 md:grid-cols-2 gap-12 pt-4">
        <OrderTerms order={order} />
        {customer && <CustomerSheet customer={customer} />}
      </div>
    </details>
  );
}

function OrderTerms({ order }: { order: Order }) {
  const { dueOn, notes, gift, lines } = order;
  const sheet = useSheet({
    schema: orderPatch,
    keep: `order/${order.id}`,
    seen: { dueOn, notes, gift, lines: lines.map(({ id, priceMinor }) => ({ id, priceMinor })) },
  });
  const save = useWrite<Order>(
    () => ({ path: `/orders/${order.id}`, method: 'PATCH', version: order.version, body: sheet.values }),
    sheet.done,
  );
  const past = sheet.values.dueOn !== '' && isLate(sheet.values.dueOn, todayIso());
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()}>
      <TextIn at="dueOn" type="date" className="w-52" hint={past ? 'that day is past' : ''} />
      {lines.map((line, i) => (
        <FigureIn
          key={line.id}
          at={`lines.${i}.priceMinor`}
          label={`A pack of ${line.baitName}, ${line.colourwayName}`}
          hint="empty: not known yet"
        />
      ))}
      <TickIn at="gift" />
      <NoteIn at="notes" />
      <Send className="" onlyChanged>
        Keep the terms
      </Send>
    </Sheet>
  );
}
