import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Bin } from '../../contract/bins.ts';
import type { Page } from '../../contract/fields.ts';
import type { Material } from '../../contract/materials.ts';
import type { Pour } from '../../contract/pours.ts';
import { firstShot, type Stocked, stocked, TestWorkshop, twoShots } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const laidOut = (more?: object) => twoShots(workshop, stock, more);
const drawn = (pour: Pour) => firstShot(workshop, stock, pour);
const close = (pour: Pour, more: object) =>
  workshop.post<Pour>(`/pours/${pour.id}/close`, { cookedG: 105, goodG: 40, rejectG: 5, returnedG: 50, ...more });
const bins = async () => (await workshop.get<Page<Bin>>('/bins')).body.items;
const pourOf = async (id: string) => (await workshop.get<Pour>(`/pours/${id}`)).body;
const level = async () => (await workshop.get<{ levelG: number }>(`/materials/${stock.plastisol.id}`)).body.levelG;

test('what is left of a cup is poured into the next: a part of it, one heat older, and out of no drum', async () => {
  const [one, two] = [await laidOut(), await laidOut()];
  await drawn(one);
  expect((await close(one, { leftTo: two.id })).status).toBe(201);
  // Only its rejects lie in the bin.
  expect((await bins()).map((bin) => [bin.name, bin.grams])).toEqual([['Slack Tide', 5]]);
  const next = await pourOf(two.id);
  const [drum, over] = next.parts;
  expect(over).toMatchObject({ name: `Slack Tide, ${one.code}`, fromPourId: one.id, weighedG: 50, kind: 'remelt' });
  // 103.4 mL are 105.468 g; the drum gives what is left of that.
  expect(over?.share).toBeCloseTo(50 / 105.468, 9);
  expect(drum?.share).toBeCloseTo(1 - 50 / 105.468, 9);
  expect(next.blend).toMatchObject({ heats: 2, unknownFraction: 0, hardness: null });
  const before = await level();
  await drawn(two);
  await close(two, {});
  // 105 g were cooked, 50 of them came out of the other cup.
  expect(before - (await level())).toBeCloseTo(55, 6);
  expect((await bins()).map((bin) => bin.layers.map((layer) => [layer.heats, layer.grams]))).toEqual([
    [
      [1, 5],
      [2, 55],
    ],
  ]);
});

test('what was poured in stays in, and no cup takes from itself or from one that is closed', async () => {
  const [one, two] = [await laidOut(), await laidOut()];
  await drawn(one);
  const rows = workshop.rows();
  for (const leftTo of [one.id, stock.order.id]) {
    const refused = await close(one, { leftTo });
    expect([refused.status >= 400, refused.body.error.code !== 'internal']).toEqual([true, true]);
  }
  expect(workshop.rows()).toBe(rows);
  await close(one, { leftTo: two.id });
  const part = (await pourOf(two.id)).parts.find((row) => row.fromPourId);
  const again = await workshop.post(`/pours/${two.id}/weighed`, { partId: part?.id, grams: 10 });
  const undone = await workshop.post('/undo', { rowId: part?.weighingId });
  expect([again.body.error.code, undone.body.error.code]).toEqual(['already-started', 'already-started']);
  const three = await laidOut();
  await drawn(three);
  expect((await close(three, { leftTo: one.id })).body.error).toMatchObject({ code: 'pour-closed', path: 'leftTo' });
});

