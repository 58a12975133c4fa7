import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Bin, BinWithMoves } from '../../contract/bins.ts';
import type { Plastics } from '../../contract/blend.ts';
import type { Page } from '../../contract/fields.ts';
import type { Material } from '../../contract/materials.ts';
import type { Pour } from '../../contract/pours.ts';
import { closing, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const bins = async () => (await workshop.get<Page<Bin>>('/bins')).body.items;
const level = async (id: string) => (await workshop.get<Material>(`/materials/${id}`)).body.levelG;
const move = (bin: Pick<Bin, 'id'>, body: object) => workshop.post<BinWithMoves>(`/bins/${bin.id}/moves`, body);
const given = (bin: Pick<Bin, 'id'>, grams: number, heats: number | null, saltG: number | null = 0) =>
  move(bin, { kind: 'given', grams, heats, saltG, note: 'from the club', looked: true });
const mixedBin = async () => (await workshop.post<Bin>('/bins', { name: 'Greens', hex: '#557755' })).body;
const firm = async () =>
  (
    await workshop.post<Material>('/materials', {
      name: 'Firm 58',
      kind: 'plastisol',
      hardnessScale: '00',
      hardness: 58,
      lot: { code: 'F1', grams: 3000 },
    })
  ).body;

const layOut = (blend?: object[]) =>
  workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 3 }],
    ...(blend ? { blend } : {}),
  });
/** Three shots, twelve baits to sell, weighed: 12.4 g a gram of nothing lost but what is said. */
async function drawn(pour: Pour) {
  await workshop.post(`/pours/${pour.id}/heats`, { kind: 'cook', c: 176 });
  for (let n = 0; n < 3; n++) {
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    const marks = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
    await workshop.post(`/pours/${pour.id}/shots/${body.shots.at(-1)?.id}/marks`, { marks });
  }
}
const close = (pour: Pour, more: object = {}) =>
  workshop.post<Pour>(`/pours/${pour.id}/close`, { ...closing(12, 0), ...more });
const COOKED = closing(12, 0).cookedG;

describe('a bin', () => {
  test('takes what was given as it was told, and what was not told stays unknown', async () => {
    const bin = await mixedBin();
    await given(bin, 300, 3, 30);
    const { body } = await given(bin, 100, null, null);
    expect(body.grams).toBe(400);
    expect(body.layers).toEqual([
      { heats: 3, grams: 300, saltG: 30, saltUnknownG: 0 },
      { heats: null, grams: 100, saltG: 0, saltUnknownG: 100 },
    ]);
    // 300 of 400 g have three heats: more than a fifth.
    expect([body.heats, body.unknownFraction]).toEqual([3, 0.25]);
  });

  test('what was given by mistake is taken back once; a count only by counting again', async () => {
    const bin = await mixedBin();
    const { body } = await given(bin, 300, 3);
    await workshop.post('/undo', { rowId: body.moves[0]?.id });
    expect((await bins()).find((one) => one.id === bin.id)).toMatchObject({ grams: 0, heats: null });
    expect((await workshop.post('/undo', { rowId: body.moves[0]?.id })).body.error.code).toBe('already-reversed');
    const { body: counted } = await move(bin, { kind: 'counted', grams: 55 });
    expect(counted.layers).toEqual([{ heats: null, grams: 55, saltG: 0, saltUnknownG: 55 }]);
    expect((await workshop.post('/undo', { rowId: counted.moves[0]?.id })).status).toBe(404);
    await move(bin, { kind: 'counted', grams: 20 });
    expect((await bins()).find((one) => one.id === bin.id)?.grams).toBeCloseTo(20, 9);
  });

  test.each([
    ['baits nobody looked through', { kind: 'given', grams: 10, heats: null, saltG: null, looked: false }, 'looked'],
    ['more salt than it weighs', { kind: 'given', grams: 10, heats: null, saltG: 11, looked: true }, 'saltG'],
    ['nothing', { kind: 'given', grams: 0, heats: null, saltG: null, looked: true }, 'grams'],
    ['half a heat', { kind: 'given', grams: 10, heats: 1.5, saltG: null, looked: true }, 'heats'],
  ])('%s is refused', async (_what, body, path) => {
    const bin = await mixedBin();
    const before = workshop.rows();
    const refused = await move(bin, body);
    expect([refused.status, refused.body.error.path, workshop.rows()]).toEqual([400, path, before]);
  });

  test('of a name that is taken is refused; it is called otherwise, and put away', async () => {
    const bin = await mixedBin();
    expect((await workshop.post('/bins', { name: 'greens', hex: '#000000' })).body.error.code).toBe('already-exists');
    const { body } = await workshop.ask<Bin>('PATCH', `/bins/${bin.id}`, { name: 'Blues' }, { version: bin.version });
    const away = await workshop.ask('PATCH', `/away/bins/${bin.id}`, { away: true }, { version: body.version });
    expect([body.name, away.status]).toEqual(['Blues', 200]);
  });
});

