import { expect, test } from 'vitest';
import { type Part, seamsOf } from '../colour/layered.ts';
import { layerOver, type Optics, type Rgb } from '../colour/light.ts';
import { partsIn, thickAtMiddle, tintsOf } from '../colour/solidSeen.ts';
import { chordsOf } from './chords.ts';
import { inwardOf } from './inward.ts';
import { measure } from './measure.ts';
import { loadModeller, sculpt } from './sculpt.ts';
import { sectionAt } from './section.ts';
import { STARTS } from './starts.ts';
import { box } from './testing.ts';

/** 40 long, 10 wide, 20 tall. */
const block = box(40, 10, 20);
const area = ({ cellMm, inside }: { cellMm: number; inside: Uint8Array }) =>
  inside.reduce((sum, one) => sum + one, 0) * cellMm ** 2;

test('a block cut anywhere is 10 × 20', () => {
  for (const at of [0, 0.3, 1]) expect(area(sectionAt(block, at, 100))).toBeCloseTo(200, 0);
});

test('sections along a bait add up to its volume', async () => {
  const mesh = sculpt(await loadModeller(), (STARTS[0] as (typeof STARTS)[number]).spec, 'draft');
  const { volumeMl, boundsMm } = measure(mesh);
  const long = (boundsMm.max[0] as number) - (boundsMm.min[0] as number);
  const cuts = 60;
  let ml = 0;
  for (let i = 0; i < cuts; i++) ml += (area(sectionAt(mesh, (i + 0.5) / cuts, 90)) * (long / cuts)) / 1000;
  expect(ml / (volumeMl as number)).toBeCloseTo(1, 1);
});

test('behind each side of a block lies as much plastic as it is wide there', () => {
  const { mm, rise, high } = inwardOf(block);
  for (let i = 0; i < mm.length; i++) {
    const up = Math.abs(rise[i] as number) > 0.5;
    const end = !up && Math.abs(high[i] as number) < 4 && (mm[i] as number) > 30;
    expect(mm[i]).toBeCloseTo(up ? 20 : end ? 40 : 10, 2);
  }
});

const PEARL: Optics = { k: [0.01, 0.01, 0.01], s: [0.3, 0.3, 0.3] };
const SMOKE: Optics = { k: [0.06, 0.05, 0.04], s: [0.01, 0.01, 0.01] };
const WHITE: Rgb = [0.9, 0.9, 0.9];

test('layers lie in a section as thick as their shares, and shine through each other on the solid', () => {
  const parts: Part[] = [
    { place: 'belly', share: 0.75, optics: PEARL },
    { place: 'back', share: 0.25, optics: SMOKE },
  ];
  const seams = seamsOf(parts, chordsOf(block, 'side', 400));
  const section = sectionAt(block, 0.5, 100);
  const thick = thickAtMiddle(section, partsIn(section, seams));
  // Three quarters of 20 mm, and the rest over them.
  expect(thick.get(0)).toBeCloseTo(15, 0);
  expect(thick.get(1)).toBeCloseTo(5, 0);
  const inward = inwardOf(block);
  const tints = tintsOf(inward, parts, seams, WHITE);
  const top = inward.rise.findIndex((one) => one < -0.9);
  const bottom = inward.rise.findIndex((one) => one > 0.9);
  const through = layerOver(SMOKE, 5, layerOver(PEARL, 15, WHITE));
  const under = layerOver(PEARL, 15, layerOver(SMOKE, 5, WHITE));
  for (const band of [0, 1, 2] as const) {
    expect(tints[3 * top + band]).toBeCloseTo(through[band], 1);
    expect(tints[3 * bottom + band]).toBeCloseTo(under[band], 1);
  }
  // By the smoke alone the back would be much darker: the pearl shines through it.
  expect(tints[3 * top]).toBeGreaterThan(1.2 * layerOver(SMOKE, 20, WHITE)[0]);
});

test('a core stands in the middle, and a tail takes the end', () => {
  const parts: Part[] = [
    { place: 'whole', share: 0.55, optics: SMOKE },
    { place: 'core', share: 0.25, optics: PEARL },
    { place: 'tail', share: 0.2, optics: PEARL },
  ];
  const seams = seamsOf(parts, chordsOf(block, 'side', 400));
  const middle = partsIn(sectionAt(block, 0.4, 100), seams);
  expect(middle.filter((part) => part === 1).length / middle.length).toBeCloseTo(0.25 * (Math.PI / 4), 1);
  expect([...new Set(partsIn(sectionAt(block, 0.95, 100), seams))]).toEqual([2]);
  expect([...new Set(middle)].sort()).toEqual([0, 1]);
});
