import { type ReactNode, useMemo, useState } from 'react';
import type { Recipe } from '../../../contract/recipes.ts';
import { strengthFor } from '../../../core/colour/dose.ts';
import { meltOfIngredients } from '../../../core/colour/foresee.ts';
import { ingredientsOf } from '../../../core/colour/ingredients.ts';
import { bands, meltOf, type Optics, opacityOf } from '../../../core/colour/light.ts';
import { tried } from '../../../core/failure.ts';
import { thinAndThick } from '../../../core/shape/chords.ts';
import { percentText } from '../../../core/units/show.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { useSeenIn } from '../../parts/plastic/Foreseen.tsx';
import { useChords } from '../../parts/plastic/useChords.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useNextRevision } from './useNextRevision.ts';

/** Kinds that are dosed more or less together: salt and flake stay as they are. */
const COLOURS = new Set(['colourant', 'powder']);
const STEPS = [0.3, 0.5, 0.7, 0.85, 0.95];

/** Where of a bait it is dosed to; the other place follows. */
const PLACES = ['tail', 'body'] as const;

/** A recipe moved to a bait: so much more or less of its colour that its tail, or its body, hides what is wanted. */
export function DoseToBait({ recipe }: { recipe: Recipe }) {
  const { measures, text, say } = useTaste();
  const { meshId, bait } = useSeenIn();
  const { data: chords } = useChords(meshId);
  const [wanted, setWanted] = useState<number | null>(null);
  const [place, setPlace] = useState<(typeof PLACES)[number]>('tail');
  const { items, basisMl } = recipe.revision;
  const now = useMemo(() => {
    if (!chords) return null;
    const { tailMm, bodyMm } = thinAndThick(chords);
    const melt = meltOfIngredients(ingredientsOf(items, basisMl, measures));
    const rest = meltOfIngredients(
      ingredientsOf(
        items.filter((one) => !COLOURS.has(one.materialKind)),
        basisMl,
        measures,
      ),
    );
    const dosed = {
      k: bands((i) => melt.optics.k[i] - rest.optics.k[i]),
      s: bands((i) => melt.optics.s[i] - rest.optics.s[i]),
    };
    return { mm: { tail: tailMm, body: bodyMm }, rest: rest.optics, dosed, optics: melt.optics };
  }, [chords, items, basisMl, measures]);
  const found = now && wanted !== null ? tried(() => strengthFor(now.rest, now.dosed, now.mm[place], wanted)) : null;
  const other = place === 'tail' ? 'body' : 'tail';
  if (!now || !items.some((one) => COLOURS.has(one.materialKind))) return null;
  return (
    <section className="mt-6 flex flex-col gap-2">
      <h2>Dose it to a bait</h2>
      <div className="flex gap-1 flex-wrap">
        {PLACES.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={place === one}
            className={`btn btn-sm ${place === one ? 'btn-primary' : 'btn-line border'}`}
            onClick={() => setPlace(one)}
          >
            its {one}
          </button>
        ))}
      </div>
      <p>
        The {place} of {bait}, {text(now.mm[place], 'length')}, hides {hidesText(now.optics, now.mm[place])} now.
        Wanted:
      </p>
      <div className="flex gap-1 flex-wrap">
        {STEPS.map((step) => (
          <button
            key={step}
            type="button"
            aria-pressed={wanted === step}
            className={`btn btn-sm ${wanted === step ? 'btn-primary' : 'btn-line border'}`}
            onClick={() => setWanted(step)}
          >
            {percentText(step)}
          </button>
        ))}
      </div>
      {found?.refused && <p className="warn font-bold">{say(found.refused)}</p>}
      {found?.value !== undefined && (
        <Moved recipe={recipe} times={found.value} where={`${place} of ${bait}`}>
          Its {other} of {text(now.mm[other], 'length')} then hides about{' '}
          {hidesText(meltOf(now.rest, [{ ...now.dosed, mlPerL: found.value }]), now.mm[other])}.
        </Moved>
      )}
    </section>
  );
}

const hidesText = (melt: Optics, mm: number) => percentText(Math.round(opacityOf(melt, mm) * 100) / 100);
const figure = (value: number) => Number(value.toPrecision(value < 10 ? 2 : 3));

/** What of it that is, and kept as the next revision with one tap. */
function Moved({
  recipe,
  times,
  where,
  children,
}: {
  recipe: Recipe;
  times: number;
  where: string;
  children: ReactNode;
}) {
  const { items } = recipe.revision;
  const moved = items.map(({ materialId, materialName, materialKind, amount, unit, turned }) => ({
    turned,
    materialId,
    materialName,
    isMoved: COLOURS.has(materialKind),
    was: amount,
    unit,
    // Nobody counts parts of a drop; never none of what makes the colour.
    amount: !COLOURS.has(materialKind)
      ? amount
      : unit === 'drop'
        ? Math.max(1, Math.round(amount * times))
        : Number((amount * times).toPrecision(3)),
  }));
  const keep = useNextRevision(recipe);
  const next = {
    items: moved.map(({ materialId, amount, unit, turned }) => ({ materialId, amount, unit, turned })),
    reason: `dosed to the ${where}`,
  };
  return (
    <div className="flex flex-col gap-2">
      <p>
        <b className="figure text-xl">{figure(times)}</b> times its colour:{' '}
        {moved
          .filter((one) => one.isMoved)
          .map(
            ({ materialName, was, amount, unit }) =>
              `${materialName} ${figure(was)} → ${figure(amount)} ${unit === 'drop' && amount !== 1 ? 'drops' : unit}`,
          )
          .join(', ')}
        . {children}
      </p>
      <button
        type="button"
        className="btn btn-line self-start"
        disabled={keep.isPending}
        onClick={() => keep.mutate(next)}
      >
        Keep as v{recipe.revision.number + 1}
      </button>
      <Refusal error={keep.error} />
    </div>
  );
}
