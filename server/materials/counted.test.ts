import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Material } from '../../contract/materials.ts';
import type { Order } from '../../contract/orders.ts';
import type { Today } from '../../contract/today.ts';
import { closing, poured, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const bags = async (name: string, grams: number) =>
  (await workshop.post<Material>('/materials', { name, kind: 'bags', lot: { code: 'box', grams } })).body;
const left = async (id: string) => (await workshop.get<Material>(`/materials/${id}`)).body.levelG;

/** Six shots of four, cured: 23 good baits for the order's two packs of eight. */
async function packable() {
  const stock = await stocked(workshop);
  const pour = await poured(workshop, stock, 6);
  await workshop.post(`/pours/${pour.id}/close`, closing(23, 1));
  workshop.waits(25);
  const lineId = (await workshop.get<Order>(`/orders/${stock.order.id}`)).body.lines[0]?.id;
  const pack = (more: object = {}) =>
    workshop.post<Order>(`/orders/${stock.order.id}/pack`, { lineId, bags: 1, ...more });
  return { stock, pack };
}

describe('eyes and bags are counted', () => {
  test.each([
    ['a lot of half a bag', (id: string) => workshop.post(`/materials/${id}/lots`, { code: 'B', grams: 0.5 })],
    [
      'a count of half a bag',
      async (id: string) => {
        const { lots } = (await workshop.get<Material>(`/materials/${id}`)).body;
        return workshop.post(`/lots/${lots[0]?.id}/moves`, { kind: 'counted', levelG: 99.5 });
      },
    ],
  ])('%s is refused', async (_, ask) => {
    const { id } = await bags('Small bags', 100);
    const answer = await ask(id);
    expect([answer.status, answer.body.error.message]).toEqual([
      400,
      'These are counted: give a whole number of pieces.',
    ]);
    expect(await left(id)).toBe(100);
  });

  test('and Today says pieces where it says grams of what is weighed', async () => {
    await workshop.post('/materials', {
      name: 'Small bags',
      kind: 'bags',
      reorderG: 50,
      lot: { code: 'box', grams: 1 },
    });
    const { needs } = (await workshop.get<Today>('/today')).body;
    expect(needs.find((need) => need.kind === 'store')).toMatchObject({
      when: { text: '1 piece left' },
      detail: { text: 'you reorder at 50 pieces' },
    });
  });
});

describe('a bag that is packed is one bag less in the store', () => {
  test('of the only kind there is', async () => {
    const { pack } = await packable();
    const small = await bags('Small bags', 10);
    await pack();
    expect(await left(small.id)).toBe(9);
    // Opened again, the bag is spoilt all the same.
    const order = (await pack()).body;
    await workshop.post(`/bags/${order.bags[0]?.code}/unpack`, undefined);
    expect(await left(small.id)).toBe(8);
  });

  test('of the kind that was said, where there are several; not said, none is guessed', async () => {
    const { pack } = await packable();
    const [small, large] = [await bags('Small bags', 10), await bags('Large bags', 10)];
    const first = (await pack()).body;
    expect(first.bagKinds.map((row) => [row.name, row.left])).toEqual([
      ['Large bags', 10],
      ['Small bags', 10],
    ]);
    expect([await left(small.id), await left(large.id)]).toEqual([10, 10]);
    await pack({ bagsId: large.id });
    expect([await left(small.id), await left(large.id)]).toEqual([10, 9]);
  });

  test('never below nothing: packing goes on, and the next count shows it', async () => {
    const { pack } = await packable();
    const small = await bags('Small bags', 1);
    await pack();
    expect((await pack()).status).toBe(201);
    expect(await left(small.id)).toBe(0);
  });

  test('what is no bag is refused, and nothing is packed', async () => {
    const { pack, stock } = await packable();
    const salt = (await workshop.get<Page<Material>>('/materials')).body.items.find((row) => row.kind !== 'bags');
    const refused = await pack({ bagsId: salt?.id });
    expect([refused.status, refused.body.error.path]).toEqual([400, 'bagsId']);
    expect((await workshop.get<Order>(`/orders/${stock.order.id}`)).body.lines[0]?.packed).toBe(0);
  });
});
