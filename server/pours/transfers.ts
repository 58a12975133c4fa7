import { binGrams, type Layer } from '../../core/plastisol/bin.ts';
import { withShare } from '../../core/plastisol/parts.ts';
import type { Db } from '../db/open.ts';
import { all, insert, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { openPour } from './write.ts';

/** What is left of a cup is poured into another that is still open: a part of it that is weighed already. */
export function pourInto(db: Db, from: string, into: string, layers: Layer[], at: string): void {
  const { id, plan } = openPour(db, into);
  const grams = binGrams(layers);
  for (const layer of layers) insert(db, 'cup_transfer', { id: newId(), fromPourId: from, pourId: id, ...layer, at });
  const parts = all<{ id: string; share: number; position: number }>(
    db,
    'SELECT id, share, position FROM cup_part WHERE pour_id = ? ORDER BY position',
    [id],
  );
  const share = Math.min(0.95, grams / Math.max(grams, plan.cookG));
  const part = { id: newId(), share: 0, position: (parts.at(-1)?.position ?? -1) + 1 };
  // What is not weighed in yet gives way.
  for (const one of withShare([...parts, part], parts.length, parts.length === 0 ? 1 : share))
    if (one.id === part.id)
      insert(db, 'cup_part', { id: one.id, pourId: id, position: one.position, fromPourId: from, share: one.share });
    else run(db, 'UPDATE cup_part SET share = @share WHERE id = @id', { id: one.id, share: one.share });
  insert(db, 'part_weighing', { id: newId(), partId: part.id, grams, at });
}
