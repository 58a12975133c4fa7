import { Link } from 'react-router';
import type { PlanAsked } from '../../../contract/plan.ts';
import { usual } from '../../../core/defaults.ts';
import type { ProductionPlan } from '../../../core/plan/production.ts';
import { dayText } from '../../parts/dates.ts';
import { useTaste } from '../../parts/taste.tsx';

/** What the store holds too little of for all that is wanted: no evening is promised without it. */
export function ShortInStore({ plan, asked }: { plan: ProductionPlan; asked: PlanAsked }) {
  const { text, money } = useTaste();
  const rows = plan.materials.flatMap(({ materialId, wantedG, shortG }) => {
    const held = asked.materials.find(({ id }) => id === materialId);
    return held ? [{ ...held, wantedG, shortG }] : [];
  });
  if (rows.length === 0) return null;
  return (
    <section aria-label="Short in the store" className="sheet p-4 flex flex-col gap-1.5">
      <ul className="flex flex-col gap-1.5">
        {rows.map(({ id, name, g, wantedG, shortG, comesOn, leadDays, pricePerKgMinor }) => (
          <li key={id}>
            <b className="warn">
              Order {text(shortG, 'mass')} of {name}
            </b>
            {pricePerKgMinor !== null && `, about ${money(Math.round((shortG * pricePerKgMinor) / 1000))}`}: all that is
            wanted takes up to {text(wantedG, 'mass')}, and {text(g, 'mass')} is there. What is more than that is
            planned from <b>{dayText(comesOn)}</b> on, when it can be here
            {leadDays === null && (
              <>
                {' '}
                ({usual('leadDays')} days <span className="default-mark">default</span>)
              </>
            )}
            .
          </li>
        ))}
      </ul>
      <Link to="/store" className="link w-fit">
        Look at the store
      </Link>
    </section>
  );
}
