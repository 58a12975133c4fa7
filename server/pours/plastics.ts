import type { Part, Plastics } from '../../contract/blend.ts';
import type { MaterialKind } from '../../contract/materials.ts';
import { fitHardness, fitSchema, type HardnessFit } from '../../core/plastisol/fit.ts';
import { gramsOf, mixHardness } from '../../core/plastisol/parts.ts';
import { check } from '../../core/validate.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { hasDosed } from '../ledgers/store.ts';

type Scale = 'A' | '00';

/** What is dosed into a cup and tells on its hardness. */
const TELLING: MaterialKind[] = ['salt', 'softener', 'hardener', 'stabilizer'];

/** The newest readings that are looked at. */
const LOOKED_AT = 400;

interface PlasticRow {
  materialId: string;
  name: string;
  nominal: number | null;
  pricePerKgMinor: number | null;
  levelG: number;
}

const plastisols = (db: Db, scale: Scale): PlasticRow[] =>
  all(
    db,
    `SELECT material.id AS material_id, material.name, iif(hardness_scale = ?, hardness, NULL) AS nominal, price_per_kg_minor,
       coalesce((SELECT sum(l.grams) FROM lot_level l WHERE l.material_id = material.id), 0) AS level_g
     FROM material WHERE kind = 'plastisol' AND away_at IS NULL ORDER BY created_at`,
    [scale],
  );

interface Reading {
  pourId: string;
  value: number;
}

const readings = (db: Db, scale: Scale): Reading[] =>
  all(
    db,
    `SELECT h.pour_id, h.value FROM hardness_reading h WHERE h.scale = ? AND h.early = 0 AND ${standing('hardness_reading', 'h')}
     ORDER BY h.seq DESC LIMIT ${LOOKED_AT}`,
    [scale],
  );

interface PartRow {
  pourId: string;
  materialId: string | null;
  kind: string;
  share: number;
  weighedG: number | null;
}

/** Shares of whole plastisols in each cup; a cup with anything else in it that tells on hardness has none. */
function sharesByPour(db: Db, pourIds: string[]): Map<string, Record<string, number>> {
  const ids = JSON.stringify(pourIds);
  const salted = new Set(
    all<{ id: string }>(
      db,
      `SELECT pour.id FROM pour WHERE pour.id IN (SELECT value FROM json_each(?)) AND ${hasDosed('pour.ledger_id', TELLING)}`,
      [ids],
    ).map((row) => row.id),
  );
  const rows = all<PartRow>(
    db,
    `SELECT p.pour_id, material.id AS material_id, coalesce(material.kind, 'remelt') AS kind, p.share,
       (SELECT w.grams FROM part_weighing w WHERE w.part_id = p.id AND ${standing('part_weighing', 'w')} ORDER BY w.seq DESC LIMIT 1) AS weighed_g
     FROM cup_part p LEFT JOIN lot ON lot.id = p.lot_id LEFT JOIN material ON material.id = lot.material_id
     WHERE p.pour_id IN (SELECT value FROM json_each(?)) ORDER BY p.position`,
    [ids],
  );
  const found = new Map<string, Record<string, number>>();
  for (const pourId of pourIds) {
    const parts = rows.filter((row) => row.pourId === pourId);
    if (parts.length === 0 || salted.has(pourId) || parts.some((part) => part.kind !== 'plastisol')) continue;
    const planned = parts.reduce((sum, part) => sum + (part.weighedG ?? part.share), 0);
    // Where some were weighed and some not, their shares as planned stand for all.
    const weighed = parts.every((part) => part.weighedG !== null);
    const grams = weighed ? gramsOf(parts, planned) : parts.map((part) => part.share);
    const sum = grams.reduce((total, one) => total + one, 0);
    const shares: Record<string, number> = {};
    parts.forEach((part, i) => {
      const key = part.materialId as string;
      shares[key] = (shares[key] ?? 0) + (grams[i] as number) / sum;
    });
    found.set(pourId, shares);
  }
  return found;
}

interface Fitted {
  fit: HardnessFit | null;
  leftOut: number;
}

/** What a fit rests on, told by a few numbers: a cup that is closed changes no more. */
const STATE = `SELECT coalesce((SELECT max(seq) FROM hardness_reading), 0) || ' ' || coalesce((SELECT max(seq) FROM part_weighing), 0) || ' ' ||
  coalesce((SELECT sum(version) || ' ' || count(*) FROM material WHERE kind = 'plastisol'), '') AS state`;
const fits = new WeakMap<Db, Map<Scale, { state: string; fitted: Fitted }>>();

/** The same fit for every tap at the bench, until a reading, a weighing or a label changes it. */
function fitted(db: Db, scale: Scale): Fitted {
  const { state } = first<{ state: string }>(db, STATE) as { state: string };
  const known = fits.get(db) ?? new Map<Scale, { state: string; fitted: Fitted }>();
  fits.set(db, known);
  const made = known.get(scale);
  if (made?.state === state) return made.fitted;
  const fresh = madeOf(db, scale);
  known.set(scale, { state, fitted: fresh });
  return fresh;
}

/** This workshop's own plastics from its own cured readings of one scale. */
function madeOf(db: Db, scale: Scale): Fitted {
  const rows = plastisols(db, scale);
  const parts = rows
    .filter((row) => row.nominal !== null)
    .map((row) => ({ id: row.materialId, nominal: row.nominal as number }));
  const read = readings(db, scale);
  const shares = sharesByPour(db, [...new Set(read.map((one) => one.pourId))]);
  const known = new Set(parts.map((part) => part.id));
  const used = read.flatMap(({ pourId, value }) => {
    const fractions = shares.get(pourId);
    return fractions && Object.keys(fractions).every((id) => known.has(id)) ? [{ fractions, hardness: value }] : [];
  });
  return {
    fit: parts.length > 0 ? fitHardness(check(fitSchema, { parts, readings: used })) : null,
    leftOut: read.length - used.length,
  };
}

export function plastics(db: Db, scale: Scale): Plastics {
  const { fit, leftOut } = fitted(db, scale);
  return {
    scale,
    n: fit?.n ?? 0,
    leftOut,
    residualSd: fit?.residualSd ?? null,
    items: plastisols(db, scale).map((row) => ({
      ...row,
      hardness: fit?.parts[row.materialId]?.hardness ?? null,
      sd: fit?.parts[row.materialId]?.sd ?? null,
    })),
  };
}

/** What the parts of a cup make together; null where one of them is no plastisol whose hardness is known. */
export function hardnessOfParts(db: Db, parts: Part[], grams: number[], scale: Scale) {
  if (parts.length === 0 || parts.some((part) => part.kind !== 'plastisol')) return null;
  const { fit } = fitted(db, scale);
  const whole = grams.reduce((sum, one) => sum + one, 0);
  if (!fit || whole <= 0) return null;
  const mixed = mixHardness(
    parts.map((part, i) => {
      const own = fit.parts[part.materialId as string];
      return { share: (grams[i] as number) / whole, hardness: own?.hardness ?? null, sd: own?.sd ?? null };
    }),
  );
  return mixed && { scale, ...mixed, n: fit.n };
}
