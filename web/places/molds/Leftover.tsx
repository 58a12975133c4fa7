import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { leftoverFills } from '../../../core/mold/leftover.ts';
import type { PlanInput } from '../../../core/mold/silicone.ts';
import { queries } from '../../api/queries.ts';
import { QuantityField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** Mixed rubber that is left over, and which waiting master it still makes a block of. */
export function Leftover({ like }: { like: PlanInput }) {
  const { text } = useTaste();
  const masters = useQuery(queries.masters).data?.items ?? [];
  const [leftMl, setLeft] = useState<number | null>(null);
  const waiting = masters.flatMap(({ latest: { volumeMl, lengthMm, widthMm, heightMm }, id }) =>
    volumeMl ? [{ id, volumeMl, lengthMm, widthMm, heightMm }] : [],
  );
  const fills = leftMl ? leftoverFills(like, leftMl, waiting).slice(0, 4) : [];
  return (
    <details className="max-w-xl">
      <summary className="cursor-pointer font-bold">Some is left in the cup</summary>
      <div className="flex gap-6 items-start mt-2">
        <QuantityField label="Left over" dimension="volume" value={leftMl} onChange={setLeft} className="w-40" />
        {leftMl !== null && (
          <ul className="pt-1">
            {fills.length === 0 && <li>No master is small enough: pour keys or a spare sprue plug of it.</li>}
            {fills.map(({ id, needMl }) => (
              <li key={id}>
                <Link to={`/molds/plan?master=${id}`} className="link font-bold">
                  {masters.find((row) => row.id === id)?.name}
                </Link>{' '}
                takes <span className="figure">{text(needMl, 'volume')}</span>
              </li>
            ))}
          </ul>
        )}
      </div>
    </details>
  );
}
