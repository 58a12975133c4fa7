// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { Page } from '../../testing/page.tsx';
import { NewOrder } from './NewOrder.tsx';

const NOW = Date.parse('2026-03-02T12:00:00Z');
const id = (n: number) => `01a217a4-fdac-76c5-8de1-fc914937aa${String(n).padStart(2, '0')}`;
const bait = (n: number, name: string, more: object) => ({
  id: id(n),
  name,
  version: 1,
  awayAt: null,
  packCount: 8,
  priceMinor: null,
  ...more,
});
const named = (n: number, name: string, awayAt: string | null = null) => ({
  id: id(n),
  name,
  version: 1,
  awayAt,
  hex: '#336699',
});
const SANDLANCE = bait(1, 'Sandlance 110', { priceMinor: 450 });
const PRAWN = bait(2, 'Prawnlet 60', { packCount: 12, priceMinor: 320 });
const GETS = {
  '/api/baits': { items: [SANDLANCE, PRAWN, bait(3, 'Old Shad', { awayAt: '2026-01-01' })], nextCursor: null },
  '/api/colourways': {
    items: [named(4, 'Slack Tide'), named(5, 'Ebb Glass'), named(6, 'Gone Green', '2026-01-01')],
    nextCursor: null,
  },
  '/api/customers': { items: [named(7, 'Quayside Chandlery')], nextCursor: null },
};

let page: Page;
const open = async (gets: object = {}, answer: { status?: number; body: unknown } = { body: { id: 'o1' } }) => {
  page = await Page.open(<NewOrder />, {
    at: '/orders/new',
    route: '/orders/new',
    gets: { ...GETS, ...gets },
    answer: () => answer,
  });
};
const words = (select: HTMLSelectElement) => [...select.options].map((one) => one.textContent);
beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers({ now: NOW, toFake: ['Date'] });
});
afterEach(async () => {
  await page.close();
  vi.useRealTimers();
});

describe('an order is taken', () => {
  test('it begins with a week, the bait’s own pack and price', async () => {
    await open();
    expect([page.field('Due').value, page.at('lines.0.perPack').value, page.at('lines.0.priceMinor').value]).toEqual([
      '2026-03-09',
      '8',
      '4.50',
    ]);
    expect(page.text).toContain('8 baits');
    await page.press('Keep this order');
    expect(page.sent.map((one) => [one.path, one.body])).toEqual([
      [
        '/api/orders',
        {
          customerId: id(7),
          dueOn: '2026-03-09',
          notes: '',
          gift: false,
          tastes: [],
          lines: [{ baitId: id(1), colourwayId: id(4), packs: 1, perPack: 8, priceMinor: 450 }],
        },
      ],
    ]);
    expect(page.path).toBe('/orders/o1');
  });

  test('what is put away is not offered', async () => {
    await open();
    const all = [...page.box.querySelectorAll('select')].flatMap((one) => words(one as never));
    expect(all).toEqual([
      'Quayside Chandlery',
      'somebody new…',
      'Sandlance 110',
      'Prawnlet 60',
      'Slack Tide',
      'Ebb Glass',
    ]);
  });

  test('another bait brings its own pack and price, and the sum follows: 3 × 12 and 2 × 8', async () => {
    await open();
    await page.press('One more line');
    expect(page.at<HTMLSelectElement>('lines.0.baitId').value).toBe(page.at<HTMLSelectElement>('lines.1.baitId').value);
    await page.pickAt('lines.0.baitId', 'Prawnlet 60');
    await page.typeAt('lines.0.packs', '3');
    await page.typeAt('lines.1.packs', '');
    // Not every count is known while one is being written.
    expect(page.text).toContain('— baits');
    await page.typeAt('lines.1.packs', '2');
    expect(page.text).toContain('52 baits');
    await page.press('Keep this order');
    expect(page.body.lines).toEqual([
      { baitId: id(2), colourwayId: id(4), packs: 3, perPack: 12, priceMinor: 320 },
      { baitId: id(1), colourwayId: id(4), packs: 2, perPack: 8, priceMinor: 450 },
    ]);
  });

  test('somebody new is named in the same sheet, and missing until then', async () => {
    await open();
    await page.pick('Customer', 'somebody new…');
    expect(page.button('Keep this order').disabled).toBe(true);
    await page.typeAt('newCustomer.name', 'Harbour Shop');
    await page.press('Keep this order');
    expect(page.body).toMatchObject({ newCustomer: { name: 'Harbour Shop', contact: '' } });
    expect(page.body).not.toHaveProperty('customerId');
  });

  test('a day that is past is said, not refused', async () => {
    await open();
    await page.type('Due', '2026-03-01');
    expect([page.text.includes('late from the start'), page.button('Keep this order').disabled]).toEqual([true, false]);
  });

  test('the last line stays; one that is taken out takes its own figures', async () => {
    await open();
    const out = () => [...page.box.querySelectorAll<HTMLButtonElement>('[aria-label="Take this line out"]')];
    expect(out().map((one) => one.disabled)).toEqual([true]);
    await page.press('One more line');
    await page.does(() => out()[0]?.click());
    expect(out()).toHaveLength(1);
  });

  test('refused at a line, it stands there, and the order is still on the sheet', async () => {
    await open(
      {},
      {
        status: 400,
        body: { error: { code: 'invalid-input', message: 'Packs must be at least 1, not 0.', path: 'lines.0.packs' } },
      },
    );
    await page.press('Keep this order');
    expect([page.path, page.at('lines.0.packs').getAttribute('aria-invalid')]).toEqual(['/orders/new', 'true']);
  });
});

test.each([
  ['/api/baits', 'An order needs a bait.'],
  ['/api/colourways', 'An order needs a colour.'],
])('without any of %s it says what is needed first', async (path, words) => {
  await open({ [path]: { items: [], nextCursor: null } });
  expect(page.text).toContain(words);
});
