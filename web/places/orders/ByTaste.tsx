import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { inUse } from '../../../contract/fields.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Order } from '../../../contract/orders.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import { approveBody, type Proposal, type TasteWish, tasteBody } from '../../../contract/tastes.ts';
import type { Bait } from '../../../contract/workshop.ts';
import type { Melt } from '../../../core/colour/foresee.ts';
import { tasteOf } from '../../../core/colour/taste.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { BaitInPlastic } from '../../parts/plastic/BaitInPlastic.tsx';
import { lineOf, meltOfItems, meltOfLines } from '../../parts/plastic/melts.ts';
import { useChords } from '../../parts/plastic/useChords.ts';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { threeFor } from './proposals.ts';

/** Ordered by a theme and no colour: three proposals out of book and store, shown on the bait, approved by a picture. */
export function ByTaste({ order }: { order: Order }) {
  const wishes = useQuery(queries.tastes(order.id)).data?.items ?? [];
  const materials = useQuery(queries.materials).data?.items;
  const recipes = useQuery(queries.recipes).data?.items;
  const baits = inUse(useQuery(queries.baits).data?.items ?? []);
  const [asking, setAsking] = useState(false);
  const closed = order.sentAt !== null || order.cancelledAt !== null;
  const open = wishes.filter((wish) => wish.orderLineId === null && wish.awayAt === null);
  const put = wishes.filter((wish) => wish.orderLineId === null && wish.awayAt !== null);
  if (!materials || !recipes || (closed && open.length === 0)) return null;
  return (
    <section className="no-print flex flex-col gap-4">
      <div className="flex justify-between items-baseline">
        {open.length + put.length > 0 || asking ? <h2>By taste</h2> : <span />}
        {!closed && baits.length > 0 && (
          <button type="button" className="link" aria-expanded={asking} onClick={() => setAsking(!asking)}>
            a bait without a colour
          </button>
        )}
      </div>
      {asking && <NewWish orderId={order.id} baits={baits} onDone={() => setAsking(false)} />}
      {open.map((wish) => (
        <Wish key={wish.id} wish={wish} materials={materials} recipes={recipes} />
      ))}
      {put.map((wish) => (
        <PutBack key={wish.id} wish={wish} />
      ))}
    </section>
  );
}

interface WishTyped {
  baitId: string;
  theme: string;
  packs: number | null;
  perPack: number | null;
}

