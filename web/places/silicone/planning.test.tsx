// @vitest-environment jsdom
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import { Page } from '../../testing/page.tsx';
import { isLaid, type Planning, usePlanning } from './usePlanning.ts';

const master = (id: string, volumeMl: number | null, name = id) =>
  ({
    id,
    name,
    baitId: `bait of ${id}`,
    shape: 'paddle',
    kind: 'clay',
    latest: {
      id: `${id} v1`,
      number: 1,
      volumeMl,
      lengthMm: 110,
      widthMm: 16.5,
      heightMm: 17,
      thickestMm: 15,
      meshId: null,
    },
  }) as unknown as MasterRow;
const rubber = (id: string, more: Partial<Material> = {}) =>
  ({
    id,
    name: id,
    kind: 'silicone',
    mix: { partA: 10, partB: 1, by: 'mass' },
    potLifeMin: 20,
    demoldMin: 240,
    ratedC: 23,
    pricePerKgMinor: null,
    hardnessScale: 'A',
    hardness: 15,
    cure: 'tin',
    tearKnPerM: null,
    levelG: 4000,
    lots: [],
    ...more,
  }) as unknown as Material;

let planning: Planning;
let page: Page;
let fails = false;
const MASTERS = [master('without', null), master('Sandlance', 12.6), master('Gannet', 40)];

function Held({ masters, rubbers }: { masters: MasterRow[]; rubbers: Material[] }) {
  planning = usePlanning(masters, rubbers);
  return null;
}

async function open(at = '/molds/plan', rubbers = [rubber('Loft Soft')], masters = MASTERS) {
  page = await Page.open(<Held masters={masters} rubbers={rubbers} />, {
    at,
    route: '/molds/plan',
    answer: () =>
      fails ? { status: 400, body: { error: { code: 'invalid-input', message: 'no' } } } : { body: { id: 'm1' } },
  });
}
const does = (work: () => unknown) => page.does(work);
afterEach(() => {
  fails = false;
  return page.close();
});

describe('a plan', () => {
  test('begins with the first master that has a volume, in the workshop’s room', async () => {
    await open();
    expect([planning.master.name, planning.choices.roomC, planning.title]).toEqual([
      'Sandlance',
      13,
      'Sandlance × 3, open face',
    ]);
    // Ten degrees colder than the tin was rated at: twice as long.
    expect(planning.found?.plan.potLifeMin).toBeCloseTo(40, 9);
  });

  test.each([
    ['/molds/plan?master=Gannet', 'Gannet', 'open-face'],
    ['/molds/plan?master=Gannet&pour=two-piece', 'Gannet', 'two-piece'],
    ['/molds/plan?master=nobody&pour=nothing', 'without', 'open-face'],
  ])('%s', async (at, name, way) => {
    await open(at);
    expect([planning.master.name, planning.choices.way]).toEqual([name, way]);
  });

  test('one master more: the box grows by a master and a gap, and those that were dragged stand in rows again', async () => {
    await open();
    const before = planning.found?.plan.boxWidthMm ?? 0;
    await does(() => planning.change({ places: [{ xMm: 10, yMm: 1 }] }));
    await does(() => planning.step('count', 1, 1));
    expect(planning.found?.plan.boxWidthMm).toBeCloseTo(before + 16.5 + 8, 9);
    expect([planning.choices.places, planning.name]).toEqual([null, 'Sandlance × 4, open face']);
  });

  test('no step goes below what can be cast', async () => {
    await open();
    await does(() => planning.step('count', -9, 1));
    await does(() => planning.step('wallMm', -99, 3));
    await does(() => planning.step('wastePercent', -99, 0));
    expect(planning.choices).toMatchObject({ count: 1, wallMm: 3, wastePercent: 0 });
  });

  test('another master takes its filling test and its places along', async () => {
    await open();
    await does(() => planning.change({ filledMl: 200, places: [{ xMm: 1, yMm: 1 }] }));
    await does(() => planning.setMasterId('Gannet'));
    expect(planning.choices).toMatchObject({ filledMl: null, places: null });
  });

  test('nothing is laid out without a volume, a rubber, or what its tin says', async () => {
    await open('/molds/plan?master=without');
    expect([isLaid(planning), planning.refused]).toEqual([false, undefined]);
    await does(() => planning.change({ filledMl: 262 }));
    expect(isLaid(planning)).toBe(true);
    await page.close();
    await open('/molds/plan', []);
    expect([isLaid(planning), planning.rubber]).toEqual([false, undefined]);
    await page.close();
    await open('/molds/plan', [rubber('no tin', { mix: null })]);
    expect([isLaid(planning), planning.rubber?.name]).toEqual([false, 'no tin']);
  });

  test('what cannot be is refused in words, and mended by the next choice', async () => {
    await open();
    await does(() => planning.change({ hold: 'bed', bed: { ...planning.choices.bed, sinkMm: 9 } }));
    expect([isLaid(planning), planning.refused === undefined]).toEqual([false, false]);
    await does(() => planning.change({ bed: { ...planning.choices.bed, sinkMm: 1 } }));
    expect([isLaid(planning), planning.refused]).toEqual([true, undefined]);
  });
});

describe('what is kept of it', () => {
  test('mixed now: the mold as it was planned and its clocks in one write, then its page', async () => {
    await open();
    await does(() => planning.setName('Evening block'));
    await does(() => planning.make.mutateAsync(true));
    expect(page.sent.map((one) => [one.path, one.body.mixed])).toEqual([['/api/molds', true]]);
    expect(page.sent[0]?.body).toMatchObject({
      name: 'Evening block',
      kind: 'silicone-open',
      fill: 'open-pour',
      baitId: 'bait of Sandlance',
      revisionId: 'Sandlance v1',
      cavities: 3,
      cavityMl: 12.6,
      rubberId: 'Loft Soft',
      planInput: { pour: 'open-face', wallMm: 10, gapMm: 8, coverMm: 10, wasteFraction: 0.07 },
      making: { hold: 'glue', bubbles: 'vacuum' },
    });
    expect(page.path).toBe('/molds/m1');
  });

  test('only kept: no clock starts', async () => {
    await open('/molds/plan?pour=wrap');
    await does(() => planning.make.mutateAsync(false));
    expect(page.sent.map((one) => [one.path, one.body.kind, one.body.fill, one.body.mixed])).toEqual([
      ['/api/molds', 'silicone-wrap', 'gravity', false],
    ]);
  });

  test('what is refused stays on the plan, and says so', async () => {
    fails = true;
    await open();
    await does(() => planning.make.mutateAsync(true).catch(() => undefined));
    // The screen hears of it a turn later than who asked.
    await vi.waitFor(() => expect(planning.make.error?.message).toBe('no'));
    expect(page.path).toBe('/molds/plan');
  });
});
