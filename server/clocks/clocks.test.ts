import { request } from 'node:http';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Clock, Kept } from '../../contract/workshop.ts';
import { CLOCKS_AT, STEP_OF_LINE } from '../../core/process/clocks.ts';
import { RELEASE, STEPS } from '../../core/process/making.ts';
import { poured, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const clocks = async () => (await workshop.get<Page<Clock>>('/clocks')).body.items;
const minutesLeft = (clock: Clock | undefined) => (Date.parse(clock?.dueAt ?? '') - workshop.now.getTime()) / 60000;

describe('clocks', () => {
  test('one of one’s own runs, is put off, and ends', async () => {
    const { body: clock } = await workshop.post<Clock>('/clocks', { label: 'paint dry', minutes: 30 });
    expect(minutesLeft(clock)).toBe(30);
    const later = await workshop.post<Clock>(`/clocks/${clock.id}/taps`, { addMinutes: 5 });
    expect(minutesLeft(later.body)).toBe(35);
    await workshop.post(`/clocks/${clock.id}/taps`, { ended: true });
    expect(await clocks()).toEqual([]);
  });

  test('putting off one that is long due counts from now', async () => {
    const { body: clock } = await workshop.post<Clock>('/clocks', { label: 'stir', minutes: 1 });
    workshop.waits(1);
    const { body } = await workshop.post<Clock>(`/clocks/${clock.id}/taps`, { addMinutes: 5 });
    expect(minutesLeft(body)).toBe(5);
  });

  test('a tap that waited for the Wi-Fi puts off from its own moment', async () => {
    const { body: clock } = await workshop.post<Clock>('/clocks', { label: 'stir', minutes: 1 });
    workshop.waits(2 / 60);
    const tappedAt = workshop.now.toISOString();
    workshop.waits(3 / 60);
    const { body } = await workshop.post<Clock>(`/clocks/${clock.id}/taps`, { addMinutes: 5, tappedAt });
    expect(minutesLeft(body)).toBeCloseTo(2, 6);
  });

  test('two tablets end one: it is ended once; what is ended is not put off', async () => {
    const { body: clock } = await workshop.post<Clock>('/clocks', { label: 'stir', minutes: 1 });
    const path = `/clocks/${clock.id}/taps`;
    const one = await workshop.post<Clock>(path, { ended: true });
    workshop.waits(0.1);
    const two = await workshop.post<Clock>(path, { ended: true });
    expect([one.status, two.status]).toEqual([201, 201]);
    expect(two.body.endedAt).toBe(one.body.endedAt);
    const late = await workshop.post(path, { addMinutes: 5 });
    expect([late.status, late.body]).toMatchObject([409, { error: { code: 'already-closed' } }]);
    const none = await workshop.post(`/clocks/${clock.id}/taps`, { addMinutes: 0 });
    expect(none.status).toBe(400);
  });

  test('a filled mold runs until it is opened, and only the newest shot of it', async () => {
    const stock = await stocked(workshop);
    const { body: pour } = await workshop.post<Pour>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 3 }],
    });
    const shot = () => workshop.post<{ shots: { id: string }[] }>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    const [first = 0, second = 0] = pour.molds[0]?.opens.waitS ?? [];
    expect(first).toBeGreaterThan(0);
    await shot();
    expect((await clocks()).map((clock) => [clock.kind, minutesLeft(clock) * 60])).toEqual([['open', first]]);
    workshop.waits(0.02);
    const { body } = await shot();
    // The wall is warm by now.
    expect(second).toBeGreaterThan(first);
    expect((await clocks()).map((clock) => [clock.kind, minutesLeft(clock) * 60])).toEqual([['open', second]]);
    await workshop.post(`/pours/${pour.id}/shots/${body.shots[1]?.id}/marks`, {
      marks: [{ cavity: 1, grade: 'sell' }],
    });
    expect(await clocks()).toEqual([]);
  });

  test('cure ends when the hardness was read, not before', async () => {
    const pour = await poured(workshop, await stocked(workshop), 1);
    await workshop.post(`/pours/${pour.id}/close`, { cookedG: 60, goodG: 30, rejectG: 10, returnedG: 10 });
    expect((await clocks()).map((clock) => [clock.kind, clock.label, minutesLeft(clock)])).toEqual([
      ['cure', 'Cured: 3 Slack Tide', 1440],
    ]);
    await workshop.post(`/pours/${pour.id}/hardness`, { scale: '00', value: 30 });
    expect(await clocks()).toHaveLength(1);
    workshop.waits(25);
    await workshop.post(`/pours/${pour.id}/hardness`, { scale: '00', value: 33 });
    expect(await clocks()).toEqual([]);
  });
});

