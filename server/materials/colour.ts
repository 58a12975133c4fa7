import type * as v from 'valibot';
import type { ColourStep, colourStepBody } from '../../contract/materials.ts';
import { calibrate } from '../../core/colour/calibrate.ts';
import { PLAIN_PLASTIC } from '../../core/colour/nominal.ts';
import { Failure } from '../../core/failure.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';

/** The newest step of each that stands: a few rows a colourant. */
export function stepsByMaterial(db: Db, materialIds: string[]): Map<string, ColourStep> {
  const rows = all<ColourStep & { materialId: string }>(
    db,
    `SELECT t.id, t.material_id, t.how, t.thickness_mm, t.ml_per_l, t.over_black, t.over_white, t.optics, t.note, t.at
     FROM colour_step t WHERE t.material_id IN (SELECT value FROM json_each(?)) AND ${standing('colour_step', 't')} ORDER BY t.seq`,
    [JSON.stringify(materialIds)],
  );
  return new Map(rows.map(({ materialId, ...step }) => [materialId, step]));
}

/** What is measured is what colours a melt: flake is counted, salt is a haze. */
const MEASURED = new Set(['colourant', 'powder']);

/**
 * Writes a step down with what it comes to; of a bottle of another strength as of the house's.
 * @throws Failure `too-opaque`, `base-mismatch`, `invalid-input`.
 */
export function addStep(
  db: Db,
  materialId: string,
  { id, mlPerL, ...body }: v.InferOutput<typeof colourStepBody>,
  bottleStrength: number,
  at: string,
): void {
  const { kind } = mustFind<{ kind: string }>(db, 'material', materialId, 'material');
  if (!MEASURED.has(kind))
    throw new Failure('invalid-input', 'Only liquid colours, powders and pearls are measured by a step.', 'id');
  const step = { ...body, mlPerL: mlPerL * bottleStrength };
  const { note, how, ...seen } = step;
  insert(db, 'colour_step', {
    id: newId(id),
    materialId,
    ...step,
    note: note ?? '',
    plain: PLAIN_PLASTIC,
    optics: calibrate({ ...seen, base: PLAIN_PLASTIC }),
    at,
  });
}
