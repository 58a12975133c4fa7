import type * as v from 'valibot';
import { RACK_GRADES } from '../../contract/orders.ts';
import type { regradeBody } from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import type { Grade } from '../../core/yield/grades.ts';
import type { Db } from '../db/open.ts';
import { insert } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addRegraded, lyingOf } from '../stock/bags.ts';
import { correctCounts } from './counts.ts';
import { getPour } from './read.ts';

const onRack = (grade: Grade): grade is 'sell' | 'own' => (RACK_GRADES as readonly string[]).includes(grade);

/**
 * A bait that was looked at again after its cup was closed: on the rack, or come back from a customer. Its mark and the
 * sums change; what lies on the rack moves with it.
 * @throws Failure `not-enough-stock` where it does not lie there any more.
 */
export function regrade(db: Db, pourId: string, body: v.InferOutput<typeof regradeBody>, at: string): void {
  const pour = getPour(db, pourId);
  if (!pour.closedAt || pour.discardedAt)
    throw new Failure('not-applicable', `${pour.code} is still open; tap its cavities at the bench.`);
  const shot = pour.shots.find((row) => row.id === body.shotId);
  const mold = pour.molds.find((row) => row.moldId === shot?.moldId);
  if (!shot || !mold) throw new Failure('not-found', 'There is no such shot in this pour, or it was taken back.');
  const was = shot.marks.find((mark) => mark.cavity === body.cavity);
  if (!was || was.grade === 'unmarked')
    throw new Failure('invalid-input', `There is no bait of cavity ${body.cavity} in that shot.`, 'cavity');
  const is = { grade: body.grade, reason: body.reason ?? null };
  if (was.grade === is.grade && was.reason === is.reason) return;
  insert(db, 'cavity_mark', { id: newId(body.id), shotId: shot.id, cavity: body.cavity, ...is, at });
  const of = { pourId, moldId: mold.moldId, cavity: body.cavity };
  correctCounts(db, of, { grade: was.grade, reason: was.reason }, is);
  if (body.cameBack || was.grade === is.grade) return;
  const what = { baitId: mold.baitId, colourwayId: pour.colourwayId, pourId };
  if (onRack(was.grade) && lyingOf(db, { ...what, grade: was.grade }) < 1)
    throw new Failure(
      'not-enough-stock',
      'None of this cup lies on the rack in that grade any more. If it came back from somebody, say so.',
      'cameBack',
    );
  if (onRack(was.grade)) addRegraded(db, { ...what, grade: was.grade, baits: -1, at });
  if (onRack(is.grade)) addRegraded(db, { ...what, grade: is.grade, baits: 1, at });
}
