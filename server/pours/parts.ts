import type { Blend, BlendWish, Part } from '../../contract/blend.ts';
import { PLASTIC_KINDS } from '../../contract/blend.ts';
import { freshLayer } from '../../core/colour/cup.ts';
import { Failure } from '../../core/failure.ts';
import { type Layer, takeFromBin } from '../../core/plastisol/bin.ts';
import { plasticGPerMl, remeltGPerMl } from '../../core/plastisol/density.ts';
import { cupState, gramsOf } from '../../core/plastisol/parts.ts';
import { gramsPerMl } from '../../core/plastisol/weigh.ts';
import { layersOf } from '../bins/store.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { openLot } from '../materials/store.ts';
import { dosedIn } from './dosed.ts';
import { enteredByPour, refusePouredIn, transferredInto } from './entered.ts';
import { hardnessOfParts } from './plastics.ts';

const PARTS = `SELECT p.id, coalesce(material.kind, 'remelt') AS kind, material.id AS material_id, p.lot_id, p.bin_id, p.from_pour_id,
  coalesce(material.name, bin.name, melt.name || ', ' || source.code) AS name, lot.code AS lot_code, p.share,
  material.bulk_g_per_ml, material.density_g_per_ml, w.grams AS weighed_g, w.id AS weighing_id
  FROM cup_part p LEFT JOIN lot ON lot.id = p.lot_id LEFT JOIN material ON material.id = lot.material_id LEFT JOIN bin ON bin.id = p.bin_id
  LEFT JOIN pour source ON source.id = p.from_pour_id LEFT JOIN recipe melt ON melt.id = source.recipe_id
  LEFT JOIN part_weighing w ON w.seq = (SELECT max(seq) FROM part_weighing x WHERE x.part_id = p.id AND ${standing('part_weighing', 'x')})
  WHERE p.pour_id = ? ORDER BY p.position`;

type PartRow = Omit<Part, 'plannedG' | 'gPerMl' | 'gPerMlByDefault'> & {
  bulkGPerMl: number | null;
  densityGPerMl: number | null;
};

/** What a mL of a part weighs: a material as it was told, remelt and what was left of a cup as usual, with the salt that is known of it. */
function gPerMlOf(
  db: Db,
  pourId: string,
  { binId, kind, bulkGPerMl, densityGPerMl }: PartRow,
): ReturnType<typeof gramsPerMl> {
  if (kind !== 'remelt') return gramsPerMl({ kind, bulkGPerMl, densityGPerMl });
  return { gPerMl: remeltGPerMl(binId ? layersOf(db, binId) : transferredInto(db, pourId)), byDefault: true };
}

/** @param cookG of plastic, as planned. */
export const partsOf = (db: Db, pourId: string, cookG: number): Part[] =>
  all<PartRow>(db, PARTS, [pourId]).map((row) => {
    const { bulkGPerMl: _b, densityGPerMl: _d, ...part } = row;
    const { gPerMl, byDefault } = gPerMlOf(db, pourId, row);
    return { ...part, gPerMl, gPerMlByDefault: byDefault, plannedG: part.share * cookG };
  });

/** How much of its plastic fills a cup is a matter of what it is made of. */
function weighPlan(db: Db, pourId: string): void {
  const parts = partsOf(db, pourId, 1);
  if (parts.length > 0)
    run(db, `UPDATE pour SET plan = json_set(plan, '$.cookG', cook_ml * @gPerMl) WHERE id = @pourId`, {
      pourId,
      gPerMl: plasticGPerMl(parts),
    });
}

type Chosen = { lotId: string | null; binId: string | null; share: number };

function choose(db: Db, part: BlendWish[number], at: string): Chosen {
  if (part.binId !== undefined) {
    if (!first(db, 'SELECT 1 FROM bin WHERE id = ?', [part.binId]))
      throw new Failure('invalid-input', 'That bin is not here.', `${at}.binId`);
    return { lotId: null, binId: part.binId, share: part.share };
  }
  const lotId = part.lotId ?? openLot(db, part.materialId as string)?.id;
  const field = part.lotId ? 'lotId' : 'materialId';
  const found = lotId
    ? first<{ kind: string }>(
        db,
        'SELECT material.kind FROM lot JOIN material ON material.id = lot.material_id WHERE lot.id = ?',
        [lotId],
      )
    : undefined;
  if (!found) throw new Failure('invalid-input', 'There is no lot of that; take one in first.', `${at}.${field}`);
  if (!(PLASTIC_KINDS as readonly string[]).includes(found.kind))
    throw new Failure(
      'invalid-input',
      'A cup’s plastic is plastisol, softener, hardener, stabilizer or remelt.',
      `${at}.${field}`,
    );
  return { lotId: lotId as string, binId: null, share: part.share };
}

