import { toJsonSchema } from '@valibot/to-json-schema';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Bin } from '../contract/bins.ts';
import type { Pour } from '../contract/pours.ts';
import type { Ledger } from '../contract/recipes.ts';
import type { Ladder, WaterTest } from '../contract/water.ts';
import { calculators } from '../core/calculators.ts';
import { endpoints } from './endpoints.ts';
import type { Endpoint } from './http/endpoint.ts';
import { stocked, TestWorkshop } from './testing/workshop.ts';

const LADDER = {
  name: 'First ladder',
  scale: '00',
  hardness: 34,
  wristHeightMm: 6,
  wristLengthMm: 12,
  paddleDiameterMm: 14,
  paddleThicknessMm: 4,
};

interface Json {
  type?: string;
  enum?: unknown[];
  const?: unknown;
  properties?: Record<string, Json>;
  required?: string[];
  items?: Json;
  anyOf?: Json[];
  oneOf?: Json[];
  minimum?: number;
  exclusiveMinimum?: number;
  format?: string;
  minItems?: number;
}

let workshop: TestWorkshop;
let ids: Record<string, string>;

beforeAll(async () => {
  workshop = await TestWorkshop.open();
  const stock = await stocked(workshop);
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 2 }],
  });
  const { body: after } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  const { body: ledger } = await workshop.post<Ledger>('/ledgers', { title: 't', batchMl: 200 });
  const { body: ladder } = await workshop.post<Ladder>('/ladders', LADDER);
  const { body: drawn } = await workshop.post<Ladder>(`/ladders/${ladder.id}/trials`, { step: 2, hz: 4 });
  const { body: tested } = await workshop.post<WaterTest>(
    `/masters/${stock.master.id}/revisions/${stock.master.latest.id}/water-tests`,
    { place: 'tank' },
  );
  const { body: bin } = await workshop.post<Bin>('/bins', { name: 'Greens', hex: '#557755' });
  ids = {
    bins: bin.id,
    binId: bin.id,
    partId: pour.parts[0]?.id ?? '',
    masters: stock.master.id,
    molds: stock.mold.id,
    recipes: stock.recipe.id,
    colourways: stock.recipe.id,
    recipeId: stock.recipe.id,
    pourId: pour.id,
    pours: pour.id,
    shotId: after.shots[0]?.id ?? '',
    orders: stock.order.id,
    customers: stock.order.customerId,
    materials: stock.colourant.id,
    lots: stock.colourant.lots[0]?.id ?? '',
    ledgers: ledger.id,
    baits: stock.master.baitId,
    revisionId: stock.master.latest.id,
    baitId: stock.master.baitId,
    colourwayId: stock.recipe.id,
    moldId: stock.mold.id,
    materialId: stock.colourant.id,
    lineId: stock.order.lines[0]?.id ?? '',
    parentId: stock.master.latest.id,
    ladders: ladder.id,
    trialId: drawn.trials[0]?.id ?? '',
    'water-tests': tested.id,
  };
});
afterAll(() => workshop.close());

const schemaOf = (endpoint: Endpoint) =>
  toJsonSchema(endpoint.body as never, { errorMode: 'ignore', typeMode: 'input' }) as Json;

/** A body that fits the schema, ids of real records where the field's name tells which. */
function sample(schema: Json, name = ''): unknown {
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return schema.enum[0];
  const choice = schema.anyOf?.[0] ?? schema.oneOf?.[0];
  if (choice) return sample(choice, name);
  switch (schema.type) {
    case 'object':
      return Object.fromEntries(
        (schema.required ?? []).map((key) => [key, sample(schema.properties?.[key] ?? {}, key)]),
      );
    case 'array':
      return [sample(schema.items ?? {}, name)];
    case 'number':
    case 'integer':
      return Math.max(1, (schema.minimum ?? 0) + 1);
    case 'boolean':
      return true;
    default:
      return ids[name] ?? (schema.format === 'date' ? '2026-04-01' : 'something');
  }
}

const fill = (path: string) =>
  path.replace(
    /:(\w+)/g,
    (_, key: string) =>
      ids[key === 'id' || key === 'code' ? (path.split('/')[1] ?? '') : key] ?? '01a2104b-d28c-7190-9cb6-63408534159c',
  );

