import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Colourway, Layer } from '../../../contract/colourways.ts';
import { usual } from '../../../core/defaults.ts';
import { accentsOf } from '../../../core/plan/accents.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { queries } from '../../api/queries.ts';
import { NumberField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

const LEAST = { leastMl: usual('leastCupMl'), filmMl: usual('cupFilmMl') };
const USUAL_BAITS = 24;

interface Props {
  colour: Colourway;
  /** mL of each layer in one bait; null: nobody knows. */
  eachMl: (number | null)[];
}

/** Layers that need less than can be cooked: the smallest cup, what else wants of it, and where the rest goes. */
export function AccentsOf({ colour, eachMl }: Props) {
  const { text } = useTaste();
  const [baits, setBaits] = useState<number | null>(USUAL_BAITS);
  const ordered = useQuery(queries.accents).data?.items ?? [];
  if (eachMl.every((ml) => ml === null)) return null;
  const found = accentsOf(
    colour.layers.map((layer: Layer, i) => ({
      recipeId: layer.recipeId,
      colourwayId: colour.id,
      colourwayName: colour.name,
      place: PLACES[layer.place],
      baits: baits ?? 0,
      ml: (eachMl[i] ?? 0) * (baits ?? 0),
    })),
    LEAST,
  );
  const nameOf = (recipeId: string) => colour.layers.find((layer) => layer.recipeId === recipeId)?.recipeName ?? '';
  return (
    <section>
      <h2 className="mb-1">Less than can be cooked</h2>
      <NumberField label="For so many baits" value={baits} onChange={setBaits} min={1} className="w-40" />
      {found.length === 0 && <p>Each of its melts is a cup of its own at that many.</p>}
      <ul className="ruled">
        {found.map((accent) => {
          const others = ordered
            .find((one) => one.recipeId === accent.recipeId)
            ?.parts.filter((part) => part.colourwayId !== colour.id);
          const othersMl = others?.reduce((sum, { ml }) => sum + ml, 0) ?? 0;
          const leftMl = Math.max(0, accent.leftMl - othersMl);
          return (
            <li key={accent.recipeId} className="py-2">
              <b>{nameOf(accent.recipeId)}</b>: <b className="figure">{text(accent.neededMl, 'volume')}</b> go into the
              baits. The smallest cup is <b className="figure">{text(accent.cookMl, 'volume')}</b>{' '}
              <span className="default-mark">default</span>
              {others && others.length > 0 && (
                <span className="block">
                  Open orders want of the same melt:{' '}
                  {others.map((part) => `${part.colourwayName}, ${part.place}, ${text(part.ml, 'volume')}`).join('; ')}.
                  Cook it once for all.
                </span>
              )}
              <span className="block soft">
                {leftMl > 0.5 ? (
                  <>
                    {text(leftMl, 'volume')} are left: warm for the next mold, or into its{' '}
                    <Link to="/rack" className="link">
                      remelt bin
                    </Link>
                    .
                  </>
                ) : (
                  'Nothing of it is left over.'
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
