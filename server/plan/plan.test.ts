import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Material } from '../../contract/materials.ts';
import type { Order } from '../../contract/orders.ts';
import type { PlanAsked } from '../../contract/plan.ts';
import type { Maker } from '../../contract/workshop.ts';
import { productionSchema } from '../../core/plan/production.ts';
import { plannedAtOnce, produced } from '../../core/plan/productionPlan.ts';
import { check } from '../../core/validate.ts';
import { poured, type Stocked, stocked, TestWorkshop, twoShots } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const asked = async () => (await workshop.get<PlanAsked>('/plan')).body;
const planned = async () =>
  produced(check(productionSchema, { ...(await asked()).asked, timeLimitMs: 1000 }), {
    nowMs: () => performance.now(),
  });
const say = (path: string, body: object) => workshop.post<PlanAsked>(`/plan/${path}`, body);
const today = () => workshop.now.toISOString().slice(0, 10);
const inDays = (n: number) => new Date(workshop.now.getTime() + n * 86_400_000).toISOString().slice(0, 10);

test('what is wanted is asked of the records, and the plan is packed before it is due', async () => {
  const { asked: question, lines, unplanned } = await asked();
  expect(question.lines).toEqual([
    {
      id: stock.order.lines[0]?.id,
      baitId: stock.master.baitId,
      colourId: stock.recipe.id,
      baits: 16,
      perPack: 8,
      due: '2026-03-09',
    },
  ]);
  expect(lines[0]).toMatchObject({
    code: stock.order.code,
    customer: 'Quayside Chandlery',
    packs: 2,
    perPack: 8,
    baits: 16,
  });
  expect(unplanned).toEqual([]);
  // 45 mL a shot, a quarter more for the feed; 60 + 30 + 4 × 10 s of hands.
  const [mold] = question.molds ?? [];
  expect(mold).toMatchObject({ id: stock.mold.id, cavities: 4, handsS: 130 });
  const one = await twoShots(workshop, stock);
  const two = await workshop.made<typeof one>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 7 }],
  });
  expect(mold?.shotMl).toBeCloseTo((two.cookMl - one.cookMl) / 5, 6);
  const plan = await planned();
  expect(plan.lines[0]).toMatchObject({ lateDays: 0, shortBaits: 0 });
  expect(plan.days[0]?.cups[0]?.molds[0]).toMatchObject({ moldId: stock.mold.id, baits: 16 });
});

test('what lies on the rack and what an open cup makes is poured by nobody; it is packed when it is cured', async () => {
  await poured(workshop, stock, 2);
  // Four and three are good: the first cavity of the first shot was not.
  const rack = async () => (await asked()).asked.stock;
  expect(await rack()).toEqual([]);
  const pour = await workshop.made<{ id: string }>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 2 }],
    orderLines: [{ orderLineId: stock.order.lines[0]?.id, baits: 8 }],
  });
  expect(pour.id).toBeTruthy();
  expect(await rack()).toEqual([
    { baitId: stock.master.baitId, colourId: stock.recipe.id, baits: 8, ready: inDays(1) },
  ]);
});

describe('hours', () => {
  test('nobody said any: one pair of hands works the usual evening', async () => {
    const { asked: question, hours } = await asked();
    expect(hours.every((one) => one.hours === null)).toBe(true);
    expect(question.days.every(({ handsMin, lengthMin }) => handsMin === 180 && lengthMin === 180)).toBe(true);
  });
  test('two makers by the day of the week, and days off of one and of both', async () => {
    const [una, second] = await Promise.all(
      ['Una', 'Bram'].map((name) => workshop.made<Maker>('/makers', { name, system: 'metric', temperature: 'C' })),
    );
    // 2 March 2026 is a Monday.
    expect(today()).toBe('2026-03-02');
    await say('hours', { makerId: una?.id, hours: [2, 2, 2, 2, 2, 0, 0] });
    await say('hours', { makerId: second?.id, hours: [1, 3, 0, 0, 0, 4, 0] });
    const minutes = async () =>
      (await asked()).asked.days.slice(0, 7).map(({ handsMin, lengthMin }) => [handsMin, lengthMin]);
    expect(await minutes()).toEqual([
      [180, 120],
      [300, 180],
      [120, 120],
      [120, 120],
      [120, 120],
      [240, 240],
      [0, 0],
    ]);
    await say('off', { day: '2026-03-03', makerId: una?.id });
    const { body } = await say('off', { day: '2026-03-02' });
    expect((await minutes()).slice(0, 2)).toEqual([
      [0, 0],
      [180, 180],
    ]);
    const shut = body.off.find(({ makerId }) => makerId === null)?.id;
    await workshop.post(`/plan/off/${shut}/end`, {});
    expect((await minutes())[0]).toEqual([180, 120]);
    expect((await workshop.post('/plan/off/018f0000-0000-7000-8000-000000000001/end', {})).status).toBe(404);
  });
  test.each([
    ['no such day', 'off', { day: '2026-02-30' }, 'day'],
    ['six days of a week', 'hours', { hours: [1, 1, 1, 1, 1, 1] }, 'hours'],
    ['more than a day has', 'hours', { hours: [25, 1, 1, 1, 1, 1, 1] }, 'hours.0'],
    ['to where it is', 'moved', { from: '2026-03-03', to: '2026-03-03' }, 'to'],
  ])('%s is refused', async (_, path, body, at) => {
    const makerId = '018f0000-0000-7000-8000-000000000001';
    const whole = path === 'hours' ? { makerId, ...body } : path === 'moved' ? { colourwayId: makerId, ...body } : body;
    expect((await say(path, whole)).body).toMatchObject({ error: { code: 'invalid-input', path: at } });
  });
});

