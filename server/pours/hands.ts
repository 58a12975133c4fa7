import type { Hands, Pour } from '../../contract/pours.ts';
import { learntHands } from '../../core/plan/learntHands.ts';
import { beforeLearning, type LearntWait, learntWait, OPENED_SOFT, SOFT_SHARE } from '../../core/process/learntWait.ts';
import { waitsByKind } from '../../core/process/waits.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

/** Shots of a mold that are learnt from: a mold wears in, and hands get used to it. */
const MOST_SHOTS = 30;

interface Turned {
  moldId: string;
  kind: Pour['molds'][number]['kind'];
  cavities: number;
  pourId: string;
  /** Shots of the mold in this cup before it. */
  before: number;
  filledAt: string;
  lookedAt: string | null;
  nextAt: string | null;
  /** Baits of it that were looked at, and those of them that came out soft. */
  looked: number;
  soft: number;
}

const seconds = (from: string, to: string) => (Date.parse(to) - Date.parse(from)) / 1000;

/** The newest shots of each mold in use, through the index of each mold by time. */
function turns(db: Db, makerId: string | null, moldIds: string[] | null = null): Map<string, Turned[]> {
  const rows = all<Turned>(
    db,
    `SELECT mold.id AS mold_id, mold.kind, mold.cavities, s.pour_id,
       (SELECT count(*) FROM shot_live b WHERE b.pour_id = s.pour_id AND b.mold_id = s.mold_id AND b.seq < s.seq) AS before,
       coalesce((SELECT max(p.at) FROM shot_part p WHERE p.shot_id = s.id), s.at) AS filled_at,
       (SELECT min(m.at) FROM cavity_mark m WHERE m.shot_id = s.id) AS looked_at,
       (SELECT min(n.at) FROM shot_live n WHERE n.pour_id = s.pour_id AND n.mold_id = s.mold_id AND n.seq > s.seq) AS next_at,
       (SELECT count(DISTINCT m.cavity) FROM cavity_mark m WHERE m.shot_id = s.id AND m.grade <> 'unmarked') AS looked,
       (SELECT count(DISTINCT m.cavity) FROM cavity_mark m, json_each(@soft) r WHERE m.shot_id = s.id AND m.reason = r.value) AS soft
     FROM mold JOIN shot_live s ON s.id IN (
       SELECT l.id FROM shot l JOIN pour ON pour.id = l.pour_id
       WHERE l.mold_id = mold.id AND ${standing('shot', 'l')} AND (@makerId IS NULL OR pour.maker_id = @makerId)
       ORDER BY l.at DESC LIMIT ${MOST_SHOTS})
     WHERE mold.retired_at IS NULL AND (@moldIds IS NULL OR mold.id IN (SELECT value FROM json_each(@moldIds)))`,
    { makerId, moldIds: moldIds && JSON.stringify(moldIds), soft: JSON.stringify(OPENED_SOFT) },
  );
  const by = new Map<string, Turned[]>();
  for (const row of rows) by.set(row.moldId, [...(by.get(row.moldId) ?? []), row]);
  return by;
}

/** What the cups of these shots were laid out with. */
function plansOf(db: Db, rows: Turned[]): Map<string, Pour['plan']> {
  const ids = [...new Set(rows.map(({ pourId }) => pourId))];
  return new Map(
    all<{ id: string; plan: Pour['plan'] }>(
      db,
      'SELECT pour.id, pour.plan FROM json_each(@ids) one JOIN pour ON pour.id = one.value',
      { ids: JSON.stringify(ids) },
    ).map(({ id, plan }) => [id, plan]),
  );
}

function waitOfMold(rows: Turned[], plans: Map<string, Pour['plan']>): LearntWait {
  return learntWait(
    rows.flatMap(({ moldId, kind, pourId, before, filledAt, lookedAt, looked, soft }) => {
      if (!lookedAt || lookedAt <= filledAt) return [];
      const opens = plans.get(pourId)?.molds.find((mold) => mold.moldId === moldId)?.opens ?? waitsByKind(kind);
      const workedS = beforeLearning(opens, before);
      return [{ waitedS: seconds(filledAt, lookedAt), workedS, soft: looked > 0 && soft >= SOFT_SHARE * looked }];
    }),
  );
}

/**
 * How long hands take at each mold, by when shots were drawn, looked at, and the next one drawn, and how long it waits until
 * it is opened; of one maker where that is asked.
 */
export function handsOf(db: Db, makerId: string | null): Hands[] {
  const by = turns(db, makerId);
  const plans = plansOf(db, [...by.values()].flat());
  return [...by].map(([moldId, of]) => ({
    moldId,
    wait: waitOfMold(of, plans),
    ...learntHands(
      of[0]?.cavities ?? 1,
      of.flatMap(({ filledAt, lookedAt, nextAt }) =>
        lookedAt && nextAt && lookedAt > filledAt && nextAt > lookedAt
          ? [{ waitedS: seconds(filledAt, lookedAt), handsS: seconds(lookedAt, nextAt) }]
          : [],
      ),
    ),
  }));
}

/** What openings here made of the wait of these molds. */
export function waitsLearntIn(db: Db, moldIds: string[]): Map<string, LearntWait> {
  const by = turns(db, null, moldIds);
  const plans = plansOf(db, [...by.values()].flat());
  return new Map([...by].map(([moldId, of]) => [moldId, waitOfMold(of, plans)]));
}
