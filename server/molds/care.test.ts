import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Mold, MoldRow } from '../../contract/molds.ts';
import type { Pour } from '../../contract/pours.ts';
import { poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const to = <T = Mold>(path: string, body: object) => workshop.post<T>(`/molds/${stock.mold.id}/${path}`, body);
const mold = async () => (await workshop.get<Mold>(`/molds/${stock.mold.id}`)).body;

describe('weighings replace the estimate', () => {
  test('everywhere: its page, the list, and the next cup', async () => {
    await to('weighings', { of: 'bait', count: 8, grams: 8 * 12.24 });
    const { body } = await to('weighings', { of: 'shot', count: 1, grams: 55.08 });
    // 12.24 g ÷ 1.02 = 12 mL a bait; a shot 54 mL, so 6 mL of channels for the estimated 5.
    expect(body).toMatchObject({
      cavityMl: expect.closeTo(12, 9),
      sprueMl: expect.closeTo(6, 9),
      estimate: { cavityMl: 10, sprueMl: 5, runnerMl: 0 },
      weighed: { cavityFrom: 8, channelsFrom: 1, toEstimate: expect.closeTo(1.2, 9), problem: null },
    });
    const { body: list } = await workshop.get<Page<MoldRow>>('/molds');
    expect(list.items[0]?.cavityMl).toBeCloseTo(12, 9);
    const { body: pour } = await workshop.post<Pour>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 2 }],
    });
    // Two shots of 54 mL with 6 % more, and 8 mL on the cup's wall.
    expect(pour.plan.cookMl).toBeCloseTo(2 * 54 * 1.06 + 8, 6);
  });

  test('taken back once, the estimate stands again; a second time is refused', async () => {
    const { body } = await to('weighings', { of: 'bait', count: 4, grams: 60 });
    const rowId = body.care.weighings[0]?.id ?? '';
    const back = await workshop.post<Mold>('/undo', { rowId });
    expect([back.body.cavityMl, back.body.weighed, back.body.care.weighings]).toEqual([10, null, []]);
    expect((await workshop.post('/undo', { rowId })).body.error.code).toBe('already-reversed');
  });

  test('a shot lighter than its baits changes nothing, and says so', async () => {
    await to('weighings', { of: 'bait', count: 1, grams: 12 });
    const { body } = await to('weighings', { of: 'shot', count: 1, grams: 20 });
    expect(body).toMatchObject({ cavityMl: 10, sprueMl: 5, weighed: { problem: expect.stringContaining('weigh') } });
  });

  test('what is set into the cavities takes the room of plastic', async () => {
    const keel = { cavity: null, kind: 'weight', stuff: 'lead', massG: 11.34, stays: true, fromNoseMm: 30, upMm: -4 };
    const { body } = await workshop.ask<Mold>(
      'PATCH',
      `/molds/${stock.mold.id}`,
      { inserts: [keel] },
      { version: stock.mold.version },
    );
    expect([body.cavityMl, body.estimate.cavityMl]).toEqual([expect.closeTo(9, 9), 10]);
    const astray = await workshop.ask(
      'PATCH',
      `/molds/${stock.mold.id}`,
      { inserts: [{ ...keel, cavity: 5 }] },
      { version: body.version },
    );
    expect([astray.status, astray.body.error.path]).toEqual([400, 'inserts.0.cavity']);
  });
});

test.each([
  ['dips', { dips: 3, wallMm: 2.1, cupC: 130 }],
  ['dips', { dips: 0, wallMm: 2.1, cupC: 155 }],
  ['sparks', { electrode: 'E1', pass: 'roughing', amps: 12, fromMm: 4, toMm: 3, minutes: 20, seen: 'clean' }],
  ['weighings', { of: 'bait', count: 2.5, grams: 20 }],
] as const)('a slip in %s is refused and writes nothing', async (log, body) => {
  const before = workshop.rows();
  expect((await to(log, body)).status).toBe(400);
  expect(workshop.rows()).toBe(before);
});

test('dips and sparks are kept in order', async () => {
  await to('dips', { dips: 3, wallMm: 2.2, cupC: 152 });
  await to('sparks', { electrode: 'E1', pass: 'roughing', amps: 12, fromMm: 0, toMm: 3, minutes: 40, seen: 'clean' });
  const { body } = await to('sparks', {
    electrode: 'E1',
    pass: 'finishing',
    amps: 3,
    fromMm: 3,
    toMm: 3.4,
    minutes: 55,
    efficiency: 0.6,
    seen: 'pits',
  });
  expect(body.care.dips).toMatchObject([{ dips: 3, wallMm: 2.2, cupC: 152 }]);
  expect(body.care.sparks.map((run) => [run.pass, run.efficiency, run.seen])).toEqual([
    ['roughing', null, 'clean'],
    ['finishing', 0.6, 'pits'],
  ]);
});

test('shots since its faces were cleaned, and flash by pour', async () => {
  const pour = await poured(workshop, stock, 3);
  expect((await mold()).care).toMatchObject({ cleanedAt: null, shotsSinceCleaned: 3 });
  workshop.waits(1);
  await to('events', { kind: 'cleaned' });
  expect((await mold()).care).toMatchObject({ cleanedAt: workshop.now.toISOString(), shotsSinceCleaned: 0 });
  workshop.waits(1);
  const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  const marks = [1, 2, 3].map((cavity) => ({ cavity, grade: 'remelt', reason: 'flash' }));
  await workshop.post(`/pours/${pour.id}/shots/${body.shots.at(-1)?.id}/marks`, { marks });
  const { care } = await mold();
  // Twelve looked at before, three now, all of them with flash.
  expect([care.shotsSinceCleaned, care.flash]).toEqual([
    1,
    [expect.objectContaining({ pourId: pour.id, made: 15, flash: 3 })],
  ]);
});

describe('a worn mold made anew', () => {
  test('is the same mold with no shots, and the old one retires', async () => {
    await poured(workshop, stock, 2);
    await to('weighings', { of: 'bait', count: 4, grams: 48.96 });
    const { body: made } = await to('rebuilds', { name: 'Sandlance × 4, second' });
    expect(made).toMatchObject({
      revisionId: stock.master.latest.id,
      cavities: 4,
      shots: 0,
      // What the old one weighed is not the new one's weight: it starts from the estimate.
      cavityMl: 10,
      retiredAt: null,
      before: [{ id: stock.mold.id, name: 'Sandlance × 4', shots: 2 }],
    });
    const old = await mold();
    expect(old.retiredAt).toBe(workshop.now.toISOString());
    expect(old.after).toEqual({ id: made.id, name: 'Sandlance × 4, second' });
    // One that was retired tells nothing of how long they last.
    expect(made.care.life).toEqual({ shots: null, from: 1 });
  });

  test('once only, and not under the old name', async () => {
    expect((await to('rebuilds', { name: 'Sandlance × 4' })).body.error.code).toBe('already-exists');
    expect((await mold()).retiredAt).toBeNull();
    const { body: second } = await to('rebuilds', { name: 'Second' });
    // Retired without a shot: that says nothing of how long such a mold lasts.
    expect(second.care.life).toEqual({ shots: null, from: 0 });
    expect((await to('rebuilds', { name: 'Third' })).body.error.message).toMatch(/made anew already/);
  });
});
