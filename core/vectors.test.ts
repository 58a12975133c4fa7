import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { calculate } from './calculators.ts';
import { Failure } from './failure.ts';

interface Vector {
  name: string;
  input: unknown;
  expect?: Record<string, number | string | boolean>;
  expectError?: string;
  tolerance?: number;
}

const folder = new URL('./vectors/', import.meta.url);
const vectors = readdirSync(folder).flatMap((file): Vector[] =>
  JSON.parse(readFileSync(new URL(file, folder), 'utf8')),
);

const at = (value: unknown, path: string) =>
  path.split('.').reduce<unknown>((part, key) => (part as Record<string, unknown>)?.[key], value);

test('vectors are there to be met', () => expect(vectors.length).toBeGreaterThan(80));

test.each(vectors.map((vector, index) => ({ title: `${vector.name} #${index}`, vector })))(
  '$title',
  async ({ vector }) => {
    const outcome = await calculate(vector.name, vector.input).catch((error: unknown) => error);
    if (vector.expectError) {
      expect(outcome).toBeInstanceOf(Failure);
      expect((outcome as Failure).code).toBe(vector.expectError);
      return;
    }
    if (outcome instanceof Error) throw outcome;
    for (const [path, wanted] of Object.entries(vector.expect ?? {})) {
      const got = at(outcome, path);
      if (typeof wanted !== 'number') expect(got, path).toBe(wanted);
      else {
        const slack = (vector.tolerance ?? 0) * (wanted === 0 ? 1 : Math.abs(wanted));
        expect(Math.abs((got as number) - wanted), `${path}: ${got} for ${wanted}`).toBeLessThanOrEqual(slack);
      }
    }
  },
);
