import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { Material, MaterialKind } from '../../../contract/materials.ts';
import { DOSED, type Recipe, recipeSheet } from '../../../contract/recipes.ts';
import { tried } from '../../../core/failure.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { parseAmount, unitNamed } from '../../../core/units/parse.ts';
import { ApiError, NoAnswer } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Page, Waiting } from '../../parts/Page.tsx';
import { DraftPicture } from '../../parts/plastic/DraftPicture.tsx';
import { Foreseen } from '../../parts/plastic/Foreseen.tsx';
import { lineOf, meltOfLines } from '../../parts/plastic/melts.ts';
import { ChoiceIn, FigureIn, NoteIn, TextIn, TickIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet as SheetForm } from '../../parts/sheet/Sheet.tsx';
import { type Sheet, useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

interface Row {
  /** Empty: something that is not in the store yet. */
  materialId: string | null;
  newName: string;
  kind: (typeof DOSED)[number];
  /** As written: `18 drops`, `1/4 tsp`, `2 g`, `1 scoop`. */
  amount: string;
  /** Flake that is wanted as the heat turns it. */
  turned: boolean;
}

interface Draft {
  name: string;
  hex: string;
  notes: string;
  basisMl: number | null;
  reason: string;
  items: Row[];
}

const sheetOf = ({ items, ...draft }: Draft) => ({
  ...draft,
  items: items.map(({ materialId, newName, kind, amount, turned }) =>
    materialId === null ? { known: false, newName, kind, amount } : { known: true, materialId, kind, amount, turned },
  ),
});

const UNIT_BY_KIND: Partial<Record<MaterialKind, string>> = {
  colourant: 'drop',
  flake: 'tsp',
  powder: 'tsp',
  salt: 'tsp',
};

function readAmount({ amount, kind }: Row, measures: string[]): { amount: number; unit: string } {
  const { value, unit } = parseAmount(amount);
  const named = unit === '' ? (UNIT_BY_KIND[kind] ?? 'g') : unitNamed(unit);
  const own = measures.find(
    (name) => name.toLowerCase() === named.toLowerCase() || `${name.toLowerCase()}s` === named.toLowerCase(),
  );
  return { amount: value, unit: own ?? named };
}

const EMPTY_ROW: Row = { materialId: null, newName: '', kind: 'colourant', amount: '', turned: false };
const BEGUN: Draft = {
  name: '',
  hex: '#3f7d86',
  notes: '',
  basisMl: ML_PER_CUP,
  reason: 'first recipe',
  items: [EMPTY_ROW],
};

export function NewRecipe() {
  const materials = useQuery(queries.materials);
  if (!materials.data) return <Waiting />;
  return <Editor materials={materials.data.items} start={BEGUN} />;
}

const draftOf = (recipe: Recipe): Draft => ({
  name: recipe.name,
  hex: recipe.hex,
  notes: recipe.notes,
  basisMl: recipe.revision.basisMl,
  reason: '',
  items: recipe.revision.items.map((item) => ({
    materialId: item.materialId,
    newName: '',
    kind: item.materialKind as Row['kind'],
    turned: item.turned === true,
    amount: `${item.amount} ${item.unit === 'drop' && item.amount !== 1 ? 'drops' : item.unit}`,
  })),
});

export function EditRecipe() {
  const { id = '' } = useParams();
  const materials = useQuery(queries.materials);
  // The version that was opened stays the one that is saved against, whatever comes in meanwhile.
  const recipe = useQuery({
    ...queries.recipe(id),
    queryKey: ['editing', id],
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
  });
  if (!materials.data || !recipe.data) return <Waiting />;
  return <Editor materials={materials.data.items} start={draftOf(recipe.data)} recipe={recipe.data} />;
}

interface EditorProps {
  materials: Material[];
  start: Draft;
  recipe?: Recipe;
}

/** An amount and its unit are written in one field. */
const atItsAmount = (error: Error | null) =>
  error instanceof ApiError && error.path?.endsWith('.unit')
    ? new ApiError(
        error.status,
        error.code,
        error.message,
        error.path.replace(/unit$/, 'amount'),
        undefined,
        error.said,
      )
    : error;

/** Sends what is written, the materials that are new to the store first. */
function useKeepRecipe(recipe: Recipe | undefined, onStale: (theirs: Recipe) => void) {
  const navigate = useNavigate();
  const { measures } = useTaste();
  const addMaterial = useWrite<Material, Row>(({ newName, kind }) => ({
    path: '/materials',
    body: { name: newName.trim(), kind },
  }));
  const save = useWrite<Recipe, { body: unknown; version: number | undefined }>(({ body, version }) =>
    recipe ? { path: `/recipes/${recipe.id}`, method: 'PUT', version, body } : { path: '/recipes', body },
  );
  const send = async (sheet: Sheet<Draft>, version: number | undefined) => {
    const { items: rows, ...rest } = sheet.values;
    const names = measures.map((measure) => measure.unit);
    try {
      const items = [];
      for (const [i, row] of rows.entries()) {
        const materialId = row.materialId ?? (await addMaterial.mutateAsync(row)).id;
        if (row.materialId === null) sheet.set(`items.${i}.materialId`, materialId);
        items.push({ materialId, ...readAmount(row, names), ...(row.turned ? { turned: true } : {}) });
      }
      const saved = await save.mutateAsync({ body: { ...rest, items }, version });
      sheet.done();
      navigate(`/colours/${saved.id}`);
    } catch (error) {
      if (error instanceof ApiError && error.code === 'stale-version') onStale(error.current as Recipe);
      // Any other refusal stands at its field; a fault of our own is not to be swallowed.
      else if (!(error instanceof ApiError || error instanceof NoAnswer)) throw error;
    }
  };
  const stale = save.error instanceof ApiError && save.error.code === 'stale-version';
  // The same refusal stays one thing, so that it is answered once.
  const refused = useMemo(() => atItsAmount(save.error), [save.error]);
  return {
    send,
    error: addMaterial.error ?? (stale ? null : refused),
    isPending: addMaterial.isPending || save.isPending,
  };
}

function Editor({ materials, start, recipe }: EditorProps) {
  const [version, setVersion] = useState(recipe?.version);
  const [theirs, setTheirs] = useState<Recipe | null>(null);
  const sheet = useSheet<Draft>({
    schema: recipeSheet,
    keep: recipe ? `recipe/${recipe.id}` : 'recipe',
    seen: start,
    body: sheetOf,
  });
  const { name, hex, basisMl, items } = sheet.values;
  const melt = useDraftMelt(sheet.values, materials);
  const keep = useKeepRecipe(recipe, setTheirs);
  return (
    <Page
      title={recipe ? `Change ${recipe.name}` : 'A new recipe'}
      tab="Recipe"
      under="Amounts as you measure them: 18 drops, 1/4 tsp, 2 g, 1 scoop of your own."
    >
      {theirs && (
        <Conflict
          mine={sheet.values}
          theirs={theirs}
          onMine={() => {
            setVersion(theirs.version);
            setTheirs(null);
            void keep.send(sheet, theirs.version);
          }}
          onTheirs={() => {
            for (const [key, value] of Object.entries(draftOf(theirs))) if (key !== 'reason') sheet.set(key, value);
            setVersion(theirs.version);
            setTheirs(null);
          }}
        />
      )}
      <SheetForm
        of={sheet}
        by={keep}
        onSend={() => void keep.send(sheet, version)}
        className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_280px] gap-12"
      >
        <div className="flex flex-col gap-4">
          <div className="grid grid-cols-1 sm:grid-cols-[1fr_200px] gap-4">
            <TextIn at="name" autoFocus={!recipe} />
            <FigureIn
              at="basisMl"
              isDefault={basisMl === ML_PER_CUP && !recipe}
              hint={basisMl === ML_PER_CUP ? 'of plastisol; 1 cup' : 'of plastisol'}
            />
          </div>
          <div className="flex flex-col gap-2">
            {items.map((row, i) => (
              <RowFields
                // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place in the recipe
                key={i}
                at={`items.${i}`}
                row={row}
                materials={materials}
                taken={items.map((one) => one.materialId)}
                onKind={(kind) => sheet.set(`items.${i}.kind`, kind)}
                onRemove={() => sheet.takeOut('items', i)}
              />
            ))}
            <button
              type="button"
              className="btn btn-sm btn-line self-start"
              onClick={() => sheet.set('items', [...items, EMPTY_ROW])}
            >
              One more
            </button>
          </div>
          {recipe && <TextIn at="reason" />}
          <NoteIn at="notes" rows={2} />
          <Send>{recipe ? `Keep as v${recipe.revision.number + 1}` : 'Keep this recipe'}</Send>
        </div>
        <div className="flex flex-col gap-4 items-start">
          <DraftPicture melt={melt} name={name || 'this recipe'} hex={hex} onTake={(look) => sheet.set('hex', look)} />
          <TextIn at="hex" type="color" />
        </div>
      </SheetForm>
      <Foreseen melt={melt} name={name || 'this recipe'} />
    </Page>
  );
}

