/** The part of JSON Schema that the catalogue uses. */
export interface Schema {
  /** What a maker calls the field. */
  title?: string;
  type?: 'object' | 'array' | 'number' | 'integer' | 'string' | 'boolean' | 'null';
  enum?: string[];
  properties?: Record<string, Schema>;
  required?: string[];
  /** One schema for every row, or one for each place of a fixed list. */
  items?: Schema | Schema[];
  anyOf?: Schema[];
  default?: unknown;
  maximum?: number;
  allOf?: Schema[];
}

export interface Tool {
  name: string;
  title: string;
  asks: string;
  formula: string;
  source: string;
  limits: string;
  takesMesh?: boolean;
  schema: Schema;
  example: { input: Record<string, unknown> };
}

/** As it stands in the list, its example answered. */
export interface AnsweredTool extends Tool {
  example: { input: Record<string, unknown>; output: Record<string, unknown> };
}

/** A field that may say “not known”: what it holds else, or undefined where it is none. */
export function ifKnown({ anyOf, ...schema }: Schema): Schema | undefined {
  const known = anyOf?.filter((one) => one.type !== 'null') ?? [];
  return anyOf && known.length === 1 && anyOf.length === 2 ? { ...schema, ...known[0] } : undefined;
}

/** The example with the schema's defaults filled in, so that every assumption is there to be seen and changed. */
export function withDefaults(schema: Schema, value: unknown): unknown {
  if (schema.type === 'array')
    return Array.isArray(value) && !Array.isArray(schema.items)
      ? value.map((row) => withDefaults((schema.items as Schema | undefined) ?? {}, row))
      : (value ?? schema.default);
  if (schema.type !== 'object' || !schema.properties) return value === undefined ? schema.default : value;
  if (value === undefined && schema.default === undefined) return undefined;
  const given = { ...(schema.default as object | undefined), ...(value as object | undefined) } as Record<
    string,
    unknown
  >;
  return Object.fromEntries(
    Object.entries(schema.properties)
      .map(([key, part]) => [key, withDefaults(part, given[key])] as const)
      .filter(([, part]) => part !== undefined && !(Array.isArray(part) && part.length === 0)),
  );
}

/** A first row for a list: the last one again, under a new name. */
export function anotherRow(rows: Record<string, unknown>[], schema: Schema | undefined): Record<string, unknown> {
  const last = rows.at(-1) ?? {};
  return schema?.properties?.id ? { ...last, id: `${String(last.id ?? 'row')} ${rows.length + 1}` } : { ...last };
}
