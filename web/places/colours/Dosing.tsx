import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Dose, Ledger, Recipe } from '../../../contract/recipes.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { cupsText } from '../../../core/units/show.ts';
import { useTaps } from '../../api/outbox.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { dateText } from '../../parts/dates.ts';
import { QuantityField, Refusal, TextField } from '../../parts/Fields.tsx';
import { Missing, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { DoseBoard, withTaps } from './DoseBoard.tsx';

export function DosingStart() {
  const navigate = useNavigate();
  const { text } = useTaste();
  const ledgers = useQuery(queries.ledgers);
  const [title, setTitle] = useState('');
  const [batchMl, setBatch] = useState<number | null>(ML_PER_CUP);
  const open = useWrite<Ledger>(
    () => ({ path: '/ledgers', body: { title, batchMl } }),
    (ledger) => navigate(`/colours/dosing/${ledger.id}`),
  );
  return (
    <Page
      title="Dose by eye"
      tab="Dosing"
      under="20, look, 10 more, one drop of black: tap each dose as it falls, and the total is the recipe."
    >
      <form
        className="flex gap-4 items-end flex-wrap"
        onSubmit={(event) => {
          event.preventDefault();
          if (title.trim() && batchMl) open.mutate();
        }}
      >
        <TextField
          label="What you are after"
          value={title}
          onChange={setTitle}
          autoFocus
          className="w-80"
          hint="a working name; it can change"
        />
        <QuantityField
          label="Plastisol in the cup"
          dimension="volume"
          value={batchMl}
          onChange={setBatch}
          className="w-44"
          isDefault={batchMl === ML_PER_CUP}
        />
        <button type="submit" className="btn btn-primary btn-lg mb-5" disabled={!title.trim() || !batchMl}>
          Open the ledger
        </button>
      </form>
      <Refusal error={open.error} />
      <section className="max-w-2xl">
        <h2 className="mb-2">Ledgers</h2>
        {ledgers.data?.items.length === 0 && <p className="soft">None yet.</p>}
        <ul className="ruled">
          {(ledgers.data?.items ?? []).map((ledger) => (
            <li key={ledger.id}>
              <Link to={`/colours/dosing/${ledger.id}`} className="flex gap-4 py-2 row-hover">
                <span className="font-bold flex-1">{ledger.title}</span>
                <span className="figure">{text(ledger.batchMl, 'volume')}</span>
                <span className="soft w-40">{ledger.recipeId ? 'kept as a recipe' : 'open'}</span>
                <span className="soft">{dateText(ledger.createdAt)}</span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
    </Page>
  );
}

export function DosingBench() {
  const { id = '' } = useParams();
  const { data: ledger, error } = useQuery(queries.ledger(id));
  const materials = useQuery(queries.materials);
  const { text } = useTaste();
  const navigate = useNavigate();
  const taps = useTaps();
  const [name, setName] = useState('');
  const [hex, setHex] = useState('#3f7d86');
  const keep = useWrite<Recipe>(
    () => ({ path: `/ledgers/${id}/keep`, body: { name, hex } }),
    (recipe) => navigate(`/colours/${recipe.id}`),
  );
  if (error) return <Missing error={error} back="Dosing ledgers" backTo="/colours/dosing" />;
  if (!ledger || !materials.data) return <Waiting />;
  const doses: Dose[] = withTaps(ledger.doses, taps, id, materials.data.items);
  return (
    <Page
      title={ledger.title}
      tab="Dosing"
      under={`${text(ledger.batchMl, 'volume')} in the cup (${cupsText(ledger.batchMl)}). Every tap is kept at once.`}
    >
      <DoseBoard ledgerId={id} doses={doses} materials={materials.data.items} batchMl={ledger.batchMl} />
      <form
        className="flex gap-4 items-end border-t-2 border-[var(--rule)] pt-4 flex-wrap"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) keep.mutate();
        }}
      >
        <TextField label="Keep as recipe, named" value={name} onChange={setName} className="w-72" />
        <TextField label="As it looks" type="color" value={hex} onChange={setHex} />
        <button
          type="submit"
          className="btn btn-primary btn-lg mb-5"
          disabled={!name.trim() || doses.length === 0 || keep.isPending}
        >
          Keep as recipe
        </button>
        {ledger.recipeId && (
          <Link to={`/colours/${ledger.recipeId}`} className="link mb-8">
            kept before
          </Link>
        )}
      </form>
      <Refusal error={keep.error} />
      <Caution about={['hot', 'powder']} />
    </Page>
  );
}
