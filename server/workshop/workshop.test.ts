import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Bait, Maker, OwnMeasure, Workshop } from '../../contract/workshop.ts';
import { stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const here = async () => (await workshop.get<Workshop>('/workshop')).body;
const set = async (body: object, version?: number) =>
  workshop.ask<Workshop>('PATCH', '/workshop', body, { version: version ?? (await here()).version });

describe('the workshop', () => {
  test('changes what was said and keeps the rest', async () => {
    const before = await here();
    await set({ roomC: 14, currency: 'USD' });
    expect(await here()).toEqual({ ...before, roomC: 14, currency: 'USD', version: before.version + 1 });
  });

  test.each([
    [{ currency: 'euros' }, 'currency', 'Money: must be three letters like EUR.'],
    [{ roomC: 61 }, 'roomC', 'Room temperature must be at most 60 °C, not 61 °C.'],
    [{ glassMl: 0 }, 'glassMl', 'The cooking glass holds must be more than 0, not 0 mL.'],
    [{ dropsPerMl: 101 }, 'dropsPerMl', 'Drops in a mL must be at most 100, not 101.'],
    [{ name: ' ' }, 'name', 'Name must not be empty.'],
  ])('refuses %j at its field', async (body, path, message) => {
    const before = await here();
    const refused = await set(body);
    expect([refused.body.error.path, refused.body.error.message]).toEqual([path, message]);
    expect(await here()).toEqual(before);
  });

  test('that was changed meanwhile is shown, not overwritten', async () => {
    const { version } = await here();
    await set({ name: 'Skerry Lane' });
    const late = await set({ name: 'Loft' }, version);
    expect([late.status, late.body.error.current?.name]).toEqual([409, 'Skerry Lane']);
  });
});

describe('an own measure', () => {
  const scoop = (more: object = {}) =>
    workshop.post<OwnMeasure>('/measures', { name: 'scoop', count: 10, grams: 6.8, ...more });

  test('is what so many of it weighed, over the density of what was weighed', async () => {
    expect((await scoop()).body.ml).toBeCloseTo(0.68, 12);
    expect((await scoop({ name: 'squirt', count: 20, grams: 18.7, densityGPerMl: 1.1 })).body.ml).toBeCloseTo(0.85, 12);
  });

  test('weighed again, it is worked out again', async () => {
    const { body } = await scoop();
    const change = { name: 'scoop', count: 5, grams: 6.8, densityGPerMl: 1 };
    const { body: after } = await workshop.ask<OwnMeasure>('PATCH', `/measures/${body.id}`, change, {
      version: body.version,
    });
    expect(after.ml).toBeCloseTo(1.36, 12);
  });

  test.each(['tsp', 'mL', 'drop', 'm/s'])('is not called %s', async (name) => {
    const refused = await scoop({ name });
    expect([refused.status, refused.body.error.path]).toEqual([400, 'name']);
  });

  test('of a name that is there already is refused, whatever its capitals', async () => {
    await scoop();
    expect((await scoop({ name: 'Scoop' })).body.error.code).toBe('already-exists');
  });
});

test('each maker has units of their own', async () => {
  const mara = (await workshop.post<Maker>('/makers', { name: 'Mara', system: 'us', temperature: 'F' })).body;
  await workshop.post('/makers', { name: 'Una', system: 'metric', temperature: 'C' });
  await workshop.ask('PATCH', `/makers/${mara.id}`, { name: 'Mara', system: 'us', temperature: 'C' }, { version: 1 });
  const makers = (await workshop.get<Page<Maker>>('/makers')).body.items;
  expect(makers.map(({ name, system, temperature }) => [name, system, temperature])).toEqual([
    ['Mara', 'us', 'C'],
    ['Una', 'metric', 'C'],
  ]);
});

test('a bait is renamed everywhere it is named', async () => {
  const stock = await stocked(workshop);
  const [bait] = (await workshop.get<Page<Bait>>('/baits')).body.items;
  await workshop.ask('PATCH', `/baits/${bait?.id}`, { name: 'Sand eel 110' }, { version: bait?.version ?? 0 });
  const said = await Promise.all(
    ['/masters', '/molds', '/orders'].map(async (path) => JSON.stringify((await workshop.get(path)).body)),
  );
  for (const text of said) {
    expect(text).toContain('Sand eel 110');
    expect(text).not.toContain('"Sandlance 110"');
  }
  expect(stock.master.name).toBe('Sandlance 110');
});
