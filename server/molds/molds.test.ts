import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Mold, MoldRow } from '../../contract/molds.ts';
import type { Order } from '../../contract/orders.ts';
import type { Clock } from '../../contract/workshop.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const block = async (change: object = {}) => {
  const { lengthMm, widthMm, heightMm, id } = stock.master.latest;
  const planInput = {
    pour: 'open-face',
    masters: [{ volumeMl: 10, lengthMm, widthMm, heightMm, count: 3 }],
    mix: { by: 'mass', partA: 10, partB: 1 },
    potLifeMin: 20,
    demoldMin: 240,
    roomC: 23,
  };
  const mold = {
    name: 'Block',
    kind: 'silicone-open',
    fill: 'open-pour',
    baitId: stock.master.baitId,
    revisionId: id,
    cavities: 3,
    cavityMl: 10,
    planInput,
    ...change,
  };
  return workshop.post<Mold>('/molds', mold);
};
const clocks = async () => (await workshop.get<Page<Clock>>('/clocks')).body.items;

describe('an open-face block', () => {
  test('its plan is worked out here, not taken from the browser', async () => {
    const { body } = await block();
    // 3 columns: 130 × 84 × 27 mm, less 30 mL of masters.
    expect(body.plan?.output).toMatchObject({ boxLengthMm: 130, boxWidthMm: 84, boxHeightMm: 27, columns: 3, rows: 1 });
    expect(body.plan?.output.pours[0]?.netMl).toBeCloseTo(264.84, 9);
    expect([body.columns, body.rows]).toEqual([3, 1]);
  });

  test('mixed twice in one pot life mixes once; after it, a mix that went wrong can be made anew', async () => {
    const { body: mold } = await block();
    await workshop.post(`/molds/${mold.id}/events`, { kind: 'mixed' });
    const twice = await workshop.post(`/molds/${mold.id}/events`, { kind: 'mixed' });
    expect([twice.status, twice.body.error.code]).toEqual([409, 'already-started']);
    const clocks = async () =>
      (await workshop.get<{ items: { kind: string }[] }>('/clocks')).body.items.map((clock) => clock.kind).sort();
    expect(await clocks()).toEqual(['demold', 'pot-life']);
    workshop.waits(1);
    expect((await workshop.post(`/molds/${mold.id}/events`, { kind: 'mixed' })).status).toBe(201);
    // The clocks of the first are over with it.
    expect(await clocks()).toEqual(['demold', 'pot-life']);
  });

  test('short: the top-up by base and depth, and whether there is time', async () => {
    const { body: mold } = await block();
    await workshop.post(`/molds/${mold.id}/events`, { kind: 'mixed' });
    workshop.waits(25 / 60);
    const { body } = await workshop.post<Mold>(`/molds/${mold.id}/events`, { kind: 'topped-up', missingDepthMm: 4 });
    // 130 · 84 · 4 / 1000 × 1.07 = 46.74 mL; 25 of 20 min are past, but under three pot lives.
    expect(body.events.at(-1)?.detail).toMatchObject({
      missingDepthMm: 4,
      mixMl: expect.closeTo(46.7376, 6),
      minutesLeft: expect.closeTo(-5, 6),
      bondsToFirst: true,
    });
  });

  test('masters in an epoxy bed: its own two clocks, done with once rubber is mixed', async () => {
    const bed = { depthMm: 4, sinkMm: 3, resinMl: 30, gramsA: 20, gramsB: 10, workMin: 15, firmMin: 90 };
    const { body: mold } = await block({ making: { hold: 'bed', bed, bubbles: 'vacuum' } });
    await workshop.post(`/molds/${mold.id}/events`, { kind: 'bedded' });
    expect((await clocks()).map(({ label, dueAt }) => [label, (Date.parse(dueAt) - +workshop.now) / 60_000])).toEqual([
      ['Straighten the masters of Block', 15],
      ['Bed of Block is firm', 90],
    ]);
    workshop.waits(2);
    await workshop.post(`/molds/${mold.id}/events`, { kind: 'mixed' });
    expect((await clocks()).map((clock) => clock.label)).toEqual(['Pot life of Block', 'Demold Block']);
  });

  test('the plain first pour leaves the store, ticks its step, and is in no yield', async () => {
    const { body: mold } = await block();
    const { body } = await workshop.post<Mold>(`/molds/${mold.id}/events`, { kind: 'first-pour', grams: 31 });
    expect(body.events.map((event) => [event.kind, event.step])).toEqual([
      ['step', 'first'],
      ['first-pour', null],
    ]);
    expect([body.shots, body.made, body.events.at(-1)?.detail]).toEqual([0, 0, { grams: 31, of: 'Soft 22' }]);
    const { body: store } = await workshop.get<Page<{ name: string; levelG: number }>>('/materials');
    expect(store.items.find((row) => row.name === 'Soft 22')?.levelG).toBeCloseTo(5000 - 31, 6);
    expect((await workshop.post(`/molds/${mold.id}/events`, { kind: 'first-pour', grams: 0 })).status).toBe(400);
  });

  test('a place for each master, or none', async () => {
    const making = { hold: 'glue', bubbles: 'vacuum', places: [{ xMm: 10, yMm: 10 }] };
    const answer = await block({ making });
    expect([answer.status, answer.body.error.path]).toEqual([400, 'making.places']);
  });

  test.each([
    ['bedded without a bed', { kind: 'bedded' }],
    ['topped up before it was mixed', { kind: 'topped-up', missingDepthMm: 4 }],
    ['an event that is none', { kind: 'admired' }],
    ['a step without a name', { kind: 'step' }],
  ])('%s is refused', async (_what, body) => {
    const { body: mold } = await block();
    expect((await workshop.post(`/molds/${mold.id}/events`, body)).status).toBe(400);
  });

  test('mixed as it is kept: one write makes the mold, its clocks and its event, or none of them', async () => {
    const { body: mold } = await block({ mixed: true });
    expect([mold.events.map((row) => row.kind), (await clocks()).map((clock) => clock.kind).sort()]).toEqual([
      ['mixed'],
      ['demold', 'pot-life'],
    ]);
    // 20 and 240 minutes at the rated 23 °C.
    const due = (await clocks())
      .map((clock) => (Date.parse(clock.dueAt) - workshop.now.getTime()) / 60_000)
      .sort((a, b) => a - b);
    expect(due).toEqual([20, 240]);
    expect(mold.readyAt).toBe(new Date(workshop.now.getTime() + 240 * 60_000).toISOString());
    const before = (await workshop.get<Page<MoldRow>>('/molds')).body.items.length;
    const refused = await block({ name: 'Another', planInput: undefined, mixed: true });
    expect([refused.status, refused.body.error.code]).toEqual([400, 'invalid-input']);
    expect((await workshop.get<Page<MoldRow>>('/molds')).body.items).toHaveLength(before);
  });

  test('a mold that was not planned here has no mix to time', async () => {
    const answer = await workshop.post(`/molds/${stock.mold.id}/events`, { kind: 'mixed' });
    expect([answer.status, await clocks()]).toEqual([400, []]);
  });

  test('its steps are ticked and unticked, and all of it is remembered', async () => {
    const { body: mold } = await block();
    for (const kind of ['step', 'step-undone', 'step'])
      await workshop.post(`/molds/${mold.id}/events`, { kind, step: 'level' });
    const { body } = await workshop.get<Mold>(`/molds/${mold.id}`);
    expect(body.events.map((event) => `${event.kind} ${event.step}`)).toEqual([
      'step level',
      'step-undone level',
      'step level',
    ]);
  });
});

