import type { Material } from '../../../contract/materials.ts';
import type { Heat, Pour, PourMold, Shot } from '../../../contract/pours.ts';
import type { Dose } from '../../../contract/recipes.ts';
import { UNDO } from '../../../contract/undo.ts';
import { type CupNow, shotsOf } from '../../../core/process/next.ts';
import { waitOf } from '../../../core/process/waits.ts';
import { graded, type Tapped } from '../../../core/yield/grades.ts';
import { serverStamp } from '../../api/now.ts';
import type { Tap } from '../../api/outbox.ts';
import { withTaps } from '../../parts/DoseBoard.tsx';

export interface Folded {
  doses: Dose[];
  heats: Heat[];
  shots: Shot[];
  /** Each with the moment it opens: known here at once, whenever the server answers. */
  molds: PourMold[];
}

/** The pour as it will be once the taps on their way have arrived. */
export function foldTaps(pour: Pour, taps: Tap[], materials: Material[]): Folded {
  const base = `/pours/${pour.id}`;
  const waiting = taps.filter((tap) => !tap.refused && (tap.path.startsWith(base) || tap.path === UNDO));
  const doses = withTaps(pour.doses, taps, pour.ledgerId, materials);
  let heats = [...pour.heats];
  let shots = pour.shots.map((shot) => ({ ...shot, marks: [...shot.marks] }));
  const molds = pour.molds.map((mold) => ({ ...mold }));
  const moldOf = (shot: Pick<Shot, 'moldId'> | undefined) => molds.find((mold) => mold.moldId === shot?.moldId);
  for (const { path, body } of waiting) {
    const id = String(body.id);
    const now = String(body.tappedAt ?? serverStamp());
    if (path === `${base}/heats` && !heats.some((heat) => heat.id === id)) {
      heats.push({
        seq: (heats.at(-1)?.seq ?? 0) + 1,
        id,
        kind: body.kind as Heat['kind'],
        c: Number(body.c),
        at: now,
      });
    } else if (path === `${base}/shots` && !shots.some((shot) => shot.id === id)) {
      shots.push({
        seq: (shots.at(-1)?.seq ?? 0) + 1,
        id,
        moldId: String(body.moldId),
        doseSeq: doses.at(-1)?.seq ?? 0,
        heatSeq: heats.at(-1)?.seq ?? 0,
        at: now,
        marks: [],
      });
      const mold = moldOf(shots.at(-1));
      if (mold) {
        const waitS = waitOf(mold.opens, shotsOf({ shots }, mold.moldId).length - 1);
        mold.opensAt = new Date(Date.parse(now) + waitS * 1000).toISOString();
      }
    } else if (path === UNDO) {
      heats = heats.filter((heat) => heat.id !== body.rowId);
      const mold = moldOf(shots.find((shot) => shot.id === body.rowId));
      if (mold) mold.opensAt = null;
      shots = shots.filter((shot) => shot.id !== body.rowId);
    } else {
      const shot = shots.find((row) => path === `${base}/shots/${row.id}/marks`);
      const mold = moldOf(shot);
      if (mold) mold.opensAt = null;
      for (const mark of shot ? (body.marks as Tapped[]).map(graded) : []) {
        if (!shot) continue;
        shot.marks = [
          ...shot.marks.filter((row) => row.cavity !== mark.cavity),
          { ...mark, reason: mark.reason ?? null },
        ];
      }
    }
  }
  return { doses, heats, shots, molds };
}

/** What stands at the cup, for the one next thing and for the screen. */
export type Cup = Omit<CupNow<PourMold, Shot>, keyof Folded> & Folded;

export const cupOf = (pour: Pick<Pour, 'recipeItems' | 'limits'>, nowMs: number, folded: Folded): Cup => ({
  ...folded,
  recipeItems: pour.recipeItems,
  limits: pour.limits,
  nowMs,
});
