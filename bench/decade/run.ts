// Ten years of three makers: how long each screen's request and each tap at the bench take, how that grew since the first
// year, and how much of a bare Express is left after all checks.
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express from 'express';
import pino from 'pino';
import { v7 } from 'uuid';
import { endpoints } from '../../server/endpoints.ts';
import { type Opened, open } from '../../server/listen.ts';
import { ask, type Times, times } from './ask.ts';
import { filled } from './fill.ts';

const RUNS = 100;
const YEARS = [1, 10];
const GET_P99_MS = 50;
const TAP_P99_MS = 20;

type Ids = Record<string, string>;

/** The record of each kind that has most behind it. */
function fullest({ data }: Opened): Ids {
  const one = (sql: string) => (data.db.prepare(sql).get() as { id: string }).id;
  return {
    masters: one('SELECT master_id AS id FROM master_revision GROUP BY master_id ORDER BY count(*) DESC LIMIT 1'),
    molds: one('SELECT mold_id AS id FROM mold_sum ORDER BY drawn DESC LIMIT 1'),
    recipes: one('SELECT recipe_id AS id FROM pour GROUP BY recipe_id ORDER BY count(*) DESC LIMIT 1'),
    colourways: one('SELECT colourway_id AS id FROM pour GROUP BY colourway_id ORDER BY count(*) DESC LIMIT 1'),
    bins: one('SELECT bin_id AS id FROM bin_move GROUP BY bin_id ORDER BY count(*) DESC LIMIT 1'),
    pours: one('SELECT pour_id AS id FROM shot GROUP BY pour_id ORDER BY count(*) DESC LIMIT 1'),
    orders: one(
      'SELECT l.order_id AS id FROM bag JOIN order_line l ON l.id = bag.order_line_id GROUP BY l.order_id ORDER BY count(*) DESC LIMIT 1',
    ),
    materials: one('SELECT material_id AS id FROM lot GROUP BY material_id ORDER BY count(*) DESC LIMIT 1'),
    ledgers: one('SELECT ledger_id AS id FROM dose GROUP BY ledger_id ORDER BY count(*) DESC LIMIT 1'),
    ladders: one('SELECT id FROM ladder LIMIT 1'),
    bags: one('SELECT code AS id FROM bag ORDER BY rowid DESC LIMIT 1'),
  };
}

/** Every address that a screen reads, the lists as long as the screens ask for. */
function addresses(ids: Ids): string[] {
  const paths = endpoints.filter((one) => one.method === 'GET').map((one) => one.path);
  const filledIn = paths.map((path) => path.replace(/:(id|code)/, () => ids[path.split('/')[1] as string] ?? ''));
  const more: Record<string, string[]> = {
    '/pours': ['?limit=200', '?limit=50', '?limit=50&q=P77', '?limit=50&q=nothing'],
    '/orders': ['?limit=60', '?limit=200', '?q=customer%207'],
    '/search': ['?q=tide', '?q=P1234', '?q=customer%205', '?q=nothing'],
  };
  const scaled = (path: string) => (path.endsWith('/scaled') ? `${path}?batchMl=300` : path);
  return filledIn.flatMap((path) => more[path]?.map((query) => path + query) ?? [scaled(path)]);
}

/** Cups that the taps go to in turn, as full as a cup is. */
const CUPS = 12;

interface OpenCup {
  id: string;
  ledgerId: string;
  shots: string[];
}

/** Cups of one evening; the next are laid out on another. */
const CUPS_AN_EVENING = 8;
const EVENING_MS = 24 * 3600_000;
let skewMs = 0;

