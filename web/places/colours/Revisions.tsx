import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import type { Recipe } from '../../../contract/recipes.ts';
import { usual } from '../../../core/defaults.ts';
import { queries } from '../../api/queries.ts';
import { dateText } from '../../parts/dates.ts';
import { useTaste } from '../../parts/taste.tsx';
import { apart, changesOf, likeIt, lookOf } from './compared.ts';

/** Each revision by its look, what was changed for it, and how far that moved the colour. */
export function Revisions({ recipe }: { recipe: Recipe }) {
  const { measures, text } = useTaste();
  const rows = useMemo(
    () =>
      recipe.revisions.map((revision, i) => {
        const before = recipe.revisions[i + 1];
        return {
          revision,
          look: lookOf(revision, measures),
          changes: before ? changesOf(before, revision) : [],
          off: before ? apart(before, revision, measures) : null,
        };
      }),
    [recipe, measures],
  );
  return (
    <section>
      <h2 className="mb-1">Revisions</h2>
      <ul className="ruled">
        {rows.map(({ revision, look, changes, off }) => (
          <li key={revision.id} className="flex gap-3 py-1.5 text-sm">
            <span
              className="w-7 h-7 mt-0.5 border border-[var(--edge)] shrink-0"
              style={{ background: look ?? 'none' }}
              title={look ? `${text(usual('matchedAtMm'), 'length')} over white` : 'not known how it looks'}
            />
            <span>
              <b className="figure">v{revision.number}</b> {revision.reason}{' '}
              <span className="soft">{dateText(revision.createdAt)}</span>
              {changes.map((change) => (
                <span key={change} className="block soft">
                  {change}
                </span>
              ))}
              {off !== null && (
                <span className="block">
                  ΔE <b className="figure">{off.toFixed(1)}</b> from v{revision.number - 1}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Recipes that come out nearly the same: one of them may do for both. */
export function NearlyTheSame({ recipe }: { recipe: Recipe }) {
  const { measures } = useTaste();
  const recipes = useQuery(queries.recipes).data?.items;
  const like = useMemo(() => likeIt(recipe, inUse(recipes ?? []), measures), [recipe, recipes, measures]);
  return like.map(({ recipe: other, off }) => (
    <p key={other.id} className="mt-3">
      Nearly the same as{' '}
      <Link to={`/colours/${other.id}`} className="link font-bold">
        {other.name}
      </Link>
      : ΔE {off.toFixed(1)} at the most, thin or thick.
    </p>
  ));
}
