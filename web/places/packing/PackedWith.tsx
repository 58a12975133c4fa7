import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Packing } from '../../../contract/packing.ts';
import { isCounted, piecesText } from '../../../core/units/counted.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** What can go into or onto a bag, and how much of it at the first tap: a piece, or so many grams. */
const FIRST_G = 1;

/** What leaves the store with each bag beside the bag: a label, oil, scent. */
export function PackedWith({ packing }: { packing: Packing }) {
  const { text } = useTaste();
  const materials = useQuery(queries.materials).data?.items ?? [];
  const set = useWrite<object, { materialId: string; amount: number }>((body) => ({ path: '/pack-with', body }));
  const [open, setOpen] = useState(false);
  const here = new Set(packing.with.map(({ materialId }) => materialId));
  const more = materials.filter(
    ({ id, kind, awayAt }) => ['labels', 'oil', 'eyes', 'salt'].includes(kind) && awayAt === null && !here.has(id),
  );
  const amountText = (kind: string, amount: number) => (isCounted(kind) ? piecesText(amount) : text(amount, 'mass'));
  const step = (kind: string) => (isCounted(kind) ? 1 : 0.5);
  return (
    <section>
      <h2 className="mb-1">With each bag</h2>
      {packing.with.length === 0 && <p className="soft">The bag alone.</p>}
      <ul className="ruled">
        {packing.with.map(({ materialId, name, kind, amount, left }) => (
          <li key={materialId} className="py-1.5 flex gap-2 items-center flex-wrap">
            <span className="flex-1 min-w-32">
              <b>{name}</b>
              <span className={`block text-sm ${left < amount ? 'warn font-bold' : 'soft'}`}>
                {amountText(kind, Math.max(0, left))} left
              </span>
            </span>
            <button
              type="button"
              className="btn btn-line bench-target"
              aria-label={`less ${name}`}
              onClick={() => set.mutate({ materialId, amount: Math.max(0, amount - step(kind)) })}
            >
              −
            </button>
            <span className="figure w-20 text-center">{amountText(kind, amount)}</span>
            <button
              type="button"
              className="btn btn-line bench-target"
              aria-label={`more ${name}`}
              onClick={() => set.mutate({ materialId, amount: amount + step(kind) })}
            >
              +
            </button>
          </li>
        ))}
      </ul>
      {more.length > 0 && !open && (
        <button type="button" className="btn btn-ghost btn-sm mt-1" onClick={() => setOpen(true)}>
          Something more goes with it
        </button>
      )}
      {open && (
        <SelectField<string>
          label="It takes"
          value=""
          options={[{ value: '', label: 'choose' }, ...more.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={(materialId) => {
            const kind = more.find(({ id }) => id === materialId)?.kind ?? 'oil';
            setOpen(false);
            if (materialId) set.mutate({ materialId, amount: isCounted(kind) ? 1 : FIRST_G });
          }}
        />
      )}
      <Refusal error={set.error} />
    </section>
  );
}
