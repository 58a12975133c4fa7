import { addSeconds } from 'date-fns/addSeconds';
import type * as v from 'valibot';
import type { baitWeighingBody } from '../../contract/instruments.ts';
import type { PourLayer } from '../../contract/pours.ts';
import type { marksBody, redoBody, shotBody } from '../../contract/taps.ts';
import { Failure } from '../../core/failure.ts';
import { PLACES } from '../../core/plan/layers.ts';
import { waitOf } from '../../core/process/waits.ts';
import { clockStep } from '../clocks/store.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { doseSeqOf, lastDose } from '../ledgers/store.ts';
import { cupsWithLayers, layersOfPour, moldsOf } from './sets.ts';
import { markStarted, type OpenPour, openPour } from './write.ts';

type Wish = NonNullable<v.InferOutput<typeof shotBody>['parts']>;
interface Part {
  layer: number;
  pourId: string;
  doseSeq: number;
  heatSeq: number;
  ml: number;
}

/** What the clock of a mold in this cup is about. */
export const aboutMold = (pourId: string, moldId: string) => ({
  type: 'pour-mold' as const,
  id: `${pourId} ${moldId}`,
});

/** @param id null: nothing was read. */
const heatSeqOf = (db: Db, pourId: string, id: string | null): number | undefined =>
  id === null ? 0 : first<{ seq: number }>(db, 'SELECT seq FROM heat WHERE id = ? AND pour_id = ?', [id, pourId])?.seq;

const lastHeat = (db: Db, pourId: string) =>
  first<{ seq: number | null }>(db, 'SELECT max(seq) AS seq FROM heat WHERE pour_id = ?', [pourId])?.seq ?? 0;

/** The number of the row that a tap names, in the cup that it names. */
function seqOf(found: number | undefined, at: string): number {
  if (found === undefined)
    throw new Failure('no-such-record', 'That cup has no such dose or reading; the shot names what was in it.', at);
  return found;
}

/** What was drawn in the doses of an injector is read off its scale, so the parts of a layer need not meet it to the mL. */
const READ_OFF = 0.02;

/** How much of a layer each of its cups gave, mL: as said, or all alike; together the layer. */
function mlOf(parts: Wish, layer: number, layerMl: number): number[] {
  const mine = parts.filter((part) => part.layer === layer);
  const said = mine.map((part) => part.ml ?? (part.share ?? 1 / mine.length) * layerMl);
  const sum = said.reduce((total, ml) => total + ml, 0);
  if (Math.abs(sum - layerMl) > READ_OFF * layerMl)
    throw new Failure(
      'invalid-input',
      `The parts of a layer come to ${((sum / layerMl) * 100).toFixed(0)} % of it; together they are the whole layer.`,
      'parts',
    );
  return said.map((ml) => (ml / sum) * layerMl);
}

interface Filled {
  layersMl: number[];
  there: Set<number>;
}

function pinned(db: Db, wish: Wish, { layersMl, there }: Filled): Part[] {
  return wish.map((part, index) => {
    const at = `parts.${index}`;
    const layerMl = layersMl[part.layer];
    if (layerMl === undefined) throw new Failure('invalid-input', 'This colour has no such layer.', `${at}.layer`);
    if (there.has(part.layer))
      throw new Failure('already-started', 'That layer is in this mold already.', `${at}.layer`);
    const cup = openPour(db, part.pourId);
    const of = wish.filter((one) => one.layer === part.layer);
    return {
      layer: part.layer,
      pourId: part.pourId,
      doseSeq: seqOf(doseSeqOf(db, cup.ledgerId, part.lastDose), at),
      heatSeq: seqOf(heatSeqOf(db, cup.id, part.lastHeat), at),
      ml: mlOf(wish, part.layer, layerMl)[of.indexOf(part)] as number,
    };
  });
}

/** A tap that names no parts: all layers, from the cups that were laid out for them, as they stand now. */
function asTheyStand(db: Db, pour: OpenPour, layers: PourLayer[], layersMl: number[]): Part[] {
  const cups = cupsWithLayers(db, pour, layers);
  return layers.flatMap((_, layer) => {
    const mine = cups.filter((cup) => cup.layers.includes(layer));
    return mine.map((cup) => ({
      layer,
      pourId: cup.id,
      doseSeq: lastDose(db, cup.ledgerId),
      heatSeq: lastHeat(db, cup.id),
      ml: (layersMl[layer] as number) / mine.length,
    }));
  });
}

function writeParts(db: Db, shotId: string, parts: Part[], at: string): void {
  for (const part of parts) {
    insert(db, 'shot_part', { id: newId(), shotId, ...part, at });
    markStarted(db, part.pourId, at);
  }
}

const moldIn = (db: Db, pour: OpenPour, moldId: string) => {
  const mold = moldsOf(db, pour).find((row) => row.moldId === moldId);
  if (!mold) throw new Failure('invalid-input', 'That mold is not part of this pour.', 'moldId');
  return mold;
};

/** Once the last layer is in, the mold waits to be opened. */
function startWait(db: Db, pour: OpenPour, moldId: string, now: Date): void {
  const mold = moldIn(db, pour, moldId);
  const drawn = first<{ n: number }>(db, 'SELECT count(*) AS n FROM shot_live WHERE pour_id = ? AND mold_id = ?', [
    pour.id,
    moldId,
  ]) as { n: number };
  clockStep(db, 'shot', aboutMold(pour.id, moldId), now, {
    open: { label: `Open ${mold.name}`, dueAt: addSeconds(now, waitOf(mold.opens, drawn.n - 1)) },
  });
}

