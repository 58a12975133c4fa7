// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, describe, expect, test } from 'vitest';
import type { BlendWish } from '../../../contract/blend.ts';
import { Page } from '../../testing/page.tsx';
import { BlendOf } from './BlendOf.tsx';

const lot = (id: string, code: string, levelG: number) => ({ id, code, levelG });
const material = (id: string, name: string, kind: string, lots: object[], pricePerKgMinor: number | null = null) => ({
  id,
  name,
  kind,
  lots,
  pricePerKgMinor,
  bulkGPerMl: null,
  densityGPerMl: null,
  awayAt: null,
});
const MATERIALS = [
  material('soft', 'Soft 22', 'plastisol', [lot('s1', 'A1', 4000)], 1450),
  material('firm', 'Firm 58', 'plastisol', [lot('f1', 'F1', 300), lot('f2', 'F2', 2000), lot('f0', 'F0', 0)], 1600),
  material('ease', 'Loft Ease', 'softener', [lot('e1', 'E1', 200)]),
  material('none', 'Never bought', 'plastisol', []),
  material('blue', 'Harbour Blue', 'colourant', [lot('b1', 'B1', 100)]),
];
const bin = (id: string, name: string, grams: number, heats: number | null) => ({
  id,
  name,
  grams,
  heats,
  awayAt: null,
  layers: grams > 0 ? [{ heats, grams, saltG: 0, saltUnknownG: heats === null ? grams : 0 }] : [],
});
const BINS = [bin('greens', 'Greens', 800, 5), bin('used', 'Used baits', 400, null), bin('empty', 'Empty', 0, null)];
const plastic = (materialId: string, hardness: number | null) => ({
  materialId,
  name: materialId,
  nominal: hardness,
  hardness,
  sd: 2,
  pricePerKgMinor: null,
  levelG: 1,
});
const PLASTICS = {
  scale: '00',
  n: 12,
  leftOut: 3,
  residualSd: 1,
  items: [plastic('soft', 23.55), plastic('firm', 59.55)],
  additives: [] as object[],
};
const EASE = { materialId: 'ease', name: 'Loft Ease', pointsPerPercent: -1.2, pricePerKgMinor: 900, levelG: 200 };

let page: Page;
let blend: BlendWish | undefined;
afterEach(() => page.close());

function Chosen({ wanted }: { wanted: { scale: 'A' | '00'; value: number } | null }) {
  const [value, setValue] = useState<BlendWish>();
  blend = value;
  return <BlendOf blend={value} cookMl={600 / 1.02} wanted={wanted} onChange={setValue} />;
}
const open = async (
  wanted: { scale: 'A' | '00'; value: number } | null = { scale: '00', value: 34 },
  plastics: object = PLASTICS,
) => {
  page = await Page.open(<Chosen wanted={wanted} />, {
    gets: {
      '/api/materials': { items: MATERIALS, nextCursor: null },
      '/api/bins': { items: BINS, nextCursor: null },
      '/api/plastics': plastics,
      '/api/workshop': {
        name: 'w',
        currency: 'EUR',
        roomC: 13,
        dropsPerMl: 20,
        glassMl: 350,
        remeltHeats: 5,
        version: 1,
      },
    },
    answer: () => ({ status: 200, body: { fractions: { firm: 0.29, soft: 0.71, other: 0 } } }),
  });
  await page.turn();
};
const options = () => [...page.field('With some').querySelectorAll('option')].map((one) => one.textContent);

