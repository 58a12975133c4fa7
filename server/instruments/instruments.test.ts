import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Instrument, InstrumentNow } from '../../contract/instruments.ts';
import type { Pour } from '../../contract/pours.ts';
import { type Stocked, stocked, TestWorkshop, twoShots } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let pour: Pour;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  pour = await twoShots(workshop, stock);
});
afterEach(() => workshop.close());

const add = (kind: Instrument['kind'], how: Instrument['how'] = 'lines') =>
  workshop.made<Instrument>('/instruments', { kind, name: `the ${kind}`, how });
const now = async (id: string) =>
  (await workshop.get<Page<InstrumentNow>>('/instruments/now')).body.items.find(
    (one) => one.id === id,
  ) as InstrumentNow;
const line = (id: string, body: object) => workshop.post<InstrumentNow>(`/instruments/${id}/lines`, body);
/** A line a second. */
const says = async (id: string, ...grams: number[]) => {
  let last: InstrumentNow | undefined;
  for (const g of grams) {
    workshop.waits(1 / 3600);
    last = (await line(id, { kind: 'scale', g })).body;
  }
  return last as InstrumentNow;
};
const shotG = () => (pour.plan.molds[0]?.shotMl ?? 0) * (pour.plan.cookG / pour.cookMl);
const draw = () => workshop.made<Pour>(`/pours/${pour.id}/shots`, { moldId: pour.molds[0]?.moldId });
const stands = async () => (await workshop.get<Pour>(`/pours/${pour.id}`)).body;

describe('a real instrument', () => {
  test('is heard line by line, and judged', async () => {
    const { id } = await add('thermometer');
    expect(await now(id)).toMatchObject({ value: null, trust: 'silent', fault: null });
    expect((await line(id, { kind: 'thermometer', c: 171.4 })).body).toMatchObject({ value: 171.4, trust: 'fine' });
    workshop.waits(11 / 3600);
    expect((await now(id)).trust).toBe('silent');
    for (const c of [171, 170.8, 170.5]) await line(id, { kind: 'thermometer', c });
    expect((await line(id, { kind: 'thermometer', c: 371 })).body.trust).toBe('wild');
  });
  test.each([
    ['another kind', { kind: 'scale', g: 4 }, 400, 'invalid-input'],
    ['no figure', { kind: 'thermometer' }, 400, 'invalid-input'],
    ['words', { kind: 'thermometer', c: 'hot' }, 400, 'invalid-input'],
  ])('%s is refused', async (_, body, status, code) => {
    const { id } = await add('thermometer');
    const answer = await line(id, body);
    expect([answer.status, answer.body.error.code]).toEqual([status, code]);
  });
  test('one that is not there, or was put away, is not heard; a real one has no stand-in’s hands', async () => {
    const { id, version } = await add('scale');
    expect((await line('018f0000-0000-7000-8000-000000000001', { kind: 'scale', g: 1 })).status).toBe(404);
    expect((await workshop.post(`/instruments/${id}/stand-in`, { addG: 4 })).body.error.code).toBe('not-applicable');
    expect((await workshop.ask('PATCH', `/instruments/${id}`, { away: true }, { version })).status).toBe(200);
    expect((await line(id, { kind: 'scale', g: 1 })).status).toBe(404);
  });
  test('what it tells is a reading with its name, and nothing is recorded by itself', async () => {
    const { id } = await add('thermometer');
    await line(id, { kind: 'thermometer', c: 171.4 });
    await workshop.made(`/pours/${pour.id}/heats`, { kind: 'cook', c: 175 });
    const before = (await stands()).heats.length;
    await workshop.made(`/pours/${pour.id}/heats`, { kind: 'reading', c: 171.4, instrumentId: id });
    const { heats } = await stands();
    expect(heats).toHaveLength(before + 1);
    expect(heats.at(-1)).toMatchObject({ c: 171.4, instrumentId: id });
    expect(heats[0]?.instrumentId).toBeNull();
  });
});

