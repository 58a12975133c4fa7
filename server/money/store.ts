import { format } from 'date-fns/format';
import type { Money } from '../../contract/money.ts';
import { usual } from '../../core/defaults.ts';
import { shareExactly } from '../../core/plan/cost.ts';
import { handsS } from '../../core/plan/hours.ts';
import type { SoldRow } from '../../core/plan/margins.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { costOfBags, costPerGram, unpricedIn } from '../materials/costs.ts';
import { packTime } from '../orders/packing.ts';
import { handsOf } from '../pours/hands.ts';
import { type Sold, soldIn } from '../stock/sold.ts';

interface Made {
  pourId: string;
  baitId: string;
  moldId: string;
  cavities: number;
  cavityMl: number;
  sell: number;
  made: number;
}

/** Molds of each cup that made the bait, with what they gave. */
const madeIn = (db: Db, pourIds: string[]) =>
  all<Made>(
    db,
    `SELECT pm.pour_id, mold.bait_id, pm.mold_id, mold.cavities, mold.cavity_ml, coalesce(pm.sell, 0) AS sell,
       coalesce(pm.sell + pm.own + pm.remelt, 0) AS made
     FROM json_each(?) one JOIN pour_mold pm ON pm.pour_id = one.value JOIN mold ON mold.id = pm.mold_id`,
    [JSON.stringify(pourIds)],
  );

/** Orders that were sent and due within these days, with what they cost here. */
export function moneyOf(db: Db, from: string, to: string): Money {
  const sold = soldIn(db, from, to);
  const pourIds = [...new Set(sold.map(({ pourId }) => pourId))];
  const bagIds = [...new Set(sold.flatMap((row) => row.bagIds))];
  const [gram, besides, made] = [costPerGram(db, pourIds), costOfBags(db, bagIds), madeIn(db, pourIds)];
  const hands = new Map(handsOf(db, null).map((one) => [one.moldId, one.handsS]));
  const { packS } = packTime(db);
  const ofLine = new Map<string, Sold[]>();
  for (const row of sold) ofLine.set(row.lineId, [...(ofLine.get(row.lineId) ?? []), row]);
  const rows = [...ofLine.values()].flatMap((parts): SoldRow[] => {
    const [one] = parts as [Sold];
    // A bag filled out of two cups is one bag: its label and its packing are shared by the baits.
    const bags = [...new Set(parts.flatMap((row) => row.bagIds))];
    const bagsMinor = bags.reduce((sum, id) => sum + (besides.get(id) ?? 0), 0);
    const all = parts.reduce((sum, { baits }) => sum + baits, 0);
    const paid = one.gift ? 0 : one.priceMinor === null ? null : one.packs * one.priceMinor;
    const shares =
      paid === null
        ? []
        : shareExactly(
            parts.map(({ baits }) => (paid * baits) / all),
            paid,
          );
    return parts.map(({ lineId: _l, packs: _, priceMinor: _price, pourId, pouredAt, bagIds: _b, ...row }, i) => {
      const molds = made.filter((mold) => mold.pourId === pourId && mold.baitId === row.baitId);
      const sell = Math.max(
        1,
        molds.reduce((sum, mold) => sum + mold.sell, 0),
      );
      // Each bait of a mold takes its share of a shot's hands, those of the rejects too.
      const shotS = molds.reduce(
        (sum, { moldId, cavities, made: n }) => sum + ((hands.get(moldId) ?? handsS(cavities)) * n) / cavities,
        0,
      );
      const ml = molds.reduce((sum, mold) => sum + mold.cavityMl * mold.sell, 0) / sell || (molds[0]?.cavityMl ?? 0);
      return {
        ...row,
        evening: format(new Date(pouredAt), 'yyyy-MM-dd'),
        revenueMinor: shares[i] ?? null,
        materialMinor:
          row.baits * ml * usual('plastisolGPerMl') * (gram.get(pourId) ?? 0) + (bagsMinor * row.baits) / all,
        minutes: (row.baits * (shotS / sell) + (bags.length * packS * row.baits) / all) / 60,
      };
    });
  });
  return { rows, unpriced: unpricedIn(db, pourIds, bagIds) };
}
