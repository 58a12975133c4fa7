import { toJsonSchema } from '@valibot/to-json-schema';
import * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import { calculators } from './calculators.ts';
import { kindOf, pathWords, withTitles, wordFor } from './fields.ts';
import { factsOf, fieldTitle } from './schema.ts';

interface Schema {
  properties?: Record<string, Schema & { items?: Schema | Schema[] }>;
}

describe('what a number measures, by its name', () => {
  test.each([
    ['thicknessMm', 'length'],
    ['wallPerDip', 'length'],
    ['cookMl', 'volume'],
    ['mlPerTube', 'volume'],
    ['mlA', 'volume'],
    ['gramsB', 'mass'],
    ['cookG', 'mass'],
    ['roomC', 'temperature'],
    ['costMinor', 'money'],
    ['pricePerKgMinor', 'money'],
    ['densityAGPerMl', 'plain'],
    ['bulkGPerMl', 'plain'],
    ['dropsPerMl', 'plain'],
    ['wasteFraction', 'percent'],
    ['pBar', 'percent'],
    ['potLifeMin', 'minutes'],
    ['minutesLeft', 'minutes'],
    ['minutesPer6mm', 'minutes'],
    ['shots', 'plain'],
    ['openS', 'seconds'],
    ['mmPerS', 'plain'],
    ['flakeLimitsC', 'temperature'],
    ['onsetMPerS', 'speed'],
    ['mPerS', 'speed'],
    ['efficiency', 'percent'],
    ['perDegree', 'plain'],
    ['mpa', 'plain'],
  ] as const)('%s is %s', (name, kind) => expect(kindOf(name)).toBe(kind));
});

describe('words', () => {
  test.each([
    ['thicknessMm', 'Thickest section'],
    ['missingDepthMm', 'Below the line by'],
    ['somethingNewMm', 'Something new'],
  ])('%s is called “%s”', (name, word) => expect(wordFor(name)).toBe(word));

  test('no field of any calculator is shown by its bare name', () => {
    const names = new Set<string>();
    const walk = (schema: Schema) => {
      for (const [name, part] of Object.entries(schema.properties ?? {})) {
        names.add(name);
        walk(Array.isArray(part.items) ? part : (part.items ?? part));
      }
    };
    for (const { schema } of calculators)
      walk(toJsonSchema(schema, { errorMode: 'ignore', typeMode: 'input' }) as Schema);
    for (const name of names) expect(wordFor(name), name).not.toMatch(/(Mm|Ml|Minor|Fraction)$|[a-z]{3}[A-Z]/);
  });
});

const order = v.strictObject({
  dueOn: v.pipe(v.string(), v.title('Due')),
  lines: v.pipe(
    v.array(
      v.strictObject({ baitId: v.string(), packs: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(9)) }),
    ),
    v.title('Row'),
  ),
  wallMm: v.optional(v.nullable(v.pipe(v.pipe(v.number(), v.gtValue(0)), v.maxValue(40), v.title('Wall here'))), 10),
  volume: v.variant('how', [
    v.strictObject({ how: v.literal('weighed'), grams: v.pipe(v.number(), v.title('On the scale')) }),
    v.strictObject({ how: v.literal('displaced'), ml: v.number() }),
  ]),
});

describe('a field is called what its schema says, or by its name', () => {
  test.each([
    [['dueOn'], 'Due'],
    [['lines', '1', 'baitId'], 'Row 2, bait'],
    [['wallMm'], 'Wall here'],
    [['volume', 'grams'], 'Volume, on the scale'],
    [['volume', 'ml'], 'Volume, one of it'],
    [['nothingKnownMm'], 'Nothing known'],
  ])('%j: %s', (path, title) => expect(fieldTitle(order, path)).toBe(title));

  test('only the last two names of a long path are said', () =>
    expect(pathWords(['order', 'lines', '0', 'mix', 'wallMm'])).toBe('Mixing ratio, wall'));
});

describe('what a field may hold is read from its schema', () => {
  test.each([
    [['lines', '0', 'packs'], { whole: true, optional: false, least: 1, over: false, most: 9 }],
    [['wallMm'], { whole: false, optional: true, usual: 10, least: 0, over: true, most: 40 }],
    [['volume', 'ml'], { whole: false, optional: false }],
  ])('%j', (path, facts) => expect(factsOf(order, path)).toEqual(facts));
});

test('JSON Schema names every field and what it measures, at every depth', () => {
  const json = withTitles(toJsonSchema(order, { errorMode: 'ignore', typeMode: 'input' })) as Record<string, unknown>;
  expect(json).toMatchObject({
    properties: {
      dueOn: { title: 'Due' },
      wallMm: { title: 'Wall here', 'x-measures': 'length' },
      lines: { items: { properties: { packs: { title: 'Packs' } } } },
    },
  });
});
