// npm run docs: writes docs/calculations.md and docs/refusals.md from the code; the tests hold the files against it.
import { writeFileSync } from 'node:fs';
import { calculationsPage } from './calculationsPage.ts';
import { refusalsPage } from './refusalsPage.ts';

writeFileSync(new URL('../docs/calculations.md', import.meta.url), await calculationsPage());
writeFileSync(new URL('../docs/refusals.md', import.meta.url), refusalsPage());
