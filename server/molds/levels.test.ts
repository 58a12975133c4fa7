import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Colourway, MoldLevels } from '../../contract/colourways.ts';
import type { Page } from '../../contract/fields.ts';
import type { Master } from '../../contract/masters.ts';
import type { Mold } from '../../contract/molds.ts';
import type { Order } from '../../contract/orders.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Recipe } from '../../contract/recipes.ts';
import type { Today } from '../../contract/today.ts';
import { writeStl } from '../../core/shape/write.ts';
import { type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let pearl: Recipe;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  const items = [{ materialId: stock.colourant.id, amount: 6, unit: 'drop' }];
  pearl = await made<Recipe>('/recipes', { name: 'Limpet', hex: '#d8cdb8', basisMl: 240, items });
});
afterEach(() => workshop.close());

const made = <T>(path: string, body: unknown) => workshop.made<T>(path, body);

describe('a layer up to a level of the mold', () => {
  // A roof: 100 long, 20 wide at its foot, 10 high. Under f of its height lies 1 − (1 − f)² of it; on its ridge, f².
  const roof = {
    positions: Float64Array.from([0, -10, 0, 0, 10, 0, 0, 0, 10, 100, -10, 0, 100, 10, 0, 100, 0, 10]),
    triangles: Uint32Array.from([0, 2, 1, 3, 4, 5, 0, 1, 4, 0, 4, 3, 1, 2, 5, 1, 5, 4, 2, 0, 3, 2, 3, 5]),
  };
  const twoLayers = (more: object = { measure: 'level', heightFraction: 0.4 }) =>
    made<Colourway>('/colourways', {
      name: 'Ebb Glass',
      hex: '#7fa3a0',
      notes: '',
      layers: [
        { place: 'belly', recipeId: pearl.id, ...more },
        { place: 'back', recipeId: stock.recipe.id, measure: 'rest', joins: 'melted' },
      ],
    });
  const roofMold = async (fill: string) => {
    const sent = await fetch(`${workshop.url}/api/meshes`, { method: 'POST', body: Buffer.from(writeStl(roof)) });
    const { id: meshId } = (await sent.json()) as { id: string };
    const master = await made<Master>('/masters', { name: `Roof ${fill}`, shape: 'stick', kind: 'print', meshId });
    const about = {
      kind: 'silicone-two-piece',
      fill,
      baitId: master.baitId,
      revisionId: master.latest.id,
      cavities: 2,
      cavityMl: 10,
    };
    return made<Mold>('/molds', { name: `Roof × 2, ${fill}`, ...about });
  };
  const taken = async (colourwayId: string, moldId: string) => {
    const { molds } = await made<Pour>('/pours', { colourwayId, molds: [{ moldId, shots: 1 }] });
    return molds[0];
  };

  test('is what lies under it as that mold stands: 64 % of a roof, 16 % of one on its ridge, 40 % on its end', async () => {
    const colour = await twoLayers();
    const open = await roofMold('open-pour');
    expect(await taken(colour.id, open.id)).toMatchObject({
      layersMl: [expect.closeTo(12.8, 5), expect.closeTo(7.2, 5)],
      layersMm: [expect.closeTo(4, 5), null],
    });
    const fitting = { stands: 'belly-up' };
    await workshop.ask('PATCH', `/molds/${open.id}`, { fitting }, { version: open.version });
    expect((await taken(colour.id, open.id))?.cavityLayersMl).toEqual([expect.closeTo(1.6, 5), expect.closeTo(8.4, 5)]);
    const closed = await roofMold('gravity');
    expect(await taken(colour.id, closed.id)).toMatchObject({
      cavityLayersMl: [expect.closeTo(4, 5), expect.closeTo(6, 5)],
      layersMm: [expect.closeTo(40, 4), null],
    });
    const { body } = await workshop.get<Page<MoldLevels>>(`/colourways/${colour.id}/levels`);
    expect(body.items).toEqual([
      {
        moldId: open.id,
        stands: { way: 'belly-up', byDefault: false },
        tallMm: 10,
        levels: { '0.4': expect.closeTo(0.16, 6) },
      },
      {
        moldId: closed.id,
        stands: { way: 'nose-up', byDefault: true },
        tallMm: 100,
        levels: { '0.4': expect.closeTo(0.4, 6) },
      },
    ]);
  });

  test('into a mold whose bait has no shape here it is refused; an order says why, and stays readable', async () => {
    const colour = await twoLayers();
    const before = workshop.rows();
    const body = { colourwayId: colour.id, molds: [{ moldId: stock.mold.id, shots: 1 }] };
    const refused = await workshop.post('/pours', body);
    expect([refused.status, refused.body.error.code]).toEqual([400, 'level-unknown']);
    expect(workshop.rows()).toBe(before);
    const order = await made<Order>('/orders', {
      newCustomer: { name: 'Ellary Kayak Hire' },
      dueOn: '2026-03-12',
      lines: [{ baitId: stock.master.baitId, colourwayId: colour.id, packs: 1, perPack: 8 }],
    });
    expect(order.need.cups).toMatchObject([
      { molds: [], tonight: null, withoutMold: [{ baits: 8, why: expect.stringContaining('no shape here') }] },
    ]);
    expect((await workshop.get<Today>('/today')).body.withoutMold).toMatchObject([
      { baits: 8, why: expect.stringContaining('no shape here') },
    ]);
  });

  test.each([
    ['over one that is the rest', [{ measure: 'rest' }, { measure: 'level', heightFraction: 0.4 }]],
    [
      'under another that lies higher',
      [
        { measure: 'level', heightFraction: 0.6 },
        { measure: 'level', heightFraction: 0.6 },
      ],
    ],
    ['over the top', [{ measure: 'level', heightFraction: 1.1 }, { measure: 'rest' }]],
  ])('is refused %s', async (_, [first, second]) => {
    const layers = [
      { place: 'belly', recipeId: pearl.id, ...first },
      { place: 'back', recipeId: stock.recipe.id, joins: 'melted', ...second },
    ];
    const answer = await workshop.post('/colourways', { name: 'Ebb', hex: '#7fa3a0', notes: '', layers });
    expect([answer.status, answer.body.error.path?.startsWith('layers')]).toEqual([400, true]);
  });
});
