import { describe, expect, test } from 'vitest';
import type { DrawnMold } from '../../workers/molder.ts';
import { layersOf } from './layers.ts';

const part = (name: string) => ({ name, positions: new Float32Array(9) });
const mold = (...names: string[]) =>
  ({
    halfMm: [20, 15],
    blockMm: [140, 60, 35],
    parts: names.map(part),
    casting: part('casting'),
    sawn: { parts: names.map((name) => part(`${name}, sawn`)), casting: part('casting, sawn') },
  }) as unknown as DrawnMold;
const PLAIN = { seeThrough: false, sawn: false, caught: null };
const shown = (of: DrawnMold, open: number, how = {}) =>
  layersOf(of, open, { ...PLAIN, ...how }).map((layer) => [
    (layer as unknown as { name: string }).name,
    layer.colour,
    layer.offset,
  ]);

describe('a mold as it is drawn', () => {
  test('nothing until it is built', () => {
    expect(layersOf(null, 0.5, PLAIN)).toEqual([]);
  });

  test('closed everything lies where it was cut; open the upper half rises by 1.6 times its height, the casting by 0.6', () => {
    const two = mold('lower half', 'upper half');
    expect(shown(two, 0).map(([, , offset]) => offset)).toEqual(Array(3).fill([0, 0, 0]));
    expect(shown(two, 0.5)).toEqual([
      ['lower half', '--liquid', [0, 0, 0]],
      ['upper half', '--edge', [0, 0, 28]],
      ['casting', '--bait', [0, 0, 10.5]],
    ]);
  });

  test('four pieces go sideways too', () => {
    expect(shown(mold('lower left', 'upper right'), 1).map(([, , offset]) => offset)).toEqual([
      [0, -30, 0],
      [0, 30, 56],
      [0, 0, 21],
    ]);
  });

  test('rods and inserts lie beside it, electrodes on the other side and apart from each other', () => {
    const rich = mold('lower half', 'core rod', 'lower electrode', 'upper electrode');
    expect(shown(rich, 0).slice(1, 4)).toEqual([
      ['core rod', '--rest', [0, -48, 0]],
      ['lower electrode', '--rest', [0, 60 * 1.3, 0]],
      ['upper electrode', '--rest', [0, 60 * 2.2, 0]],
    ]);
  });

  test('boxes to cast in stand side by side, and nothing lies between them', () => {
    expect(shown(mold('lower box', 'upper box'), 1)).toEqual([
      ['lower box', '--liquid', [0, 75, 0]],
      ['upper box', '--edge', [0, 0, 0]],
    ]);
  });

  test('see-through leaves what lies beside solid; sawn shows no heat of what is caught', () => {
    const caught = Float32Array.of(0.4);
    const layers = layersOf(mold('lower half', 'core rod'), 0, { seeThrough: true, sawn: false, caught });
    expect(layers.map((layer) => layer.ghost)).toEqual([true, false, undefined]);
    expect(layers.at(-1)?.shares).toBe(caught);
    const sawn = layersOf(mold('lower half'), 0, { seeThrough: false, sawn: true, caught });
    expect([sawn.at(-1)?.shares, sawn.map((one) => (one as unknown as { name: string }).name)]).toEqual([
      null,
      ['lower half, sawn', 'casting, sawn'],
    ]);
  });
});
