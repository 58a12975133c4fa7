import type { RecipeItem } from '../../contract/recipes.ts';
import { type Adding, MOMENTS, orderOfAdding } from '../../core/process/adding.ts';
import { useTaste } from './taste.tsx';

type Item = Pick<RecipeItem, 'materialName' | 'materialKind' | 'limitC' | 'turned'>;

/** What goes in when, by this workshop's school; heat-sensitive flake by its limit, or hot where it is wanted turned. */
export function InThisOrder({ items }: { items: Item[] }) {
  const { workshop, text } = useTaste();
  const steps = orderOfAdding(
    items.map(({ materialName, materialKind, ...item }) => ({ name: materialName, kind: materialKind, ...item })),
    workshop,
  );
  const degrees = ({ moment, c }: Adding<unknown>) =>
    c === null ? '' : moment === 'hottest' ? `, over ${text(c, 'temperature')}` : ` to ${text(c, 'temperature')}`;
  const [only] = steps;
  if (!only || (steps.length === 1 && only.items.length === 1)) return null;
  return (
    <section aria-label="In this order">
      <h2 className="mb-1">In this order</h2>
      <ol className="list-decimal pl-5">
        {steps.map((step) => (
          <li key={step.moment} className="py-0.5">
            {MOMENTS[step.moment]}
            {degrees(step)}: <b>{step.items.map(({ name }) => name).join(', ')}</b>
            {step.moment === 'cooled' && <span className="warn"> (hotter than that it turns)</span>}
          </li>
        ))}
      </ol>
    </section>
  );
}
