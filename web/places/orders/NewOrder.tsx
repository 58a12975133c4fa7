import { useQuery } from '@tanstack/react-query';
import { addDays, format } from 'date-fns';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Order } from '../../../contract/orders.ts';
import { isLate } from '../../../core/plan/evening.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { todayIso } from '../../parts/dates.ts';
import { NumberField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';

interface Row {
  key: number;
  baitId: string;
  recipeId: string;
  packs: number | null;
  perPack: number | null;
}
let nextKey = 1;

export function NewOrder() {
  const navigate = useNavigate();
  const baits = useQuery(queries.baits).data?.items;
  const recipes = useQuery(queries.recipes).data?.items;
  const customers = useQuery(queries.customers).data?.items;
  const [customerId, setCustomerId] = useState<string>();
  const [newName, setNewName] = useState('');
  const [contact, setContact] = useState('');
  const [dueOn, setDue] = useState(() => format(addDays(new Date(), 7), 'yyyy-MM-dd'));
  const past = dueOn !== '' && isLate(dueOn, todayIso());
  const [notes, setNotes] = useState('');
  const [rows, setRows] = useState<Row[]>([]);
  const chosen = customerId ?? customers?.[0]?.id ?? 'new';
  const add = useWrite<Order>(
    () => ({
      path: '/orders',
      body: {
        ...(chosen === 'new' ? { newCustomer: { name: newName, contact } } : { customerId: chosen }),
        dueOn,
        notes,
        lines: shown.map(({ baitId, recipeId, packs, perPack }) => ({ baitId, recipeId, packs, perPack })),
      },
    }),
    (order) => navigate(`/orders/${order.id}`),
  );
  if (!baits || !recipes || !customers) return <Waiting />;
  const [bait, recipe] = [baits[0], recipes[0]];
  if (!bait || !recipe) {
    return (
      <Page title="Take an order" tab="Take an order">
        {bait ? (
          <Empty
            say="An order needs a colour."
            then="Write one recipe first."
            to="/colours/new"
            action="Write a recipe"
          />
        ) : (
          <Empty
            say="An order needs a bait."
            then="Measure a master, or add a mold you have."
            to="/masters/new"
            action="Measure a master"
          />
        )}
      </Page>
    );
  }
  const fresh = (): Row => ({
    key: nextKey++,
    baitId: bait.id,
    recipeId: recipe.id,
    packs: 1,
    perPack: bait.packCount,
  });
  const shown = rows.length > 0 ? rows : [{ ...fresh(), key: 0 }];
  const set = (key: number, change: Partial<Row>) =>
    setRows(shown.map((row) => (row.key === key ? { ...row, ...change } : row)));
  const ready = dueOn && shown.every((row) => row.packs && row.perPack) && (chosen !== 'new' || newName.trim());
  const total = shown.reduce((sum, row) => sum + (row.packs ?? 0) * (row.perPack ?? 0), 0);
  return (
    <Page
      title="Take an order"
      tab="Take an order"
      under="Packs of a bait in a colour. What is short, and what to pour, follows at once."
    >
      <form
        className="flex flex-col gap-5 max-w-4xl"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) add.mutate();
        }}
      >
        <div className="grid grid-cols-2 sm:grid-cols-3 gap-4">
          <SelectField
            label="Customer"
            value={chosen}
            options={[
              ...customers.map((row) => ({ value: row.id, label: row.name })),
              { value: 'new', label: 'somebody new…' },
            ]}
            onChange={setCustomerId}
          />
          {chosen === 'new' && <TextField label="Name" value={newName} onChange={setNewName} />}
          {chosen === 'new' && <TextField label="How to reach them" value={contact} onChange={setContact} />}
          <TextField
            label="Due"
            type="date"
            value={dueOn}
            onChange={setDue}
            hint={past ? 'that day is past: late from the start' : ''}
          />
        </div>
        <div className="flex flex-col gap-2">
          {shown.map((row) => (
            <div key={row.key} className="grid grid-cols-2 lg:grid-cols-[90px_1fr_1fr_110px_auto] gap-3 items-start">
              <NumberField label="Packs" value={row.packs} onChange={(packs) => set(row.key, { packs })} min={1} />
              <SelectField
                label="Bait"
                value={row.baitId}
                options={baits.map((one) => ({ value: one.id, label: one.name }))}
                onChange={(baitId) =>
                  set(row.key, { baitId, perPack: baits.find((one) => one.id === baitId)?.packCount ?? row.perPack })
                }
              />
              <SelectField
                label="Colour"
                value={row.recipeId}
                options={recipes.map((one) => ({ value: one.id, label: one.name }))}
                onChange={(recipeId) => set(row.key, { recipeId })}
              />
              <NumberField
                label="To a pack"
                value={row.perPack}
                onChange={(perPack) => set(row.key, { perPack })}
                min={1}
              />
              <button
                type="button"
                className="btn btn-ghost btn-sm mt-7"
                aria-label="Take this line out"
                disabled={shown.length === 1}
                onClick={() => setRows(shown.filter((one) => one.key !== row.key))}
              >
                ✕
              </button>
            </div>
          ))}
          <button type="button" className="btn btn-sm btn-line self-start" onClick={() => setRows([...shown, fresh()])}>
            One more line
          </button>
        </div>
        <TextField label="Notes" value={notes} onChange={setNotes} />
        <p className="figure text-2xl">{total} baits</p>
        <Refusal error={add.error} />
        <button type="submit" className="btn btn-primary btn-lg self-start" disabled={!ready || add.isPending}>
          Keep this order
        </button>
      </form>
    </Page>
  );
}
