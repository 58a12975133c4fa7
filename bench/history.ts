// A list of 10,000 pours, as a request, beside the raw query it needs.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { v7 } from 'uuid';
import type { Page } from '../contract/fields.ts';
import { shotsFor } from '../core/yield/counts.ts';
import { insert } from '../server/db/rows.ts';
import { open } from '../server/listen.ts';

const POURS = 10_000;
const SHOTS = 6;
const CAVITIES = 4;
const RUNS = 60;

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;

async function timed(run: () => unknown): Promise<number> {
  for (let n = 0; n < 5; n++) await run();
  const times: number[] = [];
  for (let n = 0; n < RUNS; n++) {
    const start = performance.now();
    await run();
    times.push(performance.now() - start);
  }
  return median(times);
}

const isBad = (pour: number, shot: number, cavity: number) => (pour + shot * cavity) % 23 === 0;

/** Rows written straight into the tables: the history, not the writing, is measured. */
function fill(data: typeof opened.data): void {
  const { db } = data;
  const at = (n: number) => new Date(Date.UTC(2024, 0, 1) + n * 3600_000).toISOString();
  const [bait, mold, recipe, revision] = [v7(), v7(), v7(), v7()];
  db.transaction(() => {
    insert(db, 'bait', { id: bait, name: 'Sandlance 110', shape: 'paddle', packCount: 8, createdAt: at(0) });
    const cavity = { cavityMl: 12, sprueMl: 4, runnerMl: 0, createdAt: at(0) };
    insert(db, 'mold', {
      id: mold,
      name: 'Sandlance × 4',
      kind: 'aluminium',
      fill: 'injection',
      baitId: bait,
      cavities: CAVITIES,
      columns: 4,
      rows: 1,
      ...cavity,
    });
    insert(db, 'recipe', { id: recipe, name: 'Slack Tide', hex: '#4f8796', createdAt: at(0) });
    insert(db, 'recipe_revision', {
      id: revision,
      recipeId: recipe,
      number: 1,
      reason: 'first',
      basisMl: 240,
      createdAt: at(0),
    });
    for (let n = 0; n < POURS; n++) {
      const [pour, ledger] = [v7(), v7()];
      insert(db, 'ledger', { id: ledger, title: `P${n}`, batchMl: 300, ofPour: true, createdAt: at(n) });
      const record = { cookMl: 300, plan: {}, laidOutAt: at(n), startedAt: at(n), closedAt: at(n), createdAt: at(n) };
      insert(db, 'pour', {
        id: pour,
        code: `P${n}`,
        recipeId: recipe,
        recipeRevisionId: revision,
        colourwayId: recipe,
        colourwayRevisionId: recipe,
        ledgerId: ledger,
        ...record,
      });
      const bad = Array.from({ length: SHOTS * CAVITIES }, (_, i) =>
        isBad(n, Math.floor(i / CAVITIES), (i % CAVITIES) + 1),
      ).filter(Boolean).length;
      insert(db, 'pour_mold', {
        pourId: pour,
        moldId: mold,
        position: 0,
        shots: SHOTS,
        drawn: SHOTS,
        sell: SHOTS * CAVITIES - bad,
        own: 0,
        remelt: bad,
      });
      for (let s = 0; s < SHOTS; s++) {
        const shot = v7();
        insert(db, 'shot', { id: shot, pourId: pour, moldId: mold, at: at(n) });
        const pinned = { layer: 0, pourId: pour, doseSeq: 0, heatSeq: 0, ml: 52 };
        insert(db, 'shot_part', { id: v7(), shotId: shot, ...pinned, at: at(n) });
        for (let c = 1; c <= CAVITIES; c++) {
          const [grade, reason] = isBad(n, s, c) ? ['remelt', 'short'] : ['sell', null];
          insert(db, 'cavity_mark', { id: v7(), shotId: shot, cavity: c, grade, reason, at: at(n) });
        }
      }
    }
  })();
}

const root = mkdtempSync(join(tmpdir(), 'blunko-bench-'));
const opened = await open({ root, clock: () => new Date(), log: pino({ level: 'silent' }), port: 0 });
const { data } = opened;
console.log(`Filling ${POURS} pours, ${POURS * SHOTS} shots, ${POURS * SHOTS * CAVITIES} marks …`);
fill(data);
const base = `${opened.url}/api`;
const get = async <T>(path: string) => (await (await fetch(base + path)).json()) as T;

// The floor: the same page's rows and counts by prepared statements, without HTTP, validation or mapping.
const rows = data.db.prepare(
  'SELECT pour.*, recipe.name, recipe.hex FROM pour JOIN recipe ON recipe.id = pour.recipe_id ORDER BY laid_out_at DESC, pour.id DESC LIMIT 50',
);
const counts = data.db.prepare(
  `SELECT count(*) AS marks, sum(grade = 'sell') AS sell FROM cavity_mark WHERE shot_id IN (SELECT id FROM shot WHERE pour_id = ?)`,
);
const raw = await timed(() => {
  for (const row of rows.all() as { id: string }[]) counts.get(row.id);
});

let cursor = '';
for (let n = 0; n < 40; n++)
  cursor = (await get<Page<unknown>>(`/pours?limit=200${cursor ? `&cursor=${cursor}` : ''}`)).nextCursor ?? '';

const measured: [what: string, ms: number][] = [
  ['GET /health (the price of a request)', await timed(() => get('/health'))],
  ['GET /pours?limit=50, the newest', await timed(() => get('/pours?limit=50'))],
  ['GET /pours?limit=50, 8,000 pours back', await timed(() => get(`/pours?limit=50&cursor=${cursor}`))],
  ['GET /pours?limit=50&q=P77', await timed(() => get('/pours?limit=50&q=P77'))],
  ['GET /today', await timed(() => get('/today'))],
  ['GET /molds', await timed(() => get('/molds'))],
];
console.log(`\nraw query for one page of 50: ${raw.toFixed(2)} ms (median of ${RUNS})`);
for (const [what, ms] of measured)
  console.log(`${what}: ${ms.toFixed(2)} ms, ${(ms / raw).toFixed(2)} × the raw query`);

const sure = await timed(() =>
  shotsFor({ goodNeeded: 500, cavities: 4, rejects: { alpha: 1, beta: 19, rejected: 40, made: 900 }, confidence: 0.9 }),
);
console.log(`\nyield.shots for 500 good baits: ${sure.toFixed(3)} ms`);

await opened.close();
rmSync(root, { recursive: true, force: true });
