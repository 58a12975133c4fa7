// npm run docs: writes docs/calculations.md, docs/refusals.md and the outlines of the starting shapes from the code; the tests hold the files against it.
import { writeFileSync } from 'node:fs';
import { calculationsPage } from './calculationsPage.ts';
import { refusalsPage } from './refusalsPage.ts';
import { startOutlines } from './startOutlines.ts';

writeFileSync(new URL('../docs/calculations.md', import.meta.url), await calculationsPage());
writeFileSync(new URL('../docs/refusals.md', import.meta.url), refusalsPage());
writeFileSync(new URL('../web/places/masters/startOutlines.json', import.meta.url), await startOutlines());