describe('a half in two mixes', () => {
  test('has two pot lives, sets from the last, takes half of the rubber each time; a glove’s second tap is no second mix', async () => {
    const { lengthMm, widthMm, heightMm } = stock.master.latest;
    const planInput = {
      pour: 'open-face',
      masters: [{ volumeMl: 10, lengthMm, widthMm, heightMm }],
      mix: { by: 'mass', partA: 10, partB: 1 },
      potLifeMin: 20,
      demoldMin: 240,
      mixCupMl: 45,
    };
    const { body: rubber } = await workshop.post<{ id: string }>('/materials', {
      name: 'Loft Slow',
      kind: 'silicone',
      mix: { by: 'mass', partA: 10, partB: 1 },
      potLifeMin: 20,
      demoldMin: 240,
      lot: { code: 'kit', grams: 2000 },
    });
    const { body: mold } = await block({ cavities: 1, rubberId: rubber.id, planInput });
    const [pour] = mold.plan?.output.pours ?? [];
    // (L·W·H − the master) and 7 % more, into a cup of 45 mL.
    const mixMl = ((lengthMm + 20) * (widthMm + 20) * (heightMm + 10)) / 1000 - 10;
    expect(pour?.mixes).toBe(Math.ceil((mixMl * 1.07) / 45));
    const mixes = pour?.mixes as number;
    expect(mixes).toBeGreaterThan(1);
    const level = async () =>
      (await workshop.get<Page<{ id: string; levelG: number }>>('/materials')).body.items.find(
        (row) => row.id === rubber.id,
      )?.levelG ?? Number.NaN;
    const mixed = () => workshop.post<Mold>(`/molds/${mold.id}/events`, { kind: 'mixed' });
    await mixed();
    expect(await level()).toBeCloseTo(2000 - (mixMl * 1.07 * 1.1) / mixes, 3);
    const twice = await mixed();
    expect([twice.status, twice.body.error.code]).toEqual([409, 'already-started']);
    workshop.waits(8 / 60);
    const { body } = await mixed();
    expect(body.events.at(-1)?.detail).toMatchObject({ half: 0, mix: 1 });
    const running = (await clocks()).filter((clock) => clock.label.includes(mold.name));
    const due = (label: string) => running.find((clock) => clock.label === label)?.dueAt;
    const first = Date.parse(due(`Pot life of ${mold.name}, mix 1 of ${mixes}`) as string);
    const second = Date.parse(due(`Pot life of ${mold.name}, mix 2 of ${mixes}`) as string);
    expect(second - first).toBe(8 * 60_000);
    expect(running.filter((clock) => clock.kind === 'demold')).toHaveLength(1);
    expect(Date.parse(due(`Demold ${mold.name}`) as string) - second).toBe(220 * 60_000);
  });
});

