import { downloads, fullDisk, greedy, slow, twoServers } from './clients.ts';
import type { Part } from './counts.ts';
import { archives, meshes } from './files.ts';
import { fuzz } from './fuzz.ts';
import { cups, kills, layers } from './kills.ts';
import { power } from './power.ts';

/** Each part with how often it is done in full, and in the tests. */
export const PARTS: Record<string, { part: Part; full: number; short: number }> = {
  kills: { part: kills, full: 340, short: 10 },
  layers: { part: layers, full: 120, short: 4 },
  cups: { part: cups, full: 120, short: 4 },
  power: { part: power, full: 40, short: 2 },
  fuzz: { part: fuzz, full: 13_000, short: 700 },
  meshes: { part: meshes, full: 1800, short: 120 },
  archives: { part: archives, full: 240, short: 24 },
  downloads: { part: downloads, full: 200, short: 15 },
  slow: { part: slow, full: 200, short: 24 },
  greedy: { part: greedy, full: 120, short: 12 },
  'two-servers': { part: twoServers, full: 5, short: 2 },
  'full-disk': { part: fullDisk, full: 60, short: 8 },
};
