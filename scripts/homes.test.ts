import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { DEFAULTS } from '../core/defaults.ts';
import { allSecondHomes, filesRead, secondHomes } from './defaults.ts';

test('which rows of a log count is asked of one place', () => {
  const asked = readdirSync('server', { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.ts$/.test(file) && !/\.test\.ts$/.test(file))
    .filter((file) =>
      /NOT EXISTS \(SELECT 1 FROM \S+ \w+ WHERE \w+\.reverses/.test(readFileSync(`server/${file}`, 'utf8')),
    );
  expect(asked).toEqual(['db/log.ts']);
});

test('no default is written twice', () => {
  expect(filesRead).toBeGreaterThan(250);
  expect(allSecondHomes()).toEqual([]);
});

test.each([
  ['a telling figure', 'const grams = 1.02 * ml;'],
  ['a field', 'const box = { wallMm: 12 };'],
  ['a schema', 'const box = v.strictObject({ roomC: v.optional(celsius, 23) });'],
  ['a fallback', 'const drops = material.dropsPerMl ?? 20;'],
  ['one in a screen', 'const at = <Field densityGPerMl={1.02} />;'],
])('%s is found', (_what, text) => {
  expect(secondHomes('x.tsx', text)).toHaveLength(1);
});

test.each([
  ['none of it', 'const mix = { wasteFraction: 0 };'],
  ['another figure', 'const grams = 1.03 * ml;'],
  ['the default itself', "const box = { wallMm: usual('siliconeWallMm') };"],
  ['one worked out', 'const mix = { wasteFraction: percent / 100 };'],
  ['a field without one', 'const box = { lengthMm: 12 };'],
])('%s is not', (_what, text) => {
  expect(secondHomes('x.tsx', text)).toEqual([]);
});

test('each says its unit, what it is and where it comes from', () => {
  for (const [key, { value, unit, name, source }] of Object.entries(DEFAULTS)) {
    expect(value, key).toBeGreaterThan(0);
    expect(
      [unit, name, source].every((text) => text.length > 0),
      key,
    ).toBe(true);
  }
});
