import { useQuery } from '@tanstack/react-query';
import { Star } from 'lucide-react';
import { useId } from 'react';
import { Link } from 'react-router';
import { type Colourway, marksPatch } from '../../../contract/colourways.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dayText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

/** A star, and the family that a colour belongs to. */
export function Marks({ id }: { id: string }) {
  const { data: colour } = useQuery(queries.colourway(id));
  return colour ? <MarksOf key={colour.id} colour={colour} /> : null;
}

function MarksOf({ colour }: { colour: Colourway }) {
  const known = useQuery(queries.colourways).data?.items ?? [];
  const families = [...new Set(known.map(({ family }) => family).filter((one) => one !== ''))].sort();
  const listId = useId();
  const path = `/colourways/${colour.id}`;
  const star = useWrite<Colourway>(() => ({
    path,
    method: 'PATCH',
    version: colour.version,
    body: { favourite: !colour.favourite },
  }));
  const sheet = useSheet({ schema: marksPatch, keep: `colour/${colour.id}/marks`, seen: { family: colour.family } });
  const save = useWrite<Colourway>(
    () => ({ path, method: 'PATCH', version: colour.version, body: { family: sheet.values.family } }),
    sheet.done,
  );
  return (
    <section className="flex flex-col gap-2 no-print">
      <button
        type="button"
        className="link self-start flex gap-2 items-center"
        aria-pressed={colour.favourite}
        disabled={star.isPending}
        onClick={() => star.mutate()}
      >
        <Star size={18} fill={colour.favourite ? 'currentColor' : 'none'} aria-hidden="true" />
        {colour.favourite ? 'a favourite' : 'make it a favourite'}
      </button>
      <Refusal error={star.error} />
      <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="flex flex-col gap-1 items-start">
        <TextIn at="family" className="w-full" hint="such as greens" options={listId} />
        <datalist id={listId}>
          {families.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
        <Send className="btn-sm" onlyChanged>
          Keep
        </Send>
      </Sheet>
    </section>
  );
}

/** Where a colour is used: in colours of layers, open orders and on the rack. */
export function WhereUsed({ id }: { id: string }) {
  const { data } = useQuery(queries.uses(id));
  if (!data || data.layered.length + data.orders.length + data.rack.length === 0) return null;
  return (
    <section className="no-print">
      <h2 className="mb-1">Where it is used</h2>
      <ul className="ruled">
        {data.layered.map((one) => (
          <li key={`${one.id} ${one.place}`} className="py-1">
            <Link to={`/colours/${one.id}`} className="link">
              {one.name}
            </Link>
            , its {PLACES[one.place]}
          </li>
        ))}
        {data.orders.map((one) => (
          <li key={one.id} className="py-1">
            <Link to={`/orders/${one.id}`} className="link">
              {one.customer} <span className="figure">{one.code}</span>
            </Link>
            , due {dayText(one.dueOn)}
          </li>
        ))}
        {data.rack.map((one) => (
          <li key={one.id} className="py-1">
            <b className="figure">{one.baits}</b> {one.name} on the rack
          </li>
        ))}
      </ul>
    </section>
  );
}
