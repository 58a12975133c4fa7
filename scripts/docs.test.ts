import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { REFUSALS } from '../core/failure.ts';
import { calculationsPage } from './calculationsPage.ts';
import { refusalsPage } from './refusalsPage.ts';
import { startOutlines } from './startOutlines.ts';

const page = (name: string) => readFileSync(new URL(`../docs/${name}.md`, import.meta.url), 'utf8');

test('docs/calculations.md is what the registry says', async () => {
  expect(page('calculations')).toBe(await calculationsPage());
});

test('the starting shapes are drawn as they are', async () => {
  const kept = readFileSync(new URL('../web/places/masters/startOutlines.json', import.meta.url), 'utf8');
  expect(kept).toBe(await startOutlines());
});

test('docs/refusals.md lists every code that the program gives, and no other', () => {
  expect(page('refusals')).toBe(refusalsPage());
  const code = ['core', 'contract', 'server']
    .flatMap((floor) =>
      readdirSync(floor, { recursive: true, encoding: 'utf8' })
        .filter((file) => /\.ts$/.test(file) && !/\.test\.ts$/.test(file) && file !== 'failure.ts')
        .map((file) => readFileSync(`${floor}/${file}`, 'utf8')),
    )
    .join('\n')
    .replace(/export const STATUS[\s\S]*?\n};/, '');
  // Whatever is given is listed: the type of a Failure's code says so.
  expect(Object.keys(REFUSALS).filter((one) => !code.includes(`'${one}'`))).toEqual([]);
});
