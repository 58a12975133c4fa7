// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Material } from '../../../contract/materials.ts';
import type { Pour } from '../../../contract/pours.ts';
import { startOutbox } from '../../api/outbox.ts';
import { Page } from '../../testing/page.tsx';
import { AskedAtTheCup } from './AskedAtTheCup.tsx';
import { type AtTheCup, useAtTheCup } from './useAtTheCup.ts';

const NOW = Date.parse('2026-03-02T19:20:00Z');
const minutesAgo = (minutes: number) => new Date(NOW - minutes * 60_000).toISOString();
const mold = (moldId: string) => ({
  moldId,
  name: `mold ${moldId}`,
  kind: 'aluminium',
  fill: 'injection',
  shape: 'paddle',
  baitId: 'b',
  baitName: 'Sandlance 110',
  cavities: 4,
  columns: 2,
  shots: 3,
  opensAt: null,
  rods: false,
  inserted: false,
  opens: { waitS: [84], basis: 'heat' },
});
const item = (materialId: string, more: object) => ({ id: materialId, materialId, materialName: materialId, ...more });

const POUR = {
  id: 'p1',
  code: 'P1',
  ledgerId: 'l1',
  recipeName: 'Slack Tide',
  hex: '#4f8796',
  cookMl: 300,
  closedAt: null,
  layers: [{ place: 'whole', joins: null, recipeId: 'r' }],
  cups: [{ id: 'p1', layers: [0] }],
  plan: {
    items: [
      item('blue', { amount: 24, unit: 'drop', drops: 24, ml: 1.2 }),
      item('flake', { amount: 1, unit: 'tsp', spoons: [{ tsp: '1', count: 1 }], ml: 4.9 }),
      item('salt', { amount: 12.5, unit: 'g', g: 12.5 }),
    ],
  },
  molds: [mold('m1'), mold('m2')],
  recipeItems: [{}, {}],
  doses: [
    {
      seq: 1,
      id: 'd1',
      materialId: 'blue',
      materialName: 'blue',
      amount: 1,
      unit: 'drop',
      reverses: null,
      at: minutesAgo(9),
    },
  ],
  heats: [{ seq: 2, id: 'h1', kind: 'cook', c: 172, at: minutesAgo(8) }],
  evening: { id: null, roomC: null, version: 1, cups: [] },
  stir: null,
  ticks: [],
  limits: [],
  shots: [
    {
      seq: 3,
      id: 's1',
      moldId: 'm1',
      parts: [{ layer: 0, pourId: 'p1', doseSeq: 1, heatSeq: 2, ml: 45, at: minutesAgo(5) }],
      redone: [],
      at: minutesAgo(5),
      marks: [{ cavity: 2, grade: 'remelt', reason: 'bubble' }],
    },
  ],
} as unknown as Pour;

let at: AtTheCup;
let page: Page;
function Bench({ pour }: { pour: Pour }) {
  at = useAtTheCup([pour], [{ id: 'blue', name: 'blue' }] as Material[]);
  return <AskedAtTheCup at={at} />;
}

async function open(part: Partial<Pour> = {}, system: 'metric' | 'us' = 'metric') {
  // The server keeps silent: what is tapped waits, and is seen all the same.
  page = await Page.open(<Bench pour={{ ...POUR, ...part }} />, { system, answer: () => ({ status: 503, body: {} }) });
}
beforeEach(() => {
  vi.useFakeTimers({ now: NOW, toFake: ['Date'] });
  localStorage.clear();
  startOutbox();
});
afterEach(async () => {
  await page.close();
  vi.useRealTimers();
});

/** What waits on this device, oldest first, without the ids that it was given. */
const tapped = () =>
  Object.entries({ ...localStorage })
    .filter(([key]) => key.startsWith('blunko.tap'))
    .map(([, text]) => JSON.parse(text) as { n: number; path: string; body: Record<string, unknown>; said: string })
    .sort((a, b) => a.n - b.n)
    .map(({ path, body: { id: _, tappedAt: __, ...body } }) => [path, body]);