test('a cup that is moved by hand stays there, is not where it was, and is let go again', async () => {
  const move = (from: number, to: number) =>
    say('moved', { colourwayId: stock.recipe.id, from: inDays(from), to: inDays(to) });
  await move(0, 2);
  const { pins } = await asked();
  expect(pins.map(({ day, pours }) => [day, pours])).toEqual([
    [today(), false],
    [inDays(2), true],
  ]);
  const days = (await planned()).days;
  expect(days.map(({ cups }) => cups.length).slice(0, 4)).toEqual([0, 0, 1, 0]);
  expect(days[2]?.cups[0]?.pinned).toBe(true);
  // Moved on: each day holds the newest word only.
  await move(2, 0);
  expect((await asked()).pins.map(({ day, pours }) => [day, pours])).toEqual([
    [today(), true],
    [inDays(2), false],
  ]);
  await say('let-go', { colourwayId: stock.recipe.id });
  expect((await asked()).pins).toEqual([]);
});

test('a bait that no mold makes is named, with its line, and the rest is planned', async () => {
  const bare = await workshop.made<{ baitId: string }>('/masters', {
    name: 'Gannet 160',
    shape: 'paddle',
    kind: 'wood',
    lengthMm: 160,
    widthMm: 30,
    heightMm: 36,
    thickestMm: 28,
  });
  const order = await workshop.made<{ lines: { id: string }[] }>('/orders', {
    newCustomer: { name: 'Tideline' },
    dueOn: '2026-03-12',
    lines: [{ baitId: bare.baitId, colourwayId: stock.recipe.id, packs: 1, perPack: 4 }],
  });
  const { unplanned, asked: question } = await asked();
  expect(unplanned).toEqual([{ lineId: order.lines[0]?.id, why: null }]);
  expect(question.lines).toHaveLength(1);
});

test('the same day off said twice is one, of one maker and of all are two', async () => {
  const maker = await workshop.made<Maker>('/makers', { name: 'Una', system: 'metric', temperature: 'C' });
  for (const makerId of [null, null, maker.id, maker.id]) await say('off', { day: inDays(3), makerId });
  expect((await asked()).off.map(({ makerId }) => makerId)).toEqual([null, maker.id]);
});

test('what a bait takes to finish and to dry goes into the question', async () => {
  const [bait] = (await workshop.get<{ items: { id: string; version: number }[] }>('/baits')).body.items;
  await workshop.ask('PATCH', `/baits/${bait?.id}`, { finishS: 20, dryH: 12 }, { version: bait?.version ?? 0 });
  const { asked } = (await workshop.get<PlanAsked>('/plan')).body;
  expect(asked.baits).toMatchObject([{ finishS: 20, dryH: 12 }]);
  // Cured for a day and dried for half of one: two mornings after it was poured, not the next.
  const { packedOn } = plannedAtOnce(check(productionSchema, asked)).lines[0] ?? {};
  expect(packedOn).toBe(inDays(2));
});

