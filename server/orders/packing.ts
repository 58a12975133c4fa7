import type { Packing, PackTime } from '../../contract/packing.ts';
import { usual } from '../../core/defaults.ts';
import { tried } from '../../core/failure.ts';
import { learntPacking } from '../../core/plan/learntPacking.ts';
import { baitMass, type WeighedBag } from '../../core/plan/packCount.ts';
import { setOf } from '../../core/plan/sets.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { packedWith } from '../materials/store.ts';
import { bagTimes } from '../stock/bags.ts';
import { take } from '../stock/store.ts';
import { workshop } from '../workshop/store.ts';
import { linesOf } from './store.ts';

/** Bags that are learnt from: hands get used to it, a recipe changes. */
const [BAGS_TIMED, BAGS_WEIGHED] = [60, 20];

/** How long a bag takes here. */
export function packTime(db: Db): PackTime {
  const bags = bagTimes(db, BAGS_TIMED);
  const gaps = bags.flatMap(({ orderId, at }, i) => {
    const before = bags[i - 1];
    return before?.orderId === orderId ? [(Date.parse(at) - Date.parse(before.at)) / 1000] : [];
  });
  return learntPacking(gaps, workshop(db).packS);
}

function massOf(db: Db, baitId: string, colourwayId: string): Packing['lines'][number]['mass'] {
  const bags = all<WeighedBag>(
    db,
    `SELECT grams, baits FROM bag_weighing WHERE bait_id = @baitId AND colourway_id = @colourwayId ORDER BY at DESC LIMIT ${BAGS_WEIGHED}`,
    { baitId, colourwayId },
  );
  const volume = first<{ ml: number | null }>(
    db,
    'SELECT avg(cavity_ml) AS ml FROM mold WHERE bait_id = @baitId AND retired_at IS NULL',
    { baitId },
  );
  if (bags.length === 0 && !volume?.ml) return null;
  return baitMass((volume?.ml ?? 0) * usual('plastisolGPerMl'), bags);
}

/** What the packing table of an order works with. */
export function packingOf(db: Db, orderId: string, at: string): Packing {
  const codes = new Map<string, string>();
  const codeOf = (id: string) => {
    const known = codes.get(id) ?? first<{ code: string }>(db, 'SELECT code FROM pour WHERE id = ?', [id])?.code ?? '';
    codes.set(id, known);
    return known;
  };
  const lines = linesOf(db, orderId);
  const fromOf = ({ baitId, colourwayId, perPack }: (typeof lines)[number]) =>
    tried(() => take(db, { baitId, colourwayId, grade: 'sell' }, perPack, true, at)).value ?? [];
  return {
    lines: lines.map((line) => {
      const set = setOf(lines, line);
      const takes = set.map(fromOf);
      return {
        lineId: line.id,
        // What a set weighs says nothing of one bait.
        mass: set.length > 1 ? null : massOf(db, line.baitId, line.colourwayId),
        from: takes.every((one) => one.length > 0)
          ? takes.flat().map(({ pourId, baits }) => ({ pourCode: codeOf(pourId), baits }))
          : [],
      };
    }),
    time: packTime(db),
    with: packedWith(db),
  };
}