describe('a two-piece block', () => {
  test('is mixed twice, the second time only over release agent; each half takes its own rubber', async () => {
    const { body: rubber } = await workshop.post<{ id: string }>('/materials', {
      name: 'Loft Firm',
      kind: 'silicone',
      mix: { by: 'mass', partA: 10, partB: 1 },
      potLifeMin: 20,
      demoldMin: 240,
      lot: { code: 'first kit', grams: 2000 },
    });
    const { lengthMm, widthMm, heightMm } = stock.master.latest;
    const { body: mold } = await block({
      kind: 'silicone-two-piece',
      fill: 'gravity',
      cavities: 1,
      rubberId: rubber.id,
      planInput: {
        pour: 'two-piece',
        masters: [{ volumeMl: 10, lengthMm, widthMm, heightMm }],
        mix: { by: 'mass', partA: 10, partB: 1 },
        potLifeMin: 20,
        demoldMin: 240,
      },
    });
    // 130 × 36 × (17/2 + 10) mm less half the master, with 7 % more, at 1.1 g/mL.
    const halfG = ((130 * (widthMm + 20) * (heightMm / 2 + 10)) / 1000 - 5) * 1.07 * 1.1;
    const level = async () =>
      (await workshop.get<Page<{ id: string; levelG: number }>>('/materials')).body.items.find(
        (row) => row.id === rubber.id,
      )?.levelG ?? Number.NaN;
    const event = (body: object) => workshop.post<Mold>(`/molds/${mold.id}/events`, body);
    expect((await event({ kind: 'mixed' })).status).toBe(201);
    expect(await level()).toBeCloseTo(2000 - halfG, 3);
    const early = await workshop.post(`/molds/${mold.id}/events`, { kind: 'mixed' });
    expect([early.status, early.body.error.message]).toEqual([400, expect.stringContaining('Release agent first')]);
    await event({ kind: 'step', step: 'release' });
    await event({ kind: 'step-undone', step: 'release' });
    expect((await event({ kind: 'mixed' })).status).toBe(400);
    await event({ kind: 'step', step: 'release' });
    const { body } = await event({ kind: 'mixed' });
    expect(body.events.at(-1)?.detail).toMatchObject({ half: 1 });
    expect(await level()).toBeCloseTo(2000 - 2 * halfG, 3);
    expect((await clocks()).map((clock) => clock.label)).toContain('Demold Block, second half');
  });
});

