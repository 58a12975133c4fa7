import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { merge } from './merge.ts';

interface Bait {
  name: string;
  price: number | null;
  lines: number[];
}
const seen: Bait = { name: 'Sandlance', price: 300, lines: [1] };

describe('what was typed over what was seen, onto what is there now', () => {
  test.each<[string, Bait, Bait, Bait, string[]]>([
    ['nothing typed: all of theirs', seen, { ...seen, price: 500 }, { ...seen, price: 500 }, []],
    ['nothing changed elsewhere: all of mine', { ...seen, price: 450 }, seen, { ...seen, price: 450 }, []],
    [
      'both, in different fields',
      { ...seen, price: 450 },
      { ...seen, name: 'Eel' },
      { ...seen, name: 'Eel', price: 450 },
      [],
    ],
    [
      'both, in the same field: mine stays, and it is told',
      { ...seen, price: 450 },
      { ...seen, price: 500 },
      { ...seen, price: 450 },
      ['price'],
    ],
    ['both to the same', { ...seen, price: 450 }, { ...seen, price: 450 }, { ...seen, price: 450 }, []],
    [
      'emptied here counts as typed',
      { ...seen, price: null },
      { ...seen, price: 500 },
      { ...seen, price: null },
      ['price'],
    ],
    ['a list is one field', { ...seen, lines: [1, 2] }, { ...seen, lines: [3] }, { ...seen, lines: [1, 2] }, ['lines']],
  ])('%s', (_, mine, theirs, values, elsewhere) => {
    expect(merge(seen, mine, theirs)).toEqual({ values, elsewhere });
  });

  test('a field that the record has no more is let go', () => {
    const old = { ...seen, gone: 'typed' } as Bait;
    expect(merge({ ...seen, gone: '' } as Bait, old, seen)).toEqual({ values: seen, elsewhere: [] });
  });

  const bait = fc.record({ name: fc.string(), price: fc.option(fc.integer()), lines: fc.array(fc.integer()) });
  test('no field that was typed is ever replaced, and none is told that was not', () => {
    fc.assert(
      fc.property(bait, bait, bait, (before, mine, theirs) => {
        const { values, elsewhere } = merge<Bait>(before, mine, theirs);
        for (const key of ['name', 'price', 'lines'] as const) {
          const typed = JSON.stringify(mine[key]) !== JSON.stringify(before[key]);
          expect(values[key]).toEqual(typed ? mine[key] : theirs[key]);
          if (!typed) expect(elsewhere).not.toContain(key);
        }
      }),
    );
  });
});
