import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Bin } from '../../contract/bins.ts';
import type { Colourway } from '../../contract/colourways.ts';
import type { Page } from '../../contract/fields.ts';
import type { Bag, Order, RackRow } from '../../contract/orders.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Recipe } from '../../contract/recipes.ts';
import { type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let pearl: Recipe;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  pearl = await made<Recipe>('/recipes', {
    name: 'Limpet',
    hex: '#d8cdb8',
    basisMl: 240,
    items: [{ materialId: stock.colourant.id, amount: 6, unit: 'drop' }],
  });
});
afterEach(() => workshop.close());

const made = <T>(path: string, body: unknown) => workshop.made<T>(path, body);
type Layers = Record<string, unknown>[];
const layered = (layers: Layers, name = 'Ebb Glass') =>
  made<Colourway>('/colourways', { name, hex: '#7fa3a0', notes: '', layers });
const laminate = () =>
  layered([
    { place: 'belly', recipeId: pearl.id, measure: 'share', shareFraction: 0.5 },
    { place: 'back', recipeId: stock.recipe.id, measure: 'share', shareFraction: 0.5, joins: 'together' },
  ]);
const laidOut = (colourwayId: string, shots: number, more: object = {}) =>
  made<Pour>('/pours', { colourwayId, molds: [{ moldId: stock.mold.id, shots }], ...more });
const pourOf = async (id: string) => (await workshop.get<Pour>(`/pours/${id}`)).body;
const cooked = (cup: { id: string }, c = 172) => made<Pour>(`/pours/${cup.id}/heats`, { kind: 'cook', c });
const good = (pour: Pour, shotId: string, reject = 0) =>
  made<Pour>(`/pours/${pour.id}/shots/${shotId}/marks`, {
    marks: [1, 2, 3, 4].map((cavity) =>
      cavity <= reject ? { cavity, grade: 'remelt', reason: 'peel' } : { cavity, grade: 'sell' },
    ),
  });
const rows = () => workshop.rows();

