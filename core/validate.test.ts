import * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import { calculate } from './calculators.ts';
import { Failure } from './failure.ts';
import { check, list, positive, whole } from './validate.ts';

const schema = v.strictObject({
  kind: v.picklist(['soft', 'firm']),
  sizeMm: positive(1000),
  count: v.optional(whole(1, 50), 1),
  rows: list(v.strictObject({ id: v.string(), box: v.optional(v.strictObject({ wallMm: positive(10) })) }), 'id'),
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
    [{ ...good, sizeMm: '5' }, 'invalid-input', 'sizeMm', 'sizeMm must be a number, not "5".'],
    [{ ...good, sizeMm: null }, 'invalid-input', 'sizeMm', 'sizeMm is missing; give a number.'],
    [{ ...good, sizeMm: undefined }, 'invalid-input', 'sizeMm', 'sizeMm is missing; give a number.'],
    [{ ...good, sizeMm: 0 }, 'invalid-input', 'sizeMm', 'sizeMm must be more than 0, not 0.'],
    [{ ...good, sizeMm: Number.POSITIVE_INFINITY }, 'invalid-input', 'sizeMm', 'sizeMm must be an ordinary number.'],
    [{ ...good, sizeMm: Number.NaN }, 'invalid-input', 'sizeMm', 'sizeMm must be a number, not NaN.'],
    [{ ...good, sizeMm: 1001 }, 'too-large', 'sizeMm', 'sizeMm is more than can be worked out here; the most is 1000.'],
    [{ ...good, count: 1.5 }, 'invalid-input', 'count', 'count must be a whole number, not 1.5.'],
    [{ ...good, kind: 'hard' }, 'invalid-input', 'kind', 'kind must be "soft" or "firm", not "hard".'],
    [{ ...good, surprise: 1 }, 'invalid-input', 'surprise', 'surprise is not a field here; leave it out.'],
    [{ ...good, rows: [] }, 'invalid-input', 'rows', 'rows must not be empty.'],
    [
      { ...good, rows: [{ id: 'a' }, { id: 'a' }] },
      'invalid-input',
      'rows.1.id',
      'rows.1.id: "a" is there twice; give each row its own id.',
    ],
    [
      { ...good, rows: [{ id: 'a', box: [] }] },
      'invalid-input',
      'rows.0.box',
      'rows.0.box must be an object, not a list.',
    ],
    [
      { ...good, rows: [{ id: 'a', box: { wallMm: -1 } }] },
      'invalid-input',
      'rows.0.box.wallMm',
      'rows.0.box.wallMm must be more than 0, not -1.',
    ],
    [{ ...good, rows: { id: 'a' } }, 'invalid-input', 'rows', 'rows must be a list, not Object.'],
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

test('a result that overflowed is refused, never shown', async () => {
  const input = { value: 1e15, from: 'gal', to: 'drop', dropsPerMl: 1e4 };
  expect(await calculate('units.convert', input)).toEqual({ value: expect.closeTo(3.785411784e22, -14) });
  await expect(calculate('units.convert', { ...input, value: 1e308 })).rejects.toMatchObject({ code: 'too-large' });
});
