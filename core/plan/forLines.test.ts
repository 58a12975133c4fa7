import { expect, test } from 'vitest';
import { forLines } from './forLines.ts';

test('a planned cup is for the lines of its own colour and baits, in their order, as far as it goes', () => {
  const shots = (baitId: string, baits: number, moldId = baitId) => ({ moldId, baitId, shots: 1, baits });
  const line = (id: string, baitId: string, colourId: string, baits: number) => ({ id, baitId, colourId, baits });
  const cup = { colourId: 'pink', molds: [shots('eel', 7), shots('eel', 5, 'twin'), shots('crab', 4)] };
  expect(
    forLines(cup, [
      line('first', 'eel', 'pink', 8),
      line('other colour', 'eel', 'blue', 8),
      line('second', 'eel', 'pink', 8),
      line('third', 'eel', 'pink', 8),
      line('crabs', 'crab', 'pink', 3),
      line('no mold', 'worm', 'pink', 3),
    ]),
  ).toEqual([
    { orderLineId: 'first', baits: 8 },
    { orderLineId: 'second', baits: 4 },
    { orderLineId: 'crabs', baits: 3 },
  ]);
});
