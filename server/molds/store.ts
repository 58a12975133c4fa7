import type * as v from 'valibot';
import type { ListQuery, Page } from '../../contract/fields.ts';
import type { CavityHealth, Mold, MoldEvent, MoldFacts, MoldRow, moldBody, Weighing } from '../../contract/molds.ts';
import { Failure } from '../../core/failure.ts';
import { plan } from '../../core/mold/silicone.ts';
import type { Grade } from '../../core/yield/grades.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';
import {
  countsByCavity,
  countsByMold,
  countsOfMany,
  type MoldCount,
  madeOf,
  NOTHING,
  rejectedOf,
} from '../pours/counts.ts';
import { addBait } from '../workshop/store.ts';
import { careOf, heldBy, lineOf, weighingsByMold } from './care.ts';
import { factsOf } from './facts.ts';

const LISTING = {
  select: `SELECT /*sort*/ mold.*, bait.name AS bait_name, bait.shape,
    (SELECT max(e.at) FROM mold_event e WHERE e.mold_id = mold.id AND e.kind = 'mixed') AS mixed_at,
    (SELECT e.kind FROM mold_event e WHERE e.mold_id = mold.id AND e.step = 'demold' ORDER BY e.seq DESC LIMIT 1) AS demolded
    FROM mold JOIN bait ON bait.id = mold.bait_id`,
  sorts: { name: 'mold.name', created: 'mold.created_at' },
  order: 'name',
  search: "(mold.name || ' ' || bait.name) LIKE @q",
  idColumn: 'mold.id',
};

type Stored<T> = Omit<T, 'readyAt' | 'estimate' | 'weighed'> & { mixedAt: string | null; demolded: string | null };

/** Rubber that was planned here is a mold once its demold step is ticked; until then it has a moment, or none yet. */
function readyAtOf({ plan, mixedAt, demolded }: Pick<Stored<MoldRow>, 'plan' | 'mixedAt' | 'demolded'>): string | null {
  if (!plan || demolded === 'step') return null;
  return mixedAt ? new Date(Date.parse(mixedAt) + plan.output.demoldMin * 60_000).toISOString() : 'unmixed';
}

interface Known {
  counts: Map<string, MoldCount>;
  weighings: Map<string, Weighing[]>;
}
const known = (db: Db): Known => ({ counts: countsByMold(db), weighings: weighingsByMold(db) });

function complete({ mixedAt, demolded, ...row }: Stored<MoldRow>, { counts, weighings }: Known): MoldRow {
  const counted = counts.get(row.id) ?? NOTHING;
  return {
    ...row,
    ...heldBy(row, weighings.get(row.id) ?? []),
    readyAt: readyAtOf({ plan: row.plan, mixedAt, demolded }),
    shots: counted.drawn,
    made: madeOf(counted),
    rejected: rejectedOf(counted),
  };
}

export function listMolds(db: Db, query: ListQuery): Page<MoldRow> {
  const found = page<Stored<MoldRow>>(db, LISTING, query);
  const all = known(db);
  return { ...found, items: found.items.map((row) => complete(row, all)) };
}

/** Molds that can be poured now. */
export function usableMolds(db: Db): MoldRow[] {
  const of = known(db);
  const sql = `${LISTING.select.replace('/*sort*/', '')} WHERE mold.retired_at IS NULL ORDER BY mold.created_at`;
  return all<Stored<MoldRow>>(db, sql).map((row) => complete(row, of));
}

function healthOf(db: Db, mold: Pick<MoldRow, 'id' | 'cavities'>): CavityHealth[] {
  const rows = countsByCavity(db, mold.id);
  return Array.from({ length: mold.cavities }, (_, index) => {
    const mine = rows.filter((row) => row.cavity === index + 1);
    const reasons = new Map<string, number>();
    for (const { grade, reason, count } of mine)
      if (grade !== 'sell') reasons.set(reason, (reasons.get(reason) ?? 0) + count);
    return {
      cavity: index + 1,
      made: mine.reduce((sum, row) => sum + row.count, 0),
      rejected: [...reasons.values()].reduce((sum, n) => sum + n, 0),
      reasons: [...reasons].map(([reason, count]) => ({ reason, count })).sort((a, b) => b.count - a.count),
    };
  });
}