describe('the scale as witness', () => {
  test('a step waits to be said; said on two tablets it is one dose', async () => {
    const { id } = await add('scale');
    await workshop.made(`/instruments/${id}/aim`, { pourId: pour.id });
    const seen = await says(id, 612, 612.1, 612, 612, 612.6, 612.6, 612.6, 612.6);
    expect(seen.steps).toHaveLength(1);
    const step = seen.steps[0] as InstrumentNow['steps'][number];
    expect(step).toMatchObject({ pourId: pour.id, shotId: null, deltaG: expect.closeTo(0.57, 1) });
    const doses = (await stands()).doses.length;
    const dose = { id: step.id, materialId: stock.colourant.id, amount: 11, unit: 'drop' };
    expect((await workshop.post(`/ledgers/${pour.ledgerId}/doses`, dose)).status).toBe(201);
    expect((await workshop.post(`/ledgers/${pour.ledgerId}/doses`, dose)).status).toBe(409);
    expect((await stands()).doses).toHaveLength(doses + 1);
  });
  test('one that was none is forgotten; another cup on it is no step', async () => {
    const { id } = await add('scale');
    await workshop.made(`/instruments/${id}/aim`, { pourId: pour.id });
    const { steps } = await says(id, 600, 600, 600, 640, 640, 640);
    await workshop.ask('DELETE', `/instruments/${id}/steps/${steps[0]?.id}`);
    expect((await now(id)).steps).toEqual([]);
    await workshop.made(`/instruments/${id}/aim`, { pourId: null });
    expect((await says(id, 12, 12, 12, 12)).steps).toEqual([]);
  });
  test('a draw is a step down by what a shot weighs', async () => {
    const { id } = await add('scale');
    await workshop.made(`/instruments/${id}/aim`, { pourId: pour.id });
    const left = 600 - shotG();
    const { steps } = await says(id, 600, 600, 600, left, left, left);
    expect(steps[0]?.deltaG).toBeCloseTo(-shotG(), 6);
  });
});

describe('baits on the scale', () => {
  const weigh = (shotId: string, cavity: number, grams: number) =>
    workshop.post<Pour>(`/pours/${pour.id}/shots/${shotId}/weighed`, { cavity, grams });
  test('one that is too light for its cavity is said to be, by the volume first, by its own baits once they are known', async () => {
    const [first] = (await draw()).shots;
    const ml = (pour.molds[0]?.cavityLayersMl[0] ?? 0) * 1.02;
    expect((await weigh(first?.id as string, 1, ml * 0.95)).body.shots[0]?.weighed).toEqual([
      expect.objectContaining({ cavity: 1, usualG: expect.closeTo(ml, 9), of: 0, missing: null }),
    ]);
    const light = (await weigh(first?.id as string, 2, ml * 0.88)).body.shots[0]?.weighed[1];
    expect(light?.missing).toBeCloseTo(0.12, 9);
    // Three earlier baits of cavity 1 weighed a tenth more than its volume says.
    for (let n = 0; n < 3; n++) {
      const { shots } = await draw();
      await weigh(shots.at(-1)?.id as string, 1, ml * 1.1);
    }
    const { shots } = await draw();
    const last = (await weigh(shots.at(-1)?.id as string, 1, ml)).body.shots.at(-1)?.weighed[0];
    expect(last?.of).toBe(4);
    expect(last?.usualG).toBeCloseTo(((0.95 + 3 * 1.1) / 4) * ml, 6);
    expect(last?.missing).toBeCloseTo(1 - 1 / ((0.95 + 3.3) / 4), 6);
  });
  test('weighed again, the newest stands; taken back, none does; a cavity that is not there is refused', async () => {
    const [shot] = (await draw()).shots;
    const id = shot?.id as string;
    await weigh(id, 1, 10);
    const { body } = await weigh(id, 1, 11);
    expect(body.shots[0]?.weighed.map(({ grams }) => grams)).toEqual([11]);
    await workshop.made('/undo', { rowId: body.shots[0]?.weighed[0]?.id });
    expect((await stands()).shots[0]?.weighed.map(({ grams }) => grams)).toEqual([10]);
    expect((await weigh(id, 99, 10)).body.error.path).toBe('cavity');
  });
});

describe('a stand-in', () => {
  const speaks = () => new Promise((done) => setTimeout(done, 1200));
  test('reads what the cup was by its log, through the same lines; stuck, it is not believed for long', async () => {
    const { id } = await add('thermometer', 'stand-in');
    await workshop.made(`/pours/${pour.id}/heats`, { kind: 'reading', c: 168 });
    await workshop.made(`/instruments/${id}/aim`, { pourId: pour.id });
    await speaks();
    const first = await now(id);
    expect(first.trust).toBe('fine');
    expect(Math.abs((first.value as number) - 168)).toBeLessThan(4);
    await workshop.made(`/instruments/${id}/stand-in`, { fault: 'wild' });
    expect((await now(id)).fault).toBe('wild');
  });
  test('a scale that drops out says nothing; hands lay on it what they lay', async () => {
    const { id } = await add('scale', 'stand-in');
    await workshop.made(`/instruments/${id}/aim`, { pourId: pour.id });
    await speaks();
    const before = (await now(id)).value as number;
    expect(before).toBeGreaterThan(pour.plan.cookG);
    await workshop.made(`/instruments/${id}/stand-in`, { addG: 20 });
    await speaks();
    expect(((await now(id)).value as number) - before).toBeCloseTo(20, 0);
    await workshop.made(`/instruments/${id}/stand-in`, { fault: 'dropout' });
    workshop.waits(1 / 60);
    await speaks();
    expect((await now(id)).trust).toBe('silent');
  });
});
