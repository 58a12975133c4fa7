import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { keepBody, type Recipe } from '../../../contract/recipes.ts';
import { meltOfIngredients } from '../../../core/colour/foresee.ts';
import type { Matched, MatchInput } from '../../../core/colour/match.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { type Bottle, dropsText } from '../../parts/plastic/bottles.ts';
import { Wedge } from '../../parts/plastic/Wedge.tsx';
import { TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { LACKING, seenAs } from '../../parts/words/colour.ts';
import { linesOf, type Replacing, replaced } from './matched.ts';
import { useNextRevision } from './useNextRevision.ts';

interface Props {
  found: Matched;
  wish: MatchInput;
  wanted: string;
  here: Bottle[];
  replacing?: Replacing;
  thickText: string;
}

/** What was found: beside what was wanted, how far off, which drops, and kept with one tap. */
export function Nearest({ found, wish, wanted, here, replacing, thickText }: Props) {
  const of = (id: string) => here.find((one) => one.material.id === id)?.material;
  const melt = useMemo(() => {
    const dosed = found.items.flatMap(({ id, mlPerL }) => {
      const one = here.find((row) => row.material.id === id);
      return one
        ? [
            {
              ...one.material,
              optics: one.material.step?.optics ?? null,
              mlPerL,
              gPerL: 0,
              learnt: one.material.learnt,
            },
          ]
        : [];
    });
    return meltOfIngredients(dosed, { k: [...wish.base.k], s: [...wish.base.s] });
  }, [found, here, wish.base]);
  return (
    <div className="grid grid-cols-1 lg:grid-cols-[340px_minmax(0,1fr)] gap-10">
      <section className="flex flex-col gap-3">
        <div
          className="flex h-28 border border-[var(--edge)]"
          role="img"
          aria-label={`Wanted ${wanted}, made ${found.hex}`}
        >
          <div className="flex-1" style={{ background: wanted }} />
          <div className="flex-1" style={{ background: found.hex }} />
        </div>
        <p className="flex justify-between label-small">
          <span>wanted</span>
          <span>made, {thickText} over white</span>
        </p>
        <p>
          ΔE <b className="figure text-3xl">{found.deltaE00.toFixed(1)}</b> {seenAs(found.deltaE00)}
        </p>
        {found.lacking && <p className="warn font-bold">Nothing in store makes it {LACKING[found.lacking]}.</p>}
        {found.cutOff && <p className="warn">Time ran out before all was tried: the best so far.</p>}
        <ul className="ruled border-y border-[var(--rule)]">
          {found.items.map(({ id, drops }) => (
            <li key={id} className="flex gap-3 items-baseline py-2">
              <span
                className="w-4 h-4 rounded-full border border-[var(--ink)] shrink-0"
                style={{ background: of(id)?.hex ?? undefined }}
              />
              <span className="flex-1 font-bold">{of(id)?.name}</span>
              <Amount bottle={here.find((one) => one.material.id === id)} drops={drops} />
            </li>
          ))}
          {found.items.length === 0 && (
            <li className="py-2">
              {replacing ? 'Nothing: without it is nearest.' : 'Nothing: plain plastic is nearest.'}
            </li>
          )}
        </ul>
        {replacing ? (
          <AsNextRevision replacing={replacing} found={found} here={here} />
        ) : (
          found.items.length > 0 && <AsRecipe found={found} here={here} batchMl={wish.batchMl} />
        )}
        {melt.byLook.length > 0 && (
          <p className="text-sm">
            <span className="default-mark">default</span> {melt.byLook.join(', ')}: never measured, so only as near as
            its look.
          </p>
        )}
      </section>
      <Wedge melt={melt} />
    </div>
  );
}

function Amount({ bottle, drops }: { bottle: Bottle | undefined; drops: number }) {
  if (!bottle) return null;
  const { figure, unit } = dropsText(bottle, drops);
  return (
    <span>
      <b className="figure text-3xl">{figure}</b> {unit}
    </span>
  );
}

function AsRecipe({ found, here, batchMl }: { found: Matched; here: Bottle[]; batchMl: number }) {
  const navigate = useNavigate();
  const [begun] = useState({ name: '' });
  const sheet = useSheet<{ name: string }>({
    schema: keepBody,
    keep: 'match',
    seen: begun,
    body: (values) => ({ ...values, hex: found.hex }),
  });
  const keep = useWrite<Recipe>(
    () => ({
      path: '/recipes',
      body: {
        name: sheet.values.name,
        hex: found.hex,
        notes: '',
        basisMl: batchMl,
        items: linesOf(found, here),
        reason: 'matched',
      },
    }),
    (recipe) => {
      sheet.done();
      navigate(`/colours/${recipe.id}`);
    },
  );
  return (
    <Sheet of={sheet} by={keep} onSend={() => keep.mutate()} className="flex flex-col gap-2">
      <TextIn at="name" />
      <Send>Keep it</Send>
    </Sheet>
  );
}

function AsNextRevision({ replacing, found, here }: { replacing: Replacing; found: Matched; here: Bottle[] }) {
  const { recipe, name } = replacing;
  const keep = useNextRevision(recipe);
  const next = { items: replaced(replacing, linesOf(found, here)), reason: `without ${name}` };
  return (
    <div>
      <button type="button" className="btn btn-primary" disabled={keep.isPending} onClick={() => keep.mutate(next)}>
        Keep as v{recipe.revision.number + 1} of {recipe.name}
      </button>
      <Refusal error={keep.error} />
    </div>
  );
}
