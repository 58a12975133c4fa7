// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Pour } from '../../../contract/pours.ts';
import { Page } from '../../testing/page.tsx';
import { CloseForm } from './CloseForm.tsx';
import { Hardness } from './Hardness.tsx';

const NOW = Date.parse('2026-03-03T19:00:00Z');
const mark = (cavity: number, grade: 'sell' | 'own' | 'remelt') => ({ cavity, grade, reason: null });
const shot = (id: string, ...grades: ('sell' | 'own' | 'remelt')[]) => ({
  id,
  moldId: 'm',
  parts: [{ layer: 0, pourId: 'p1' }],
  marks: grades.map((grade, i) => mark(i + 1, grade)),
});
const POUR = {
  id: 'p1',
  code: 'P1',
  cups: [{ id: 'p1' }],
  lent: { shots: 0, ml: 0 },
  evening: { cups: [] },
  wanted: { scale: '00', value: 34 },
  curedAt: '2026-03-03T18:00:00Z',
  hardness: [],
  balance: null,
  plan: { cookG: 281.4 },
  parts: [],
  dosed: { g: 17.2, byDefault: ['Fine salt'] },
  molds: [{ moldId: 'm', cavities: 4 }],
  shots: [shot('s1', 'sell', 'sell', 'remelt', 'own'), shot('s2', 'sell', 'sell', 'sell')],
} as unknown as Pour;

let page: Page;
let done: number;
beforeEach(() => {
  localStorage.clear();
  done = 0;
  vi.useFakeTimers({ now: NOW, toFake: ['Date'] });
});
afterEach(async () => {
  await page.close();
  vi.useRealTimers();
});

describe('closing a cup', () => {
  const open = async (
    more: object = {},
    system: 'metric' | 'us' = 'metric',
    answer?: () => { status?: number; body: unknown },
  ) => {
    const pour = { ...POUR, ...more } as Pour;
    page = await Page.open(<CloseForm pour={pour} open={false} onDone={() => done++} />, {
      system,
      ...(answer ? { answer } : {}),
    });
  };
  const weigh = async (weights: Record<string, string>) => {
    for (const [label, text] of Object.entries(weights)) await page.type(label, text);
  };

  test('counts what was marked, and says what was not', async () => {
    await open();
    expect(page.text).toContain('5 to sell, 1 own water, 1 remelt of 8 made. 1 are not looked at yet.');
    // Own water is kept: it is weighed with what is to sell.
    expect(page.text).toContain('own water with them');
  });

  test('cooked is the plan with what was dosed, until it is weighed', async () => {
    await open();
    // 281.4 g of plastisol and 17.2 g of salt lie on the scale together.
    expect(page.field('Cooked').value).toBe('299 g');
    expect(page.text).toContain('with 17.2 g dosed (Fine salt by a default)');
  });

  test('what was weighed in stands there, and is no default', async () => {
    const part = (plannedG: number, weighedG: number | null) => ({ plannedG, weighedG });
    await open({ parts: [part(100, 104), part(181.4, 170)] });
    // 104 + 170 g weighed and 17.2 g dosed.
    expect([page.field('Cooked').value, page.text.includes('as weighed in, with 17.2 g dosed')]).toEqual([
      '291 g',
      true,
    ]);
    await page.close();
    await open({ parts: [part(100, 104), part(181.4, null)] });
    expect([page.field('Cooked').value, page.text.includes('as planned until weighed')]).toEqual(['303 g', true]);
  });

  test('the balance follows what is typed: of 299 g 60 are good, 200 came back, 10 are bad, 9 are lost, 20 nobody knows of', async () => {
    await open();
    await weigh({ 'Good baits': '60', Rejects: '10', 'Sprues and leftover': '200', 'Left on glass and felt': '9' });
    // 60 / 299 and 20 / 299.
    expect(page.text).toContain('Yield 20.1 %, unaccounted 20 g (6.7 %)');
    await page.press('Close');
    expect(page.sent).toMatchObject([
      { path: '/api/pours/p1/close', body: { cookedG: 299, goodG: 60, rejectG: 10, returnedG: 200, residueG: 9 } },
    ]);
    expect(done).toBe(1);
  });

  test('ounces are weighed as ounces, what did not come back is nothing, and what was lost not known', async () => {
    await open({}, 'us');
    await weigh({ Cooked: '10', 'Good baits': '4' });
    await page.press('Close');
    const { cookedG, goodG, ...rest } = page.body as Record<string, number>;
    expect([cookedG, goodG].map((grams) => Number(grams?.toFixed(2)))).toEqual([283.5, 113.4]);
    expect(rest).toEqual({ rejectG: 0, returnedG: 0, residueG: null, degassedG: null });
  });

  test.each([
    ['metric', '100', '120', /20 g more came out than was cooked/],
    ['us', '100 g', '120 g', /0\.705 oz more came out than was cooked/],
  ] as const)('%s: more out than in is refused at once, and not sent', async (system, cooked, good, words) => {
    await open({}, system);
    await weigh({ Cooked: cooked, 'Good baits': good });
    expect(page.box.querySelector('[role="alert"]')?.textContent).toMatch(words);
    await page.does(() => page.box.querySelector('form')?.requestSubmit());
    expect(page.sent).toEqual([]);
  });

  test('a refusal keeps what was typed', async () => {
    const said = { code: 'cavities-unmarked', message: '1 baits are not marked good or bad yet.' };
    await open({}, 'metric', () => ({ status: 400, body: { error: said } }));
    await weigh({ 'Good baits': '60' });
    await page.press('Close');
    expect([page.text.includes(said.message), page.field('Good baits').value, done]).toEqual([true, '60 g', 0]);
  });

  test('weighed again, it begins from what was weighed', async () => {
    const balance = { cookedG: 300, goodG: 60, rejectG: 10, returnedG: 200, residueG: 9, degassedG: 2 };
    await open({ balance });
    expect(['Cooked', 'Good baits', 'Left on glass and felt'].map((label) => page.field(label).value)).toEqual([
      '300 g',
      '60 g',
      '9 g',
    ]);
    await page.type('Cooked', '310');
    await page.press('Keep');
    expect(page.sent).toMatchObject([{ path: '/api/pours/p1/weigh', body: { ...balance, cookedG: 310 } }]);
  });
});

