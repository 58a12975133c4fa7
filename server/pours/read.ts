import type { Page } from '../../contract/fields.ts';
import type {
  Balance,
  HardnessReading,
  Heat,
  Mark,
  Pour,
  PourQuery,
  PourRow,
  Shot,
  ShotPart,
} from '../../contract/pours.ts';
import type { HeatLimit } from '../../core/heat/window.ts';
import { cupItems } from '../../core/plan/cup.ts';
import { curedAt } from '../../core/process/cure.ts';
import { balanceOf } from '../../core/yield/counts.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, mustFind, type Row } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { dosedInto, dosesOf } from '../ledgers/store.ts';
import { lotsOfPour } from '../materials/store.ts';
import { itemsOf } from '../recipes/store.ts';
import { bagsOfPour } from '../stock/bags.ts';
import { ownUnits } from '../workshop/store.ts';
import { countMarks, totalOf } from './counts.ts';
import { dosedIn } from './dosed.ts';
import { drawnMl } from './drawn.ts';
import { blendOf, partsOf } from './parts.ts';
import { cupsOfSet, eveningOf, layersOfPour, lentBy, moldsOf } from './sets.ts';
import { stirOfPour } from './stirs.ts';
import { ticksOf } from './ticks.ts';
import { weighingsOf } from './weighings.ts';

const LISTING = {
  select: `SELECT /*sort*/ pour.id, pour.version, pour.code, pour.recipe_id, recipe.name AS recipe_name, recipe.hex, pour.colourway_id,
    c.name AS colourway_name, pour.lead_id, pour.cook_ml, pour.laid_out_at, pour.started_at, pour.closed_at, pour.discarded_at
    FROM pour JOIN recipe ON recipe.id = pour.recipe_id JOIN colourway_called c ON c.id = pour.colourway_id`,
  sorts: { time: 'pour.laid_out_at', code: 'pour.code' },
  order: '-time',
  // Each by its own index; the plus keeps the order by time, which stops at a page. Only what looks like a code is held against all codes.
  search: (word: string) =>
    `+pour.rowid IN (${/\d/.test(word) ? 'SELECT rowid FROM pour WHERE instr(code, @code) UNION ALL ' : ''}
      SELECT rowid FROM pour WHERE recipe_id IN (SELECT id FROM recipe WHERE name LIKE @q) UNION ALL
      SELECT rowid FROM pour WHERE colourway_id IN (SELECT id FROM colourway_called WHERE name LIKE @q))`,
  idColumn: 'pour.id',
};

type Counts = Pick<PourRow, 'shots' | 'sell' | 'own' | 'remelt' | 'baits'>;

interface Made extends Counts {
  pourId: string;
}

/** What closed cups came to and what each was to make: one query for a whole page. */
function countsByPour(db: Db, ids: string[]): Map<string, Counts> {
  const rows = all<Made>(
    db,
    `SELECT pour_id, coalesce(sum(drawn), 0) AS shots, coalesce(sum(sell), 0) AS sell, coalesce(sum(own), 0) AS own,
       coalesce(sum(remelt), 0) AS remelt,       group_concat(bait, ', ') AS baits
     FROM (
       SELECT pm.pour_id, sum(pm.drawn) AS drawn, sum(pm.sell) AS sell, sum(pm.own) AS own, sum(pm.remelt) AS remelt, bait.name AS bait
       FROM pour_mold pm JOIN mold ON mold.id = pm.mold_id JOIN bait ON bait.id = mold.bait_id
       WHERE pm.pour_id IN (SELECT value FROM json_each(?)) GROUP BY pm.pour_id, bait.id ORDER BY pm.pour_id, min(pm.position)
     ) GROUP BY pour_id`,
    [JSON.stringify(ids)],
  );
  return new Map(rows.map(({ pourId, ...counts }) => [pourId, counts]));
}

/** The rows of one page, before their counts; also what the benchmark times beside the raw query. */
export const pourPage = (db: Db, { only, ...query }: PourQuery) =>
  page<Omit<PourRow, keyof Counts>>(db, only ? { ...LISTING, where: 'pour.closed_at IS NULL' } : LISTING, query);

