import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { closing, poured, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let more: () => Promise<void>;
beforeAll(async () => {
  workshop = await TestWorkshop.open();
  const shop = await stocked(workshop);
  const { master, recipe } = shop;
  more = async () => {
    const pour = await poured(workshop, shop, 1);
    const closed = await workshop.post(`/pours/${pour.id}/close`, closing(3, 1));
    if (closed.status !== 201) throw new Error(JSON.stringify(closed.body));
    await workshop.post('/orders', {
      newCustomer: { name: `Customer ${pour.code}` },
      dueOn: '2026-03-09',
      lines: [{ baitId: master.baitId, colourwayId: recipe.id, packs: 1, perPack: 8 }],
    });
  };
});
afterAll(() => workshop.close());

/** How many statements the database carries out for one request. */
async function statements(path: string): Promise<number> {
  const kind = Object.getPrototypeOf(workshop.data.db.prepare('SELECT 1')) as Record<
    'all' | 'get' | 'run',
    () => unknown
  >;
  const spies = (['all', 'get', 'run'] as const).map((name) => vi.spyOn(kind, name));
  const { status } = await workshop.get(path);
  const count = spies.reduce((sum, spy) => sum + spy.mock.calls.length, 0);
  for (const spy of spies) spy.mockRestore();
  expect(status).toBe(200);
  return count;
}

test.each([
  ['/pours?limit=50', 8],
  ['/orders?limit=50', 20],
  ['/rack', 20],
  ['/molds', 30],
  ['/recipes', 20],
  ['/colourways', 8],
  ['/bins', 8],
  ['/plastics', 12],
  ['/line', 30],
  ['/today', 60],
  ['/plan', 60],
  ['/money', 20],
  ['/season', 20],
  ['/customers', 5],
])('%s asks the database as often for many rows as for few, and no more than %i times', async (path, most) => {
  await more();
  const few = await statements(path);
  for (let n = 0; n < 4; n++) await more();
  const many = await statements(path);
  expect([few > 0, many]).toEqual([true, few]);
  expect(many).toBeLessThanOrEqual(most);
});