describe('a colour in layers', () => {
  test('is ordered, racked, bagged and found by its own name, and leads back to both cups', async () => {
    const colour = await laminate();
    const order = await made<Order>('/orders', {
      newCustomer: { name: 'Ellary Kayak Hire' },
      dueOn: '2026-03-12',
      lines: [{ baitId: stock.master.baitId, colourwayId: colour.id, packs: 1, perPack: 8 }],
    });
    // Both are pushed at once: that takes two injectors, and nobody said that there are two.
    expect(order.need.cups[0]).toMatchObject({
      molds: [],
      withoutMold: [{ baits: 8, why: expect.stringContaining('takes as many injectors, and this workshop has 1') }],
    });
    const { version } = (await workshop.get<{ version: number }>('/workshop')).body;
    await workshop.ask('PATCH', '/workshop', { injectors: 2 }, { version });
    const { need } = (await workshop.get<Order>(`/orders/${order.id}`)).body;
    // Four baits a shot: two give eight only if none goes wrong.
    expect(need.cups).toMatchObject([{ colourwayId: colour.id, molds: [{ shots: 3 }] }]);
    const lead = await laidOut(colour.id, 3, { orderLines: [{ orderLineId: order.lines[0]?.id, baits: 8 }] });
    // Half of 3 × (4 × 10 + 5) × 1.06 and 8 mL of film, in each of two glasses.
    expect(lead.cups.map((cup) => [cup.recipeName, cup.layers])).toEqual([
      ['Limpet', [0]],
      ['Slack Tide', [1]],
    ]);
    const [belly, back] = await Promise.all(lead.cups.map((cup) => pourOf(cup.id)));
    for (const cup of [belly, back]) expect(cup?.cookMl).toBeCloseTo(1.5 * 47.7 + 8, 9);
    // The order is served once, not by each cup.
    expect((await workshop.get<Order>(`/orders/${order.id}`)).body.need.lines).toMatchObject([{ fromPour: 8 }]);

    for (const cup of lead.cups) await cooked(cup);
    const heats = await Promise.all(lead.cups.map(async (cup) => (await pourOf(cup.id)).heats[0]?.id as string));
    for (let n = 0; n < 3; n++) {
      const parts = lead.cups.map((cup, i) => ({ layer: i, pourId: cup.id, lastDose: null, lastHeat: heats[i] }));
      const { shots } = await made<Pour>(`/pours/${lead.id}/shots`, { moldId: stock.mold.id, parts });
      await good(lead, shots.at(-1)?.id as string);
    }
    // 12 baits of 10.3 g; what is left of each glass alone.
    const closed = await made<Pour>(`/pours/${lead.id}/close`, {
      cookedG: 82,
      goodG: 123.6,
      rejectG: 12,
      returnedG: 6,
      others: [{ pourId: back?.id, cookedG: 84, returnedG: 9 }],
    });
    const other = await pourOf(back?.id as string);
    expect([closed.closedAt !== null, other.closedAt !== null]).toEqual([true, true]);
    // Half by volume and alike in density: half each, and nothing lost between them.
    expect(closed.balance?.goodG).toBeCloseTo(61.8, 1);
    expect((closed.balance?.goodG ?? 0) + (other.balance?.goodG ?? 0)).toBeCloseTo(123.6, 9);
    expect((closed.balance?.rejectG ?? 0) + (other.balance?.rejectG ?? 0)).toBeCloseTo(12, 9);

    const rack = (await workshop.get<{ items: RackRow[] }>('/rack')).body.items;
    expect(rack.map((row) => [row.colourwayName, row.baits, row.pourCode])).toEqual([['Ebb Glass', 12, lead.code]]);
    const bins = (await workshop.get<Page<Bin>>('/bins')).body.items;
    // Rejects are of both melts; what was left in a glass is of one.
    expect(bins.map((bin) => [bin.name, Number(bin.grams.toFixed(6)), bin.heats])).toEqual([
      ['Ebb Glass', 12, 1],
      ['Limpet', 6, 1],
      ['Slack Tide', 9, 1],
    ]);
    workshop.waits(25);
    await made(`/orders/${order.id}/pack`, { lineId: order.lines[0]?.id });
    const packed = (await workshop.get<Order>(`/orders/${order.id}`)).body;
    const bag = (await workshop.get<Bag>(`/bags/${packed.bags[0]?.code}`)).body;
    expect(bag.contents).toMatchObject([{ baitName: 'Sandlance 110', colourwayName: 'Ebb Glass', baits: 8 }]);
    expect(bag.pours).toMatchObject([{ code: lead.code, baits: 8 }]);
    const found = (await workshop.get<{ items: { title: string }[] }>('/search?q=ebb')).body.items;
    expect(found.map((hit) => hit.title)).toEqual(
      expect.arrayContaining(['Ebb Glass', `${lead.code} Ebb Glass`, `${back?.code} Ebb Glass, Slack Tide`]),
    );
  });

  test('keeps its revisions, and a shot the one by which it was laid out', async () => {
    const colour = await laminate();
    const before = await laidOut(colour.id, 1);
    const { body: changed } = await workshop.ask<Colourway>(
      'PUT',
      `/colourways/${colour.id}`,
      {
        name: 'Ebb Glass',
        hex: colour.hex,
        notes: '',
        reason: 'a thinner belly',
        layers: [
          { place: 'belly', recipeId: pearl.id, measure: 'ml', eachMl: 2 },
          { place: 'back', recipeId: stock.recipe.id, measure: 'rest', joins: 'together' },
        ],
      },
      { version: colour.version },
    );
    expect(changed.revisions.map((one) => [one.number, one.reason])).toEqual([
      [2, 'a thinner belly'],
      [1, 'first layers'],
    ]);
    const after = await laidOut(colour.id, 1);
    // 45 mL in halves; then 2 of each 10, and as much of the sprue.
    expect([before, after].map((pour) => pour.molds[0]?.layersMl)).toEqual([
      [22.5, 22.5],
      [9, 36],
    ]);
    expect((await pourOf(before.id)).layers.map((layer) => layer.measure)).toEqual(['share', 'share']);
  });

  test.each([
    ['one melt alone', [{ place: 'belly', measure: 'share', shareFraction: 1 }], 'layers'],
    [
      'shares that are no whole',
      [
        { measure: 'share', shareFraction: 0.5 },
        { measure: 'share', shareFraction: 0.4, joins: 'melted' },
      ],
      'layers',
    ],
    [
      'a layer that joins nothing',
      [
        { measure: 'share', shareFraction: 0.5 },
        { measure: 'share', shareFraction: 0.5 },
      ],
      'layers',
    ],
    ['two rests', [{ measure: 'rest' }, { measure: 'rest', joins: 'melted' }], 'layers'],
  ])('%s is refused and writes nothing', async (_, layers, path) => {
    const before = rows();
    const refused = await workshop.post('/colourways', {
      name: 'Ebb Glass',
      hex: '#7fa3a0',
      notes: '',
      layers: (layers as Layers).map((layer) => ({ place: 'belly', recipeId: stock.recipe.id, ...layer })),
    });
    expect([refused.status, refused.body.error.path?.startsWith(path)]).toEqual([400, true]);
    expect(rows()).toBe(before);
  });

  test('no two colours go by one name, of one melt or of several', async () => {
    await laminate();
    const recipe = {
      hex: '#102030',
      basisMl: 240,
      items: [{ materialId: stock.colourant.id, amount: 6, unit: 'drop' }],
    };
    expect((await workshop.post('/recipes', { ...recipe, name: 'ebb glass' })).body.error.code).toBe('already-exists');
    await expect(
      layered(
        [
          { place: 'belly', recipeId: pearl.id, measure: 'share', shareFraction: 0.5 },
          { place: 'back', recipeId: stock.recipe.id, measure: 'rest', joins: 'hot' },
        ],
        'LIMPET',
      ),
    ).rejects.toThrow('already-exists');
  });

  test('layers that this mold does not hold are refused before anything is laid out', async () => {
    const colour = await layered([
      { place: 'belly', recipeId: pearl.id, measure: 'ml', eachMl: 12 },
      { place: 'back', recipeId: stock.recipe.id, measure: 'rest', joins: 'melted' },
    ]);
    const before = rows();
    const refused = await workshop.post('/pours', {
      colourwayId: colour.id,
      molds: [{ moldId: stock.mold.id, shots: 1 }],
    });
    expect([refused.status, refused.body.error.code]).toEqual([400, 'layers-not-whole']);
    expect(rows()).toBe(before);
  });
});

