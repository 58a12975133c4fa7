import fc from 'fast-check';
import { expect, test } from 'vitest';
import { meltOfIngredients } from './foresee.ts';
import { deltaE, labOf } from './lab.ts';
import type { Rgb } from './light.ts';
import { type Candidate, offTaste, proposalsFor, tasteOf, traitsOf } from './taste.ts';

test.each([
  ['something dark for the night', { light: -0.9 }, null, []],
  ['bright and loud', { light: 0.8, vivid: 0.9 }, null, []],
  ['like a shrimp in muddy water', { warm: 0.6, vivid: 0.15, clear: -0.15, light: -0.5 }, null, []],
  ['A green one, with glitter', { glitter: 0.9 }, 130, []],
  ['like my grandmother', {}, null, ['grandmother']],
  ['', {}, null, []],
])('%s', (theme, axes, hueDeg, unheard) => {
  const found = tasteOf(theme);
  expect(Object.keys(found.axes).sort()).toEqual(Object.keys(axes).sort());
  for (const [axis, value] of Object.entries(axes)) expect(found.axes[axis as 'light']).toBeCloseTo(value, 9);
  expect([found.hueDeg, found.unheard]).toEqual([hueDeg, unheard]);
});

const liquid = (id: string, hex: string, mlPerL: number) => ({
  id,
  name: id,
  kind: 'colourant',
  hex,
  optics: null,
  mlPerL,
  gPerL: 0,
  sizeMm: null,
  cut: null,
});
const flake = { ...liquid('silver', '#d8dce0', 0), kind: 'flake', gPerL: 12, sizeMm: 0.6 };
const BOOK = {
  night: meltOfIngredients([liquid('black', '#101418', 10)]),
  lemon: meltOfIngredients([liquid('yellow', '#f2cf3a', 8)]),
  ghost: meltOfIngredients([liquid('white', '#e8e8e8', 0.3)]),
  sprat: meltOfIngredients([liquid('blue', '#7fa8c8', 4), flake]),
};
const book: Candidate[] = Object.entries(BOOK).map(([id, melt]) => ({ id, ...traitsOf(melt) }));

test.each([
  ['dark', 'night'],
  ['yellow and bright', 'lemon'],
  ['clear as glass', 'ghost'],
  ['a little fish that flashes', 'sprat'],
])('“%s” is %s first', (theme, id) => {
  expect(proposalsFor(tasteOf(theme), book).book[0]).toBe(id);
});

test('a recipe that is the opposite of what was said is not proposed, however small the book', () => {
  expect(proposalsFor(tasteOf('bright yellow'), book.slice(0, 1))).toMatchObject({ book: [], wanted: { length: 3 } });
  expect(proposalsFor(tasteOf('black as night'), book.slice(0, 1)).book).toEqual(['night']);
});

test('always three, always different; one of them is new, all of them where the book is empty', () => {
  const all = (theme: string, from: Candidate[]) => {
    const { book: ids, wanted } = proposalsFor(tasteOf(theme), from);
    return { ids, wanted, shown: [...ids.map((id) => from.find((one) => one.id === id)?.linear as Rgb), ...wanted] };
  };
  for (const from of [book, book.slice(0, 1), [], [...book, ...book.map((one) => ({ ...one, id: `${one.id} again` }))]])
    for (const theme of ['dark', 'warm and natural', 'loud', 'nothing of the kind', 'white ghost', 'green']) {
      const { ids, wanted, shown } = all(theme, from);
      expect([ids.length <= 2, shown.length, wanted.length >= 1]).toEqual([true, 3, true]);
      for (const [i, one] of shown.entries())
        for (const other of shown.slice(i + 1)) expect(deltaE(labOf(one), labOf(other))).toBeGreaterThanOrEqual(10);
    }
  expect(all('green', []).wanted).toHaveLength(3);
});

test('property: what a theme does not speak of does not count; what is just as it says is 0 off', () => {
  const share = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(share, share, share, share, share, (light, vivid, warm, clear, glitter) => {
      const traits = { light, vivid, warm, clear, glitter };
      expect(offTaste({ axes: traits, hueDeg: null, unheard: [] }, { traits, hueDeg: null })).toBe(0);
      expect(offTaste({ axes: {}, hueDeg: null, unheard: [] }, { traits, hueDeg: 10 })).toBe(0);
      expect(offTaste({ axes: {}, hueDeg: 10, unheard: [] }, { traits, hueDeg: 70 })).toBeCloseTo(1, 9);
    }),
  );
});