describe('what comes back of a cup', () => {
  test('goes to the colour’s own bin once cooked, with the cup’s salt in it', async () => {
    const { body: salt } = await workshop.post<Material>('/materials', {
      name: 'Fine salt',
      kind: 'salt',
      lot: { code: 'S', grams: 500 },
    });
    const { body: pour } = await layOut();
    await workshop.post(`/ledgers/${pour.ledgerId}/doses`, { materialId: salt.id, amount: 17.24, unit: 'g' });
    await drawn(pour);
    await close(pour);
    const [bin] = await bins();
    expect(bin).toMatchObject({ name: 'Slack Tide', colourwayId: stock.recipe.id, heats: 1 });
    expect(bin?.layers[0]?.saltG).toBeCloseTo((17.24 / COOKED) * 40, 9);
  });

  test('or to the bin that was said; one that is not here is refused, and nothing is closed', async () => {
    const bin = await mixedBin();
    const { body: pour } = await layOut();
    await drawn(pour);
    const refused = await close(pour, { binId: '01a217a4-fdac-76c5-8de1-fc914937aa14' });
    expect([refused.status, refused.body.error.path]).toEqual([400, 'binId']);
    expect((await close(pour, { binId: bin.id })).status).toBe(201);
    expect((await bins()).map((one) => [one.name, one.grams])).toEqual([['Greens', 40]]);
  });

  test('weighed again, as much more or less of it lies there', async () => {
    const bin = await mixedBin();
    const { body: pour } = await layOut();
    await drawn(pour);
    await close(pour, { binId: bin.id });
    // It stays in the bin that it went to: there is no other to name.
    const other = await workshop.post(`/pours/${pour.id}/weigh`, { ...closing(12, 0), binId: bin.id });
    expect([other.status, other.body.error.path]).toEqual([400, 'binId']);
    await workshop.post(`/pours/${pour.id}/weigh`, { ...closing(12, 0), returnedG: 25 });
    expect((await bins()).map((one) => [one.name, one.grams, one.heats])).toEqual([['Greens', 25, 1]]);
  });
});