describe('a shot in layers', () => {
  const threeLayers = () =>
    layered([
      { place: 'belly', recipeId: pearl.id, measure: 'share', shareFraction: 0.4 },
      { place: 'side', recipeId: stock.recipe.id, measure: 'ml', eachMl: 1, joins: 'melted' },
      { place: 'back', recipeId: pearl.id, measure: 'rest', joins: 'melted' },
    ]);

  test('names the dose and the heat that each part was drawn at, whatever was dosed since', async () => {
    const lead = await laidOut((await laminate()).id, 2);
    const [belly, back] = lead.cups as [Pour['cups'][0], Pour['cups'][0]];
    const heat = (await cooked(belly)).heats[0]?.id;
    await cooked(back);
    const ledger = (await pourOf(belly.id)).ledgerId;
    const dose = (amount: number) =>
      made<{ doses: { id: string; seq: number }[] }>(`/ledgers/${ledger}/doses`, {
        materialId: stock.colourant.id,
        amount,
        unit: 'drop',
      });
    const first = (await dose(10)).doses[0];
    await dose(5);
    const { shots } = await made<Pour>(`/pours/${lead.id}/shots`, {
      moldId: stock.mold.id,
      parts: [
        { layer: 0, pourId: belly.id, lastDose: first?.id, lastHeat: heat },
        { layer: 1, pourId: back.id, lastDose: null, lastHeat: null },
      ],
    });
    expect(shots[0]?.parts).toMatchObject([
      { layer: 0, pourId: belly.id, doseSeq: first?.seq, ml: 22.5 },
      { layer: 1, pourId: back.id, doseSeq: 0, heatSeq: 0, ml: 22.5 },
    ]);
  });

  test('is refused whole where one part names what its cup never had', async () => {
    const lead = await laidOut((await laminate()).id, 1);
    const [belly, back] = lead.cups as [Pour['cups'][0], Pour['cups'][0]];
    const heat = (await cooked(belly)).heats[0]?.id;
    const before = rows();
    const tap = (parts: object[]) => workshop.post(`/pours/${lead.id}/shots`, { moldId: stock.mold.id, parts });
    const fromBelly = { layer: 0, pourId: belly.id, lastDose: null, lastHeat: heat };
    const cases: [string, object[]][] = [
      ['no-such-record', [fromBelly, { layer: 1, pourId: back.id, lastDose: null, lastHeat: heat }]],
      ['invalid-input', [fromBelly, { layer: 2, pourId: back.id, lastDose: null, lastHeat: null }]],
      ['invalid-input', [{ ...fromBelly, share: 0.5 }]],
      ['invalid-input', [{ ...fromBelly, share: 0.5, ml: 3 }]],
    ];
    for (const [code, parts] of cases) expect((await tap(parts)).body.error.code).toBe(code);
    const partner = await workshop.post(`/pours/${back.id}/shots`, { moldId: stock.mold.id });
    expect(partner.body.error.code).toBe('not-applicable');
    expect(rows()).toBe(before);
  });

  test('may be poured minutes apart; the mold waits from its last layer, and none is looked at before', async () => {
    const lead = await laidOut((await threeLayers()).id, 1);
    for (const cup of lead.cups) await cooked(cup);
    const [outer, middle] = lead.cups as [Pour['cups'][0], Pour['cups'][0]];
    const part = (layer: number, cup: { id: string }) => ({ layer, pourId: cup.id, lastDose: null, lastHeat: null });
    const first = await made<Pour>(`/pours/${lead.id}/shots`, { moldId: stock.mold.id, parts: [part(0, outer)] });
    const shot = first.shots[0]?.id as string;
    expect(first.molds[0]?.opensAt).toBeNull();
    const early = await workshop.post(`/pours/${lead.id}/shots/${shot}/marks`, {
      marks: [{ cavity: 1, grade: 'sell' }],
    });
    expect([early.body.error.code, early.body.error.message]).toEqual([
      'layers-missing',
      expect.stringContaining('side'),
    ]);
    workshop.waits(0.1);
    await made(`/pours/${lead.id}/shots/${shot}/parts`, { parts: [part(1, middle)] });
    const twice = await workshop.post(`/pours/${lead.id}/shots/${shot}/parts`, { parts: [part(1, middle)] });
    expect(twice.body.error.code).toBe('already-started');
    workshop.waits(0.1);
    const whole = await made<Pour>(`/pours/${lead.id}/shots/${shot}/parts`, { parts: [part(2, outer)] });
    expect(whole.molds[0]?.opensAt).not.toBeNull();
    expect(whole.shots[0]?.at).toBe(workshop.now.toISOString());
    // 4 × 4, 4 × 1, and 4 × 5 with the sprue's 5: together the mold's 45 mL.
    expect(whole.shots[0]?.parts.map((one) => one.ml)).toEqual([16, 4, 25].map((ml) => expect.closeTo(ml, 9)));
    expect(whole.lent).toEqual({ shots: 0, ml: 0 });
    expect((await pourOf(middle.id)).lent).toEqual({ shots: 1, ml: expect.closeTo(4, 9) });
    await workshop.post('/undo', { rowId: shot });
    expect((await pourOf(middle.id)).lent).toEqual({ shots: 0, ml: 0 });
    expect((await pourOf(lead.id)).shots).toEqual([]);
  });

  test('a layer that is lifted out and poured again is no bad bait; it can be taken back', async () => {
    const lead = await laidOut((await threeLayers()).id, 1);
    for (const cup of lead.cups) await cooked(cup);
    const { shots } = await made<Pour>(`/pours/${lead.id}/shots`, { moldId: stock.mold.id });
    const shot = shots[0]?.id as string;
    const redo = { layer: 1, cavity: 2, pourId: lead.cups[1]?.id, minutes: 4, reason: 'bleed' };
    const redone = await made<Pour>(`/pours/${lead.id}/shots/${shot}/redone`, redo);
    expect(redone.shots[0]?.redone).toMatchObject([{ layer: 1, cavity: 2, ml: 1, minutes: 4, reason: 'bleed' }]);
    const none = await workshop.post(`/pours/${lead.id}/shots/${shot}/redone`, { ...redo, cavity: 5 });
    expect([none.status, none.body.error.path]).toEqual([400, 'cavity']);
    const marked = await good(lead, shot);
    expect(marked.shots[0]?.marks.filter((mark) => mark.grade === 'sell')).toHaveLength(4);
    const back = await workshop.post<Pour>('/undo', { rowId: redone.shots[0]?.redone[0]?.id });
    expect(back.body.shots[0]?.redone).toEqual([]);
  });

  test('its cups are closed together or not at all', async () => {
    const lead = await laidOut((await laminate()).id, 1);
    const [, back] = lead.cups as [Pour['cups'][0], Pour['cups'][0]];
    const { shots } = await made<Pour>(`/pours/${lead.id}/shots`, { moldId: stock.mold.id });
    await good(lead, shots[0]?.id as string, 1);
    const before = rows();
    const close = (body: object) =>
      workshop.post(`/pours/${lead.id}/close`, { cookedG: 32, goodG: 31, rejectG: 15, returnedG: 3, ...body });
    const alone = await close({});
    expect([alone.body.error.code, alone.body.error.message]).toEqual([
      'cups-missing',
      expect.stringContaining(back.code),
    ]);
    const tooMuch = await close({ others: [{ pourId: back.id, cookedG: 10, returnedG: 0 }] });
    expect(tooMuch.body.error.code).toBe('mass-not-conserved');
    expect(rows()).toBe(before);
    // 49 g came out of 32 and 30: the second gave at most 30 − 2.
    await made(`/pours/${lead.id}/close`, {
      cookedG: 32,
      goodG: 31,
      rejectG: 15,
      returnedG: 3,
      others: [{ pourId: back.id, cookedG: 30, returnedG: 10 }],
    });
    const [one, two] = [(await pourOf(lead.id)).balance, (await pourOf(back.id)).balance];
    // Half of 46 is 23 each, and the second gave no more than 20.
    expect([one?.goodG, two?.goodG].map((g) => Number(g?.toFixed(6)))).toEqual([
      Number(((26 * 31) / 46).toFixed(6)),
      Number(((20 * 31) / 46).toFixed(6)),
    ]);
    expect(two?.unaccountedG).toBe(0);
  });

  test('a cup may give to another cup’s shots, and is closed with it', async () => {
    const one = await laidOut(stock.recipe.id, 1);
    const two = await laidOut(stock.recipe.id, 1);
    expect(two.evening.cups.map((cup) => cup.code)).toEqual([one.code, two.code]);
    const part = (cup: Pour, share: number) => ({ pourId: cup.id, lastDose: null, lastHeat: null, share });
    const { shots } = await made<Pour>(`/pours/${one.id}/shots`, {
      moldId: stock.mold.id,
      parts: [part(one, 0.8), part(two, 0.2)],
    });
    expect(shots[0]?.parts.map((row) => row.ml)).toEqual([36, 9].map((ml) => expect.closeTo(ml, 9)));
    await good(one, shots[0]?.id as string);
    const refused = await workshop.post(`/pours/${two.id}/close`, { cookedG: 50, goodG: 0, rejectG: 0, returnedG: 40 });
    expect(refused.body.error.code).toBe('cups-missing');
    // A cup that cannot have left so much is named by its own field, whichever of them is asked.
    const close = (own: object, other: object) =>
      workshop.post(`/pours/${two.id}/close`, {
        goodG: 45,
        rejectG: 0,
        ...own,
        others: [{ pourId: one.id, ...other }],
      });
    const [full, short] = [
      { cookedG: 150, returnedG: 40 },
      { cookedG: 50, returnedG: 60 },
    ];
    const wrong = [await close(full, short), await close(short, full)].map(({ body }) => body.error);
    expect(wrong.map(({ code, path }) => [code, path])).toEqual([
      ['mass-not-conserved', 'others.0.cookedG'],
      ['mass-not-conserved', 'cookedG'],
    ]);
    await made(`/pours/${two.id}/close`, {
      cookedG: 50,
      goodG: 45,
      rejectG: 0,
      returnedG: 40,
      others: [{ pourId: one.id, cookedG: 50, returnedG: 12 }],
    });
    const balances = [(await pourOf(one.id)).balance?.goodG, (await pourOf(two.id)).balance?.goodG];
    expect(balances.map((g) => Number(g?.toFixed(6)))).toEqual([36, 9]);
  });
});
