import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Complaint } from '../../contract/orders.ts';
import { REASONS } from '../../core/yield/grades.ts';
import { queries } from '../api/queries.ts';
import { useUndo } from '../api/undo.ts';
import { dateText } from './dates.ts';
import { Refusal } from './Fields.tsx';

/** What was found wrong later, one under another; a mistake is taken back. */
export function ComplaintList({ items }: { items: Complaint[] }) {
  const undo = useUndo();
  return (
    <>
      <ul className="ruled">
        {items.map((one) => (
          <li key={one.id} className="py-1.5 flex flex-wrap gap-x-3 items-baseline">
            <b>
              {one.baits} {REASONS[one.reason]}
            </b>
            <Link to={`/bags/${one.bagCode}`} className="link figure">
              {one.bagCode}
            </Link>
            <span>
              {one.customer ? `${one.customer}, ` : ''}
              {dateText(one.at)}
            </span>
            <span className="soft">
              {one.moldName}, {one.pourCode}
            </span>
            {one.note && <span className="w-full">{one.note}</span>}
            <button type="button" className="link text-sm no-print" onClick={() => undo.mutate(one.id)}>
              take back
            </button>
          </li>
        ))}
      </ul>
      <Refusal error={undo.error} />
    </>
  );
}

/** On a mold, or on a colour: what customers found wrong with what came of it. */
export function ComplaintsAbout({ of, id }: { of: 'moldId' | 'colourwayId'; id: string }) {
  const items = useQuery(queries.complaints(of, id)).data?.items ?? [];
  if (items.length === 0) return null;
  const by = new Map<Complaint['reason'], number>();
  for (const { reason, baits } of items) by.set(reason, (by.get(reason) ?? 0) + baits);
  const most = [...by].sort((a, b) => b[1] - a[1]);
  return (
    <section aria-label="What customers found">
      <h2 className="mb-1">What customers found</h2>
      <p className="text-lg font-bold warn">
        {most.map(([reason, baits]) => `${baits} ${REASONS[reason]}`).join(', ')}
      </p>
      <ComplaintList items={items} />
    </section>
  );
}