describe('a cup that is blended', () => {
  test('of half remelt: the lot and the bin give their halves, and what comes back is one heat older', async () => {
    const bin = await mixedBin();
    await given(bin, 400, 3, 40);
    const before = await level(stock.plastisol.id);
    const { body: pour } = await layOut([
      { materialId: stock.plastisol.id, share: 0.5 },
      { binId: bin.id, share: 0.5 },
    ]);
    expect(pour.parts.map((part) => [part.kind, part.name, part.lotCode, part.share])).toEqual([
      ['plastisol', 'Soft 22', 'A1', 0.5],
      ['remelt', 'Greens', null, 0.5],
    ]);
    expect(pour.blend).toMatchObject({ heats: 4, remeltFraction: 0.5, unknownFraction: 0, hardness: null });
    await drawn(pour);
    await close(pour);
    expect(before - (await level(stock.plastisol.id))).toBeCloseTo(COOKED / 2, 9);
    const all = await bins();
    expect(all.find((one) => one.id === bin.id)?.grams).toBeCloseTo(400 - COOKED / 2, 9);
    const own = all.find((one) => one.colourwayId === stock.recipe.id);
    // A tenth of the remelt was salt: a twentieth of the cup.
    expect(own).toMatchObject({ grams: 40, heats: 4 });
    expect(own?.layers[0]?.saltG).toBeCloseTo(40 * 0.05, 9);
  });

  test('with used baits of unknown salt: it says so, and what comes back stays as unknown', async () => {
    const bin = await mixedBin();
    await given(bin, 400, null, null);
    const { body: pour } = await layOut([
      { materialId: stock.plastisol.id, share: 0.75 },
      { binId: bin.id, share: 0.25 },
    ]);
    expect(pour.blend).toMatchObject({ heats: 1, unknownFraction: 0.25, saltUnknownFraction: 0.25 });
    await drawn(pour);
    await close(pour);
    const own = (await bins()).find((one) => one.colourwayId === stock.recipe.id);
    expect(own?.layers.map(({ heats, grams }) => [heats, Number(grams.toFixed(6))])).toEqual([
      [1, 30],
      [null, 10],
    ]);
  });

  test('more remelt than was ever written in: the bin says weigh it, and a count mends it', async () => {
    const bin = await mixedBin();
    await given(bin, 50, 2);
    const { body: pour } = await layOut([{ binId: bin.id, share: 1 }]);
    await drawn(pour);
    await close(pour);
    const [below] = (await bins()).filter((one) => one.id === bin.id);
    expect(below?.grams).toBeCloseTo(50 - COOKED, 9);
    const { body: mended } = await move(bin, { kind: 'counted', grams: 12 });
    expect(mended.grams).toBeCloseTo(12, 9);
  });

  test('what was weighed in counts: 180 g of firm are 180 g, the soft one is the rest', async () => {
    const hard = await firm();
    const { body: pour } = await layOut([
      { materialId: hard.id, share: 0.29 },
      { materialId: stock.plastisol.id, share: 0.71 },
    ]);
    const [part] = pour.parts;
    const weigh = (grams: number) => workshop.post<Pour>(`/pours/${pour.id}/weighed`, { partId: part?.id, grams });
    const { body: once } = await weigh(50);
    await workshop.post('/undo', { rowId: once.parts[0]?.weighingId });
    expect((await workshop.get<Pour>(`/pours/${pour.id}`)).body.parts[0]?.weighedG).toBeNull();
    await weigh(60);
    const [wasHard, wasSoft] = [await level(hard.id), await level(stock.plastisol.id)];
    await drawn(pour);
    await close(pour);
    expect(wasHard - (await level(hard.id))).toBeCloseTo(60, 9);
    expect(wasSoft - (await level(stock.plastisol.id))).toBeCloseTo(COOKED - 60, 9);
    // Two more grams on the scale: they are of what was not weighed.
    await workshop.post(`/pours/${pour.id}/weigh`, { ...closing(12, 0), cookedG: COOKED + 2 });
    expect(wasSoft - (await level(stock.plastisol.id))).toBeCloseTo(COOKED - 58, 9);
    // And less again goes back.
    await workshop.post(`/pours/${pour.id}/weigh`, closing(12, 0));
    expect(wasSoft - (await level(stock.plastisol.id))).toBeCloseTo(COOKED - 60, 9);
  });

  test('can be changed until something of it lies in the cup', async () => {
    const hard = await firm();
    const { body: pour } = await layOut();
    const change = (version: number, blend: object[]) =>
      workshop.ask<Pour>('PATCH', `/pours/${pour.id}`, { blend }, { version });
    const whole = [{ materialId: hard.id, share: 1 }];
    const { body: changed } = await change(pour.version, whole);
    expect(changed.parts.map((part) => part.name)).toEqual(['Firm 58']);
    expect((await change(pour.version, whole)).status).toBe(409);
    await workshop.post(`/pours/${pour.id}/weighed`, { partId: changed.parts[0]?.id, grams: 20 });
    const refused = await change(changed.version, whole);
    expect([refused.status, refused.body.error.code]).toEqual([409, 'already-started']);
  });

  test.each<[string, (hard: Material, bin: Bin) => object[], string]>([
    ['shares that are no whole', (hard) => [{ materialId: hard.id, share: 0.9 }], 'blend'],
    ['a part twice', (hard) => [0.5, 0.5].map((share) => ({ materialId: hard.id, share })), 'blend'],
    ['a lot and a bin at once', (hard, bin) => [{ materialId: hard.id, binId: bin.id, share: 1 }], 'blend.0'],
    ['a colour as plastic', () => [{ materialId: stock.colourant.id, share: 1 }], 'blend.0.materialId'],
    ['a bin that is not here', () => [{ binId: '01a217a4-fdac-76c5-8de1-fc914937aa14', share: 1 }], 'blend.0.binId'],
  ])('%s is refused, and nothing is laid out', async (_what, blend, path) => {
    const [hard, bin] = [await firm(), await mixedBin()];
    const before = workshop.rows();
    const refused = await layOut(blend(hard, bin));
    expect([refused.status, refused.body.error.path, workshop.rows()]).toEqual([400, path, before]);
  });
});

