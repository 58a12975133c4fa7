import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Hands, Pour } from '../../contract/pours.ts';
import { waitOf } from '../../core/process/waits.ts';
import type { Slopes } from '../../core/water/tomorrow.ts';
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

const moldId = () => pour.molds[0]?.moldId as string;
const say = (body: object) => workshop.post<Pour>(`/pours/${pour.id}/ticks`, body);
const said = async () => (await workshop.get<Pour>(`/pours/${pour.id}`)).body.ticks;

describe('what is said by a tap', () => {
  test('is kept by shot and layer, in its order, and can be taken back', async () => {
    await say({ what: 'clamps', said: 'same-side', moldId: moldId(), nth: 1 });
    const { body } = await say({ what: 'clamps', said: 'opposite', moldId: moldId(), nth: 1, layer: 1 });
    expect(body.ticks.map(({ what, said, nth, layer }) => [what, said, nth, layer])).toEqual([
      ['clamps', 'same-side', 1, null],
      ['clamps', 'opposite', 1, 1],
    ]);
    await workshop.made('/undo', { rowId: body.ticks[0]?.id });
    expect((await said()).map((tick) => tick.said)).toEqual(['opposite']);
  });
  test('tapped twice, or arriving late, it is one and of its own moment', async () => {
    const at = workshop.now.toISOString();
    const id = '018f0000-0000-7000-8000-0000000000aa';
    workshop.waits(0.5);
    const tick = { id, what: 'degassed', said: 'rest', tappedAt: at };
    expect((await say(tick)).status).toBe(201);
    expect((await say(tick)).status).toBe(409);
    expect((await said()).map((one) => [one.said, one.at])).toEqual([['rest', at]]);
  });
  test.each([
    ['what cannot be said of it', { what: 'clamps', said: 'warm', nth: 1 }],
    ['of a shot without saying which', { what: 'clamps', said: 'opposite', moldId: undefined }],
    ['of a cup with a shot', { what: 'degassed', said: 'rest', nth: 1 }],
    [
      'of no mold of this cup',
      { what: 'clamps', said: 'opposite', nth: 1, moldId: '018f0000-0000-7000-8000-000000000001' },
    ],
    ['of nothing that is known', { what: 'weather', said: 'fine' }],
  ])('%s is refused and nothing is kept', async (_, body) => {
    const about = 'moldId' in body ? body : 'nth' in body ? { ...body, moldId: moldId() } : body;
    const { status } = await say(about);
    expect(status).toBe(400);
    expect(await said()).toEqual([]);
  });
  test('of an evening it is said for every cup of it, once', async () => {
    const other = await workshop.made<Pour>('/pours', {
      colourwayId: pour.colourwayId,
      molds: [{ moldId: moldId(), shots: 1 }],
    });
    expect(other.evening.id).toBe(pour.evening.id);
    await say({ what: 'dressed', said: 'yes' });
    await say({ what: 'degassed', said: 'rest' });
    const { ticks } = (await workshop.get<Pour>(`/pours/${other.id}`)).body;
    expect(ticks.map(({ what }) => what)).toEqual(['dressed']);
  });
});

test('what hands take is learnt from shot to look to shot, by mold and by maker', async () => {
  const hands = async (query = '') =>
    (await workshop.get<Page<Hands>>(`/hands${query}`)).body.items.find((one) => one.moldId === moldId());
  expect(await hands()).toBeUndefined();
  const cavities = pour.molds[0]?.cavities ?? 0;
  const marks = Array.from({ length: cavities }, (_, i) => ({ cavity: i + 1, grade: 'sell' }));
  for (let n = 0; n < 4; n++) {
    const { shots } = await workshop.made<Pour>(`/pours/${pour.id}/shots`, { moldId: moldId() });
    workshop.waits(100 / 3600);
    await workshop.made(`/pours/${pour.id}/shots/${shots.at(-1)?.id}/marks`, { marks });
    workshop.waits(50 / 3600);
  }
  const guess = 60 + 30 + 10 * cavities;
  // Three turns from a look to the next shot; of the last there is none.
  expect(await hands()).toMatchObject({ turns: 3, waitedS: 100, handsS: expect.closeTo((3 * 50 + 3 * guess) / 6, 6) });
  // Opened after 100 s and good each time, the last one too: the next cup's clock is shorter.
  const before = pour.molds[0]?.opens as Pour['molds'][number]['opens'];
  // The first one was late: the wall was cold, and it was done long before.
  expect(100 / waitOf(before, 0)).toBeGreaterThan(1.1);
  const factor = (3 * (100 / waitOf(before, 2)) + 3) / 6;
  expect((await hands())?.wait).toEqual({ factor: expect.closeTo(factor, 9), openings: 3 });
  const next = await workshop.made<Pour>('/pours', {
    colourwayId: pour.colourwayId,
    molds: [{ moldId: moldId(), shots: 1 }],
  });
  expect(next.molds[0]?.opens).toMatchObject({
    waitS: before.waitS.map((seconds) => Math.max(60, Math.round(seconds * factor))),
    learnt: { openings: 3 },
  });
  expect(await hands('?makerId=018f0000-0000-7000-8000-000000000001')).toBeUndefined();
});

test('how baits firm is learnt of cups that were read twice, with what they were at', async () => {
  const firming = async () => (await workshop.get<Slopes>('/firming')).body;
  expect(await firming()).toMatchObject({ n: 0, perDegree: { value: 0.25 }, perLogHour: { value: 4 } });
  await workshop.made(`/pours/${pour.id}/shots`, { moldId: moldId() });
  workshop.waits(24);
  const read = (value: number, c?: number) =>
    workshop.made<Pour>(`/pours/${pour.id}/hardness`, { scale: '00', value, ...(c === undefined ? {} : { c }) });
  await read(30, 20);
  const { hardness } = await read(38, 8);
  expect(hardness.map(({ c }) => c)).toEqual([20, 8]);
  const learnt = await firming();
  expect(learnt.n).toBe(1);
  // Eight points over twelve degrees.
  expect(learnt.perDegree.value).toBeGreaterThan(0.3);
  expect(learnt.perDegree.value).toBeLessThan(8 / 12);
});
