import type * as v from 'valibot';
import type { ColourStep, colourStepBody } from '../../contract/materials.ts';
import { calibrate } from '../../core/colour/calibrate.ts';
import { type ForeseenMelt, type Learnt, learntOf } from '../../core/colour/learnt.ts';
import type { Rgb } from '../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../core/colour/nominal.ts';
import { Failure } from '../../core/failure.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
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

/** Looks that are still learnt from: what was seen years ago was another bottle. */
const LOOKS_TOLD = 200;

interface LookRow {
  foreseen: ForeseenMelt;
  thicknessMm: number;
  reflected: Rgb;
  at: string;
}

const known = new WeakMap<Db, { upTo: string; learnt: Map<string, Learnt> }>();

/** What the newest looks teach of each colour; a look at a colour that was measured since teaches nothing of it any more. */
export function learntHere(db: Db): Map<string, Learnt> {
  const upTo = first<{ mark: string }>(
    db,
    `SELECT coalesce((SELECT max(seq) FROM colour_look), 0) || ' ' || coalesce((SELECT max(seq) FROM colour_step), 0) AS mark`,
  )?.mark as string;
  const before = known.get(db);
  if (before?.upTo === upTo) return before.learnt;
  const looks = all<LookRow>(
    db,
    `SELECT l.foreseen, l.thickness_mm, l.reflected, l.at FROM colour_look l WHERE ${standing('colour_look', 'l')}
     ORDER BY l.seq DESC LIMIT ${LOOKS_TOLD}`,
  );
  const ids = [...new Set(looks.flatMap(({ foreseen }) => foreseen.parts.map(({ materialId }) => materialId)))];
  const steps = stepsByMaterial(db, ids);
  const isOf = ({ foreseen, at }: LookRow) =>
    foreseen.parts.every(({ materialId }) => (steps.get(materialId)?.at ?? '') <= at);
  const learnt = learntOf(looks.filter(isOf).map(({ reflected, ...look }) => ({ ...look, seen: reflected })));
  known.set(db, { upTo, learnt });
  return learnt;
}