describe('plastics as they read here', () => {
  /** A cup of these shares, read once it is cured. */
  async function read(blend: object[], value: number, more: { salted?: boolean; early?: boolean } = {}) {
    const { body: pour } = await layOut(blend);
    if (more.salted) {
      const { body: salt } = await workshop.post<Material>('/materials', {
        name: 'Salt',
        kind: 'salt',
        lot: { code: 'S', grams: 500 },
      });
      await workshop.post(`/ledgers/${pour.ledgerId}/doses`, { materialId: salt.id, amount: 5, unit: 'g' });
    }
    await drawn(pour);
    await close(pour);
    if (!more.early) workshop.waits(25);
    await workshop.post(`/pours/${pour.id}/hardness`, { scale: '00', value });
  }
  const plastics = async () => (await workshop.get<Plastics>('/plastics?scale=00')).body;

  test('called 22 and 58, reading 24, 41 and 60 at none, half and all: 23.55 and 59.55', async () => {
    const hard = await firm();
    await workshop.ask(
      'PATCH',
      `/materials/${stock.plastisol.id}`,
      { hardnessScale: '00', hardness: 22 },
      { version: 1 },
    );
    const [soft, half] = [{ materialId: stock.plastisol.id }, { materialId: hard.id }];
    await read([{ ...soft, share: 1 }], 24);
    await read(
      [
        { ...soft, share: 0.5 },
        { ...half, share: 0.5 },
      ],
      41,
    );
    await read([{ ...half, share: 1 }], 60);
    const found = await plastics();
    expect([found.n, found.leftOut]).toEqual([3, 0]);
    expect(found.items.map((one) => [one.name, one.nominal, Number(one.hardness?.toFixed(2))])).toEqual([
      ['Soft 22', 22, 23.55],
      ['Firm 58', 58, 59.55],
    ]);
    // For a wanted 34: (34 − 23.55) / 36 = 29.0 % firm; the record foretells it.
    const { body: pour } = await layOut([
      { ...half, share: 0.29 },
      { ...soft, share: 0.71 },
    ]);
    expect(pour.blend.hardness).toMatchObject({
      scale: '00',
      n: 3,
      value: expect.closeTo(0.29 * 59.5517 + 0.71 * 23.5517, 2),
    });
    const asked = (tolerance?: number) =>
      workshop.post<{ fractions: Record<string, number> }>('/calc/hardness.blend', {
        scale: '00',
        target: 34,
        batchG: 600,
        ...(tolerance === undefined ? {} : { tolerance }),
        parts: found.items.map((one, i) => ({
          id: one.materialId,
          hardness: one.hardness,
          pricePerKgMinor: i === 0 ? 1450 : 1600,
        })),
      });
    expect((await asked(0)).body.fractions[hard.id]).toBeCloseTo(0.29, 2);
    expect((await asked()).body.fractions[hard.id]).toBeCloseTo(0.262, 3);
  });

  test('salted cups, cups of remelt and early readings are left out, and counted so', async () => {
    const bin = await mixedBin();
    await given(bin, 900, 1);
    await workshop.ask(
      'PATCH',
      `/materials/${stock.plastisol.id}`,
      { hardnessScale: '00', hardness: 22 },
      { version: 1 },
    );
    const soft = { materialId: stock.plastisol.id };
    await read([{ ...soft, share: 1 }], 30, { salted: true });
    await read(
      [
        { ...soft, share: 0.5 },
        { binId: bin.id, share: 0.5 },
      ],
      31,
    );
    await read([{ ...soft, share: 1 }], 20, { early: true });
    expect(await plastics()).toMatchObject({ n: 0, leftOut: 2, residualSd: null, items: [{ hardness: 22, sd: 6 }] });
  });
});