const HOSTILE: [what: string, value: unknown][] = [
  ['null', null],
  ['a list', []],
  ['an object', {}],
  ['text', "'; DROP TABLE pour; --"],
  ['emoji', '🐟'],
  ['a negative', -1],
  ['a huge number', 1e308],
  ['a tiny number', 5e-324],
  ['a fraction', 0.5],
  ['true', true],
  ['a long text', 'x'.repeat(5000)],
];

/** Every body that differs from a good one in a single place. */
function* mutations(schema: Json): Generator<[what: string, body: unknown, mustFail: boolean]> {
  const good = sample(schema) as Record<string, unknown>;
  yield ['an unknown field', { ...good, surprise: 1 }, true];
  for (const body of [null, [], 'text', 7]) yield [`${JSON.stringify(body)} as the whole body`, body, true];
  for (const key of Object.keys(
    schema.properties ?? schema.anyOf?.[0]?.properties ?? schema.oneOf?.[0]?.properties ?? {},
  )) {
    const { [key]: _, ...without } = good;
    const required = (schema.required ?? []).includes(key);
    yield [`${key} missing`, without, required];
    for (const [what, value] of HOSTILE)
      yield [
        `${key}: ${what}`,
        { ...good, [key]: value },
        required && ['null', 'a list', 'an object', 'true'].includes(what) && typeof good[key] === 'number',
      ];
  }
}

const writing = endpoints.filter((endpoint) => endpoint.method !== 'GET');

async function refusedCleanly(
  method: string,
  path: string,
  body: unknown,
  what: string,
  mustFail: boolean,
): Promise<void> {
  const before = workshop.rows();
  const answer = await workshop.ask(method, path, body === undefined ? undefined : JSON.stringify(body), {
    version: 1,
  });
  expect(answer.status, `${what}: ${JSON.stringify(answer.body)}`).toBeLessThan(500);
  if (mustFail) expect(answer.status, what).toBe(400);
  if (answer.status < 400) return;
  expect(answer.body.error, what).toMatchObject({
    code: expect.stringMatching(/^[a-z-]+$/),
    message: expect.stringMatching(/.{8}/),
  });
  expect(workshop.rows(), what).toBe(before);
}

describe.each(writing.map((endpoint) => [`${endpoint.method} ${endpoint.path}`, endpoint] as const))(
  '%s',
  (_name, endpoint) => {
    test('takes nothing wrong, and says why', async () => {
      const path = fill(endpoint.path);
      if (!endpoint.body) return refusedCleanly(endpoint.method, path, { surprise: 1 }, 'a body', true);
      for (const [what, body, mustFail] of mutations(schemaOf(endpoint)))
        await refusedCleanly(endpoint.method, path, body, what, mustFail);
    });

    test('survives any JSON', async () => {
      await fc.assert(
        fc.asyncProperty(fc.jsonValue({ maxDepth: 3 }), (body) =>
          refusedCleanly(endpoint.method, fill(endpoint.path), body, JSON.stringify(body), false),
        ),
        { numRuns: 25, seed: 7 },
      );
    });

    test('finds no record where there is none', async () => {
      if (!endpoint.path.includes(':')) return;
      for (const id of ['x', '__proto__', "' OR 1=1 --", '🐟', 'x'.repeat(3000), '%00', '..%2f..%2fetc']) {
        const path = endpoint.path.replace(/:\w+/g, encodeURIComponent(id));
        const body = endpoint.body ? JSON.stringify(sample(schemaOf(endpoint))) : undefined;
        const answer = await workshop.ask(endpoint.method, path, body, { version: 1 });
        expect([400, 404, 409], `${path.slice(0, 80)} ${JSON.stringify(answer.body)}`).toContain(answer.status);
      }
    });
  },
);

test('a megabyte of text is refused as too large, and broken JSON as broken', async () => {
  for (const endpoint of writing.filter((one) => one.body)) {
    const large = await workshop.ask(
      endpoint.method,
      fill(endpoint.path),
      JSON.stringify({ name: 'x'.repeat(1_000_001) }),
      { version: 1 },
    );
    expect([large.status, large.body.error.code]).toEqual([413, 'too-large']);
    const broken = await workshop.ask(endpoint.method, fill(endpoint.path), '{"name":', { version: 1 });
    expect([broken.status, broken.body.error.code]).toEqual([400, 'malformed-json']);
  }
});