describe('a mold that was bought', () => {
  test('brings its bait along', async () => {
    const { body } = await workshop.post<Mold>('/molds', {
      name: 'Squattie × 6',
      kind: 'aluminium',
      fill: 'injection',
      newBait: { name: 'Squattie 70', shape: 'claws' },
      cavities: 6,
      cavityMl: 9.4,
      injectorMl: 180,
    });
    expect(body).toMatchObject({
      baitName: 'Squattie 70',
      shape: 'claws',
      columns: 4,
      rows: 2,
      injectorMl: 180,
      shots: 0,
      made: 0,
    });
    const { body: baits } = await workshop.get<Page<{ name: string; packCount: number }>>('/baits');
    expect(baits.items.map((bait) => `${bait.name} ${bait.packCount}`)).toEqual(['Sandlance 110 8', 'Squattie 70 8']);
  });

  test.each([
    ['for two baits at once', { baitId: 'own', newBait: { name: 'X', shape: 'stick' } }],
    ['for none', {}],
    ['with a revision of another bait’s master', { newBait: { name: 'X', shape: 'stick' }, revisionId: 'own' }],
    ['without a cavity', { baitId: 'own', cavities: 0 }],
  ])('%s is refused', async (_what, change: Record<string, unknown>) => {
    const own = { baitId: stock.master.baitId, revisionId: stock.master.latest.id } as Record<string, string>;
    const body = Object.fromEntries(
      Object.entries(change).map(([key, value]) => [key, value === 'own' ? own[key] : value]),
    );
    const before = workshop.rows();
    const answer = await workshop.post('/molds', {
      name: 'M',
      kind: 'cast',
      fill: 'gravity',
      cavities: 2,
      cavityMl: 5,
      ...body,
    });
    expect([answer.status, workshop.rows()]).toEqual([400, before]);
  });
});

test('a retired mold makes nothing more, and comes back to work', async () => {
  const need = async () => (await workshop.get<Order>(`/orders/${stock.order.id}`)).body.need.cups[0];
  const change = (retired: boolean, version: number) =>
    workshop.ask<Mold>('PATCH', `/molds/${stock.mold.id}`, { retired }, { version });
  expect((await need())?.molds).toHaveLength(1);
  expect((await change(true, 1)).body.retiredAt).toBe(workshop.now.toISOString());
  expect(await need()).toMatchObject({ molds: [], withoutMold: [{ baits: 16 }] });
  const refused = await workshop.post('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 1 }],
  });
  expect(refused.body.error).toMatchObject({ code: 'invalid-input', path: 'molds.0.moldId' });
  await change(false, 2);
  expect((await need())?.molds).toHaveLength(1);
});

test('its rejects are learnt: more bad ones, more shots', async () => {
  const shots = async () =>
    (await workshop.get<Order>(`/orders/${stock.order.id}`)).body.need.cups[0]?.molds[0]?.shots ?? 0;
  expect(await shots()).toBe(5);
  // Twelve baits of a cup, half of them bad, poured for nobody.
  const pour = await poured(workshop, stock, 3);
  const { body } = await workshop.get<{ shots: { id: string }[] }>(`/pours/${pour.id}`);
  for (const shot of body.shots) {
    const marks = [1, 2, 3, 4].map((cavity) =>
      cavity > 2 ? { cavity, grade: 'remelt', reason: 'dent' } : { cavity, grade: 'sell' },
    );
    await workshop.post(`/pours/${pour.id}/shots/${shot.id}/marks`, { marks });
  }
  await workshop.post(`/pours/${pour.id}/close`, closing(6, 6));
  await workshop.post('/rack/out', {
    kind: 'given',
    baitId: stock.master.baitId,
    colourwayId: stock.recipe.id,
    baits: 6,
  });
  const { body: mold } = await workshop.get<Mold>(`/molds/${stock.mold.id}`);
  expect([mold.made, mold.rejected, mold.health[3]?.reasons]).toEqual([12, 6, [{ reason: 'dent', count: 3 }]]);
  // Prior (1, 19) and 6 of 12: 7/32 bad on average; 16 good of 4 a shot now wants 7 shots.
  expect(await shots()).toBe(7);
});