/** Where nothing is said: the first plastisol's opened lot, if there is any. */
function usualBlend(db: Db): Chosen[] {
  const material = first<{ id: string }>(
    db,
    `SELECT id FROM material WHERE kind = 'plastisol' AND away_at IS NULL ORDER BY created_at LIMIT 1`,
  );
  const lot = material && openLot(db, material.id);
  return lot ? [{ lotId: lot.id, binId: null, share: 1 }] : [];
}

export function writeParts(db: Db, pourId: string, blend: BlendWish | undefined): void {
  const chosen = blend ? blend.map((part, index) => choose(db, part, `blend.${index}`)) : usualBlend(db);
  chosen.forEach((part, position) => {
    insert(db, 'cup_part', { id: newId(), pourId, position, ...part });
  });
  weighPlan(db, pourId);
}

/** Another blend for a cup of which nothing is weighed in yet. */
export function changeParts(db: Db, pourId: string, blend: BlendWish): void {
  // What was poured in from another cup was weighed too.
  const weighed = first(db, 'SELECT 1 FROM part_weighing w JOIN cup_part p ON p.id = w.part_id WHERE p.pour_id = ?', [
    pourId,
  ]);
  if (weighed)
    throw new Failure(
      'already-started',
      'Something was weighed into this cup; what is in it stays. Weigh the parts as they are.',
    );
  run(db, 'DELETE FROM cup_part WHERE pour_id = ?', [pourId]);
  writeParts(db, pourId, blend);
}

export function weighIn(
  db: Db,
  pourId: string,
  { id, partId, grams }: { id?: string | undefined; partId: string; grams: number },
  at: string,
): void {
  const part = first(db, 'SELECT 1 FROM cup_part WHERE id = ? AND pour_id = ?', [partId, pourId]);
  if (!part) throw new Failure('invalid-input', 'That is no part of this cup.', 'partId');
  refusePouredIn(db, partId);
  insert(db, 'part_weighing', { id: newId(id), partId, grams, at });
}

/** The cup that a weighing belongs to. */
export const cupOfPart = (db: Db, partId: string): string =>
  mustFind<{ pourId: string }>(db, 'cup_part', partId, 'part').pourId;

interface CupOf {
  id: string;
  ledgerId: string;
  closedAt: string | null;
  plan: { cookG: number };
  wanted: { scale: 'A' | '00' } | null;
}

/** What of a cup was cooked before; of an open one as its bins stand now. */
const remeltIn = (db: Db, cup: Pick<CupOf, 'id' | 'closedAt'>, parts: Part[], grams: number[]): Layer[] =>
  cup.closedAt
    ? enteredByPour(db, cup.id)
    : [
        ...parts.flatMap((part, i) => (part.binId ? takeFromBin(layersOf(db, part.binId), grams[i] as number) : [])),
        ...transferredInto(db, cup.id),
      ];

/** What the parts of a cup are together; of an open cup as its bins stand now. @param cookedG the whole cup, once weighed. */
export function blendOf(db: Db, cup: CupOf, parts: Part[], cookedG: number | null): Blend {
  const dosed = dosedIn(db, cup.ledgerId);
  const plasticG = cookedG === null ? cup.plan.cookG : cookedG - dosed.g;
  const grams = gramsOf(parts, plasticG);
  const remelt = remeltIn(db, cup, parts, grams);
  const freshG = parts.reduce((sum, part, i) => sum + (part.lotId ? (grams[i] as number) : 0), 0);
  const state = cupState({ cupG: plasticG + dosed.g, freshG, remelt, dosedSaltG: dosed.saltG });
  return {
    heats: state.heats,
    remeltFraction: state.remeltFraction,
    unknownFraction: state.unknownFraction,
    saltUnknownFraction: state.saltUnknownFraction,
    hardness: hardnessOfParts(db, parts, grams, cup.wanted?.scale ?? '00'),
  };
}

/** All plastic of a cup as layers; while it is open, of its bins as they stand now. */
export function enteredInto(db: Db, pourId: string): Layer[] {
  const { closedAt, plan } = mustFind<CupOf>(db, 'pour', pourId, 'pour');
  const parts = partsOf(db, pourId, plan.cookG);
  const grams = gramsOf(parts, plan.cookG);
  const fresh = parts.flatMap((part, i) => (part.lotId ? [freshLayer(grams[i] as number)] : []));
  return [...fresh, ...remeltIn(db, { id: pourId, closedAt }, parts, grams)];
}

/** What stands at the bench and is drawn from the store when it is closed: mL of each melt, and how much of it is new plastic. */
export const openCups = (db: Db) =>
  all<{ recipeId: string; glasses: number; ml: number; freshMl: number }>(
    db,
    `SELECT pour.recipe_id, count(*) AS glasses, sum(pour.cook_ml) AS ml,
       sum(pour.cook_ml * (1 - coalesce((SELECT sum(p.share) FROM cup_part p
         WHERE p.pour_id = pour.id AND (p.bin_id IS NOT NULL OR p.from_pour_id IS NOT NULL)), 0))) AS fresh_ml
     FROM pour WHERE pour.closed_at IS NULL GROUP BY pour.recipe_id`,
  );
