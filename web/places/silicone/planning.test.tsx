// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import { TasteProvider } from '../../parts/taste.tsx';
import { isLaid, type Planning, usePlanning } from './usePlanning.ts';

vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', true);

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
let sent: { path: string; body: Record<string, unknown> }[] = [];
let fails: string | null = null;
let root: Root;
const MASTERS = [master('without', null), master('Sandlance', 12.6), master('Gannet', 40)];

function Held({ masters, rubbers }: { masters: MasterRow[]; rubbers: Material[] }) {
  planning = usePlanning(masters, rubbers);
  return null;
}

async function open(at = '/molds/plan', rubbers = [rubber('Loft Soft')], masters = MASTERS) {
  const router = createMemoryRouter(
    [
      { path: '/molds/plan', element: <Held masters={masters} rubbers={rubbers} /> },
      { path: '/molds/:id', element: null },
    ],
    { initialEntries: [at] },
  );
  root = createRoot(document.createElement('div'));
  await act(async () =>
    root.render(
      <QueryClientProvider client={new QueryClient()}>
        <TasteProvider waiting={null} silent={null}>
          <RouterProvider router={router} />
        </TasteProvider>
      </QueryClientProvider>,
    ),
  );
  await act(async () => void (await new Promise((done) => setTimeout(done, 20))));
  return router;
}

beforeEach(() => {
  sent = [];
  fails = null;
  vi.stubGlobal('fetch', async (path: string, { method, body }: RequestInit = {}) => {
    if (method === 'POST') {
      sent.push({ path, body: JSON.parse(String(body)) });
      if (fails === path) return new Response('{"error":{"code":"invalid-input","message":"no"}}', { status: 400 });
      return new Response(JSON.stringify({ id: 'm1' }), { status: 201 });
    }
    const answer = path.endsWith('/workshop')
      ? { name: 'w', currency: 'EUR', roomC: 13, dropsPerMl: 20, glassMl: 350, version: 1 }
      : { items: [], nextCursor: null };
    return new Response(JSON.stringify(answer));
  });
});
afterEach(() => act(async () => root.unmount()));
const does = (work: () => unknown) => act(async () => void (await work()));

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
    await act(async () => root.unmount());
    await open('/molds/plan', []);
    expect([isLaid(planning), planning.rubber]).toEqual([false, undefined]);
    await act(async () => root.unmount());
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
    const router = await open();
    await does(() => planning.setName('Evening block'));
    await does(() => planning.make.mutateAsync(true));
    expect(sent.map((one) => [one.path, one.body.mixed])).toEqual([['/api/molds', true]]);
    expect(sent[0]?.body).toMatchObject({
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
    expect(router.state.location.pathname).toBe('/molds/m1');
  });

  test('only kept: no clock starts', async () => {
    await open('/molds/plan?pour=wrap');
    await does(() => planning.make.mutateAsync(false));
    expect(sent.map((one) => [one.path, one.body.kind, one.body.fill, one.body.mixed])).toEqual([
      ['/api/molds', 'silicone-wrap', 'gravity', false],
    ]);
  });

  test('what is refused stays on the plan, and says so', async () => {
    fails = '/api/molds';
    const router = await open();
    await does(() => planning.make.mutateAsync(true).catch(() => undefined));
    expect([planning.make.error?.message, router.state.location.pathname]).toEqual(['no', '/molds/plan']);
  });
});