test('weighed again, the next cup holds as much more or less; once it is closed, as much less or more of all else', async () => {
  const [one, two] = [await laidOut(), await laidOut()];
  await drawn(one);
  await close(one, { leftTo: two.id });
  const weights = { cookedG: 105, goodG: 40, rejectG: 5, residueG: 2 };
  const again = (more: object) => workshop.post<Pour>(`/pours/${one.id}/weigh`, { ...weights, ...more });
  const over = async () => (await pourOf(two.id)).parts.find((part) => part.fromPourId)?.weighedG;
  expect((await again({ rejectG: 7, returnedG: 44 })).status).toBe(201);
  // The bin has the rejects alone: 5 and 2 more.
  expect([await over(), (await bins()).map((bin) => bin.grams)]).toEqual([44, [7]]);
  await again({ rejectG: 7, returnedG: 51 });
  expect([await over(), (await bins()).map((bin) => bin.grams)]).toEqual([51, [7]]);
  const rows = workshop.rows();
  const nothing = await again({ returnedG: 0 });
  expect([nothing.body.error.code, nothing.body.error.path]).toEqual(['invalid-input', 'returnedG']);
  // Nor is a cup put away that something was poured into: that would be lost.
  const away = await workshop.ask('PATCH', `/pours/${two.id}`, { discarded: true }, { version: two.version });
  expect([away.body.error.code, workshop.rows()]).toEqual(['already-started', rows]);
  await drawn(two);
  await close(two, {});
  const drum = async () => (await workshop.get<Material>(`/materials/${stock.plastisol.id}`)).body.levelG;
  const held = await drum();
  // Eleven grams less of the first cup were in the second: so many more came out of the drum, for it was weighed as a whole.
  expect((await again({ rejectG: 7, returnedG: 40 })).status).toBe(201);
  expect([await over(), held - (await drum())]).toEqual([40, expect.closeTo(11, 9)]);
  expect((await again({ rejectG: 7, returnedG: 51 })).status).toBe(201);
  expect([await over(), held - (await drum())]).toEqual([51, expect.closeTo(0, 9)]);
  const cooked = (await pourOf(two.id)).balance?.cookedG as number;
  const written = workshop.rows();
  const most = await again({ cookedG: 400, returnedG: cooked + 1 });
  expect([most.body.error.path, most.body.error.message.includes('in all'), workshop.rows()]).toEqual([
    'returnedG',
    true,
    written,
  ]);
});

test('kept apart for another evening it has a bin by the cup’s own name, and goes into a cup like any other', async () => {
  const one = await laidOut();
  await drawn(one);
  await close(one, { leftTo: 'kept' });
  const kept = (await bins()).find((bin) => bin.name === `Slack Tide, ${one.code}`);
  expect([kept?.grams, kept?.heats, kept?.colourwayId]).toEqual([50, 1, null]);
  workshop.waits(48);
  const two = await laidOut({
    blend: [
      { materialId: stock.plastisol.id, share: 0.5 },
      { binId: kept?.id, share: 0.5 },
    ],
  });
  expect(two.blend.heats).toBe(2);
});

test('two leftovers stirred together are a third colour, grams, heats and salt as they were', async () => {
  const made = async (name: string, grams: number, heats: number | null, saltG: number | null) => {
    const { body } = await workshop.post<Bin>('/bins', { name, hex: '#557755' });
    await workshop.post(`/bins/${body.id}/moves`, { kind: 'given', grams, heats, saltG, note: '', looked: true });
    return body.id;
  };
  const [green, used] = [await made('Greens', 300, 2, 30), await made('Used', 200, null, null)];
  const from = [
    { binId: green, grams: 100 },
    { binId: used, grams: 50 },
  ];
  const { body: third } = await workshop.post<Bin>('/bins/mixed', { name: 'Kelp Mud', hex: '#5d5a3b', from });
  expect(third.layers).toEqual([
    { heats: 2, grams: 100, saltG: 10, saltUnknownG: 0 },
    { heats: null, grams: 50, saltG: 0, saltUnknownG: 50 },
  ]);
  expect((await bins()).map((bin) => [bin.name, bin.grams])).toEqual([
    ['Greens', 200],
    ['Kelp Mud', 150],
    ['Used', 150],
  ]);
  const rows = workshop.rows();
  const much = await workshop.post('/bins/mixed', {
    name: 'More',
    hex: '#5d5a3b',
    from: [from[0], { binId: used, grams: 151 }],
  });
  expect([much.body.error.code, much.body.error.path]).toEqual(['not-enough-stock', 'from.1.grams']);
  expect(workshop.rows()).toBe(rows);
});