test('a master in the oven has a clock of its own: it leads there, runs once, and again once it is over', async () => {
  const { master } = await stocked(workshop);
  const path = `/masters/${master.id}/bake`;
  const { body, status } = await workshop.post<Clock>(path, {});
  // 15 mm at 15 minutes to 6 mm is 37.5, up to the whole minute.
  expect([status, body.kind, body.label, minutesLeft(body), body.aboutType, body.aboutId]).toEqual([
    201,
    'bake',
    'Sandlance 110 baked',
    38,
    'master',
    master.id,
  ]);
  const twice = await workshop.post<Clock>(path, {});
  expect([twice.status, twice.body]).toMatchObject([409, { error: { code: 'already-started' } }]);
  workshop.waits(1);
  const again = await workshop.post<Clock>(path, {});
  expect([again.status, minutesLeft(again.body)]).toEqual([201, 38]);
  expect(await clocks()).toHaveLength(1);
  const { body: wood } = await workshop.post<{ id: string }>('/masters', {
    name: 'Gannet 160',
    shape: 'paddle',
    kind: 'wood',
    lengthMm: 160,
    widthMm: 30,
    heightMm: 36,
    thickestMm: 28,
  });
  expect((await workshop.post(`/masters/${wood.id}/bake`, {})).body).toMatchObject({
    error: { code: 'not-applicable', message: 'Gannet 160 is not of clay, so it is not baked.' },
  });
});

test('every kind of clock is started by a step of the work', () => {
  const started = Object.values(CLOCKS_AT).flatMap((rule): readonly string[] => rule.starts);
  expect([...new Set(started)].sort()).toEqual(['bake', 'burst', 'cure', 'demold', 'open', 'pot-life', 'stir']);
  // What a mold's own list calls these steps is a line of a list.
  const lines = Object.values(STEPS).flatMap((steps) => steps.map((step) => step.id));
  expect(Object.keys(STEP_OF_LINE).filter((line) => !lines.includes(line))).toEqual([]);
  expect(lines).toContain(RELEASE);
});

test('a clock that runs is not started twice, and says how long it has', async () => {
  await workshop.post('/clocks', { label: 'stir', minutes: 10 });
  workshop.waits(0.1);
  const twice = await workshop.post('/clocks', { label: 'stir', minutes: 10 });
  expect([twice.status, twice.body.error.code, twice.body.error.message]).toEqual([
    409,
    'already-started',
    '“stir” runs already, 4 min left. Add minutes to it, or end it first.',
  ]);
  workshop.waits(0.1);
  expect((await workshop.post('/clocks', { label: 'stir', minutes: 10 })).status).toBe(201);
});

/** Reads the event stream until `wanted` events came. */
function listen(wanted: number): { events: Promise<string[]>; ready: Promise<void> } {
  let open: () => void = () => undefined;
  const ready = new Promise<void>((done) => {
    open = done;
  });
  const events = new Promise<string[]>((done, fail) => {
    const found: string[] = [];
    request(`${workshop.url}/api/live`, (response) => {
      response.setEncoding('utf8');
      response.on('data', (text: string) => {
        for (const part of text.split('\n\n')) if (part.startsWith('event:')) found.push(part.replace('\ndata: ', ' '));
        open();
        if (found.length >= wanted) {
          response.destroy();
          done(found);
        }
      });
      response.on('error', () => done(found));
    })
      .on('error', fail)
      .end();
  });
  return { events, ready };
}

test('every screen hears the server’s time and then what became stale, but not of what was refused or repeated', async () => {
  const { events, ready } = listen(3);
  await ready;
  await workshop.post('/customers', { name: '' });
  await workshop.post('/clocks', { label: 'stir', minutes: 1 }, { key: 'k' });
  await workshop.post('/clocks', { label: 'stir', minutes: 1 }, { key: 'k' });
  await workshop.post('/measures', { name: 'scoop', count: 10, grams: 6.8 });
  expect(await events).toEqual([
    expect.stringMatching(
      new RegExp(`^event: hello {"now":"${workshop.now.toISOString()}","build":null,"write":"[0-9a-f]{8}-0"}$`),
    ),
    expect.stringMatching(/^event: stale {"keys":\["clocks"\],"write":"[0-9a-f]{8}-1"}$/),
    expect.stringMatching(/^event: stale {"keys":\["measures"\],"write":"[0-9a-f]{8}-2"}$/),
  ]);
});

describe('kept results', () => {
  test('are worked out here, and come back with what went in', async () => {
    const input = { thicknessMm: 18 };
    const { body, status } = await workshop.post<Kept>('/kept', { calculator: 'clay.bake', title: 'thick one', input });
    expect([status, body.output, body.input]).toEqual([201, { minutes: 45 }, input]);
    const { body: list } = await workshop.get<Page<Kept>>('/kept');
    expect(list.items).toMatchObject([{ title: 'thick one', output: { minutes: 45 } }]);
  });

  test('of the solver too, which takes its time', async () => {
    const input = {
      scale: '00',
      target: 40,
      tolerance: 0,
      batchG: 100,
      parts: [
        { id: 'a', hardness: 20 },
        { id: 'b', hardness: 60 },
      ],
    };
    const { body } = await workshop.post<Kept>('/kept', {
      calculator: 'hardness.blend',
      title: 'half and half',
      input,
    });
    expect(body.output).toMatchObject({ grams: { a: expect.closeTo(50, 3), b: expect.closeTo(50, 3) } });
  });

  test.each([
    ['an unknown calculator', { calculator: 'no.such', title: 't', input: {} }, 'unknown-calculator'],
    ['an input it refuses', { calculator: 'clay.bake', title: 't', input: { thicknessMm: -1 } }, 'invalid-input'],
    ['no title', { calculator: 'clay.bake', title: ' ', input: { thicknessMm: 1 } }, 'invalid-input'],
  ])('%s is not kept', async (_what, body, code) => {
    const before = workshop.rows();
    const answer = await workshop.post('/kept', body);
    expect([answer.body.error.code, workshop.rows()]).toEqual([code, before]);
  });
});
