import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Page } from '../contract/fields.ts';
import { stocked, TestWorkshop } from './testing/workshop.ts';

let workshop: TestWorkshop;

const NAMES = ['Anchor', 'Buoy', 'Capstan', 'Davit', 'Eyebolt'];
const days = (n: number) => `2026-04-0${n + 1}`;

beforeAll(async () => {
  workshop = await TestWorkshop.open();
  const { master, recipe, mold } = await stocked(workshop);
  for (const [n, name] of NAMES.entries()) {
    workshop.waits(1);
    await workshop.post('/customers', { name });
    await workshop.post('/materials', { name, kind: 'flake' });
    await workshop.post('/ledgers', { title: name, batchMl: 200 });
    await workshop.post('/kept', { calculator: 'clay.bake', title: name, input: { thicknessMm: n + 1 } });
    await workshop.post('/molds', {
      name,
      kind: 'cast',
      fill: 'gravity',
      baitId: master.baitId,
      cavities: 1,
      cavityMl: 5,
    });
    await workshop.post('/recipes', {
      name,
      hex: '#123456',
      basisMl: 240,
      items: [{ materialId: recipe.revision.items[0]?.materialId, amount: 1, unit: 'drop' }],
    });
    await workshop.post('/masters', {
      name,
      shape: 'stick',
      kind: 'wood',
      lengthMm: 50,
      widthMm: 10,
      heightMm: 10,
      thickestMm: 10,
    });
    await workshop.post('/pours', { colourwayId: recipe.id, molds: [{ moldId: mold.id, shots: 1 }] });
    await workshop.post('/ladders', {
      name,
      scale: '00',
      hardness: 30,
      wristHeightMm: 6,
      wristLengthMm: 12,
      paddleDiameterMm: 14,
      paddleThicknessMm: 4,
    });
    await workshop.post(`/masters/${master.id}/revisions/${master.latest.id}/water-tests`, {
      place: 'lake',
      placeName: name,
    });
    await workshop.post('/orders', {
      newCustomer: { name: `${name} Co` },
      dueOn: days(n),
      lines: [{ baitId: master.baitId, colourwayId: recipe.id, packs: 1, perPack: 8 }],
    });
  }
});
afterAll(() => workshop.close());

/** Each list, its sorts, and the field that says which row it is. */
const LISTS: [path: string, sorts: string[], by: string, find: string, found: number][] = [
  ['/masters', ['name', 'created'], 'name', 'capstan', 1],
  ['/molds', ['name', 'created'], 'name', 'davit', 1],
  ['/materials', ['name', 'kind', 'created'], 'name', 'o', 5],
  ['/recipes', ['name', 'created'], 'name', 'buoy', 1],
  ['/ledgers', ['created', 'title'], 'title', 'eye', 1],
  ['/pours', ['time', 'code'], 'code', 'P3', 1],
  ['/customers', ['name', 'created'], 'name', 'co', 5],
  ['/orders', ['due', 'created', 'code'], 'code', 'davit co', 1],
  ['/ladders', ['created', 'name'], 'name', 'buoy', 1],
  ['/water-tests', ['time', 'master'], 'placeName', 'capstan', 1],
  ['/kept', ['created', 'title'], 'title', 'clay', 5],
];

describe.each(LISTS)('GET %s', (path, sorts, by, find, found) => {
  const get = async (query: string) => (await workshop.get<Page<Record<string, unknown>>>(path + query)).body;
  const walk = async (query: string) => {
    const seen: unknown[] = [];
    for (let cursor: string | null = '', turns = 0; cursor !== null && turns < 20; turns++) {
      const page: Page<Record<string, unknown>> = await get(`${query}&limit=2${cursor ? `&cursor=${cursor}` : ''}`);
      expect(page.items.length).toBeLessThanOrEqual(2);
      seen.push(...page.items.map((row) => row[by]));
      cursor = page.nextCursor;
    }
    return seen;
  };

  test.each(sorts)(
    'sorted by %s it is walked in twos without gap or repeat, and backwards the other way round',
    async (sort) => {
      const all = (await get(`?sort=${sort}&limit=200`)).items.map((row) => row[by]);
      expect(all.length).toBeGreaterThanOrEqual(5);
      expect(await walk(`?sort=${sort}`)).toEqual(all);
      expect(await walk(`?sort=-${sort}`)).toEqual([...all].reverse());
    },
  );

  test('it is searched', async () => {
    expect((await get(`?q=${encodeURIComponent(find)}`)).items).toHaveLength(found);
    expect((await get('?q=no-such-thing-anywhere')).items).toEqual([]);
  });

  test('a cursor of another order is refused', async () => {
    const { nextCursor } = await get(`?sort=${sorts[0]}&limit=1`);
    const answer = await workshop.get(`${path}?sort=-${sorts[0]}&cursor=${nextCursor}`);
    expect([answer.status, answer.body.error.path]).toEqual([400, 'cursor']);
  });

  test('an unknown sort says which there are', async () => {
    const answer = await workshop.get(`${path}?sort=weight`);
    expect(answer.body.error).toMatchObject({
      code: 'invalid-input',
      path: 'sort',
      message: `This list sorts by ${sorts.join(', ')}.`,
    });
  });
});
