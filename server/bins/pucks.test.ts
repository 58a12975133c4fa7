import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Bin, BinWithMoves } from '../../contract/bins.ts';
import type { Page } from '../../contract/fields.ts';
import type { Pour } from '../../contract/pours.ts';
import { layerOver, meltOf, type Optics } from '../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../core/colour/nominal.ts';
import { closing, firstShot, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const BLUE: Optics = { k: [0.08, 0.03, 0.01], s: [0.004, 0.006, 0.011] };
const read = (melt: Optics, thicknessMm = 2) => ({
  thicknessMm,
  overBlack: layerOver(melt, thicknessMm, [0, 0, 0]),
  overWhite: layerOver(melt, thicknessMm, [1, 1, 1]),
});
const bin = async (id: string) => (await workshop.get<BinWithMoves>(`/bins/${id}`)).body;
async function givenBin(grams: number): Promise<Bin> {
  const made = await workshop.made<Bin>('/bins', { name: 'Given', hex: '#557755' });
  await workshop.made(`/bins/${made.id}/moves`, {
    kind: 'given',
    grams,
    heats: 2,
    saltG: null,
    note: '',
    looked: true,
  });
  return made;
}
const puck = (id: string, more: object = {}) =>
  workshop.post<BinWithMoves>(`/bins/${id}/pucks`, { massG: 22, inWaterG: 2, ...more });

test('a puck tells the salt and the colour of all that lies there; no gram is moved by it', async () => {
  const { id } = await givenBin(400);
  expect((await bin(id)).colour).toBeNull();
  const melt = meltOf(PLAIN_PLASTIC, [{ ...BLUE, mlPerL: 5 }]);
  const { body } = await puck(id, { hardness: { scale: '00', readings: [50, 52] }, colour: read(melt) });
  // 22 g in 20 mL: 1.10 g/mL, 13.75 % of 400 g.
  expect(body.layers).toMatchObject([{ heats: 2, grams: 400, saltG: expect.closeTo(55.006, 2), saltUnknownG: 0 }]);
  expect(body.colour?.unknownFraction).toBeCloseTo(0, 9);
  for (const band of [0, 1, 2] as const) expect(body.colour?.optics.k[band]).toBeCloseTo(melt.k[band], 6);
  expect(body.puck?.output).toMatchObject({ salt: { value: expect.closeTo(0.1375, 3) }, hardness: { value: 51 } });
  expect(body.moves.map(({ kind }) => kind)).toEqual(['given']);

  // As much again that nobody knows: the colour is known of half of it.
  await workshop.made(`/bins/${id}/moves`, { kind: 'given', grams: 400, heats: 1, saltG: 0, note: '', looked: true });
  expect((await bin(id)).colour).toMatchObject({ unknownFraction: expect.closeTo(0.5, 9) });
});

test('another puck corrects the one before; a mistake is taken back, but not once some of it was used', async () => {
  const { id } = await givenBin(400);
  const first = (await puck(id)).body.puck?.id;
  const { body } = await puck(id, { inWaterG: 1 });
  // 22 g in 21 mL are 1.0476 g/mL.
  expect(body.layers[0]?.saltG).toBeCloseTo((400 * (1 / 1.02 - 21 / 22)) / (1 / 1.02 - 1 / 2.165), 6);
  // Not under the one that stands on it.
  expect((await workshop.post('/undo', { rowId: first })).body.error.code).toBe('in-use');
  expect((await bin(id)).layers[0]?.saltG).toBe(body.layers[0]?.saltG);
  const undone = await workshop.post<BinWithMoves>('/undo', { rowId: body.puck?.id });
  expect(undone.status).toBe(201);
  expect(undone.body.layers[0]?.saltG).toBeCloseTo(55.006, 2);
  expect(undone.body.puck?.id).toBe(first);
  await workshop.post(`/bins/${id}/moves`, { kind: 'counted', grams: 300, note: '' });
  const refused = await workshop.post('/undo', { rowId: first });
  expect([refused.status, refused.body.error.code]).toEqual([400, 'in-use']);
});

test.each([
  [{ bubbles: 'foamy' }, 400, 'foamy-puck'],
  [{ inWaterG: -1 }, 400, 'invalid-input'],
  [{ inWaterG: undefined }, 400, 'invalid-input'],
])('a puck that tells nothing writes nothing: %o', async (more, status, code) => {
  const { id } = await givenBin(400);
  const before = workshop.rows();
  const answer = await puck(id, more);
  expect([answer.status, answer.body.error.code, workshop.rows() - before]).toEqual([status, code, 0]);
});

test('what comes back of a cup has the colour that went into it, through two cups', async () => {
  await workshop.made(`/materials/${stock.colourant.id}/steps`, {
    how: 'typed',
    mlPerL: 5,
    ...read(meltOf(PLAIN_PLASTIC, [{ ...BLUE, mlPerL: 5 }])),
  });
  const cup = async (blend?: object[]) => {
    const pour = await workshop.made<Pour>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 1 }],
      ...(blend ? { blend } : {}),
    });
    const drops = pour.plan.cookMl * 0.004 * 20;
    await workshop.made(`/ledgers/${pour.ledgerId}/doses`, {
      materialId: stock.colourant.id,
      amount: drops,
      unit: 'drop',
    });
    await firstShot(workshop, stock, pour);
    await workshop.made(`/pours/${pour.id}/close`, closing(4, 0));
    return pour;
  };
  await cup();
  const own = async () => (await workshop.get<Page<Bin>>('/bins')).body.items[0] as Bin;
  const once = await own();
  // 4 mL of the blue in a litre of plain plastic.
  expect(once.colour?.unknownFraction).toBe(0);
  for (const band of [0, 1, 2] as const)
    expect(once.colour?.optics.k[band]).toBeCloseTo(
      (PLAIN_PLASTIC.k[band] as number) + 4 * (BLUE.k[band] as number),
      6,
    );
  // Three tenths of the next cup's plastic are that, dosed as much again; what comes back mixes with what was left.
  const pour = await cup([
    { materialId: stock.plastisol.id, share: 0.7 },
    { binId: once.id, share: 0.3 },
  ]);
  const twice = await own();
  const usedG = 0.3 * (closing(4, 0).cookedG - pour.plan.cookMl * 0.004);
  const backG = closing(4, 0).returnedG;
  expect(twice.grams).toBeCloseTo(once.grams - usedG + backG, 6);
  const [weak, strong] = [4, 5.2].map((ml) => PLAIN_PLASTIC.k[0] + ml * BLUE.k[0]) as [number, number];
  expect(twice.colour?.optics.k[0]).toBeCloseTo(((once.grams - usedG) * weak + backG * strong) / twice.grams, 6);
});
