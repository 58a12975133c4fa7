import * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import { list, positive, whole } from './bounds.ts';
import { calculate } from './calculators.ts';
import { Failure } from './failure.ts';
import { inUnits } from './units/say.ts';
import { check, faults } from './validate.ts';

const schema = v.strictObject({
  kind: v.pipe(v.picklist(['soft', 'firm']), v.title('Made as')),
  sizeMm: positive(1000),
  count: v.optional(whole(1, 50), 1),
  rows: list(
    v.strictObject({
      id: v.pipe(v.string(), v.minLength(1)),
      box: v.optional(v.strictObject({ wallMm: positive(10) })),
    }),
    'id',
  ),
});
const good = { kind: 'soft', sizeMm: 5, rows: [{ id: 'a' }] };

function refusal(input: unknown): { code: string; path: string | undefined; message: string } {
  try {
    check(schema, input);
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    return { code: error.code, path: error.path, message: error.message };
  }
  throw new Error('it was taken');
}

test('what fits is taken, defaults filled in', () => {
  expect(check(schema, good)).toEqual({ ...good, count: 1 });
});

describe('a refusal names the field, what was wanted and what came', () => {
  test.each<[input: unknown, code: string, path: string | undefined, message: string]>([
    [{ ...good, sizeMm: '5' }, 'invalid-input', 'sizeMm', 'Size must be a number, not "5".'],
    [{ ...good, sizeMm: null }, 'invalid-input', 'sizeMm', 'Size is missing; give a number.'],
    [{ ...good, sizeMm: undefined }, 'invalid-input', 'sizeMm', 'Size is missing; give a number.'],
    [{ ...good, sizeMm: 0 }, 'invalid-input', 'sizeMm', 'Size must be more than 0, not 0 mm.'],
    [{ ...good, sizeMm: Number.POSITIVE_INFINITY }, 'invalid-input', 'sizeMm', 'Size must be an ordinary number.'],
    [{ ...good, sizeMm: Number.NaN }, 'invalid-input', 'sizeMm', 'Size must be a number, not NaN.'],
    [
      { ...good, sizeMm: 1001 },
      'too-large',
      'sizeMm',
      'Size is more than can be worked out here; the most is 1000 mm.',
    ],
    [{ ...good, count: 1.5 }, 'invalid-input', 'count', 'How many must be a whole number, not 1.5.'],
    [{ ...good, kind: 'hard' }, 'invalid-input', 'kind', 'Made as must be "soft" or "firm", not "hard".'],
    [{ ...good, surprise: 1 }, 'invalid-input', 'surprise', 'surprise is not a field here; leave it out.'],
    [{ ...good, rows: [] }, 'invalid-input', 'rows', 'Rows must not be empty.'],
    [
      { ...good, rows: [{ id: 'a' }, { id: 'a' }] },
      'invalid-input',
      'rows.1.id',
      'Rows 2, name: "a" is there twice; give each row its own id.',
    ],
    [
      { ...good, rows: [{ id: 'a', box: [] }] },
      'invalid-input',
      'rows.0.box',
      'Rows 1, a box you have must be an object, not a list.',
    ],
    [
      { ...good, rows: [{ id: 'a', box: { wallMm: -1 } }] },
      'invalid-input',
      'rows.0.box.wallMm',
      'A box you have, wall must be more than 0, not -1 mm.',
    ],
    [{ ...good, rows: { id: 'a' } }, 'invalid-input', 'rows', 'Rows must be a list, not Object.'],
    [[], 'invalid-input', undefined, 'The input must be an object, not a list.'],
    [undefined, 'invalid-input', undefined, 'The input is missing; give an object.'],
    ['text', 'invalid-input', undefined, 'The input must be an object, not "text".'],
  ])('%j', (input, code, path, message) => {
    expect(refusal(input)).toEqual({ code, path, message });
  });

  test('something wrong is said before something too large', () => {
    expect(refusal({ ...good, sizeMm: 5000, count: 0 })).toMatchObject({ code: 'invalid-input', path: 'count' });
  });
});

describe('every fault, field by field, for a form to show', () => {
  const found = faults(schema, { kind: 'soft', rows: [{ id: '', box: { wallMm: 12 } }] });
  test.each([
    ['sizeMm', true, 'Size is missing.'],
    ['rows.0.id', true, 'Rows 1, name must not be empty.'],
    ['rows.0.box.wallMm', false, 'A box you have, wall is more than can be worked out here; the most is 10 mm.'],
  ])('%s', (path, missing, text) => {
    const fault = found.find((one) => one.path.join('.') === path);
    expect([fault?.missing, fault?.said.text]).toEqual([missing, text]);
  });

  test('and none where it would be taken', () => expect(faults(schema, good)).toEqual([]));

  test('bounds are said in the units of whoever reads them', () => {
    const wall = found.find((one) => one.path.at(-1) === 'wallMm')?.said;
    expect(wall && inUnits(wall, { system: 'us', temperature: 'F' })).toBe(
      'A box you have, wall is more than can be worked out here; the most is 0.39 in.',
    );
  });
});

test('a result that overflowed is refused, never shown', async () => {
  const input = { value: 1e15, from: 'gal', to: 'drop', dropsPerMl: 1e4 };
  expect(await calculate('units.convert', input)).toEqual({ value: expect.closeTo(3.785411784e22, -14) });
  await expect(calculate('units.convert', { ...input, value: 1e308 })).rejects.toMatchObject({ code: 'too-large' });
});