describe('what is tapped at the cup', () => {
  test('a shot is drawn at once where a temperature was read', async () => {
    await open();
    await page.does(() => at.drawInto(at.cup.molds[1] as never));
    expect(tapped()).toEqual([
      ['/pours/p1/shots', { moldId: 'm2', parts: [{ layer: 0, pourId: 'p1', lastDose: 'd1', lastHeat: 'h1' }] }],
    ]);
    expect(at.cup.shots.map((shot) => shot.moldId)).toEqual(['m1', 'm2']);
  });

  test('without a reading it asks first, and either answer is kept', async () => {
    await open({ heats: [] });
    await page.does(() => at.drawInto(at.cup.molds[0] as never));
    expect([tapped(), at.unread?.mold.moldId]).toEqual([[], 'm1']);
  });

  test('the rest is good: all but the cavity that was marked', async () => {
    await open();
    await page.does(() => at.write.restGood(at.cup.shots[0] as never, at.cup.molds[0] as never));
    expect(tapped()).toEqual([
      ['/pours/p1/shots/s1/marks', { marks: [1, 3, 4].map((cavity) => ({ cavity, grade: 'sell' })) }],
    ]);
    expect(at.cup.shots[0]?.marks.map((row) => `${row.cavity} ${row.grade}`).sort()).toEqual([
      '1 sell',
      '2 remelt',
      '3 sell',
      '4 sell',
    ]);
  });

  test('as written: whole drops, whole spoons, and grams as they are', async () => {
    await open();
    await page.does(() => at.write.doseAsWritten());
    expect(tapped()).toEqual([
      ['/ledgers/l1/doses', { materialId: 'blue', amount: 24, unit: 'drop' }],
      ['/ledgers/l1/doses', { materialId: 'flake', amount: 1, unit: 'tsp' }],
      ['/ledgers/l1/doses', { materialId: 'salt', amount: 12.5, unit: 'g' }],
    ]);
  });

  test('undo takes back what was last, shot or reading, and then what was before it', async () => {
    await open();
    expect(at.lastAct?.id).toBe('s1');
    await page.does(() => at.lastAct && at.write.undo(at.lastAct));
    expect(at.lastAct?.id).toBe('h1');
    await page.does(() => at.lastAct && at.write.undo(at.lastAct));
    expect(tapped()).toEqual([
      ['/undo', { rowId: 's1' }],
      ['/undo', { rowId: 'h1' }],
    ]);
    expect([at.cup.shots, at.cup.heats, at.lastAct]).toEqual([[], [], undefined]);
  });
});

describe('a temperature on the keypad', () => {
  const typed = async (figures: string) => {
    await page.does(() => at.setPad('reading'));
    for (const figure of figures) await page.does(() => page.button(figure).click());
    await page.does(() => page.button('Enter').click());
  };

  test.each([
    ['metric', '171', 171],
    ['us', '340', (340 - 32) / 1.8],
  ] as const)('%s: %s', async (system, figures, c) => {
    await open({}, system);
    await typed(figures);
    const [[path, body] = []] = tapped();
    expect([path, (body as { kind: string }).kind, at.pad]).toEqual(['/pours/p1/heats', 'reading', null]);
    expect((body as { c: number }).c).toBeCloseTo(c, 9);
  });

  test.each([
    ['metric', '999', 'between -30 °C and 400 °C'],
    ['us', '999', 'between -22 °F and 752 °F'],
  ] as const)('%s: %s is no cup, and nothing is kept', async (system, figures, bounds) => {
    await open({}, system);
    await typed(figures);
    expect(page.text).toContain(`${figures} ${system === 'us' ? '°F' : '°C'} is no cup: it lies ${bounds}`);
    expect([tapped(), at.pad]).toEqual([[], 'reading']);
  });
});