/** A shot is pinned to the doses and heats of each of its cups as the tap names them, and refused whole. */
export function addShot(db: Db, pour: OpenPour, body: v.InferOutput<typeof shotBody>, now: Date): void {
  const at = now.toISOString();
  if (pour.leadId !== null)
    throw new Failure('not-applicable', 'This cup gives to shots that another leads; draw them there.');
  const { layersMl } = moldIn(db, pour, body.moldId);
  const layers = layersOfPour(db, pour.colourwayRevisionId);
  const parts = body.parts
    ? pinned(db, body.parts, { layersMl, there: new Set() })
    : asTheyStand(db, pour, layers, layersMl);
  const id = newId(body.id);
  insert(db, 'shot', { id, pourId: pour.id, moldId: body.moldId, at });
  markStarted(db, pour.id, at);
  writeParts(db, id, parts, at);
  if (new Set(parts.map((part) => part.layer)).size === layers.length) startWait(db, pour, body.moldId, now);
}

interface OfShot {
  moldId: string;
  cavities: number;
}

function shotIn(db: Db, pour: OpenPour, shotId: string): OfShot {
  const shot = first<OfShot>(
    db,
    'SELECT s.mold_id, mold.cavities FROM shot_live s JOIN mold ON mold.id = s.mold_id WHERE s.id = ? AND s.pour_id = ?',
    [shotId, pour.id],
  );
  if (!shot) throw new Failure('not-found', 'There is no such shot in this pour, or it was taken back.');
  return shot;
}

const layersThere = (db: Db, shotId: string) =>
  new Set(
    all<{ layer: number }>(db, 'SELECT DISTINCT layer FROM shot_part WHERE shot_id = ?', [shotId]).map(
      (row) => row.layer,
    ),
  );

/** The next layers of a shot, minutes later. */
export function addParts(db: Db, pour: OpenPour, shotId: string, wish: Wish, now: Date): void {
  const { moldId } = shotIn(db, pour, shotId);
  const { layersMl } = moldIn(db, pour, moldId);
  const there = layersThere(db, shotId);
  writeParts(db, shotId, pinned(db, wish, { layersMl, there }), now.toISOString());
  if (layersThere(db, shotId).size === layersMl.length) startWait(db, pour, moldId, now);
}

const noSuchCavity = (cavities: number, cavity: number, path: string) =>
  new Failure('invalid-input', `This mold has ${cavities} cavities; there is no number ${cavity}.`, path);

/** A layer lifted out of a cavity and poured again: lost plastic and minutes, not a bait. */
export function addRedo(db: Db, pour: OpenPour, shotId: string, body: v.InferOutput<typeof redoBody>, now: Date): void {
  const { moldId, cavities } = shotIn(db, pour, shotId);
  if (body.cavity > cavities) throw noSuchCavity(cavities, body.cavity, 'cavity');
  if (!layersThere(db, shotId).has(body.layer))
    throw new Failure('invalid-input', 'That layer is not in this mold yet.', 'layer');
  const { id: cupId } = openPour(db, body.pourId);
  const mold = moldIn(db, pour, moldId);
  const { id, layer, cavity, minutes, reason } = body;
  insert(db, 'layer_redo', {
    id: newId(id),
    shotId,
    layer,
    cavity,
    pourId: cupId,
    // Of one cavity; sprue and runner are lifted out with none of them.
    ml: mold.cavityLayersMl[layer],
    minutes,
    reason,
    at: now.toISOString(),
  });
  markStarted(db, cupId, now.toISOString());
}

export function addMarks(
  db: Db,
  pour: OpenPour,
  shotId: string,
  marks: v.InferOutput<typeof marksBody>['marks'],
  now: Date,
): void {
  const at = now.toISOString();
  const shot = shotIn(db, pour, shotId);
  const there = layersThere(db, shotId);
  const missing = layersOfPour(db, pour.colourwayRevisionId).find((_, layer) => !there.has(layer));
  if (missing)
    throw new Failure('layers-missing', `The ${PLACES[missing.place]} is not in yet; pour it, or take the shot back.`);
  marks.forEach((mark, index) => {
    if (mark.cavity > shot.cavities) throw noSuchCavity(shot.cavities, mark.cavity, `marks.${index}.cavity`);
    insert(db, 'cavity_mark', {
      id: newId(mark.id),
      shotId,
      cavity: mark.cavity,
      grade: mark.grade,
      reason: mark.reason,
      at,
    });
  });
  clockStep(db, 'lookedAt', aboutMold(pour.id, shot.moldId), now);
}

/** A bait of a shot as it lay on the scale. */
export function addWeighing(
  db: Db,
  pour: OpenPour,
  shotId: string,
  { id, cavity, grams, instrumentId }: v.InferOutput<typeof baitWeighingBody>,
  at: string,
): void {
  const { moldId, cavities } = shotIn(db, pour, shotId);
  if (cavity > cavities) throw noSuchCavity(cavities, cavity, 'cavity');
  insert(db, 'bait_weighing', { id: newId(id), shotId, moldId, cavity, grams, instrumentId, at });
}