describe('what else an evening has only so much of', () => {
  const setUp = async (change: object) => {
    const { version } = (await workshop.get<{ version: number }>('/workshop')).body;
    const { status } = await workshop.ask('PATCH', '/workshop', change, { version });
    expect(status).toBe(200);
  };

  test('plastic of all kinds as one: what is there, and from when on more can be', async () => {
    const { materials, asked: question } = await asked();
    const [plastic] = materials;
    expect(plastic).toMatchObject({ id: 'plastic', g: 5000, leadDays: null, comesOn: inDays(7) });
    expect(question.materials?.[0]).toEqual({ id: 'plastic', g: 5000, from: inDays(7) });
    // 1.02 g for each mL; a drop is a twentieth of one, and there are 24 of them to a pint.
    expect(question.colours[0]?.takes?.[0]).toEqual({ materialId: 'plastic', gPerMl: 1.02 });
    const [shelf] = (await workshop.get<{ items: Material[] }>('/materials')).body.items.filter(
      ({ kind }) => kind === 'plastisol',
    );
    const sent = await workshop.ask(
      'PATCH',
      `/materials/${shelf?.id}`,
      { leadDays: 3 },
      { version: shelf?.version ?? 0 },
    );
    expect(sent.status).toBe(200);
    expect((await asked()).materials[0]).toMatchObject({ leadDays: 3, comesOn: inDays(3) });
  });

  test('what stands at the bench has its plastic already, though the store is drawn when it is closed', async () => {
    const pour = await workshop.made<{ cookMl: number }>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 5 }],
    });
    const { materials } = await asked();
    expect(materials[0]?.g).toBeCloseTo(5000 - 1.02 * pour.cookMl, 6);
    // 24 drops of a twentieth of a millilitre to 240 mL.
    const blue = materials.find(({ id }) => id === stock.colourant.id);
    expect(100 - (blue?.g ?? 0)).toBeCloseTo((24 / 20 / 240) * pour.cookMl, 2);
  });

  test('a store that is all but empty: so much is planned now, the rest when more can be here', async () => {
    const { lots } = stock.plastisol;
    await workshop.post(`/lots/${lots[0]?.id}/moves`, { kind: 'counted', levelG: 150 });
    expect((await asked()).materials[0]?.g).toBe(150);
    const plan = await planned();
    const on = (n: number) =>
      plan.days[n]?.cups.flatMap(({ molds }) => molds).reduce((sum, { shots }) => sum + shots, 0);
    expect(plan.materials[0]?.takesG).toBeLessThanOrEqual(150);
    expect(plan.days.slice(0, 7).flatMap(({ cups }) => cups).length).toBeLessThanOrEqual(1);
    expect(on(7)).toBeGreaterThan(0);
    // Due on the eighth day: it is cured and packed that day.
    expect(plan.lines[0]).toMatchObject({ packedOn: inDays(8), lateDays: 1 });
  });

  test('boards: what cures lies there already, and open cups tonight', async () => {
    await setUp({ boardBaits: 40 });
    expect((await asked()).asked.days.map(({ boardBaits }) => boardBaits)).toEqual(expect.arrayContaining([40]));
    await poured(workshop, stock, 2);
    const pour = await workshop.made<{ id: string }>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 2 }],
    });
    expect(pour.id).toBeTruthy();
    // Two cups of two shots of four stand at the bench.
    expect((await asked()).asked.days.slice(0, 2).map(({ boardBaits }) => boardBaits)).toEqual([24, 40]);
  });

  test('the vacuum has its minutes only where there is one, the oven always', async () => {
    expect((await asked()).asked.days[0]).toMatchObject({ ovenMin: 180 });
    expect((await asked()).asked.days[0]).not.toHaveProperty('pumpMin');
    await setUp({ degassing: 'vacuum' });
    const { asked: question } = await asked();
    expect(question.days[0]).toMatchObject({ pumpMin: 180 });
    expect(question.colours[0]).toMatchObject({ pumpMin: 2 });
  });

  test('kept warm nowhere, a glass is heated again and again', async () => {
    const minutes = async () => (await asked()).asked.colours[0]?.ovenMin ?? 0;
    const warm = await minutes();
    await setUp({ keepWarm: false });
    const cold = await minutes();
    expect(cold).toBeGreaterThan(2 * warm);
    await setUp({ platePlaces: 1 });
    expect(await minutes()).toBe(warm);
  });

  test('injectors: two melts that are pushed at once take two', async () => {
    const [made] = [
      await workshop.made<{ id: string }>('/colourways', {
        name: 'Two in one',
        hex: '#88aa99',
        layers: [
          { place: 'belly', recipeId: stock.recipe.id, measure: 'share', shareFraction: 0.5, joins: null },
          {
            place: 'back',
            recipeId: (
              await workshop.made<{ id: string }>('/recipes', {
                name: 'Bare',
                hex: '#ffffff',
                basisMl: 100,
                items: [{ materialId: stock.colourant.id, amount: 1, unit: 'drop' }],
              })
            ).id,
            measure: 'rest',
            joins: 'together',
          },
        ],
      }),
    ];
    const order = await workshop.made<Order>('/orders', {
      customerId: stock.order.customerId,
      dueOn: inDays(6),
      lines: [{ baitId: stock.master.baitId, colourwayId: made?.id, packs: 1, perPack: 8 }],
    });
    const why = async () => (await planned()).lines.find(({ lineId }) => lineId === order.lines[0]?.id)?.why;
    expect(await why()).toBe('too-few-injectors');
    await setUp({ injectors: 2 });
    expect(await why()).toBeNull();
  });
});
