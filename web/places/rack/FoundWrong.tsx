import { useQuery } from '@tanstack/react-query';
import { addDays, format } from 'date-fns';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import type { Bag, Order } from '../../../contract/orders.ts';
import { usual } from '../../../core/defaults.ts';
import { REASON_IDS, REASONS, type Reason } from '../../../core/yield/grades.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { ComplaintList } from '../../parts/Complaints.tsx';
import { Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { range } from '../../parts/range.ts';

interface Wrong {
  id: string;
  pourId: string;
  moldId: string;
  baits: number;
  reason: Reason;
  note: string;
}

/** Something is wrong with baits of this bag: it is noted against their cup and mold, and another is poured in one tap. */
export function FoundWrong({ bag }: { bag: Bag }) {
  const navigate = useNavigate();
  const told = useQuery(queries.complaintsOfBag(bag.code)).data?.items ?? [];
  const origins = useQuery(queries.origin(bag.code)).data?.items ?? [];
  const [open, setOpen] = useState(false);
  const wrong = told.reduce((sum, { baits }) => sum + baits, 0);
  const remake = useWrite<Order, { dueOn: string; baits: number }>(
    (body) => ({ path: `/bags/${bag.code}/remake`, body }),
    (order) => navigate(`/orders/${order.id}`),
  );
  if (bag.unpacked) return null;
  return (
    <section aria-label="Found wrong" className="flex flex-col gap-2">
      <h2>Found wrong</h2>
      {told.length === 0 && !open && <p className="soft">Nothing was said of it.</p>}
      <ComplaintList items={told} />
      {open ? (
        <Noting bag={bag} origins={origins} onDone={() => setOpen(false)} />
      ) : (
        <div className="flex gap-2 flex-wrap">
          {origins.length > 0 && wrong < bag.baits && (
            <button type="button" className="btn btn-line bench-target" onClick={() => setOpen(true)}>
              Something is wrong with it
            </button>
          )}
          {wrong > 0 && bag.order && (
            <button
              type="button"
              className="btn btn-primary bench-target"
              disabled={remake.isPending}
              onClick={() =>
                remake.mutate({ dueOn: format(addDays(new Date(), usual('dueInDays')), 'yyyy-MM-dd'), baits: wrong })
              }
            >
              {wrong} more for {bag.order.customer}
            </button>
          )}
          {wrong > 0 && bag.order && (
            <span className="soft self-center">
              due in {usual('dueInDays')} days <span className="default-mark">default</span>
            </span>
          )}
        </div>
      )}
      <Refusal error={remake.error} />
    </section>
  );
}

type Origins = NonNullable<ReturnType<typeof useOrigins>>;
const useOrigins = (code: string) => useQuery(queries.origin(code)).data?.items;

function Noting({ bag, origins, onDone }: { bag: Bag; origins: Origins; onDone(): void }) {
  const places = origins.flatMap(({ pourId, pourCode, molds }) =>
    molds.map(({ moldId, moldName }) => ({ value: `${pourId} ${moldId}`, label: `${pourCode}, ${moldName}` })),
  );
  const [place, setPlace] = useState(places[0]?.value ?? '');
  const [reason, setReason] = useState<Reason>('bent');
  const [baits, setBaits] = useState('1');
  const [note, setNote] = useState('');
  const [id] = useState(() => v7());
  const write = useWrite<object, Wrong>((body) => ({ path: `/bags/${bag.code}/complaints`, body }), onDone);
  return (
    <div className="sheet p-4 flex flex-col gap-3 max-w-xl">
      <div className="grid grid-cols-2 gap-3">
        <SelectField
          label="Wrong is"
          value={reason}
          options={REASON_IDS.map((one) => ({ value: one, label: REASONS[one] }))}
          onChange={setReason}
        />
        <SelectField<string>
          label="Of how many"
          value={baits}
          options={range(bag.baits).map((i) => ({ value: String(i + 1), label: `${i + 1} of ${bag.baits}` }))}
          onChange={setBaits}
        />
      </div>
      {places.length > 1 && (
        <SelectField<string> label="They came out of" value={place} options={places} onChange={setPlace} />
      )}
      <TextField label="In their words" value={note} onChange={setNote} />
      <div className="flex gap-2">
        <button
          type="button"
          className="btn btn-primary bench-target"
          disabled={write.isPending}
          onClick={() => {
            const [pourId = '', moldId = ''] = place.split(' ');
            write.mutate({ id, pourId, moldId, baits: Number(baits), reason, note });
          }}
        >
          Note it against the pour
        </button>
        <button type="button" className="btn btn-ghost bench-target" onClick={onDone}>
          Nothing is wrong
        </button>
      </div>
      <Refusal error={write.error} />
    </div>
  );
}