describe('reading how hard it came out', () => {
  const reading = (id: string, value: number, more: object = {}) => ({
    id,
    scale: '00',
    value,
    early: false,
    at: '2026-03-03T18:30:00Z',
    ...more,
  });
  const open = async (more: object = {}) => {
    page = await Page.open(<Hardness pour={{ ...POUR, ...more } as Pour} />);
  };

  test.each([
    [[reading('a', 34), reading('b', 35)], 'As wanted. 2 readings'],
    [[reading('a', 36)], '2.0 points too firm. 1 reading'],
    [[reading('a', 30), reading('b', 31)], '3.5 points too soft. 2 readings'],
    // Another scale is another figure, and an early one says nothing yet.
    [[reading('a', 34), reading('b', 12, { scale: 'A' }), reading('c', 20, { early: true })], 'As wanted.'],
  ])('%j', async (hardness, words) => {
    await open({ hardness });
    expect(page.text).toContain(words);
  });

  test('before it is cured it says for how long, after it that it is time', async () => {
    await open({ curedAt: new Date(NOW + 3.5 * 3600_000).toISOString() });
    expect(page.text).toContain('3 h 30 more');
    await page.close();
    await open();
    expect(page.text).toContain('Cured. Read it before it is packed.');
  });

  test('an early reading is named as one, and can be taken back', async () => {
    await open({ hardness: [reading('a', 20, { early: true })] });
    expect(page.text).toContain('read early, does not count');
    await page.press('take back');
    expect(page.sent).toMatchObject([{ path: '/api/undo', body: { rowId: 'a' } }]);
  });

  test('is sent with its scale, and the field is free for the next', async () => {
    await open();
    await page.pick('Shore', 'A');
    await page.type('Reading', '12,5');
    await page.press('Keep');
    expect(page.sent).toMatchObject([{ path: '/api/pours/p1/hardness', body: { scale: 'A', value: 12.5 } }]);
    expect(page.field('Reading').value).toBe('');
  });

  test('without anything wanted nothing is judged', async () => {
    await open({ wanted: null, hardness: [reading('a', 34)] });
    expect(page.text).not.toMatch(/As wanted|too firm|too soft/);
  });
});