export function listPours(db: Db, query: PourQuery): Page<PourRow> {
  const found = pourPage(db, query);
  // Counted for the page's rows only, and all at once, so that the length of the history does not matter.
  const counts = countsByPour(
    db,
    found.items.map((row) => row.id),
  );
  const items = found.items.map((row): PourRow => {
    const closed = counts.get(row.id) ?? { shots: 0, sell: 0, own: 0, remelt: 0, baits: '' };
    if (row.closedAt !== null || row.startedAt === null) return { ...row, ...closed };
    const marks = countMarks(db, row.id);
    const [shots, sell, own, remelt] = (['drawn', 'sell', 'own', 'remelt'] as const).map((of) =>
      totalOf(marks, of),
    ) as [number, number, number, number];
    return { ...row, shots, sell, own, remelt, baits: closed.baits };
  });
  return { ...found, items };
}

type Redone = Shot['redone'][number];

/** The shots that a cup leads, each with what it drew of which cup, what was redone, and how its baits came out. */
export function shotsOf(db: Db, pourId: string): Shot[] {
  const shots = all<Omit<Shot, 'marks' | 'parts' | 'redone' | 'weighed'>>(
    db,
    'SELECT seq, id, mold_id, at FROM shot_live WHERE pour_id = ? ORDER BY seq',
    [pourId],
  );
  const marks = all<Mark & { shotId: string }>(
    db,
    `SELECT m.shot_id, m.cavity, m.grade, m.reason, max(m.seq) FROM shot_live s CROSS JOIN cavity_mark m ON m.shot_id = s.id
     WHERE s.pour_id = ? GROUP BY m.shot_id, m.cavity ORDER BY m.cavity`,
    [pourId],
  );
  const parts = all<ShotPart & { shotId: string }>(
    db,
    `SELECT p.shot_id, p.layer, p.pour_id, p.dose_seq, p.heat_seq, p.ml, p.at FROM shot s CROSS JOIN shot_part p ON p.shot_id = s.id
     WHERE s.pour_id = ? ORDER BY p.seq`,
    [pourId],
  );
  const weighed = weighingsOf(db, pourId);
  const redone = all<Redone & { shotId: string }>(
    db,
    `SELECT r.shot_id, r.id, r.layer, r.cavity, r.ml, r.minutes, r.reason FROM shot s CROSS JOIN layer_redo r ON r.shot_id = s.id
     WHERE s.pour_id = ? AND ${standing('layer_redo', 'r')} ORDER BY r.seq`,
    [pourId],
  );
  const of = <R extends { shotId: string }>(rows: R[], id: string) =>
    rows.filter((row) => row.shotId === id).map(({ shotId: _, ...row }) => row);
  return shots.map((shot) => ({
    ...shot,
    parts: of(parts, shot.id),
    weighed: of(weighed, shot.id),
    redone: of(redone, shot.id),
    marks: of(marks, shot.id).map(({ cavity, grade, reason }) => ({ cavity, grade, reason })),
  }));
}

export const heatsOf = (db: Db, pourId: string) =>
  all<Heat>(
    db,
    `SELECT seq, id, kind, c, instrument_id, at FROM heat h WHERE pour_id = ? AND ${standing('heat', 'h')} ORDER BY seq`,
    [pourId],
  );

export const hardnessOf = (db: Db, pourId: string) =>
  all<HardnessReading>(
    db,
    `SELECT id, scale, value, c, early, at FROM hardness_reading h WHERE pour_id = ? AND ${standing('hardness_reading', 'h')} ORDER BY seq`,
    [pourId],
  );

/** What flake and powder bear that are in the cup, or that its recipe puts there; what is wanted turned bears any heat. */
const limitsOf = (db: Db, { recipeRevisionId, ledgerId }: PourRecord) =>
  all<HeatLimit>(
    db,
    `SELECT name, limit_c AS c FROM material WHERE limit_c IS NOT NULL AND (
       id IN (SELECT material_id FROM recipe_item WHERE revision_id = @recipeRevisionId) OR
       id IN (${dosedInto('@ledgerId')}))
       AND id NOT IN (SELECT material_id FROM recipe_item WHERE revision_id = @recipeRevisionId AND turned = 1)
     ORDER BY limit_c, name`,
    { recipeRevisionId, ledgerId },
  );

