import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Oven, Pour } from '../../contract/pours.ts';
import type { Clock, Workshop } from '../../contract/workshop.ts';
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

const seconds = (s: number) => workshop.waits(s / 3600);
const read = (c: number, kind = 'reading') => workshop.made(`/pours/${pour.id}/heats`, { kind, c });
const burst = (level: number, s: number, more: object = {}) =>
  workshop.post<Pour>(`/pours/${pour.id}/bursts`, { level, seconds: s, ...more });
const oven = async () => (await workshop.get<Oven>('/oven')).body;
const running = async () =>
  (await workshop.get<Page<Clock>>('/clocks')).body.items.filter((clock) => clock.kind === 'burst');
/** What a burst warms the cup by, where so much of 900 W reaches it. */
const warmed = (level: number, s: number, efficiency: number) =>
  (900 * level * s * efficiency) / (pour.plan.cookG * 1.8);

test('a burst runs its clock until the cup is read; tapped twice it is one', async () => {
  const id = '018f0000-0000-7000-8000-00000000000c';
  const { status } = await burst(1, 60, { id });
  expect(status).toBe(201);
  expect((await burst(1, 60, { id })).status).toBe(409);
  const [clock, ...others] = await running();
  expect(others).toEqual([]);
  expect(clock?.label).toBe(`${pour.code} in the oven: stir and scrape`);
  expect((Date.parse(clock?.dueAt ?? '') - workshop.now.getTime()) / 1000).toBe(60);
  seconds(70);
  await read(90);
  expect(await running()).toEqual([]);
  // Begun by mistake.
  await burst(1, 30, { id: '018f0000-0000-7000-8000-00000000000d' });
  expect((await workshop.post('/undo', { rowId: '018f0000-0000-7000-8000-00000000000d' })).status).toBe(201);
  expect(await running()).toEqual([]);
});

test('the oven is learnt from bursts that were read before and after; nobody read one: the starting guess', async () => {
  expect(await oven()).toEqual({ watts: 900, school: 'full-power', efficiency: 0.5, bursts: 0 });
  let c = 60;
  await read(c);
  for (const [level, s] of [
    [1, 60],
    [1, 30],
    [0.7, 30],
  ] as const) {
    seconds(10);
    await burst(level, s);
    seconds(s + 15);
    c += warmed(level, s, 0.62);
    await read(c);
  }
  const learnt = await oven();
  expect(learnt.bursts).toBe(3);
  expect(learnt.efficiency).toBeCloseTo(0.62, 6);
});

test('what was read too long before or after, or with another burst between, tells nothing; nor does another oven', async () => {
  await read(60);
  seconds(400);
  await burst(1, 60);
  seconds(75);
  await read(100);
  expect((await oven()).bursts).toBe(0);
  seconds(5);
  await burst(1, 60);
  seconds(60 + 400);
  await read(110);
  seconds(5);
  await burst(1, 20);
  seconds(25);
  await burst(1, 20);
  seconds(25);
  await read(150);
  expect((await oven()).bursts).toBe(0);
  seconds(5);
  await burst(1, 20);
  seconds(25);
  await read(150 + warmed(1, 20, 0.4));
  expect(await oven()).toMatchObject({ bursts: 1, efficiency: expect.closeTo(0.4, 6) });
  const { version } = (await workshop.get<Workshop>('/workshop')).body;
  await workshop.ask('PATCH', '/workshop', { ovenWatts: 1100, cookSchool: 'gentle' }, { version });
  expect(await oven()).toEqual({ watts: 1100, school: 'gentle', efficiency: 0.5, bursts: 0 });
});

test('a cup that was drawn from is cooked for what is left in it; an empty one is not', async () => {
  const drawn = async () => (await workshop.get<Pour>(`/pours/${pour.id}`)).body.drawnMl;
  const massG = () => workshop.data.db.prepare('SELECT mass_g FROM burst ORDER BY seq DESC').pluck().get();
  expect(await drawn()).toBe(0);
  await burst(1, 30);
  expect(massG()).toBe(pour.plan.cookG);
  await workshop.made(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  // Four cavities of 10 mL and a sprue of 5, and 6 % that shrink and are fed: 47.7 mL.
  expect(await drawn()).toBeCloseTo(47.7, 9);
  await burst(1, 30);
  expect(massG()).toBeCloseTo(pour.plan.cookG * (1 - 47.7 / pour.cookMl), 9);
  for (let n = 0; n < 3; n++) await workshop.made(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  expect(await drawn()).toBeGreaterThan(pour.cookMl);
  const before = workshop.rows();
  const { status, body } = await burst(1, 30);
  expect([status, body, workshop.rows() - before]).toMatchObject([400, { error: { code: 'nothing-left' } }, 0]);
});

test('a burst that was taken back stands between nothing', async () => {
  await read(60);
  seconds(5);
  await burst(1, 20);
  seconds(5);
  const id = '018f0000-0000-7000-8000-00000000000e';
  await burst(1, 5, { id });
  await workshop.post('/undo', { rowId: id });
  seconds(20);
  await read(60 + warmed(1, 20, 0.45));
  expect(await oven()).toMatchObject({ bursts: 1, efficiency: expect.closeTo(0.45, 6) });
});

test.each([
  [{ level: 0, seconds: 30 }, 'level'],
  [{ level: 1.1, seconds: 30 }, 'level'],
  [{ level: 1, seconds: 0 }, 'seconds'],
  [{ level: 1, seconds: 4000 }, 'seconds'],
])('no burst: %o', async (body, path) => {
  const before = workshop.rows();
  const answer = await workshop.post(`/pours/${pour.id}/bursts`, body);
  expect([answer.status, answer.body.error.path, workshop.rows() - before]).toEqual([400, path, 0]);
});
