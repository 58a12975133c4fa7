import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import pino from 'pino';
import { expect, test } from 'vitest';
import type { Mold } from '../../contract/molds.ts';
import type { RackRow } from '../../contract/orders.ts';
import { open } from '../listen.ts';
import { newestSchema, schemaOf, strangeIn } from './migrate.ts';

type Value = string | number | null | { blob: string };
interface Released {
  schema: number;
  /** As its own program made it. */
  made: string[];
  rows: Record<string, Record<string, Value>[]>;
}

const folder = new URL('./released/', import.meta.url);
const released = readdirSync(folder).map((name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as Released);
const plain = (value: Value) => (value !== null && typeof value === 'object' ? Buffer.from(value.blob, 'hex') : value);

/** A workshop's file as a released program left it. */
function asReleased({ schema, made, rows }: Released, file: string): void {
  const db = new Database(file);
  db.pragma('foreign_keys = OFF');
  // Rows first where a trigger would work on them.
  const isTrigger = (sql: string) => /^CREATE TRIGGER/i.test(sql);
  for (const sql of made) if (!isTrigger(sql)) db.exec(sql);
  for (const [table, all] of Object.entries(rows))
    for (const row of all) {
      const columns = Object.keys(row);
      db.prepare(`INSERT INTO "${table}" (${columns.join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`).run(
        ...Object.values(row).map(plain),
      );
    }
  for (const sql of made) if (isTrigger(sql)) db.exec(sql);
  db.pragma(`user_version = ${schema}`);
  // A migration that landed stays as it was: else a workshop that was made by it would be refused as another program's.
  expect(strangeIn(db)).toBeNull();
  db.close();
}

const GRADE: Record<string, string> = { good: 'sell', bad: 'remelt', unmarked: 'unmarked' };
/** What was called good is to sell, what was bad goes to remelt. */
const renamed = ({ good, bad, result, ...row }: Record<string, Value>) => ({
  ...row,
  ...(good === undefined ? {} : { sell: good, own: good === null ? null : 0, remelt: bad as Value }),
  ...(result === undefined ? {} : { grade: GRADE[String(result)] as string }),
});
const BY_COLOURWAY = new Set(['order_line', 'stock_move', 'rack_level', 'bin']);
/** A recipe is a colourway of one melt: what was ordered, racked and kept by it goes by the same id. */
const byColourway = ({ recipe_id, ...row }: Record<string, Value>): Record<string, Value> => ({
  ...row,
  colourway_id: recipe_id as Value,
});

/** The rows as this program's schema has them: those of later migrations changed, all others as they were. */
function carried({ schema, rows }: Released): Released['rows'] {
  if (schema >= 7) {
    // They drew a laminate out of two injectors, and had never said that they have two.
    const workshop = (rows.workshop ?? []).map((row) => (row.injectors === 1 ? { ...row, injectors: 2 } : row));
    return { ...rows, workshop };
  }
  const graded = new Set(['cavity_mark', 'cavity_sum', 'pour_mold', 'mold_sum']);
  const racked = new Set(['stock_move', 'rack_level']);
  const { remelt_move: moves = [], remelt_level: _, bag: bags = [], shot: shots = [], ...others } = rows;
  const kept = Object.entries(others).map(([table, all]): [string, Record<string, Value>[]] => [
    table,
    all.map((before) => {
      const row = BY_COLOURWAY.has(table) ? byColourway(before) : before;
      if (graded.has(table)) return renamed(row);
      if (racked.has(table)) return { grade: 'sell', ...row };
      const { plastisol_id: _material, plastisol_lot_id: _lot, ...pour } = row;
      return table === 'pour' ? { ...pour, colourway_id: pour.recipe_id as Value, lead_id: null } : row;
    }),
  ]);
  const moved: Record<string, Record<string, Value>[]> = {
    bag: bags.map(({ bait_id: _b, recipe_id: _r, baits: _n, ...bag }) => bag),
    bag_content: bags.map(({ id, bait_id, recipe_id, baits }) => ({
      bag_id: id as Value,
      bait_id: bait_id as Value,
      colourway_id: recipe_id as Value,
      baits: baits as Value,
    })),
    shot: shots.map(({ dose_seq: _d, heat_seq: _h, ...shot }) => shot),
    // All of a shot came from its one cup, pinned as it was.
    shot_part: shots
      .filter((shot) => shot.reverses === null)
      .map((shot) => ({
        shot_id: shot.id as Value,
        pour_id: shot.pour_id as Value,
        dose_seq: shot.dose_seq as Value,
        heat_seq: shot.heat_seq as Value,
        at: shot.at as Value,
      })),
    colourway: (rows.recipe ?? []).map(({ id }) => ({ id: id as Value, recipe_id: id as Value })),
  };
  if (rows.remelt_move) {
    // A colour's grams lie in its own bin, each row as it was; the lot of a cup is all of its plastic.
    moved.bin_move = moves.map(({ recipe_id, ...row }) => ({ ...row, bin_id: recipe_id as Value }));
  }
  const lots = (rows.pour ?? []).filter((row) => (row.plastisol_lot_id ?? null) !== null);
  if (lots.length > 0)
    moved.cup_part = lots.map((row) => ({ pour_id: row.id as Value, lot_id: row.plastisol_lot_id as Value, share: 1 }));
  return { ...Object.fromEntries(kept), ...moved };
}

test('every released schema has a workshop of it here, the newest but the one this program makes included', () => {
  expect(released.map((one) => one.schema).sort((a, b) => a - b)).toEqual(
    Array.from({ length: newestSchema() - 1 }, (_, i) => i + 1),
  );
});

test.each(released.map((one) => [one.schema, one] as const))(
  'a workshop of schema %d is carried to the newest with every row as it was, and its sums right',
  async (_schema, one) => {
    const root = mkdtempSync(join(tmpdir(), 'blunko-released-'));
    mkdirSync(join(root, 'live'));
    asReleased(one, join(root, 'live', 'blunko.db'));
    const opened = await open({ root, clock: () => new Date(), log: pino({ level: 'silent' }), port: 0 });
    const { db } = opened.data;
    try {
      expect([schemaOf(db), strangeIn(db), db.pragma('foreign_key_check')]).toEqual([newestSchema(), null, []]);
      for (const [table, rows] of Object.entries(carried(one))) {
        if (rows.length === 0) continue;
        const columns = Object.keys(rows[0] ?? {});
        const now = db.prepare(`SELECT ${columns.join(', ')} FROM "${table}"`).all();
        expect(now, table).toHaveLength(rows.length);
        expect(now, table).toEqual(
          expect.arrayContaining(
            rows.map((row) => Object.fromEntries(Object.entries(row).map(([k, v]) => [k, plain(v)]))),
          ),
        );
      }
      // A liquid is kept in mL of the house strength, by whatever it was measured; what was weighed is not.
      const written = db.prepare('SELECT amount, unit, ml FROM recipe_item ORDER BY unit').all();
      expect(written).toEqual([
        { amount: 24, unit: 'drop', ml: 1.2 },
        ...(one.schema < 7
          ? []
          : [
              { amount: 1.5, unit: 'g', ml: null },
              { amount: 2, unit: 'mL', ml: 2 },
              { amount: 3, unit: 'scoop', ml: expect.closeTo(2.55, 12) },
              { amount: 2, unit: 'tsp', ml: expect.closeTo(9.8578431875, 12) },
            ]),
      ]);
      // Eleven good of one pour; eight went into a bag and two were fished: one lies on the rack. One of twelve was bad.
      const get = async <T>(path: string) => (await (await fetch(`${opened.url}/api${path}`)).json()) as T;
      const { items } = await get<{ items: RackRow[] }>('/rack');
      expect(items.map((row) => row.baits)).toEqual([1]);
      const moldId = one.rows.mold?.[0]?.id as string;
      const mold = await get<Mold>(`/molds/${moldId}`);
      expect([mold.made, mold.rejected, mold.health.map((cavity) => cavity.rejected)]).toEqual([12, 1, [1, 0, 0, 0]]);
      expect(mold.shots).toBe(4);
    } finally {
      await opened.close();
      rmSync(root, { recursive: true, force: true });
    }
  },
);
