import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { calculationsPage } from './calculationsPage.ts';

test('docs/calculations.md is what the registry says', async () => {
  const written = readFileSync(new URL('../docs/calculations.md', import.meta.url), 'utf8');
  expect(written).toBe(await calculationsPage());
});
