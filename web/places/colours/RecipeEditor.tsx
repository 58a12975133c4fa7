import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { Material, MaterialKind } from '../../../contract/materials.ts';
import type { Recipe } from '../../../contract/recipes.ts';
import { Failure } from '../../../core/failure.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { parseAmount, unitNamed } from '../../../core/units/parse.ts';
import { ApiError } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { Puck } from '../../parts/Puck.tsx';
import { useTaste } from '../../parts/taste.tsx';

export const DOSED: MaterialKind[] = [
  'colourant',
  'powder',
  'flake',
  'salt',
  'softener',
  'hardener',
  'stabilizer',
  'oil',
];

interface Row {
  key: number;
  materialId: string;
  newName: string;
  kind: MaterialKind;
  /** Amount as written: `18 drops`, `1/4 tsp`, `2 g`, `1 scoop`. */
  text: string;
}

interface Draft {
  name: string;
  hex: string;
  notes: string;
  basisMl: number | null;
  reason: string;
  rows: Row[];
}

const UNIT_BY_KIND: Partial<Record<MaterialKind, string>> = {
  colourant: 'drop',
  flake: 'tsp',
  powder: 'tsp',
  salt: 'tsp',
};

function readAmount(row: Row, measures: string[]): { amount: number; unit: string } {
  const { value, unit } = parseAmount(row.text);
  const named = unit === '' ? (UNIT_BY_KIND[row.kind] ?? 'g') : unitNamed(unit);
  const own = measures.find(
    (name) => name.toLowerCase() === named.toLowerCase() || `${name.toLowerCase()}s` === named.toLowerCase(),
  );
  if (value <= 0) throw new Failure('not-a-measure', 'An amount is more than nothing.');
  return { amount: value, unit: own ?? named };
}

let nextKey = 1;
const emptyRow = (): Row => ({ key: nextKey++, materialId: '', newName: '', kind: 'colourant', text: '' });

export function NewRecipe() {
  const materials = useQuery(queries.materials);
  if (!materials.data) return <Waiting />;
  const draft = {
    name: '',
    hex: '#3f7d86',
    notes: '',
    basisMl: ML_PER_CUP,
    reason: 'first recipe',
    rows: [emptyRow()],
  };
  return <Editor materials={materials.data.items} start={draft} />;
}

