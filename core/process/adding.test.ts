import { expect, test } from 'vitest';
import { orderOfAdding } from './adding.ts';

const item = (name: string, kind: string, more: { limitC?: number; turned?: boolean } = {}) => ({
  name,
  kind,
  limitC: null,
  ...more,
});
const CUP = [
  item('salt', 'salt'),
  item('gold', 'flake', { limitC: 170 }),
  item('blue', 'colourant'),
  item('silver', 'flake'),
  item('tough', 'flake', { limitC: 190 }),
  item('pearl', 'powder'),
  item('soft', 'softener'),
];
const told = (school: Parameters<typeof orderOfAdding>[1], cup = CUP) =>
  orderOfAdding(cup, school).map(({ moment, items, c }) => [moment, items.map(({ name }) => name).join(' '), c]);

test.each([
  [
    { colourWhen: 'cooked', saltWhen: 'last' } as const,
    [
      ['cold', 'soft', null],
      ['cooked', 'blue silver tough pearl', null],
      ['cooled', 'gold', 170],
      ['last', 'salt', null],
    ],
  ],
  [
    { colourWhen: 'cold', saltWhen: 'colour' } as const,
    [
      ['cold', 'salt blue pearl soft', null],
      ['cooked', 'silver tough', null],
      ['cooled', 'gold', 170],
    ],
  ],
  [
    { colourWhen: 'cooked', saltWhen: 'colour' } as const,
    [
      ['cold', 'soft', null],
      ['cooked', 'salt blue silver tough pearl', null],
      ['cooled', 'gold', 170],
    ],
  ],
])('by school %o', (school, expected) => {
  expect(told(school)).toEqual(expected);
});

test('flake that is wanted turned goes in at the hottest, over the highest limit of its kind', () => {
  const cup = [item('a', 'flake', { limitC: 165, turned: true }), item('b', 'flake', { limitC: 172, turned: true })];
  expect(told({ colourWhen: 'cooked', saltWhen: 'last' }, cup)).toEqual([['hottest', 'a b', 172]]);
  expect(told({ colourWhen: 'cooked', saltWhen: 'last' }, [])).toEqual([]);
  // Two that wait for the cup to cool wait for the more tender one; flake without a limit has nothing to turn into.
  const tender = [
    item('a', 'flake', { limitC: 165 }),
    item('b', 'flake', { limitC: 150 }),
    item('c', 'flake', { turned: true }),
  ];
  expect(told({ colourWhen: 'cold', saltWhen: 'last' }, tender)).toEqual([
    ['cooked', 'c', null],
    ['cooled', 'a b', 150],
  ]);
});
