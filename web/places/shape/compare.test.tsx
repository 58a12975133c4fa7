// @vitest-environment jsdom
import { afterEach, expect, test } from 'vitest';
import { STARTS } from '../../../core/shape/starts.ts';
import { Page } from '../../testing/page.tsx';
import { FigureTable, Legend } from './Figures.tsx';
import { differences } from './words.ts';

const SPEC = (STARTS[0] as (typeof STARTS)[number]).spec;
let page: Page;
afterEach(() => page.close());

const judged = {
  measured: { volumeMl: 12.6, sizeMm: [108, 16.5, 17], areaMm2: 4200, triangles: 9000 },
  thickness: {
    thickestMm: 16.1,
    thickestAtMm: [25.4, 0, 0],
    thinnestMm: 2.4,
    thin: [{ thicknessMm: 2.4, pointMm: [95, 0, 0] }],
  },
  parting: { undercutFraction: 0.031 },
  traps: [
    { pointMm: [5, 0, 8], prominenceMm: 3, pour: true },
    { pointMm: [100, 0, 7], prominenceMm: 1.2, pour: false },
  ],
  tilt: { tiltDeg: 7.4 },
  reach: { ballMm: 3, greatestMm: 0.42 },
} as unknown as Parameters<typeof FigureTable>[0]['judged'];

test.each([
  [
    'metric',
    [
      'Volume12.6 mL',
      '25.4 mm from the nose',
      'A ball of 3 mm leaves0.4 mm',
      'Surface42.0 cm²',
      'Air trap 1100 mm from the nose, 1.2 mm high',
      'body82 mm → 88.9 mm',
    ],
  ],
  [
    'us',
    [
      'Volume0.426 fl oz',
      'Surface6.51 in²',
      '1 in from the nose',
      'A ball of 0.12 in leaves',
      'Air trap 13.94 in from the nose',
      'body3.23 in → 3.5 in',
    ],
  ],
] as const)('the same figures in words, %s', async (system, wanted) => {
  const changes = differences(SPEC, { ...SPEC, bodyMm: 88.9 });
  page = await Page.open(<FigureTable judged={judged} changes={changes} />, { system });
  for (const words of wanted) expect(page.text).toContain(words);
  if (system === 'us') expect(page.text).not.toMatch(/\d [cm]m\b/);
});

test('an open mesh has no volume, and nothing is said that was not judged', async () => {
  const open = { measured: { ...judged.measured, volumeMl: null } } as typeof judged;
  page = await Page.open(<FigureTable judged={open} changes={[]} />);
  expect(page.text).toContain('Volumenone: not closed');
  expect(page.text).not.toMatch(/Thickest|Undercut|Air trap|tilt/);
});

test.each([
  ['metric', '0.5 mm left'],
  ['us', '0.02 in left'],
] as const)('the scale of what a cutter leaves, %s', async (system, words) => {
  page = await Page.open(<Legend shown="reach" />, { system });
  expect(page.text).toContain(words);
});
