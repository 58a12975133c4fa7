import type * as v from 'valibot';
import type { puckBody } from '../../contract/bins.ts';
import { Failure } from '../../core/failure.ts';
import { partOf, toldByPuck } from '../../core/plastisol/bin.ts';
import { know, knowSchema } from '../../core/plastisol/know.ts';
import { check } from '../../core/validate.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { asLayer, asRow, type LayerRow } from './layers.ts';
import { layersOf } from './store.ts';

/**
 * Writes down what a puck of a bin tells: from then on its salt and its colour are known, as far as a puck can tell.
 * @throws Failure `foamy-puck`, `out-of-range`, `too-opaque`.
 */
export function addPuck(db: Db, binId: string, { id, ...body }: v.InferOutput<typeof puckBody>, at: string): void {
  mustFind(db, 'bin', binId, 'bin');
  const input = check(knowSchema, body);
  const output = know(input);
  const puckId = newId(id);
  insert(db, 'bin_puck', { id: puckId, binId, input, output, at });
  const told = toldByPuck(layersOf(db, binId), { saltFraction: output.salt.value, optics: output.colour ?? null });
  for (const layer of told) insert(db, 'bin_move', { id: newId(), binId, kind: 'puck', puckId, ...asRow(layer), at });
}

/**
 * A puck that was a mistake: what it told is taken back, row by row.
 * @throws Failure `in-use`: a newer puck stands on it, or what left the bin since took its share of it along.
 */
export function unsayPuck(db: Db, puckId: string, at: string): void {
  const told = all<LayerRow & { id: string; binId: string }>(
    db,
    `SELECT id, bin_id, heats, grams, salt_g, salt_unknown_g, colour_g, k_r, k_g, k_b, s_r, s_g, s_b FROM bin_move
     WHERE puck_id = ? AND reverses IS NULL`,
    [puckId],
  );
  const later = first(
    db,
    `SELECT 1 FROM bin_puck p JOIN bin_puck mine ON mine.id = @puckId
     WHERE p.bin_id = mine.bin_id AND p.seq > mine.seq AND ${standing('bin_puck', 'p')}`,
    { puckId },
  );
  if (later) throw new Failure('in-use', 'A newer puck tells of the bin since; take that back first.');
  const left = first(
    db,
    `SELECT 1 FROM bin_move m WHERE m.grams < 0 AND m.bin_id = (SELECT bin_id FROM bin_puck WHERE id = @puckId)
       AND m.seq > (SELECT max(seq) FROM bin_move WHERE puck_id = @puckId)`,
    { puckId },
  );
  if (left)
    throw new Failure(
      'in-use',
      'Some of it was used since, and took along what the puck told; cook another puck instead.',
    );
  for (const { id, binId, ...row } of told)
    insert(db, 'bin_move', {
      id: newId(),
      binId,
      kind: 'reversed',
      puckId,
      reverses: id,
      ...asRow(partOf(asLayer(row), -1)),
      at,
    });
}
