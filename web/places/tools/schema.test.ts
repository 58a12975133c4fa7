import { toJsonSchema } from '@valibot/to-json-schema';
import { describe, expect, test } from 'vitest';
import { calculate, calculators } from '../../../core/calculators.ts';
import { niceStep } from '../../parts/Cylinder.tsx';
import { anotherRow, type Schema, withDefaults } from './schema.ts';

const schemaOf = (name: string) => {
  const found = calculators.find((one) => one.name === name);
  if (!found) throw new Error(name);
  return toJsonSchema(found.schema, { errorMode: 'ignore', typeMode: 'input' }) as Schema;
};

describe('every assumption is there to be changed', () => {
  test.each(calculators.map((one) => [one.name, one.example] as const))(
    '%s: with its defaults written out it gives the same answer',
    async (name, example) => {
      const full = withDefaults(schemaOf(name), example) as Record<string, unknown>;
      expect(await calculate(name, full)).toEqual(await calculate(name, example));
      for (const key of Object.keys(example)) expect(full).toHaveProperty(key);
    },
  );

  test('defaults are filled in at every depth', () => {
    expect(withDefaults(schemaOf('silicone.plan'), { masters: [{ volumeMl: 1 }], mix: { by: 'mass' } })).toMatchObject({
      wallMm: 10,
      gapMm: 8,
      coverMm: 10,
      wasteFraction: 0.07,
      roomC: 23,
      masters: [{ volumeMl: 1, count: 1 }],
      mix: { by: 'mass', densityAGPerMl: 1.1 },
    });
  });

  test('one row more is the last one under a name of its own', () => {
    const rows = schemaOf('batch.size').properties?.molds?.items;
    expect(anotherRow([{ id: 'a', shots: 3 }], rows as Schema)).toEqual({ id: 'a 2', shots: 3 });
    expect(anotherRow([{ made: 5 }], schemaOf('yield.chart').properties?.points?.items as Schema)).toEqual({ made: 5 });
  });
});

describe('marks on a scale', () => {
  test.each([
    [290, 100],
    [24.8, 5],
    [7, 2],
    [1, 0.2],
    [0.05, 0.01],
    [1400, 500],
  ])('up to %d: every %d', (most, step) => expect(niceStep(most)).toBeCloseTo(step, 9));
});