const poursOf = (db: Db, moldId: string) =>
  all<Omit<Mold['pours'][number], 'shots' | Grade>>(
    db,
    `SELECT pour.id, pour.code, c.name AS colourway_name, c.hex, pour.laid_out_at AS at
     FROM pour_mold pm JOIN pour ON pour.id = pm.pour_id JOIN colourway_called c ON c.id = pour.colourway_id
     WHERE pm.mold_id = ? ORDER BY pour.laid_out_at DESC LIMIT 12`,
    [moldId],
  );

export function getMold(db: Db, id: string): Mold {
  mustFind(db, 'mold', id, 'mold');
  const row = first<Stored<MoldRow & Pick<Mold, 'build'>>>(
    db,
    `${LISTING.select.replace('/*sort*/', '')} WHERE mold.id = ?`,
    [id],
  ) as Stored<MoldRow & Pick<Mold, 'build'>>;
  const sofar = known(db);
  const { thicknessMm, wallMm } = factsOf(db, [id]).get(id) as MoldFacts;
  const pours = poursOf(db, id);
  const counts = countsOfMany(
    db,
    pours.map((pour) => pour.id),
  );
  return {
    build: row.build,
    facts: { thicknessMm, wallMm },
    ...complete(row, sofar),
    events: all<MoldEvent>(db, 'SELECT id, kind, step, detail, at FROM mold_event WHERE mold_id = ? ORDER BY seq', [
      id,
    ]),
    health: healthOf(db, row),
    care: careOf(db, row, sofar.counts),
    ...lineOf(db, row, sofar.counts),
    master:
      first(db, 'SELECT master_id, number AS revision_number FROM master_revision WHERE id = ?', [row.revisionId]) ??
      null,
    pours: pours.map((pour) => {
      const counted = counts.get(pour.id)?.find((one) => one.moldId === id);
      const { drawn, sell, own, remelt } = counted ?? NOTHING;
      return { ...pour, shots: drawn, sell, own, remelt };
    }),
  };
}

type NewMold = v.InferOutput<typeof moldBody>;

function planOf(body: NewMold) {
  if (!body.planInput) return null;
  const output = plan(body.planInput);
  const masters = body.planInput.masters.reduce((sum, master) => sum + master.count, 0);
  const places = body.making?.places;
  if (places && places.length !== masters)
    throw new Failure('invalid-input', `There are ${masters} masters but ${places.length} places.`, 'making.places');
  if (masters !== body.cavities) {
    throw new Failure(
      'invalid-input',
      `The plan has ${masters} masters but the mold ${body.cavities} cavities.`,
      'cavities',
    );
  }
  return { input: body.planInput, output };
}

export function refuseInserts(inserts: NewMold['inserts'], cavities: number): void {
  const astray = (inserts ?? []).findIndex((one) => one.cavity !== null && one.cavity > cavities);
  if (astray >= 0)
    throw new Failure(
      'invalid-input',
      `The mold has ${cavities} cavities; there is none for this insert.`,
      `inserts.${astray}.cavity`,
    );
}

export function addMold(db: Db, body: NewMold, at: string, rebuiltFromId?: string): string {
  refuseInserts(body.inserts, body.cavities);
  const { newBait, planInput: _, mixed: __, ...values } = body;
  const planned = planOf(body);
  const baitId = newBait ? addBait(db, newBait, at) : (body.baitId as string);
  if (
    body.revisionId &&
    !first(db, 'SELECT 1 FROM master_revision r JOIN master m ON m.id = r.master_id WHERE r.id = ? AND m.bait_id = ?', [
      body.revisionId,
      baitId,
    ])
  ) {
    throw new Failure('invalid-input', 'That revision is not of a master of this bait.', 'revisionId');
  }
  const columns = planned?.output.columns ?? body.columns ?? Math.min(body.cavities, 4);
  const id = newId();
  insert(db, 'mold', {
    id,
    ...values,
    baitId,
    columns,
    rows: Math.ceil(body.cavities / columns),
    plan: planned,
    rebuiltFromId,
    createdAt: at,
  });
  return id;
}