/** What is written so far as it will look; a row that is not to be understood yet is left out. */
function useDraftMelt({ items, basisMl }: Draft, materials: Material[]) {
  const { measures, workshop } = useTaste();
  return useMemo(() => {
    const names = measures.map((measure) => measure.unit);
    const lines = items.flatMap((row) => {
      const material = materials.find((one) => one.id === row.materialId);
      const { value } = tried(() => readAmount(row, names));
      // Amounts are written in the house strength.
      return material && value
        ? [lineOf(material, { ...value, bottleStrength: 1, turned: row.turned }, workshop.dropsPerMl)]
        : [];
    });
    return meltOfLines(lines, basisMl ?? ML_PER_CUP, measures);
  }, [items, basisMl, materials, measures, workshop.dropsPerMl]);
}

interface RowProps {
  at: string;
  row: Row;
  materials: Material[];
  taken: (string | null)[];
  onKind(kind: MaterialKind): void;
  onRemove(): void;
}

function RowFields({ at, row, materials, taken, onKind, onRemove }: RowProps) {
  const choices = materials.filter(
    (material) =>
      (DOSED as readonly MaterialKind[]).includes(material.kind) &&
      (material.id === row.materialId || (material.awayAt === null && !taken.includes(material.id))),
  );
  return (
    <div className="grid grid-cols-2 sm:grid-cols-[1fr_1fr_150px_auto] gap-3 items-start">
      <ChoiceIn
        at={`${at}.materialId`}
        className={row.materialId === null ? '' : 'sm:col-span-2'}
        options={[
          { value: '', label: 'something new…' },
          ...choices.map((material) => ({ value: material.id, label: material.name })),
        ]}
        onPicked={(id) => {
          const kind = materials.find((material) => material.id === id)?.kind;
          if (kind) onKind(kind);
        }}
      />
      {row.materialId === null && (
        <div className="grid grid-cols-[1fr_116px] gap-2">
          <TextIn at={`${at}.newName`} />
          <ChoiceIn at={`${at}.kind`} options={DOSED.map((kind) => ({ value: kind, label: kind }))} />
        </div>
      )}
      <TextIn
        at={`${at}.amount`}
        hint={row.amount === '' ? `such as ${row.kind === 'colourant' ? '18 drops' : '1/4 tsp'}` : ''}
      />
      <button type="button" className="btn btn-ghost btn-sm mt-7" aria-label="Take this row out" onClick={onRemove}>
        ✕
      </button>
      {row.kind === 'flake' && typeof materials.find(({ id }) => id === row.materialId)?.limitC === 'number' && (
        <div className="col-span-2 sm:col-span-4 -mt-3">
          <TickIn at={`${at}.turned`} hint="an effect that is sought: it goes in hot and is drawn as it turns" />
        </div>
      )}
    </div>
  );
}

