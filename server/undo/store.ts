import { Failure } from '../../core/failure.ts';
import { partOf } from '../../core/plastisol/bin.ts';
import { asLayer, asRow, type LayerRow } from '../bins/layers.ts';
import { unsayPuck } from '../bins/pucks.ts';
import { getBin, refuseUnlessGiven } from '../bins/store.ts';
import { clockStep } from '../clocks/store.ts';
import { type Log, takeBack } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { first, mustFind, type Row } from '../db/rows.ts';
import { getLedger, refuseClosed } from '../ledgers/store.ts';
import { getMaterial } from '../materials/store.ts';
import { getMold } from '../molds/store.ts';
import { countComplaint } from '../pours/counts.ts';
import { refusePouredIn } from '../pours/entered.ts';
import { cupOfPart } from '../pours/parts.ts';
import { getPour } from '../pours/read.ts';
import { aboutMold } from '../pours/shots.ts';
import { openPour } from '../pours/write.ts';
import { backOnTheRack, refuseUnlessMoved } from '../stock/store.ts';

interface Way {
  touches: string[];
  /** What the reversing row says otherwise. */
  change?(row: Row): Row;
  /** What follows from it, and the record that now tells otherwise; refuses where the row has to stay. */
  after(db: Db, row: Row, now: Date): unknown;
}

const AT_THE_CUP = ['pours', 'clocks', 'today', 'line', 'molds'];

const OF_A_MOLD: Way = {
  touches: ['molds', 'masters', 'line', 'today'],
  after: (db, row) => getMold(db, String(row.moldId)),
};
const IN_WATER: Way = { touches: ['water-tests', 'kick-fit', 'masters', 'ladders'], after: () => ({}) };

/** How each kind of row is taken back, and what that changes besides. */
const WAYS: Record<Log, Way> = {
  dose: {
    touches: ['ledgers', 'pours'],
    after: (db, { ledgerId }) => {
      refuseClosed(db, String(ledgerId));
      return getLedger(db, String(ledgerId));
    },
  },
  heat: {
    touches: AT_THE_CUP,
    change: () => ({ kind: 'reversed', c: null }),
    after: (db, { pourId }) => getPour(db, openPour(db, String(pourId)).id),
  },
  shot: {
    touches: AT_THE_CUP,
    after: (db, { pourId, moldId }, now) => {
      const { id } = openPour(db, String(pourId));
      clockStep(db, 'shotTakenBack', aboutMold(id, String(moldId)), now);
      return getPour(db, id);
    },
  },
  layer_redo: {
    touches: AT_THE_CUP,
    after: (db, { shotId }) =>
      getPour(db, openPour(db, mustFind<{ pourId: string }>(db, 'shot', String(shotId), 'shot').pourId).id),
  },
  hardness_reading: {
    touches: ['pours', 'clocks', 'today', 'recipes', 'insight'],
    after: (db, { pourId }) => getPour(db, String(pourId)),
  },
  mold_weighing: OF_A_MOLD,
  dip_reading: OF_A_MOLD,
  spark_run: OF_A_MOLD,
  water_test: IN_WATER,
  ladder_trial: IN_WATER,
  bin_move: {
    touches: ['bins', 'recipes'],
    change: (row) => ({ kind: 'reversed', ...asRow(partOf(asLayer(row as unknown as LayerRow), -1)) }),
    after: (db, row) => {
      refuseUnlessGiven(row);
      return getBin(db, String(row.binId));
    },
  },
  colour_step: {
    touches: ['materials', 'recipes'],
    after: (db, { materialId }) => getMaterial(db, String(materialId)),
  },
  colour_look: { touches: ['looks', 'materials', 'recipes'], after: () => ({}) },
  bin_puck: {
    touches: ['bins', 'recipes'],
    after: (db, { id, binId }, now) => {
      unsayPuck(db, String(id), now.toISOString());
      return getBin(db, String(binId));
    },
  },
  bench_tick: {
    touches: ['pours'],
    after: (db, { pourId }) => getPour(db, openPour(db, String(pourId)).id),
  },
  bait_weighing: {
    touches: AT_THE_CUP,
    after: (db, { shotId }) =>
      getPour(db, openPour(db, mustFind<{ pourId: string }>(db, 'shot', String(shotId), 'shot').pourId).id),
  },
  complaint: {
    touches: ['complaints', 'pours', 'molds', 'insight', 'today', 'customers'],
    after: (db, { pourId, moldId, reason, baits }) => {
      countComplaint(db, { pourId: String(pourId), moldId: String(moldId), reason: String(reason) }, -Number(baits));
      return {};
    },
  },
  stir: {
    touches: AT_THE_CUP,
    after: (db, { pourId }, now) => {
      const { id } = openPour(db, String(pourId));
      clockStep(db, 'stirOver', { type: 'pour', id }, now);
      return getPour(db, id);
    },
  },
  burst: {
    touches: AT_THE_CUP,
    after: (db, { pourId }, now) => {
      const { id } = openPour(db, String(pourId));
      clockStep(db, 'burstOver', { type: 'pour', id }, now);
      return getPour(db, id);
    },
  },
  part_weighing: {
    touches: ['pours'],
    after: (db, { partId }) => {
      refusePouredIn(db, String(partId));
      return getPour(db, openPour(db, cupOfPart(db, String(partId))).id);
    },
  },
  stock_move: {
    touches: ['rack', 'orders', 'today', 'line', 'recipes', 'pours'],
    change: backOnTheRack,
    after: (_db, row) => {
      refuseUnlessMoved(row);
      return {};
    },
  },
};

function logOf(db: Db, rowId: string): Log {
  const found = (Object.keys(WAYS) as Log[]).find((log) => first(db, `SELECT 1 FROM ${log} WHERE id = ?`, [rowId]));
  if (!found) throw new Failure('not-found', 'There is nothing like that to take back.');
  return found;
}

/** What any of them makes stale. */
export const UNDO_TOUCHES = [...new Set(Object.values(WAYS).flatMap((way) => way.touches))];

/**
 * Takes a row of any log back. @param own the id of the reversing row, where the screen chose it.
 * @returns the record that now tells otherwise.
 * @throws Failure `not-found`, `already-reversed`, `pour-closed`.
 */
export function undo(db: Db, rowId: string, own: string | undefined, now: Date): unknown {
  const log = logOf(db, rowId);
  const { change, after } = WAYS[log];
  return after(db, takeBack(db, log, { id: rowId, own, at: now.toISOString(), change }), now);
}
