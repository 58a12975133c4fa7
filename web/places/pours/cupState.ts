import type { Material } from '../../../contract/materials.ts';
import type { Heat, Pour, PourMold, Shot, ShotPart } from '../../../contract/pours.ts';
import type { Dose } from '../../../contract/recipes.ts';
import { UNDO } from '../../../contract/undo.ts';
import { goes } from '../../../core/plan/layers.ts';
import { type CupNow, goneIn, setOfCups, shotsOf } from '../../../core/process/cupNow.ts';
import { foamsBy } from '../../../core/process/heatNext.ts';
import { waitOf } from '../../../core/process/waits.ts';
import type { Degassing } from '../../../core/process/ways.ts';
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
  /** What sinks in it, and until when the last stir lasts. */
  stir: Pour['stir'];
  /** What was said by taps. */
  ticks: Pour['ticks'];
}

type TappedPart = { layer?: number; pourId: string; lastDose: string | null; lastHeat: string | null };

/** What a tap drew, as far as this device knows it; of other cups their own record tells which dose and heat. */
function drawnParts(
  body: Record<string, unknown>,
  { pour, doses, heats, at }: { pour: Pour; doses: Dose[]; heats: Heat[]; at: string },
): ShotPart[] {
  const [doseSeq, heatSeq] = [doses.at(-1)?.seq ?? 0, heats.at(-1)?.seq ?? 0];
  const said = body.parts as TappedPart[] | undefined;
  if (!said) return pour.layers.map((_, layer) => ({ layer, pourId: pour.id, doseSeq, heatSeq, ml: 0, at }));
  return said.map(({ layer = 0, pourId, lastDose, lastHeat }) => ({
    layer,
    pourId,
    doseSeq: doses.find((dose) => dose.id === lastDose)?.seq ?? 0,
    heatSeq: heats.find((heat) => heat.id === lastHeat)?.seq ?? 0,
    ml: 0,
    at,
  }));
}

/** The pour as it will be once the taps on their way have arrived. */
export function foldTaps(pour: Pour, taps: Tap[], materials: Material[]): Folded {
  const base = `/pours/${pour.id}`;
  const waiting = taps.filter((tap) => !tap.refused && (tap.path.startsWith(base) || tap.path === UNDO));
  const doses = withTaps(pour.doses, taps, pour.ledgerId, materials);
  let heats = [...pour.heats];
  let shots = pour.shots.map((shot) => ({ ...shot, marks: [...shot.marks] }));
  const molds = pour.molds.map((mold) => ({ ...mold }));
  let stir = pour.stir;
  let ticks = pour.ticks;
  const stirred = (from: string) => {
    if (stir) stir = { ...stir, dueAt: new Date(Date.parse(from) + 1000 * stir.everyS).toISOString() };
  };
  const moldOf = (shot: Pick<Shot, 'moldId'> | undefined) => molds.find((mold) => mold.moldId === shot?.moldId);
  /** Once the last layer is in, the mold waits. */
  const waits = (shot: Shot, from: string) => {
    const mold = moldOf(shot);
    if (!mold || goneIn(pour.layers, shot.parts) < goes(pour.layers).length) return;
    const waitS = waitOf(mold.opens, shotsOf({ shots }, mold.moldId).length - 1);
    mold.opensAt = new Date(Date.parse(from) + waitS * 1000).toISOString();
  };
  for (const { path, body } of waiting) {
    const id = String(body.id);
    const now = String(body.tappedAt ?? serverStamp());
    if (path === `${base}/stirs`) stirred(now);
    else if (path === `${base}/ticks`) {
      const {
        what,
        said,
        moldId = null,
        nth = null,
        layer = null,
        note = '',
      } = body as unknown as Pour['ticks'][number];
      if (!ticks.some((tick) => tick.id === id))
        ticks = [...ticks, { id, what, said, moldId, nth, layer, note, at: now }];
    } else if (path === `${base}/heats` && !heats.some((heat) => heat.id === id)) {
      stirred(now);
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
        parts: drawnParts(body, { pour, doses, heats, at: now }),
        at: now,
        marks: [],
        weighed: [],
        redone: [],
      });
      waits(shots.at(-1) as Shot, now);
    } else if (path.startsWith(`${base}/shots/`) && path.endsWith('/parts')) {
      const shot = shots.find((row) => path === `${base}/shots/${row.id}/parts`);
      const more = drawnParts(body, { pour, doses, heats, at: now }).filter(
        (part) => !shot?.parts.some((one) => one.layer === part.layer),
      );
      if (shot && more.length > 0) {
        shot.parts = [...shot.parts, ...more];
        shot.at = now;
        waits(shot, now);
      }
    } else if (path.startsWith(`${base}/shots/`) && path.endsWith('/weighed')) {
      const shot = shots.find((row) => path === `${base}/shots/${row.id}/weighed`);
      const [cavity, grams] = [Number(body.cavity), Number(body.grams)];
      // Whether it is light is told when it has arrived.
      if (shot && !shot.weighed.some((one) => one.id === id))
        shot.weighed = [...shot.weighed, { id, cavity, grams, usualG: grams, of: 0, missing: null }];
    } else if (path.startsWith(`${base}/shots/`) && path.endsWith('/redone')) {
      const shot = shots.find((row) => path === `${base}/shots/${row.id}/redone`);
      if (shot && !shot.redone.some((one) => one.id === id))
        shot.redone = [
          ...shot.redone,
          { id, layer: Number(body.layer), cavity: Number(body.cavity), ml: 0, minutes: null, reason: null },
        ];
    } else if (path === UNDO) {
      heats = heats.filter((heat) => heat.id !== body.rowId);
      ticks = ticks.filter((tick) => tick.id !== body.rowId);
      const mold = moldOf(shots.find((shot) => shot.id === body.rowId));
      if (mold) mold.opensAt = null;
      shots = shots
        .filter((shot) => shot.id !== body.rowId)
        .map((shot) => ({ ...shot, redone: shot.redone.filter((one) => one.id !== body.rowId) }));
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
  return { doses, heats, shots, molds, stir, ticks };
}

/** A shot with how many goes are in it. */
type Gone = Shot & { gone: number };

/** What stands at the cup, for the one next thing and for the screen. */
export type Cup = Omit<CupNow<PourMold, Gone>, keyof Folded> & Omit<Folded, 'shots'> & { shots: Gone[] };

/** One of the cups at the bench: its record, and it with the taps on their way. */
export interface Standing {
  pour: Pour;
  folded: Folded;
}

/** @param cups all that the shots are drawn from, the leading one first. */
export function cupOf([lead, ...others]: [Standing, ...Standing[]], nowMs: number, degassing: Degassing = 'none'): Cup {
  const { pour, folded } = lead;
  const cups = [lead, ...others].map((one) => ({
    id: one.pour.id,
    name: one.pour.recipeName,
    heats: one.folded.heats,
    doses: one.folded.doses,
    recipeItems: one.pour.recipeItems,
    limits: one.pour.limits,
    stir: one.folded.stir,
    foams: foamsBy(one.folded, degassing),
    drawnOf: folded.shots.some(({ parts }) => parts.some(({ pourId }) => pourId === one.pour.id)),
    layers: pour.cups.find((cup) => cup.id === one.pour.id)?.layers ?? [],
  }));
  return {
    ...folded,
    shots: folded.shots.map((shot) => ({ ...shot, gone: goneIn(pour.layers, shot.parts) })),
    recipeItems: pour.recipeItems,
    limits: pour.limits,
    nowMs,
    foams: foamsBy(folded, degassing),
    set: setOfCups(pour.layers, cups),
  };
}
