import { toJsonSchema } from '@valibot/to-json-schema';
import { calculate, calculators } from '../core/calculators.ts';
import { DEFAULTS } from '../core/defaults.ts';
import { withTitles } from '../core/fields.ts';

interface Part {
  title?: string;
  type?: string;
  enum?: string[];
  properties?: Record<string, Part>;
  required?: string[];
  items?: Part;
  default?: unknown;
  minimum?: number;
  exclusiveMinimum?: number;
  maximum?: number;
  exclusiveMaximum?: number;
}

const bounds = (part: Part) =>
  [
    part.exclusiveMinimum !== undefined && `> ${part.exclusiveMinimum}`,
    part.minimum !== undefined && `≥ ${part.minimum}`,
    part.exclusiveMaximum !== undefined && `< ${part.exclusiveMaximum}`,
    part.maximum !== undefined && `≤ ${part.maximum}`,
  ]
    .filter(Boolean)
    .join(', ');

/** One row a field, nested ones under their dotted name. */
function rows(schema: Part, prefix = ''): string[] {
  return Object.entries(schema.properties ?? {}).flatMap(([key, part]) => {
    const name = `${prefix}${key}`;
    const nested = part.type === 'array' ? part.items : part;
    const kind = part.enum
      ? part.enum.map((one) => `\`${one}\``).join(' or ')
      : part.type === 'array'
        ? 'list'
        : (part.type ?? 'value');
    const fallback =
      part.default !== undefined
        ? JSON.stringify(part.default)
        : (schema.required ?? []).includes(key)
          ? 'needed'
          : 'may be left out';
    return [
      `| \`${name}\` | ${part.title ?? ''} | ${kind} | ${bounds(part)} | ${fallback} |`,
      ...rows(nested ?? {}, part.type === 'array' ? `${name}.n.` : `${name}.`),
    ];
  });
}

/** Ten figures are enough to check against, and do not hang on the last bit of a processor. */
const rounded = (_key: string, value: unknown) => (typeof value === 'number' ? Number(value.toPrecision(10)) : value);
const fence = (value: unknown) => `\`\`\`json\n${JSON.stringify(value, rounded, 1)}\n\`\`\``;

/** docs/calculations.md, whole: formulas, sources, limits, inputs and a worked example of every calculator. */
export async function calculationsPage(): Promise<string> {
  const sections: string[] = [];
  for (const { name, title, asks, formula, source, limits, schema, example } of calculators) {
    const json = withTitles(toJsonSchema(schema, { errorMode: 'ignore', typeMode: 'input' })) as Part;
    sections.push(
      [
        `## \`${name}\`: ${title}`,
        `${asks}`,
        `**Formula.** ${formula}.`,
        `**Source.** ${source}.`,
        `**Limits.** ${limits}`,
        `| Input | Called | Kind | Bounds | Default |\n| --- | --- | --- | --- | --- |\n${rows(json).join('\n')}`,
        'Example:',
        fence(example),
        fence(await calculate(name, example)),
      ].join('\n\n'),
    );
  }
  const defaults = Object.values(DEFAULTS)
    .map(({ name, value, unit, source }) => `| ${name} | ${value} ${unit} | ${source} |`)
    .join('\n');
  return `# The calculators

Made from the registry in \`core/calculators.ts\` by \`npm run docs\`; do not edit by hand.

Each is a pure function with a schema for its input, reachable in three ways that give the same answer: in the screens;
\`POST /api/calc/NAME\` with JSON in and out (\`GET /api/calc\` lists names, JSON Schemas and examples); and
\`npm run -s calc -- NAME < input.json\`, or \`npm run -s calc -- --lines\` with one \`{"name","input"}\` a line.

Units are fixed and named by the field: mm, mL, g, °C, min, money in minor units. Results are not rounded, except money
(halves away from zero) and counts (a value within 1e-9 of a whole number is that number).

Errors are \`{"error":{"code","message","path"}}\` with HTTP 400, or 413 for \`too-large\`; the command line ends with
code 2. \`invalid-input\` names the field by its dotted path; \`too-large\` is a bound on work or overflow. Others are named
with the calculator they belong to: \`unknown-unit\`, \`unit-mismatch\`, \`out-of-range\`, \`box-too-small\`,
\`shot-exceeds-injector\`, \`cup-too-small\`, \`hardness-out-of-reach\`, \`mass-not-conserved\`, \`unknown-calculator\`,
\`malformed-json\`.

Values marked as starting values (reject prior, ten-degree rule, wall per dip, the Shore 00 fit, linear hardness mixing) and the
defaults below stand until the workshop's own log knows better; product and safety data sheets always win.

## Defaults

Their one home is \`core/defaults.ts\`; schemas and screens read them there, and a test refuses a second one.

| Default | Value | Where it comes from |
| --- | --- | --- |
${defaults}

${sections.join('\n\n')}
`;
}
