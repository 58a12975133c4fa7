import { type Customer, customerBody } from '../../contract/orders.ts';
import { PRICE_LISTS } from '../../core/plan/prices.ts';
import { useWrite } from '../api/write.ts';
import { PutAway, ThrowOut } from './PutAway.tsx';
import { ChoiceIn, choices, NoteIn, TextIn } from './sheet/In.tsx';
import { Send, Sheet } from './sheet/Sheet.tsx';
import { useSheet } from './sheet/useSheet.ts';
import { LIST_WORDS } from './words/order.ts';

/** How a customer is reached and what they pay. */
export function CustomerSheet({ customer }: { customer: Customer }) {
  const { name, contact, notes, priceList } = customer;
  const sheet = useSheet({
    schema: customerBody,
    keep: `customer/${customer.id}`,
    seen: { name, contact, notes, priceList },
  });
  const save = useWrite<Customer>(
    () => ({ path: `/customers/${customer.id}`, method: 'PATCH', version: customer.version, body: sheet.values }),
    sheet.done,
  );
  return (
    <div className="flex flex-col gap-4">
      <Sheet of={sheet} by={save} onSend={() => save.mutate()}>
        <TextIn at="name" label="Customer" />
        <TextIn at="contact" />
        <ChoiceIn at="priceList" options={choices(PRICE_LISTS, LIST_WORDS)} />
        <NoteIn at="notes" label="Of this customer" />
        <Send className="" onlyChanged>
          Keep the customer
        </Send>
      </Sheet>
      <PutAway kind="customers" row={customer}>
        {customer.orders === 0 && <ThrowOut kind="customers" id={customer.id} />}
      </PutAway>
    </div>
  );
}
