// npm run docs: writes docs/calculations.md from the registry; the tests hold the file against it.
import { writeFileSync } from 'node:fs';
import { calculationsPage } from './calculationsPage.ts';

writeFileSync(new URL('../docs/calculations.md', import.meta.url), await calculationsPage());
