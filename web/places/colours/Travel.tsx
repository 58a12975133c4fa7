import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { inUse } from '../../../contract/fields.ts';
import type { Material } from '../../../contract/materials.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import type { RecipesFile } from '../../../contract/travel.ts';
import { Failure, type Told } from '../../../core/failure.ts';
import { queries } from '../../api/queries.ts';
import { todayIso } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { handOver } from '../../parts/files.ts';
import { Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { asCsv, fateOf, missingIn, packed, unpacked } from './travel.ts';
import { type Brought, type Choice, useBringIn } from './useBringIn.ts';

const MOST_BYTES = 4_000_000;

export function Travel() {
  const materials = useQuery(queries.materials);
  const recipes = useQuery(queries.recipes);
  if (!materials.data || !recipes.data) return <Waiting />;
  return <Travelling materials={materials.data.items} recipes={recipes.data.items} />;
}

function Travelling({ materials, recipes }: { materials: Material[]; recipes: RecipeRow[] }) {
  const { say, measures } = useTaste();
  const [file, setFile] = useState<RecipesFile | null>(null);
  const [problem, setProblem] = useState<Told | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const take = async (from: File | undefined) => {
    if (!from) return;
    setDone(null);
    setFile(null);
    try {
      if (from.size > MOST_BYTES)
        throw new Failure('too-large', 'That is more than a file of recipes holds; 4 MB at most.');
      setFile(await unpacked(await from.text()));
      setProblem(null);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setProblem(error.path ? `${error.path}: ${error.message}` : error.told);
    }
  };
  const here = inUse(recipes);
  const whole = () => packed(here, measures);
  return (
    <Page
      title="Recipes in and out"
      tab="In and out"
      under="In millilitres of the house strength, grams and teaspoons, with what is known of each material: another workshop’s bottles give the same colour."
    >
      <section className="flex flex-wrap gap-4 items-center">
        <h2>Out</h2>
        <button
          type="button"
          className="btn btn-line"
          disabled={here.length === 0}
          onClick={() => handOver(JSON.stringify(whole(), null, 2), 'application/json', `recipes-${todayIso()}.json`)}
        >
          All {here.length} as JSON
        </button>
        <button
          type="button"
          className="btn btn-line"
          disabled={here.length === 0}
          onClick={() => void asCsv(whole()).then((text) => handOver(text, 'text/csv', `recipes-${todayIso()}.csv`))}
        >
          as a table, CSV
        </button>
      </section>
      <section className="flex flex-col gap-3">
        <div className="flex gap-4 items-center">
          <h2>In</h2>
          <label className="btn btn-line">
            A file of recipes
            <input
              type="file"
              accept=".json,.csv,application/json,text/csv"
              className="sr-only"
              onChange={(event) => void take(event.target.files?.[0])}
            />
          </label>
        </div>
        {problem && <p className="warn font-bold">{say(problem)}</p>}
        {done !== null && (
          <p className="rest font-bold" role="status">
            {done} brought in. Nothing that was here was changed but by its next revision.
          </p>
        )}
        {file && (
          <In
            key={JSON.stringify(file).length}
            file={file}
            materials={materials}
            recipes={recipes}
            onDone={(count) => {
              setFile(null);
              setDone(count);
            }}
          />
        )}
      </section>
    </Page>
  );
}

const CHOICES: Record<Choice, string> = {
  both: 'Keep both',
  next: 'As the next revision of yours',
  leave: 'Leave it out',
};

interface InProps {
  file: RecipesFile;
  materials: Material[];
  recipes: RecipeRow[];
  onDone(count: number): void;
}

/** Each recipe of a file beside what is here: new, the same, or another one of the same name. */
function In({ file, materials, recipes, onDone }: InProps) {
  const { measures } = useTaste();
  const [chosen, setChosen] = useState<Record<number, Choice>>({});
  const bring = useBringIn(materials, recipes, onDone);
  const rows = file.recipes.map((one, i): Brought & { fate: string } => {
    const { fate, mine } = fateOf(one, recipes, measures);
    return { one, mine, fate, choice: fate === 'same' ? 'leave' : (chosen[i] ?? 'both') };
  });
  const coming = rows.filter(({ choice }) => choice !== 'leave');
  const missing = missingIn(
    coming.map(({ one }) => one),
    materials,
  );
  return (
    <div className="flex flex-col gap-4 max-w-4xl">
      <ul className="ruled border-y border-[var(--rule)]">
        {rows.map(({ one, mine, fate, choice }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a recipe is its place in the file
          <li key={i} className="py-3 flex flex-wrap gap-x-4 gap-y-2 items-start">
            <span className="w-8 h-8 border border-[var(--edge)] shrink-0" style={{ background: one.hex }} />
            <div className="flex-1 min-w-60">
              <b>{one.name}</b>
              <Items of={one} />
              {fate === 'differs' && mine && (
                <div className="mt-1 soft">
                  Yours, v{mine.revision.number}: <Items of={packed([mine], measures).recipes[0] as typeof one} />
                </div>
              )}
            </div>
            {fate === 'new' && <span className="rest font-bold">new here</span>}
            {fate === 'same' && <span className="soft">here already, the same</span>}
            {fate === 'differs' && (
              <fieldset className="flex flex-col gap-1">
                <legend className="warn font-bold">another of that name is here</legend>
                {(Object.keys(CHOICES) as Choice[]).map((key) => (
                  <label key={key} className="flex gap-2 items-center">
                    <input
                      type="radio"
                      className="radio radio-sm"
                      name={`choice ${i}`}
                      checked={choice === key}
                      onChange={() => setChosen({ ...chosen, [i]: key })}
                    />
                    {CHOICES[key]}
                  </label>
                ))}
              </fieldset>
            )}
          </li>
        ))}
      </ul>
      {missing.length > 0 && (
        <p>New in the store with them, with no bottle yet: {missing.map(({ material }) => material).join(', ')}.</p>
      )}
      <button
        type="button"
        className="btn btn-primary self-start"
        disabled={bring.isBusy || coming.length === 0}
        onClick={() => void bring.send(rows)}
      >
        {bring.isBusy ? 'Bringing in …' : `Bring ${coming.length} in`}
      </button>
      <Refusal error={bring.error} />
    </div>
  );
}

const figure = (value: number) => Number(value.toPrecision(3));

function Items({ of }: { of: RecipesFile['recipes'][number] }) {
  return (
    <span className="block text-sm">
      {of.items
        .map(({ material, ml, g, tsp }) =>
          ml !== undefined
            ? `${figure(ml)} mL ${material}`
            : g !== undefined
              ? `${figure(g)} g ${material}`
              : `${figure(tsp ?? 0)} tsp ${material}`,
        )
        .join(', ')}{' '}
      in {figure(of.basisMl)} mL
    </span>
  );
}