test('every calculator answers its own example over HTTP, and refuses the rest', async () => {
  const { body } = await workshop.get<{
    calculators: { name: string; schema: Json; example: { input: unknown; output: unknown } }[];
  }>('/calc');
  expect(body.calculators.map((one) => one.name)).toEqual(calculators.map((one) => one.name));
  const { body: brief } = await workshop.get<{ calculators: { example: object }[] }>('/calc?answers=none');
  expect(brief.calculators.map((one) => Object.keys(one.example))).toEqual(calculators.map(() => ['input']));
  expect((await workshop.get('/calc/no.such')).body.error.code).toBe('unknown-calculator');
  for (const { name, example, schema, ...about } of body.calculators) {
    const alone = await workshop.get(`/calc/${name}`);
    expect(alone.body).toEqual({ name, ...about, schema, example: { input: example.input } });
    const answer = await workshop.post(`/calc/${name}`, example.input);
    expect(answer.body).toEqual(example.output);
    // Those that make or judge solids, or run the days ahead, take long for what they do accept: a few kinds of harm show the same there.
    const long = /^(mesh|mold.build|bait.sculpt|plan)/.test(name);
    for (const key of Object.keys(schema.properties ?? {})) {
      for (const [what, value] of HOSTILE.filter((_, i) => !long || i % 3 === 0)) {
        const { status, body: refused } = await workshop.post(`/calc/${name}`, {
          ...(example.input as object),
          [key]: value,
        });
        expect(status, `${name} ${key} ${what}: ${JSON.stringify(refused).slice(0, 200)}`).toBeLessThan(500);
        // JSON writes NaN as null; only what may truly not exist is null in an answer.
        const said = JSON.stringify(refused).replace(
          /"(largestBallMm|greatestAtMm|volumeMl|centroidMm|spread|problem|fault|boundBaitDays|gap|packedOn|lateDays|why|day|gainDays)":null/g,
          '',
        );
        expect(said, `${name} ${key} ${what}`).not.toMatch(/NaN|Infinity|null/);
      }
    }
  }
  const unknown = await workshop.post('/calc/no.such', {});
  expect([unknown.status, unknown.body.error.code]).toEqual([400, 'unknown-calculator']);
  const infinite = await workshop.post('/calc/clay.bake', '{"thicknessMm":1e999}');
  expect([infinite.status, infinite.body.error.code, infinite.body.error.path]).toEqual([
    400,
    'invalid-input',
    'thicknessMm',
  ]);
  const huge = await workshop.post('/calc/clay.bake', { thicknessMm: 1e300 });
  expect([huge.status, huge.body.error.code]).toEqual([413, 'too-large']);
}, 180_000);

test('an unknown address says so', async () => {
  const answer = await workshop.get('/nothing/here');
  expect([answer.status, answer.body.error.code]).toEqual([404, 'unknown-route']);
});

test('every list, record and search can be read, and refuses what it does not know', async () => {
  for (const endpoint of endpoints.filter((one) => one.method === 'GET')) {
    const query =
      {
        '/search': '?q=sand',
        '/recipes/:id/scaled': '?batchMl=120',
        '/complaints': `?moldId=${ids.molds}`,
      }[endpoint.path] ?? '';
    // Nothing is packed here: a bag has no code, and its sisters none.
    const ofBag = endpoint.path.startsWith('/bags/:code');
    const path = ofBag ? endpoint.path.replace(':code', 'B1') : fill(endpoint.path);
    const answer = await workshop.get<{ items?: unknown[] }>(path + query);
    expect([endpoint.path, answer.status]).toEqual([endpoint.path, ofBag ? 404 : 200]);
    for (const bad of [
      '?limit=-1',
      '?batchMl=NaN',
      '?q=',
      `?q=${'x'.repeat(500)}`,
      "?sort='",
      '?cursor=eyJzIjoiMSJ9',
    ]) {
      expect((await workshop.get(path + bad)).status, path + bad).toBeLessThan(500);
    }
  }
  const { body } = await workshop.get<{ items: { kind: string }[] }>('/search?q=Sandlance');
  expect(body.items.map((hit) => hit.kind).sort()).toEqual(['master', 'mold']);
});