function NewWish({ orderId, baits, onDone }: { orderId: string; baits: Bait[]; onDone(): void }) {
  const [begun] = useState<WishTyped>({
    baitId: baits[0]?.id ?? '',
    theme: '',
    packs: 1,
    perPack: baits[0]?.packCount ?? null,
  });
  const sheet = useSheet<WishTyped>({ schema: tasteBody, keep: `order/${orderId}/taste`, seen: begun });
  const add = useWrite(
    () => ({ path: `/orders/${orderId}/tastes`, body: sheet.values }),
    () => {
      sheet.startAfresh();
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="flex flex-wrap gap-3 items-start">
      <FigureIn at="packs" className="w-24" />
      <ChoiceIn
        at="baitId"
        className="w-48"
        options={baits.map((one) => ({ value: one.id, label: one.name }))}
        onPicked={(id) => sheet.set('perPack', baits.find((one) => one.id === id)?.packCount ?? null)}
      />
      <TextIn at="theme" className="w-80" hint="such as: like a shrimp, for muddy water" autoFocus />
      <FigureIn at="perPack" className="w-28" />
      <div className="mt-5">
        <Send className="">Keep it</Send>
      </div>
    </Sheet>
  );
}

/** The melt of a proposal, as it is foreseen. */
function useMelt(proposal: Proposal, materials: Material[], recipes: RecipeRow[]): Melt | null {
  const { measures, workshop } = useTaste();
  const { dropsPerMl } = workshop;
  return useMemo(() => {
    if (proposal.from === 'book') {
      const recipe = recipes.find((one) => one.id === proposal.recipeId);
      return recipe ? meltOfItems(recipe.revision.items, recipe.revision.basisMl, measures) : null;
    }
    const lines = proposal.items.flatMap(({ materialId, amount, unit }) => {
      const material = materials.find((one) => one.id === materialId);
      return material ? [lineOf(material, { amount, unit, bottleStrength: 1 }, dropsPerMl)] : [];
    });
    return meltOfLines(lines, proposal.basisMl, measures);
  }, [proposal, materials, recipes, measures, dropsPerMl]);
}

interface Here {
  materials: Material[];
  recipes: RecipeRow[];
}

function Wish({ wish, materials, recipes }: { wish: TasteWish } & Here) {
  const masters = useQuery(queries.masters).data?.items ?? [];
  const meshId = masters.find((one) => one.baitId === wish.baitId && one.latest.mesh?.volumeMl)?.latest.meshId ?? null;
  const [chosen, setChosen] = useState(0);
  const heard = useMemo(() => tasteOf(wish.theme), [wish.theme]);
  const putAway = useWrite(() => ({
    path: `/tastes/${wish.id}`,
    method: 'PATCH',
    version: wish.version,
    body: { away: true },
  }));
  return (
    <div className="flex flex-col gap-3 border-t-2 border-[var(--rule)] pt-3">
      <p className="text-lg">
        <b className="figure">{wish.packs}</b> × {wish.perPack} {wish.baitName}: “{wish.theme}”
      </p>
      {heard.unheard.length > 0 && (
        <p className="soft text-sm">
          Of this nothing is known here: {heard.unheard.join(', ')}. Three different ones are proposed all the same.
        </p>
      )}
      <Propose wish={wish} materials={materials} recipes={recipes} />
      {wish.proposals.length > 0 && (
        <>
          <div className="grid grid-cols-1 sm:grid-cols-3 gap-4" role="radiogroup" aria-label="Proposals">
            {wish.proposals.map((proposal, i) => (
              <Shown
                // biome-ignore lint/suspicious/noArrayIndexKey: a proposal is its place
                key={i}
                proposal={proposal}
                meshId={meshId}
                chosen={chosen === i}
                onChoose={() => setChosen(i)}
                materials={materials}
                recipes={recipes}
              />
            ))}
          </div>
          <p className="label-small">Send them as a picture, or pour a puck; add the picture that was said yes to.</p>
          <Photos aboutType="taste_wish" aboutId={wish.id} />
          <Approve key={`${wish.version} ${chosen}`} wish={wish} chosen={chosen} recipes={recipes} />
        </>
      )}
      <div>
        <button type="button" className="link" disabled={putAway.isPending} onClick={() => putAway.mutate(undefined)}>
          put this wish away
        </button>
        <Refusal error={putAway.error} />
      </div>
    </div>
  );
}

function PutBack({ wish }: { wish: TasteWish }) {
  const back = useWrite(() => ({
    path: `/tastes/${wish.id}`,
    method: 'PATCH',
    version: wish.version,
    body: { away: false },
  }));
  return (
    <p className="soft">
      “{wish.theme}” is put away.{' '}
      <button type="button" className="link" disabled={back.isPending} onClick={() => back.mutate(undefined)}>
        take it up again
      </button>
      <Refusal error={back.error} />
    </p>
  );
}

/** Works three out, and keeps them with the wish: what was shown to a customer stays what it was. */
function Propose({ wish, materials, recipes }: { wish: TasteWish } & Here) {
  const taste = useTaste();
  const [isBusy, setBusy] = useState(false);
  const [problem, setProblem] = useState<unknown>(null);
  const keep = useWrite<unknown, Proposal[]>((made) => ({
    path: `/tastes/${wish.id}/proposals`,
    method: 'PUT',
    version: wish.version,
    body: { proposals: made },
  }));
  const work = async () => {
    setBusy(true);
    setProblem(null);
    try {
      keep.mutate(await threeFor(wish.theme, materials, recipes, taste));
    } catch (error) {
      setProblem(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div>
      <button
        type="button"
        className={`btn ${wish.proposals.length > 0 ? 'btn-line' : 'btn-primary'}`}
        disabled={isBusy || keep.isPending}
        onClick={() => void work()}
      >
        {isBusy ? 'Working three out …' : wish.proposals.length > 0 ? 'Propose three anew' : 'Propose three'}
      </button>
      <Refusal error={problem ?? keep.error} />
    </div>
  );
}

interface ShownProps extends Here {
  proposal: Proposal;
  meshId: string | null;
  chosen: boolean;
  onChoose(): void;
}

function Shown({ proposal, meshId, chosen, onChoose, materials, recipes }: ShownProps) {
  const melt = useMelt(proposal, materials, recipes);
  const { data: chords } = useChords(meshId, 'small');
  const recipe = proposal.from === 'book' ? recipes.find((one) => one.id === proposal.recipeId) : undefined;
  const title = recipe ? recipe.name : 'new, of what is in store';
  return (
    // biome-ignore lint/a11y/useSemanticElements: a picture to choose, its name under it
    <button
      type="button"
      role="radio"
      aria-checked={chosen}
      onClick={onChoose}
      className={`flex flex-col text-left p-2 border-2 rounded ${chosen ? 'border-[var(--ink)]' : 'border-transparent'}`}
    >
      {melt && chords ? (
        <BaitInPlastic chords={chords} melt={melt} ground="white" label={`A bait of ${title}`} />
      ) : (
        <span
          className="block h-24 border border-[var(--edge)]"
          style={{ background: recipe?.hex ?? (proposal.from === 'store' ? proposal.hex : 'none') }}
        />
      )}
      <b className="block mt-1">{title}</b>
      {proposal.from === 'store' && (
        <span className="label-small">
          {proposal.items
            .map(
              ({ materialId, amount, unit }) =>
                `${Number(amount.toPrecision(3))} ${unit === 'drop' && amount !== 1 ? 'drops' : unit} ${materials.find((one) => one.id === materialId)?.name ?? ''}`,
            )
            .join(', ')}
        </span>
      )}
    </button>
  );
}

function Approve({ wish, chosen, recipes }: { wish: TasteWish; chosen: number; recipes: RecipeRow[] }) {
  const proposal = wish.proposals[chosen];
  const isNew = proposal?.from === 'store';
  const [begun] = useState({ proposal: chosen, name: '' });
  const body = ({ name }: typeof begun) => ({ proposal: chosen, ...(isNew ? { name } : {}) });
  const sheet = useSheet({ schema: approveBody, keep: `taste/${wish.id}/${chosen}`, seen: begun, body });
  const approve = useWrite<Order>(
    () => ({
      path: `/tastes/${wish.id}/approved`,
      method: 'PUT',
      version: wish.version,
      body: body(sheet.values),
    }),
    sheet.done,
  );
  const known = proposal?.from === 'book' ? recipes.find((one) => one.id === proposal.recipeId)?.name : undefined;
  return (
    <Sheet of={sheet} by={approve} onSend={() => approve.mutate()} className="flex flex-wrap gap-3 items-start">
      {isNew && <TextIn at="name" className="w-64" />}
      <div className={isNew ? 'mt-5' : ''}>
        <Send>{known ? `Approved: ${known}` : 'Approved'}</Send>
      </div>
    </Sheet>
  );
}