describe('what a cup is made of', () => {
  test('nothing said is the first plastisol whole, and nothing is sent of it', async () => {
    await open(null);
    expect(page.text).toContain('Soft 22');
    expect([page.text.includes('600 g'), blend]).toEqual([true, undefined]);
    // 23.55 by twelve readings; 600 g of it at 14.50 a kilogram.
    expect(page.text).toContain('Shore 00 23.6 ± 2.0 by 12 of your own readings, 3 of other cups left out');
    expect(page.text).toContain('€8.70');
  });

  test('nothing said, and the bait wants a hardness: what it is laid out with stands there, and nothing is sent of it', async () => {
    await open();
    await page.turn();
    expect([page.text.includes('174 g'), page.text.includes('426 g'), blend]).toEqual([true, true, undefined]);
    expect(page.text).toContain('34.0 ± 1.5, wanted 34');
  });

  test('several open drums are told apart; what is not there or no plastic is not offered', async () => {
    await open(null);
    expect(options()).toEqual([
      'nothing more',
      'Firm 58, lot F1',
      'Firm 58, lot F2',
      'Loft Ease',
      'remelt: Greens',
      'remelt: Used baits',
    ]);
  });

  test('blended for what the bait wants: asked with this workshop’s own figures', async () => {
    await open();
    await page.press('Blend for 34');
    expect(page.sent[0]).toMatchObject({
      path: '/api/calc/hardness.blend',
      body: {
        scale: '00',
        target: 34,
        parts: [
          { id: 'soft', hardness: 23.55 },
          { id: 'firm', hardness: 59.55 },
        ],
      },
    });
    expect(blend).toEqual([
      { lotId: 'f1', share: 0.29 },
      { materialId: 'soft', share: 0.71 },
    ]);
    // 0.29 · 59.55 + 0.71 · 23.55 = 33.99; 174 and 426 g.
    expect(page.text).toContain('34.0 ±');
    expect([page.text.includes('174 g'), page.text.includes('426 g')]).toEqual([true, true]);
  });

  test('a share that is typed makes the others give way', async () => {
    await open();
    await page.press('Blend for 34');
    await page.type('Share, %', '50');
    expect(blend?.map((part) => part.share)).toEqual([0.5, 0.5]);
    await page.pick('With some', 'Loft Ease');
    expect(blend?.map((part) => Number(part.share.toFixed(3)))).toEqual([0.375, 0.375, 0.25]);
    // Nobody has said what a percent of it does.
    expect(page.text).toContain('How hard it will be is not known.');
  });

  test('a softener of which that is known is blended with, and tells by the plastisol there is', async () => {
    await open({ scale: '00', value: 34 }, { ...PLASTICS, additives: [EASE] });
    await page.press('Blend for 34');
    expect(page.sent.at(-1)?.body).toMatchObject({
      additives: [{ id: 'ease', pointsPerPercent: -1.2, maxFraction: 0.1, pricePerKgMinor: 900 }],
    });
    await page.pick('With some', 'Loft Ease');
    await page.type('Share, %', '72.5');
    // Whatever the others come to, they are 0.29 to 0.71; the first is set, the softener keeps a third of its share.
    const [firm, soft, ease] = (blend ?? []).map((part) => part.share) as [number, number, number];
    const points = (59.55 * firm + 23.55 * soft) / (firm + soft) - (1.2 * 100 * ease) / (firm + soft);
    expect(page.text).toContain(`Shore 00 ${points.toFixed(1)} ±`);
  });

  test('tired remelt is warned of, and what nobody knows is said', async () => {
    await open();
    await page.pick('With some', 'remelt: Greens');
    expect(page.text).toContain(
      '25 % remelt; cooked 6 times once this cup is. More than 5 heats: it yellows and hardens.',
    );
    await page.pick('With some', 'remelt: Used baits');
    // A quarter of it, and 0.75 · 25 % of the other: 44 % remelt, a quarter of which nobody knows.
    expect(page.text).toContain('44 % remelt; cooked 1 time once this cup is. Of 25 % nobody knows how often');
    expect(page.text).toContain('How much salt is in it is not known');
  });

  test('the last part cannot be taken out; any other can, and its share goes to the rest', async () => {
    await open(null);
    const out = () => [...page.box.querySelectorAll<HTMLButtonElement>('[aria-label="Take this part out"]')];
    expect(out().map((one) => one.disabled)).toEqual([true]);
    await page.type('Wanted', '34');
    await page.press('Blend for 34');
    await page.does(() => out()[0]?.click());
    expect(blend).toEqual([{ materialId: 'soft', share: 1 }]);
  });

  test('on a scale that no two of them are known on nothing is blended, and one can go back', async () => {
    await open(
      { scale: 'A', value: 8 },
      { ...PLASTICS, scale: 'A', items: [plastic('soft', null), plastic('firm', null)] },
    );
    expect(page.button('No two are known on A').disabled).toBe(true);
    await page.pick('Shore', '00');
    expect(page.field('Wanted').value).toBe('8');
  });
});
