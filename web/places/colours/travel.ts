import type { Material } from '../../../contract/materials.ts';
import type { RecipeItem, RecipeRow } from '../../../contract/recipes.ts';
import { RECIPES_FILE, type RecipesFile, recipesFile, type Travelling } from '../../../contract/travel.ts';
import { Failure } from '../../../core/failure.ts';
import { scaleLines } from '../../../core/plastisol/recipe.ts';
import { isLiquid, isWeighed } from '../../../core/plastisol/weigh.ts';
import { type Measure, ML_PER_TSP } from '../../../core/units/convert.ts';
import { check } from '../../../core/validate.ts';

/** Figures in a file: as many places as a bench can measure, and some. */
const tidy = (value: number) => Number(value.toPrecision(9));

/** Nothing of what is not known. */
const known = <T extends object>(facts: T) =>
  Object.fromEntries(Object.entries(facts).filter(([, value]) => value !== null && value !== undefined)) as {
    [K in keyof T]?: Exclude<T[K], null>;
  };

function packedItem(item: RecipeItem, basisMl: number, measures: Measure[]): Travelling['items'][number] {
  const [scaled] = scaleLines([item], basisMl, basisMl, measures);
  const { hex, bulkGPerMl, densityGPerMl, sizeMm, cut, limitC, turnsHex, optics } = item;
  // Own scoops stay at home: what they hold goes along.
  const amount =
    item.ml !== null
      ? { ml: tidy(item.ml) }
      : isWeighed(item.unit, measures)
        ? { g: tidy(scaled?.g ?? item.amount) }
        : isLiquid(item.materialKind)
          ? { ml: tidy((scaled?.ml ?? 0) * item.bottleStrength) }
          : { tsp: tidy((scaled?.ml ?? 0) / ML_PER_TSP) };
  return {
    material: item.materialName,
    kind: item.materialKind as Travelling['items'][number]['kind'],
    ...amount,
    ...known({ hex, bulkGPerMl, densityGPerMl, sizeMm, cut, limitC, turnsHex, optics }),
    ...(item.turned ? { turned: true } : {}),
  };
}

/** Recipes as a file: millilitres of the house strength, grams and teaspoons, with what is known of each material. */
export const packed = (recipes: RecipeRow[], measures: Measure[]): RecipesFile => ({
  ...RECIPES_FILE,
  recipes: recipes.map(({ name, hex, notes, revision }) => ({
    name,
    hex,
    notes,
    basisMl: revision.basisMl,
    reason: revision.reason,
    items: revision.items.map((item) => packedItem(item, revision.basisMl, measures)),
  })),
});

/** The columns of a table of recipes: a row an item. */
const COLUMNS = [
  'recipe',
  'look',
  'notes',
  'plastisol mL',
  'material',
  'kind',
  'mL',
  'g',
  'tsp',
  'material look',
] as const;
type Row = Record<(typeof COLUMNS)[number], string | number>;

export async function asCsv(file: RecipesFile): Promise<string> {
  const { unparse } = await import('papaparse');
  const rows = file.recipes.flatMap(({ name, hex, notes, basisMl, items }) =>
    items.map(
      (item): Row => ({
        recipe: name,
        look: hex,
        notes,
        'plastisol mL': basisMl,
        material: item.material,
        kind: item.kind,
        mL: item.ml ?? '',
        g: item.g ?? '',
        tsp: item.tsp ?? '',
        'material look': item.hex ?? '',
      }),
    ),
  );
  // What a spreadsheet would take for a formula stays the text that it is.
  return unparse(rows, { columns: [...COLUMNS], escapeFormulae: true });
}

const figure = (text: string | undefined) => (text === undefined || text.trim() === '' ? undefined : Number(text));

async function fromCsv(text: string): Promise<unknown> {
  const { parse } = await import('papaparse');
  const { data, errors, meta } = parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy' });
  const missing = COLUMNS.slice(0, 9).filter((column) => !meta.fields?.includes(column));
  if (missing.length > 0)
    throw new Failure('invalid-input', `This table has no column ${missing.map((one) => `“${one}”`).join(', ')}.`);
  const [wrong] = errors;
  if (wrong)
    throw new Failure('invalid-input', `Row ${(wrong.row ?? 0) + 2} of the table cannot be read: ${wrong.message}.`);
  const recipes = new Map<string, Record<string, unknown> & { items: unknown[] }>();
  for (const cells of data) {
    // As it was before it was kept from being a formula.
    const row = Object.fromEntries(
      Object.entries(cells).map(([key, value]) => [key, value.replace(/^'(?=[=+\-@])/, '')]),
    );
    const name = row.recipe ?? '';
    const found = recipes.get(name) ?? {
      name,
      hex: row.look,
      notes: row.notes ?? '',
      basisMl: figure(row['plastisol mL']),
      items: [],
    };
    recipes.set(name, found);
    found.items.push({
      material: row.material,
      kind: row.kind,
      ...known({ ml: figure(row.mL), g: figure(row.g), tsp: figure(row.tsp), hex: row['material look'] || undefined }),
    });
  }
  return { ...RECIPES_FILE, recipes: [...recipes.values()] };
}

/** A file that was brought, by its content. @throws Failure `invalid-input`, `malformed-json`. */
export async function unpacked(text: string): Promise<RecipesFile> {
  if (!/^\s*[{[]/.test(text)) return check(recipesFile, await fromCsv(text));
  try {
    return check(recipesFile, JSON.parse(text));
  } catch (error) {
    if (error instanceof SyntaxError)
      throw new Failure('malformed-json', 'The file breaks off or is no JSON; export it again.');
    throw error;
  }
}

export type Fate = 'new' | 'same' | 'differs';

/** What brings a recipe of a file beside those that are here. */
export function fateOf(one: Travelling, recipes: RecipeRow[], measures: Measure[]): { fate: Fate; mine?: RecipeRow } {
  const mine = recipes.find((row) => row.name.toLowerCase() === one.name.toLowerCase());
  if (!mine) return { fate: 'new' };
  const [own] = packed([mine], measures).recipes as [Travelling];
  return { fate: dosesOf(own) === dosesOf(one) ? 'same' : 'differs', mine };
}

/** What counts of a recipe, at one litre: amounts to a thousandth. */
const dosesOf = ({ basisMl, items }: Travelling) =>
  items
    .map(({ material, ml, g, tsp }) => {
      const perL = (value: number | undefined) =>
        value === undefined ? '' : ((1000 * value) / basisMl).toPrecision(4);
      return [material.toLowerCase(), perL(ml), perL(g), perL(tsp)].join('|');
    })
    .sort()
    .join('\n');

/** A name that is free: both are kept. */
export function freeName(name: string, taken: string[]): string {
  const lower = new Set(taken.map((one) => one.toLowerCase()));
  for (let n = 2; ; n++) if (!lower.has(`${name} (${n})`.toLowerCase())) return `${name} (${n})`;
}

/** What of the store a file asks for and is not there: by name and kind. */
export const missingIn = (file: Travelling[], materials: Material[]) => {
  const here = new Set(materials.map((one) => one.name.toLowerCase()));
  const asked = new Map(file.flatMap(({ items }) => items.map((item) => [item.material.toLowerCase(), item] as const)));
  return [...asked].filter(([name]) => !here.has(name)).map(([, item]) => item);
};