function weighedOf(db: Db, pourId: string): Balance | null {
  const row = first<Balance>(
    db,
    'SELECT cooked_g, good_g, reject_g, returned_g, residue_g, degassed_g, at FROM balance WHERE pour_id = ? ORDER BY seq DESC LIMIT 1',
    [pourId],
  );
  return row ? { ...row, ...balanceOf(row, [row]) } : null;
}

interface PourRecord extends Row {
  id: string;
  version: number;
  code: string;
  recipeId: string;
  recipeRevisionId: string;
  colourwayId: string;
  colourwayRevisionId: string;
  leadId: string | null;
  eveningId: string | null;
  ledgerId: string;
  makerId: string | null;
  cookMl: number;
  plan: Pour['plan'];
  wantedScale: 'A' | '00' | null;
  wantedHardness: number | null;
  laidOutAt: string;
  startedAt: string | null;
  closedAt: string | null;
  discardedAt: string | null;
}

export function getPour(db: Db, id: string): Pour {
  const row = mustFind<PourRecord>(db, 'pour', id, 'pour');
  const recipe = mustFind<{ name: string; hex: string }>(db, 'recipe', row.recipeId, 'recipe');
  const colourway = first<{ name: string }>(db, 'SELECT name FROM colourway_called WHERE id = ?', [row.colourwayId]);
  const { number, basisMl } = mustFind<{ number: number; basisMl: number }>(
    db,
    'recipe_revision',
    row.recipeRevisionId,
    'recipe revision',
  );
  // Until it is weighed, a cup is dosed from the bottles that are in use: another one drips otherwise.
  const lines = itemsOf(db, row.recipeRevisionId);
  const layers = layersOfPour(db, row.colourwayRevisionId);
  const shots = shotsOf(db, id);
  const { g, byDefault } = dosedIn(db, row.ledgerId);
  const parts = partsOf(db, id, row.plan.cookG);
  const weighed = weighedOf(db, id);
  const wanted =
    row.wantedScale && row.wantedHardness !== null ? { scale: row.wantedScale, value: row.wantedHardness } : null;
  return {
    id,
    version: row.version,
    code: row.code,
    recipeId: row.recipeId,
    recipeName: recipe.name,
    hex: recipe.hex,
    colourwayId: row.colourwayId,
    colourwayName: colourway?.name ?? recipe.name,
    layers,
    leadId: row.leadId,
    cups: cupsOfSet(db, row, layers),
    evening: eveningOf(db, row),
    lent: lentBy(db, id),
    recipeRevision: number,
    parts,
    blend: blendOf(db, { ...row, wanted }, parts, weighed?.cookedG ?? null),
    makerId: row.makerId,
    ledgerId: row.ledgerId,
    cookMl: row.cookMl,
    plan: row.closedAt ? row.plan : { ...row.plan, items: cupItems({ basisMl, lines }, row.cookMl, ownUnits(db)) },
    wanted,
    laidOutAt: row.laidOutAt,
    startedAt: row.startedAt,
    closedAt: row.closedAt,
    discardedAt: row.discardedAt,
    curedAt: curedAt(shots.map((shot) => shot.at)),
    molds: moldsOf(db, row),
    recipeItems: lines,
    doses: dosesOf(db, row.ledgerId),
    drawnMl: drawnMl(db, id),
    dosed: { g, byDefault },
    heats: heatsOf(db, id),
    limits: limitsOf(db, row),
    stir: row.closedAt ? null : stirOfPour(db, row),
    shots,
    ticks: ticksOf(db, row),
    balance: weighed,
    hardness: hardnessOf(db, id),
    orders: all(
      db,
      `SELECT o.id AS order_id, o.code, customer.name AS customer, o.due_on, bait.name AS bait_name, pl.baits
       FROM pour_order_line pl JOIN order_line l ON l.id = pl.order_line_id JOIN customer_order o ON o.id = l.order_id
       JOIN customer ON customer.id = o.customer_id JOIN bait ON bait.id = l.bait_id WHERE pl.pour_id = ? ORDER BY o.due_on`,
      [id],
    ),
    lots: lotsOfPour(db, id),
    bags: bagsOfPour(db, id),
  };
}
