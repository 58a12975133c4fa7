import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Master, MasterRow } from '../../contract/masters.ts';
import { TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const SANDLANCE = {
  name: 'Sandlance 110',
  shape: 'paddle',
  kind: 'clay',
  lengthMm: 110,
  widthMm: 16,
  heightMm: 17,
  thickestMm: 15,
};
const make = async (change: object = {}) => (await workshop.post<Master>('/masters', { ...SANDLANCE, ...change })).body;
const revise = (master: Master, change: object) => {
  const { lengthMm, widthMm, heightMm, thickestMm } = SANDLANCE;
  return workshop.post<Master>(`/masters/${master.id}/revisions`, {
    reason: 'thinner',
    parentId: master.latest.id,
    lengthMm,
    widthMm,
    heightMm,
    thickestMm,
    ...change,
  });
};

describe('volume', () => {
  test.each([
    ['weighed', { how: 'weighed', grams: 23.1, densityGPerMl: 1.75 }, 13.2],
    ['sunk in water', { how: 'displaced', ml: 12.9 }, 12.9],
  ])('%s', async (_how, volume, ml) => {
    const master = await make({ volume });
    expect(master.latest.volumeMl).toBeCloseTo(ml, 9);
  });

  test('the newest reading counts; the older ones are kept', async () => {
    const master = await make({ volume: { how: 'displaced', ml: 12 } });
    const path = `/masters/${master.id}/revisions/${master.latest.id}/volumes`;
    const { body } = await workshop.post<Master>(path, { how: 'weighed', grams: 22.75, densityGPerMl: 1.75 });
    expect(body.latest.volumeMl).toBe(13);
    expect(body.latest.volumes.map((reading) => [reading.how, reading.ml])).toEqual([
      ['weighed', 13],
      ['displaced', 12],
    ]);
  });

  test('a master without one is counted as waiting at its station', async () => {
    const master = await make();
    const line = async () => (await workshop.get<{ masters: object }>('/line')).body.masters;
    expect(await line()).toEqual({ count: 1, unmeasured: 1 });
    await workshop.post(`/masters/${master.id}/revisions/${master.latest.id}/volumes`, { how: 'displaced', ml: 13 });
    expect(await line()).toEqual({ count: 1, unmeasured: 0 });
  });
});

describe('revisions', () => {
  test('v2 says what was changed and what it grew from; v1 stays', async () => {
    const master = await make({ volume: { how: 'displaced', ml: 13 } });
    const { status, body } = await revise(master, { widthMm: 15, reason: 'wrist thinner, so that it kicks slower' });
    expect(status).toBe(201);
    expect(
      body.revisions.map(({ number, reason, widthMm, volumeMl }) => ({ number, reason, widthMm, volumeMl })),
    ).toEqual([
      { number: 2, reason: 'wrist thinner, so that it kicks slower', widthMm: 15, volumeMl: null },
      { number: 1, reason: 'first shape', widthMm: 16, volumeMl: 13 },
    ]);
    expect(body.latest.parentId).toBe(master.latest.id);
  });

  test('an old tail on a new body has two parents, the second from another master', async () => {
    const [body, tail] = [await make(), await make({ name: 'Gannet 160' })];
    const { body: grown } = await revise(body, { secondParentId: tail.latest.id });
    expect(grown.latest).toMatchObject({ parentId: body.latest.id, secondParentId: tail.latest.id });
  });

  test.each([
    [
      'a first parent of another master',
      async (own: Master, other: Master) => revise(own, { parentId: other.latest.id }),
      'parentId',
    ],
    [
      'a second parent that is nowhere',
      async (own: Master) => revise(own, { secondParentId: own.id }),
      'secondParentId',
    ],
    ['no reason', async (own: Master) => revise(own, { reason: ' ' }), 'reason'],
    ['no thickness', async (own: Master) => revise(own, { thickestMm: 0 }), 'thickestMm'],
  ])('%s is refused', async (_what, attempt, path) => {
    const answer = await attempt(await make(), await make({ name: 'Gannet 160' }));
    expect([answer.status, answer.body.error.path]).toEqual([400, path]);
  });
});

test('a list is searched, sorted either way, and each row bears its newest shape', async () => {
  const first = await make();
  for (const name of ['Ragworm 140', 'Squattie 70', 'Gannet 160']) await make({ name });
  await revise(first, { lengthMm: 112 });
  const names = async (query: string) =>
    (await workshop.get<Page<MasterRow>>(`/masters${query}`)).body.items.map((row) => row.name);
  expect(await names('')).toEqual(['Gannet 160', 'Ragworm 140', 'Sandlance 110', 'Squattie 70']);
  expect(await names('?sort=-name&limit=2')).toEqual(['Squattie 70', 'Sandlance 110']);
  expect(await names('?q=worm')).toEqual(['Ragworm 140']);
  expect(await names('?q=%25')).toEqual([]);
  const { body } = await workshop.get<Page<MasterRow>>('/masters?q=sand');
  expect(body.items[0]?.latest).toMatchObject({ number: 2, lengthMm: 112 });
});

test('whether it survived its mold is noted, against the version that was seen', async () => {
  const master = await make();
  const noted = await workshop.ask<Master>('PATCH', `/masters/${master.id}`, { survived: 'lost' }, { version: 1 });
  expect(noted.body).toMatchObject({ survived: 'lost', version: 2, flatBack: true, notes: '' });
  expect((await workshop.ask('PATCH', `/masters/${master.id}`, { survived: 'gone' }, { version: 2 })).status).toBe(400);
});

test('figures that contradict each other are asked about, and kept by whoever is sure', async () => {
  const master = (sizes: object) => ({
    name: 'Sprat Tube 80',
    shape: 'tube',
    kind: 'clay',
    lengthMm: 90,
    widthMm: 12,
    heightMm: 12,
    thickestMm: 12,
    ...sizes,
  });
  const before = workshop.rows();
  const thick = await workshop.post<Master>('/masters', master({ thickestMm: 40 }));
  const weighed = { how: 'weighed', grams: 900, densityGPerMl: 1.75 };
  const heavy = await workshop.post<Master>('/masters', master({ volume: weighed }));
  expect([thick, heavy].map(({ status, body }) => [status, body])).toMatchObject([
    [400, { error: { code: 'contradicts-itself', path: 'thickestMm' } }],
    [400, { error: { code: 'contradicts-itself', path: 'volume', message: expect.stringContaining('holds 13 mL') } }],
  ]);
  expect(workshop.rows()).toBe(before);
  const { status, body } = await workshop.post<Master>('/masters', master({ volume: weighed, sure: true }));
  expect([status, Math.round(body.latest.volumeMl ?? 0)]).toEqual([201, 514]);
  const path = `/masters/${body.id}/revisions/${body.latest.id}/volumes`;
  const again = { how: 'displaced', ml: 300 };
  expect((await workshop.post(path, again)).status).toBe(400);
  expect((await workshop.post(path, { ...again, ml: 6 })).status).toBe(201);
  expect((await workshop.post(path, { ...again, sure: true })).status).toBe(201);
});