const draftOf = (recipe: Recipe): Draft => ({
  name: recipe.name,
  hex: recipe.hex,
  notes: recipe.notes,
  basisMl: recipe.revision.basisMl,
  reason: '',
  rows: recipe.revision.items.map((item) => ({
    key: nextKey++,
    materialId: item.materialId,
    newName: '',
    kind: item.materialKind as MaterialKind,
    text: `${item.amount} ${item.unit}`,
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

function Editor({ materials, start, recipe }: { materials: Material[]; start: Draft; recipe?: Recipe }) {
  const navigate = useNavigate();
  const { measures } = useTaste();
  const [draft, setDraft] = useState(start);
  const [version, setVersion] = useState(recipe?.version);
  const [theirs, setTheirs] = useState<Recipe | null>(null);
  const [problem, setProblem] = useState<string>();
  const set = (change: Partial<Draft>) => setDraft({ ...draft, ...change });
  const setRow = (key: number, change: Partial<Row>) =>
    set({ rows: draft.rows.map((row) => (row.key === key ? { ...row, ...change } : row)) });
  const addMaterial = useWrite<Material, Row>((row) => ({
    path: '/materials',
    body: { name: row.newName.trim(), kind: row.kind },
  }));
  const save = useWrite<Recipe, { items: unknown[]; version: number | undefined }>(
    ({ items, version: at }) => {
      const { name, hex, notes, basisMl, reason } = draft;
      const body = { name, hex, notes, basisMl, reason, items };
      return recipe ? { path: `/recipes/${recipe.id}`, method: 'PUT', version: at, body } : { path: '/recipes', body };
    },
    (saved) => navigate(`/colours/${saved.id}`),
  );

  const send = async (at = version) => {
    setProblem(undefined);
    try {
      const names = measures.map((measure) => measure.unit);
      const read = draft.rows.map((row) => ({ row, ...readAmount(row, names) }));
      const items = [];
      for (const { row, amount, unit } of read) {
        let materialId = row.materialId;
        if (!materialId) {
          if (!row.newName.trim()) throw new Failure('not-a-measure', 'Name what goes in, or take the empty row out.');
          materialId = (await addMaterial.mutateAsync(row)).id;
          setRow(row.key, { materialId });
        }
        items.push({ materialId, amount, unit });
      }
      await save.mutateAsync({ items, version: at });
    } catch (error) {
      if (error instanceof ApiError && error.code === 'stale-version') setTheirs(error.current as Recipe);
      else setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const ready =
    draft.name.trim() !== '' && draft.basisMl !== null && draft.rows.length > 0 && draft.reason.trim() !== '';
  return (
    <Page
      title={recipe ? `Change ${recipe.name}` : 'A new recipe'}
      tab="Recipe"
      under="Amounts as you measure them: 18 drops, 1/4 tsp, 2 g, 1 scoop of your own."
    >
      {theirs && (
        <Conflict
          mine={draft}
          theirs={theirs}
          onMine={() => {
            setVersion(theirs.version);
            setTheirs(null);
            void send(theirs.version);
          }}
          onTheirs={() => {
            setDraft({ ...draftOf(theirs), reason: draft.reason });
            setVersion(theirs.version);
            setTheirs(null);
          }}
        />
      )}
      <form
        className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_280px] gap-12"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) void send();
        }}
      >
        <div className="flex flex-col gap-4">
          <div className="grid grid-cols-1 sm:grid-cols-[1fr_200px] gap-4">
            <TextField
              label="Name of the colour"
              value={draft.name}
              onChange={(name) => set({ name })}
              autoFocus={!recipe}
            />
            <QuantityField
              label="Written for"
              dimension="volume"
              value={draft.basisMl}
              onChange={(basisMl) => set({ basisMl })}
              isDefault={draft.basisMl === ML_PER_CUP && !recipe}
              hint="of plastisol; 1 cup"
            />
          </div>
          <div className="flex flex-col gap-2">
            {draft.rows.map((row) => (
              <RowFields
                key={row.key}
                row={row}
                materials={materials}
                taken={draft.rows.map((one) => one.materialId)}
                onChange={(change) => setRow(row.key, change)}
                onRemove={() => set({ rows: draft.rows.filter((one) => one.key !== row.key) })}
              />
            ))}
            <button
              type="button"
              className="btn btn-sm btn-line self-start"
              onClick={() => set({ rows: [...draft.rows, emptyRow()] })}
            >
              One more
            </button>
          </div>
          {recipe && (
            <TextField label="What was changed, and why" value={draft.reason} onChange={(reason) => set({ reason })} />
          )}
          <TextField label="Notes" value={draft.notes} onChange={(notes) => set({ notes })} />
          <Refusal error={problem ? new Error(problem) : null} />
          <button type="submit" className="btn btn-primary btn-lg self-start" disabled={!ready || save.isPending}>
            {recipe ? `Keep as v${recipe.revision.number + 1}` : 'Keep this recipe'}
          </button>
        </div>
        <div className="flex flex-col gap-4 items-start">
          <Puck hex={draft.hex} sizePx={200} name={draft.name || 'the colour'} />
          <TextField label="As it looks in the puck" type="color" value={draft.hex} onChange={(hex) => set({ hex })} />
        </div>
      </form>
    </Page>
  );
}

function RowFields({
  row,
  materials,
  taken,
  onChange,
  onRemove,
}: {
  row: Row;
  materials: Material[];
  taken: string[];
  onChange(change: Partial<Row>): void;
  onRemove(): void;
}) {
  const choices = materials.filter(
    (material) => DOSED.includes(material.kind) && (material.id === row.materialId || !taken.includes(material.id)),
  );
  return (
    <div className="grid grid-cols-2 sm:grid-cols-[1fr_1fr_150px_auto] gap-3 items-start">
      <SelectField
        label="What goes in"
        value={row.materialId}
        options={[
          { value: '', label: 'something new…' },
          ...choices.map((material) => ({ value: material.id, label: material.name })),
        ]}
        onChange={(materialId) =>
          onChange({ materialId, kind: materials.find((material) => material.id === materialId)?.kind ?? row.kind })
        }
      />
      {row.materialId === '' ? (
        <div className="grid grid-cols-[1fr_116px] gap-2">
          <TextField label="Its name" value={row.newName} onChange={(newName) => onChange({ newName })} />
          <SelectField
            label="Kind"
            value={row.kind}
            options={DOSED.map((kind) => ({ value: kind, label: kind }))}
            onChange={(kind) => onChange({ kind })}
          />
        </div>
      ) : (
        <span />
      )}
      <TextField
        label="Amount"
        value={row.text}
        onChange={(text) => onChange({ text })}
        placeholder={row.kind === 'colourant' ? '18 drops' : '1/4 tsp'}
      />
      <button type="button" className="btn btn-ghost btn-sm mt-7" aria-label="Take this row out" onClick={onRemove}>
        ✕
      </button>
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
          {mine.rows.map((row) => (
            <li key={row.key}>
              <b className="figure">{row.text}</b> {name(row)}
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
