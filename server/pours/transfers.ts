import { Failure } from '../../core/failure.ts';
import { binGrams, type Layer, partOf } from '../../core/plastisol/bin.ts';
import { withShare } from '../../core/plastisol/parts.ts';
import { g, say } from '../../core/units/say.ts';
import { asLayer, asRow, type LayerRow, SUMS } from '../bins/layers.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { openPour } from './write.ts';

/** Of a cup that is planned smaller than what is poured in: what is not weighed in yet keeps a share, so that it can be. */
const MOST_SHARE = 0.95;

/** What is left of a cup is poured into another that is still open: a part of it that is weighed already. */
export function pourInto(db: Db, from: string, into: string, layers: Layer[], at: string): void {
  const { id, plan } = openPour(db, into);
  const grams = binGrams(layers);
  for (const layer of layers)
    insert(db, 'cup_transfer', { id: newId(), fromPourId: from, pourId: id, ...asRow(layer), at });
  const parts = all<{ id: string; share: number; position: number }>(
    db,
    'SELECT id, share, position FROM cup_part WHERE pour_id = ? ORDER BY position',
    [id],
  );
  const share = Math.min(MOST_SHARE, grams / Math.max(grams, plan.cookG));
  const part = { id: newId(), share: 0, position: (parts.at(-1)?.position ?? -1) + 1 };
  // What is not weighed in yet gives way.
  for (const one of withShare([...parts, part], parts.length, parts.length === 0 ? 1 : share))
    if (one.id === part.id)
      insert(db, 'cup_part', { id: one.id, pourId: id, position: one.position, fromPourId: from, share: one.share });
    else run(db, 'UPDATE cup_part SET share = @share WHERE id = @id', { id: one.id, share: one.share });
  insert(db, 'part_weighing', { id: newId(), partId: part.id, grams, at });
}

/** The cup that what was left of this one was poured into, if any. */
export const pouredInto = (db: Db, from: string): string | undefined =>
  first<{ pourId: string }>(db, 'SELECT pour_id FROM cup_transfer WHERE from_pour_id = ? LIMIT 1', [from])?.pourId;

/**
 * What was left of a cup was weighed again: as much more or less lay in the cup that it was poured into.
 * @param most what that cup can have held of it, g; nothing while it is open. @throws Failure `invalid-input`.
 */
export function pourAgain(db: Db, from: string, into: string, more: number, at: string, most?: number): void {
  const poured = all<LayerRow>(db, `SELECT heats, ${SUMS} FROM cup_transfer WHERE from_pour_id = ? GROUP BY heats`, [
    from,
  ]).map(asLayer);
  const { code } = mustFind<{ code: string }>(db, 'pour', into, 'pour');
  const before = binGrams(poured);
  if (before + more <= 0)
    throw new Failure('invalid-input', `It was poured into ${code}; it cannot have been nothing.`);
  if (most !== undefined && before + more > most + 1e-6)
    throw new Failure('invalid-input', say`It was poured into ${code}, which held ${g(most)} of plastic in all.`);
  for (const layer of poured) {
    const row = asRow(partOf(layer, more / before));
    insert(db, 'cup_transfer', { id: newId(), fromPourId: from, pourId: into, ...row, at });
  }
  const part = first<{ id: string }>(db, 'SELECT id FROM cup_part WHERE pour_id = ? AND from_pour_id = ?', [
    into,
    from,
  ]);
  insert(db, 'part_weighing', { id: newId(), partId: part?.id, grams: before + more, at });
}