/** Both versions side by side: nobody's work is lost, and the maker decides. */
function Conflict({
  mine,
  theirs,
  onMine,
  onTheirs,
}: {
  mine: Draft;
  theirs: Recipe;
  onMine(): void;
  onTheirs(): void;
}) {
  const name = (row: Row) =>
    row.newName ||
    theirs.revision.items.find((item) => item.materialId === row.materialId)?.materialName ||
    'another material';
  return (
    <section className="border-2 border-[var(--warn)] rounded p-5 grid grid-cols-1 md:grid-cols-2 gap-8" role="alert">
      <h2 className="col-span-2">
        Somebody saved v{theirs.revision.number} while you were writing. Nothing is lost: here are both.
      </h2>
      <div>
        <h3>Theirs, saved: “{theirs.revision.reason}”</h3>
        <ul>
          {theirs.revision.items.map((item) => (
            <li key={item.id}>
              <b className="figure">{item.amount}</b> {item.unit} {item.materialName}
            </li>
          ))}
        </ul>
        <button type="button" className="btn btn-line mt-3" onClick={onTheirs}>
          Go on from theirs
        </button>
      </div>
      <div>
        <h3>Yours, not saved yet</h3>
        <ul>
          {mine.items.map((row) => (
            <li key={row.materialId ?? row.newName}>
              <b className="figure">{row.amount}</b> {name(row)}
            </li>
          ))}
        </ul>
        <button type="button" className="btn btn-primary mt-3" onClick={onMine}>
          Save mine as v{theirs.revision.number + 1}; theirs stays as v{theirs.revision.number}
        </button>
      </div>
    </section>
  );
}
