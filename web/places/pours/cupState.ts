import type { Material } from '../../../contract/materials.ts';
import type { Heat, Pour, Shot } from '../../../contract/pours.ts';
import type { Dose } from '../../../contract/recipes.ts';
import type { Tap } from '../../api/outbox.ts';
import { withTaps } from '../colours/DoseBoard.tsx';

interface Folded {
  doses: Dose[];
  heats: Heat[];
  shots: Shot[];
}

/** The pour as it will be once the taps on their way have arrived. */
export function foldTaps(pour: Pour, taps: Tap[], materials: Material[]): Folded {
  const base = `/pours/${pour.id}`;
  const waiting = taps.filter((tap) => !tap.refused && tap.path.startsWith(base));
  const doses = withTaps(pour.doses, taps, pour.ledgerId, materials);
  let heats = [...pour.heats];
  let shots = pour.shots.map((shot) => ({ ...shot, marks: [...shot.marks] }));
  const now = new Date().toISOString();
  for (const { path, body } of waiting) {
    const id = String(body.id);
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
    } else if (path === `${base}/undo`) {
      heats = heats.filter((heat) => heat.id !== body.rowId);
      shots = shots.filter((shot) => shot.id !== body.rowId);
    } else {
      const shot = shots.find((row) => path === `${base}/shots/${row.id}/marks`);
      for (const mark of shot ? (body.marks as Shot['marks']) : []) {
        if (!shot) continue;
        shot.marks = [
          ...shot.marks.filter((row) => row.cavity !== mark.cavity),
          { ...mark, reason: mark.reason ?? null },
        ];
      }
    }
  }
  return { doses, heats, shots };
}
