// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Material } from '../../contract/materials.ts';
import type { Dose } from '../../contract/recipes.ts';
import { cupTotals } from '../../core/plastisol/cup.ts';
import { startOutbox, type Tap } from '../api/outbox.ts';
import { Page } from '../testing/page.tsx';
import { DoseBoard, withTaps } from './DoseBoard.tsx';

const MATERIALS = [
  { id: 'blue', name: 'Harbour Blue liquid', kind: 'colourant', hex: '#123456', awayAt: null, lots: [], lotId: null },
  { id: 'flake', name: 'Silver flake 0.9', kind: 'flake', hex: null, awayAt: null, lots: [], lotId: null },
  { id: 'soft', name: 'Softener', kind: 'softener', hex: null, awayAt: null, lots: [], lotId: null },
  { id: 'gone', name: 'Old red', kind: 'colourant', hex: null, awayAt: '2026-01-01', lots: [], lotId: null },
  { id: 'drum', name: 'Soft 22', kind: 'plastisol', hex: null, awayAt: null, lots: [], lotId: null },
] as unknown as Material[];
const dose = (id: string, materialId: string, amount: number, unit: string, reverses: string | null = null) =>
  ({ seq: Number(id.slice(1)), id, materialId, materialName: materialId, amount, unit, reverses, at: 'then' }) as Dose;
const tap = (path: string, body: Record<string, unknown>, more: Partial<Tap> = {}): Tap => ({
  key: JSON.stringify(body),
  n: 1,
  path,
  body,
  said: '',
  about: 'l',
  ...more,
});
const added = (id: string, amount: number) => tap('/ledgers/l/doses', { id, materialId: 'blue', amount, unit: 'drop' });
const back = (id: string, rowId: string) => tap('/undo', { id, rowId });
const total = (doses: Dose[], ...taps: Tap[]) =>
  cupTotals(withTaps(doses, taps, 'l', MATERIALS)).map((one) => `${one.amount} ${one.unit} ${one.materialId}`);

describe('doses with those on their way', () => {
  const known = [dose('d1', 'blue', 10, 'drop'), dose('d2', 'flake', 0.25, 'tsp')];
  test.each([
    ['none waits', [], ['10 drop blue', '0.25 tsp flake']],
    ['one waits', [added('w1', 5)], ['15 drop blue', '0.25 tsp flake']],
    ['one that arrived already counts once', [added('d1', 10)], ['10 drop blue', '0.25 tsp flake']],
    ['one that was refused does not count', [{ ...added('w1', 5), refused: 'no' }], ['10 drop blue', '0.25 tsp flake']],
    [
      'one of another cup does not count',
      [{ ...added('w1', 5), path: '/ledgers/m/doses' }],
      ['10 drop blue', '0.25 tsp flake'],
    ],
    ['one is taken back', [back('u1', 'd2')], ['10 drop blue']],
    [
      'one that waits is taken back before it arrives',
      [added('w1', 5), back('u1', 'w1')],
      ['10 drop blue', '0.25 tsp flake'],
    ],
    ['a shot that is taken back is no dose', [back('u1', 'some shot')], ['10 drop blue', '0.25 tsp flake']],
  ] as const)('%s', (_, taps, wanted) => {
    expect(total(known, ...(taps as readonly Tap[]))).toEqual(wanted);
  });

  test('each gets the next number, so that a shot knows what was in the cup', () => {
    const all = withTaps(known, [added('w1', 5), back('u1', 'd1')], 'l', MATERIALS);
    expect(all.map((one) => [one.seq, one.reverses])).toEqual([
      [1, null],
      [2, null],
      [3, null],
      [4, 'd1'],
    ]);
    expect(all[2]?.materialName).toBe('Harbour Blue liquid');
  });
});

describe('the board', () => {
  let page: Page;
  beforeEach(() => {
    localStorage.clear();
    startOutbox();
  });
  afterEach(() => page.close());
  const open = async (doses: Dose[], firstIds: string[] = []) => {
    page = await Page.open(
      <DoseBoard ledgerId="l" doses={doses} materials={MATERIALS} batchMl={240} firstIds={firstIds} />,
      { answer: () => ({ status: 503, body: {} }) },
    );
  };
  const names = () =>
    [...page.box.querySelectorAll('[aria-label="What goes in"] button')].map((one) => one.textContent);
  const waiting = () =>
    Object.entries({ ...localStorage })
      .filter(([key]) => key.startsWith('blunko.tap'))
      .map(([, text]) => JSON.parse(text) as Tap)
      .sort((a, b) => a.n - b.n)
      .map(({ path, body: { materialId, amount, unit, rowId }, said }) => [
        path,
        rowId ?? `${amount} ${unit} ${materialId}`,
        said,
      ]);

  test('what can be dosed and is still used; the recipe’s own first, the rest behind a tap', async () => {
    await open([]);
    expect(names()).toEqual(['Harbour Blue liquid', 'Silver flake 0.9', 'Softener']);
    await page.close();
    await open([], ['flake']);
    expect(names()).toEqual(['Silver flake 0.9', 'something else …']);
    await page.press('something else …');
    expect(names()).toEqual(['Harbour Blue liquid', 'Silver flake 0.9', 'Softener']);
  });

  test('a tap is a dose: drops for a colour, spoons for flake, grams for a softener', async () => {
    await open([]);
    await page.press('+5');
    await page.press('Silver flake 0.9');
    await page.press('+1/8');
    await page.press('Softener');
    await page.press('+0.1');
    expect(waiting()).toEqual([
      ['/ledgers/l/doses', '5 drop blue', '5 drops of Harbour Blue liquid'],
      ['/ledgers/l/doses', '0.125 tsp flake', '1/8 tsp of Silver flake 0.9'],
      ['/ledgers/l/doses', '0.1 g soft', '0.1 g of Softener'],
    ]);
  });

  test('undo takes back the last that still stands', async () => {
    await open([dose('d1', 'blue', 1, 'drop'), dose('d2', 'blue', 5, 'drop'), dose('d3', 'blue', 5, 'drop', 'd2')]);
    await page.press(/^Undo/);
    expect(waiting()).toEqual([['/undo', 'd1', 'taking back 1 drop']]);
  });
});