/** Cups that only want weighing, one for each time that closing is measured. */
async function readyToClose(api: string, colourwayId: string, moldId: string): Promise<string[]> {
  const post = async <T>(path: string, body: object) => {
    const answer = await fetch(`${api}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    return (await answer.json()) as T;
  };
  const ids: string[] = [];
  while (ids.length < RUNS + 3) {
    if (ids.length % CUPS_AN_EVENING === 0) skewMs += EVENING_MS;
    const pour = await post<{ id: string; molds: { cavities: number }[] }>('/pours', {
      colourwayId,
      molds: [{ moldId, shots: 1 }],
    });
    const { shots } = await post<{ shots: { id: string }[] }>(`/pours/${pour.id}/shots`, { moldId });
    const marks = Array.from({ length: pour.molds[0]?.cavities ?? 0 }, (_, i) => ({ cavity: i + 1, grade: 'sell' }));
    await post(`/pours/${pour.id}/shots/${shots[0]?.id}/marks`, { marks });
    ids.push(pour.id);
  }
  return ids;
}

/** Taps as the bench sends them, each with a key of its own. */
async function taps({ data, url }: Opened): Promise<[string, (n: number) => ReturnType<typeof ask>][]> {
  const one = (sql: string) => (data.db.prepare(sql).get() as { id: string }).id;
  const material = one(`SELECT id FROM material WHERE kind = 'colourant' LIMIT 1`);
  const mold = one('SELECT mold_id AS id FROM mold_sum ORDER BY drawn DESC LIMIT 1');
  const recipe = one('SELECT recipe_id AS id FROM pour GROUP BY recipe_id ORDER BY count(*) DESC LIMIT 1');
  const api = `${url}/api`;
  const cups: OpenCup[] = [];
  for (let n = 0; n < CUPS; n++) {
    const answer = await fetch(`${api}/pours`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ colourwayId: recipe, molds: [{ moldId: mold, shots: 20 }] }),
    });
    cups.push({ ...((await answer.json()) as { id: string; ledgerId: string }), shots: [] });
  }
  const ready = await readyToClose(api, recipe, mold);
  const cup = (n: number) => cups[(n + 3) % CUPS] as OpenCup;
  const shot = (n: number) => cup(n).shots[Math.floor((n + 3) / CUPS)];
  return [
    ['a temperature', (n) => ask(`${api}/pours/${cup(n).id}/heats`, { id: v7(), kind: 'reading', c: 170 })],
    [
      'a dose',
      (n) =>
        ask(`${api}/ledgers/${cup(n).ledgerId}/doses`, { id: v7(), materialId: material, amount: 1, unit: 'drop' }),
    ],
    [
      'a shot',
      (n) => {
        const id = v7();
        cup(n).shots.push(id);
        return ask(`${api}/pours/${cup(n).id}/shots`, { id, moldId: mold });
      },
    ],
    [
      'marks of a shot',
      (n) =>
        ask(`${api}/pours/${cup(n).id}/shots/${shot(n)}/marks`, {
          marks: [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' })),
        }),
    ],
    ['taking back a shot', (n) => ask(`${api}/undo`, { id: v7(), rowId: shot(n) })],
    [
      'laying out',
      (n) => {
        if (n % CUPS_AN_EVENING === 0) skewMs += EVENING_MS;
        return ask(`${api}/pours`, { colourwayId: recipe, molds: [{ moldId: mold, shots: 8 }] });
      },
    ],
    [
      'closing',
      (n) => ask(`${api}/pours/${ready[n + 3]}/close`, { cookedG: 500, goodG: 100, rejectG: 0, returnedG: 380 }),
    ],
    ['what the screen asks for after it', (n) => ask(`${api}/pours/${cup(n).id}`)],
  ];
}

interface Row {
  name: string;
  by: Times[];
}

async function measured(years: number): Promise<Map<string, Times>> {
  const kept = fileURLToPath(new URL(`../../.bench-data/years-${years}`, import.meta.url));
  console.log(`Years of three makers: ${years}`);
  filled(kept, years);
  const root = mkdtempSync(join(tmpdir(), 'blunko-decade-'));
  cpSync(kept, root, { recursive: true });
  const opened = await open({
    root,
    clock: () => new Date(Date.now() + skewMs),
    log: pino({ level: 'error' }),
    port: 0,
  });
  const found = new Map<string, Times>();
  try {
    const count = (table: string) =>
      (opened.data.db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n;
    console.log(
      `  ${['pour', 'shot', 'cavity_mark', 'customer_order', 'bag', 'lot_move', 'stock_move'].map((table) => `${count(table)} ${table}`).join(', ')}`,
    );
    if (years === Math.max(...YEARS)) await besideBareExpress(opened);
    for (const path of addresses(fullest(opened))) {
      const name = `GET ${path.replace(/[0-9a-f-]{36}/, ':id').replace(/B\d+$/, ':code')}`;
      found.set(name, await times(RUNS, () => ask(`${opened.url}/api${path}`), name));
    }
    for (const [name, tap] of await taps(opened)) found.set(name, await times(RUNS, tap, name));
  } finally {
    await opened.close();
    rmSync(root, { recursive: true, force: true });
  }
  return found;
}

/** The same rows by prepared statements and nothing else, in this process and on this file. */
async function besideBareExpress({ data, url }: Opened): Promise<void> {
  const row = data.db.prepare(
    'SELECT name, currency, room_c, glass_ml, drops_per_ml, version FROM workshop WHERE id = 1',
  );
  const list = data.db.prepare(
    `SELECT pour.id, pour.version, pour.code, pour.recipe_id, recipe.name AS recipe_name, recipe.hex, pour.cook_ml, pour.laid_out_at,
      pour.started_at, pour.closed_at, pour.discarded_at, sum(pm.drawn) AS shots, sum(pm.sell) AS sell, sum(pm.own) AS own, sum(pm.remelt) AS remelt,
      group_concat(bait.name) AS baits
     FROM (SELECT * FROM pour ORDER BY laid_out_at DESC, id DESC LIMIT 50) pour JOIN recipe ON recipe.id = pour.recipe_id
     JOIN pour_mold pm ON pm.pour_id = pour.id JOIN mold ON mold.id = pm.mold_id JOIN bait ON bait.id = mold.bait_id
     GROUP BY pour.id ORDER BY laid_out_at DESC, pour.id DESC`,
  );
  const bare = express();
  bare.get('/row', (_request, response) => {
    response.json(row.get());
  });
  bare.get('/list', (_request, response) => {
    response.json({ items: list.all() });
  });
  const server = createServer(bare);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  for (const [what, ours, theirs] of [
    ['one row', '/api/workshop', '/row'],
    ['a list of 50', '/api/pours?limit=50', '/list'],
  ] as const) {
    const ratios: number[] = [];
    let last = '';
    // In turn, so that a machine that slows down slows both.
    for (let round = 0; round < 9; round++) {
      const rate = async (address: string) => {
        const from = performance.now();
        for (let n = 0; n < 200; n++) await ask(address);
        return 200_000 / (performance.now() - from);
      };
      const [own, plain] = [await rate(url + ours), await rate(base + theirs)];
      ratios.push(own / plain);
      last = `${own.toFixed(0)} against ${plain.toFixed(0)} requests/s in the last round`;
    }
    ratios.sort((a, b) => a - b);
    console.log(`  ${what}, through all checks: ${ratios[4]?.toFixed(2)} × bare Express (median of 9; ${last})`);
  }
  await new Promise<void>((done) => {
    server.closeAllConnections();
    server.close(() => done());
  });
}

const found = [];
for (const years of YEARS) found.push(await measured(years));
const [first, last] = found as [Map<string, Times>, Map<string, Times>];
const rows: Row[] = [...last].map(([name, now]) => ({ name, by: [first.get(name) as Times, now] }));
const ms = (value: number) => value.toFixed(1).padStart(8);
console.log(`\n${''.padEnd(44)}   median      p99       kB   median of year 1, growth`);
for (const { name, by } of rows) {
  const [then, now] = by as [Times, Times];
  const most = /^(GET|what|laying out|closing)/.test(name) ? GET_P99_MS : TAP_P99_MS;
  console.log(
    `${name.slice(0, 44).padEnd(44)} ${ms(now.median)} ${ms(now.p99)} ${(now.bytes / 1024).toFixed(0).padStart(8)} ${ms(then.median)} ${`${(now.median / then.median).toFixed(1)} ×`.padStart(8)}${now.p99 > most ? `   over ${most} ms` : ''}`,
  );
}