test('a shot that was taken back is not counted, nor are its marks', async () => {
  const pour = await poured(workshop, stock, 2);
  const { body } = await workshop.get<{ shots: { id: string }[] }>(`/pours/${pour.id}`);
  await workshop.post('/undo', { rowId: body.shots[0]?.id });
  const { body: mold } = await workshop.get<Mold>(`/molds/${stock.mold.id}`);
  expect([mold.shots, mold.made, mold.rejected]).toEqual([1, 4, 0]);
  const again = await workshop.post('/undo', { rowId: body.shots[0]?.id });
  expect([again.status, again.body.error.code]).toEqual([409, 'already-reversed']);
});

test('a mark changed before the close counts as it was left', async () => {
  const pour = await poured(workshop, stock, 1);
  const { body } = await workshop.get<{ shots: { id: string }[] }>(`/pours/${pour.id}`);
  const path = `/pours/${pour.id}/shots/${body.shots[0]?.id}/marks`;
  await workshop.post(path, {
    marks: [
      { cavity: 1, grade: 'sell' },
      { cavity: 4, grade: 'unmarked' },
    ],
  });
  expect((await workshop.post(`/pours/${pour.id}/close`, closing(4, 0))).body.error.code).toBe('cavities-unmarked');
  await workshop.post(path, { marks: [{ cavity: 4, grade: 'remelt', reason: 'flash' }] });
  await workshop.post(`/pours/${pour.id}/close`, closing(3, 1));
  const { body: mold } = await workshop.get<Mold>(`/molds/${stock.mold.id}`);
  expect([mold.made, mold.rejected]).toEqual([4, 1]);
});

test('rubber that still sets is not poured into while another mold makes the bait', async () => {
  const chosen = async () =>
    (await workshop.get<Order>(`/orders/${stock.order.id}`)).body.need.cups[0]?.molds[0]?.moldId;
  const { body: mold } = await block({ name: 'Six', cavities: 6, planInput: undefined });
  expect(await chosen()).toBe(mold.id);
  const { body: planned } = await block({ name: 'Block of 3' });
  expect(planned.readyAt).toBe('unmixed');
  for (const id of [mold.id, stock.mold.id]) {
    const { body } = await workshop.get<Mold>(`/molds/${id}`);
    await workshop.ask('PATCH', `/molds/${id}`, { retired: true }, { version: body.version });
  }
  // The only one left is planned with, and says that it is not ready.
  expect(await chosen()).toBe(planned.id);
  await workshop.post(`/molds/${planned.id}/events`, { kind: 'mixed' });
  const { body: setting } = await workshop.get<Mold>(`/molds/${planned.id}`);
  expect(Date.parse(setting.readyAt ?? '') - workshop.now.getTime()).toBe(240 * 60_000);
  expect((await clocks()).map((clock) => clock.kind)).toEqual(['pot-life', 'demold']);
  await workshop.post(`/molds/${planned.id}/events`, { kind: 'step', step: 'pour' });
  expect((await clocks()).map((clock) => clock.kind)).toEqual(['demold']);
  workshop.waits(3);
  // Four hours by its tin: after three it is asked about, and nothing is written.
  const early = await workshop.post(`/molds/${planned.id}/events`, { kind: 'step', step: 'demold' });
  expect([early.status, early.body.error.code]).toEqual([409, 'too-early']);
  expect(early.body.error.message).toContain('sets for 1 h more');
  expect((await clocks()).map((clock) => clock.kind)).toEqual(['demold']);
  await workshop.post(`/molds/${planned.id}/events`, { kind: 'step', step: 'demold', sure: true });
  const { body: done } = await workshop.get<Mold>(`/molds/${planned.id}`);
  expect([done.readyAt, await clocks()]).toEqual([null, []]);
  expect(done.events.at(-1)).toMatchObject({ step: 'demold', detail: { earlyS: 3600 } });
});

test('a mold that is opened when its clock says so bears no note', async () => {
  const { body: planned } = await block({ name: 'Block of 3' });
  await workshop.post(`/molds/${planned.id}/events`, { kind: 'mixed' });
  workshop.waits(4);
  const { body: done } = await workshop.post<Mold>(`/molds/${planned.id}/events`, { kind: 'step', step: 'demold' });
  expect([done.readyAt, done.events.at(-1)?.detail]).toEqual([null, null]);
});
