import type { Unknown } from '../../contract/orders.ts';
import { saltUnknownInto } from '../bins/store.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

// What a cup and those that gave to its baits are made of and nobody knows: as drawn from bins and cups, of an open one as
// its bins stand. Any remelt leaves a hardness that was
// promised unknown.
const UNKNOWN = `
  WITH cup AS (
    SELECT pour.id AS led, pour.id, pour.closed_at FROM pour WHERE pour.id IN (SELECT value FROM json_each(@ids))
    UNION SELECT other.lead_id, other.id, other.closed_at FROM pour other WHERE other.lead_id IN (SELECT value FROM json_each(@ids))
  )
  SELECT cup.led AS pour_id,
    max(EXISTS (SELECT 1 FROM cup_part p WHERE p.pour_id = cup.id AND p.lot_id IS NULL)
      AND EXISTS (SELECT 1 FROM pour WHERE pour.id = cup.id AND pour.wanted_hardness IS NOT NULL)) AS remelt,
    max(${saltUnknownInto('cup.id')}
      OR EXISTS (SELECT 1 FROM cup_transfer t WHERE t.pour_id = cup.id AND t.salt_unknown_g > 1e-6)
      OR (cup.closed_at IS NULL AND EXISTS (SELECT 1 FROM cup_part p JOIN bin_level l ON l.bin_id = p.bin_id
        WHERE p.pour_id = cup.id AND l.salt_unknown_g > 1e-6))) AS salt
  FROM cup GROUP BY cup.led`;

/** What nobody knows of these cups' baits, so that no order is promised it in silence. */
export function unknownIn(db: Db, pourIds: string[]): Map<string, Unknown[]> {
  const rows = all<{ pourId: string; remelt: number; salt: number }>(db, UNKNOWN, { ids: JSON.stringify(pourIds) });
  return new Map(
    rows.map(({ pourId, remelt, salt }) => [
      pourId,
      [...(remelt ? (['hardness'] as const) : []), ...(salt ? (['salt'] as const) : [])],
    ]),
  );
}
