import { ADDITIVE_KINDS, type Additive, type Part, type Plastics } from '../../contract/blend.ts';
import type { MaterialKind } from '../../contract/materials.ts';
import { fitHardness, fitSchema, type HardnessFit } from '../../core/plastisol/fit.ts';
import { mixHardness } from '../../core/plastisol/parts.ts';
import { check } from '../../core/validate.ts';
import { poursOfRemelt } from '../bins/store.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { hasDosed } from '../ledgers/store.ts';
import { plasticOfPours } from '../materials/store.ts';
import { sharedCups } from './linked.ts';

type Scale = 'A' | '00';

/** What is dosed into a cup and tells on its hardness. */
const TELLING: MaterialKind[] = ['salt', ...ADDITIVE_KINDS];

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

const additives = (db: Db, scale: Scale): Additive[] =>
  all(
    db,
    `SELECT material.id AS material_id, material.name, points_per_percent, price_per_kg_minor,
       coalesce((SELECT sum(l.grams) FROM lot_level l WHERE l.material_id = material.id), 0) AS level_g
     FROM material WHERE kind IN (SELECT value FROM json_each(?)) AND away_at IS NULL AND points_per_percent IS NOT NULL
       AND hardness_scale = ? ORDER BY created_at`,
    [JSON.stringify(ADDITIVE_KINDS), scale],
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

/** Shares of whole plastisols in each closed cup; a cup with anything else in it that tells on hardness has none. */
function sharesByPour(db: Db, pourIds: string[]): Map<string, Record<string, number>> {
  const dosed = all<{ id: string }>(
    db,
    `SELECT pour.id FROM pour WHERE pour.id IN (SELECT value FROM json_each(?)) AND ${hasDosed('pour.ledger_id', TELLING)}`,
    [JSON.stringify(pourIds)],
  ).map((row) => row.id);
  const otherwise = new Set([...dosed, ...poursOfRemelt(db, pourIds), ...sharedCups(db, pourIds)]);
  const grams = new Map<string, Record<string, number>>();
  for (const { pourId, materialId, kind, g } of plasticOfPours(db, pourIds)) {
    if (kind !== 'plastisol') otherwise.add(pourId);
    grams.set(pourId, { ...grams.get(pourId), [materialId]: g });
  }
  const shares = [...grams].flatMap(([pourId, taken]): [string, Record<string, number>][] => {
    const whole = Object.values(taken).reduce((sum, g) => sum + g, 0);
    if (otherwise.has(pourId) || whole <= 0) return [];
    return [[pourId, Object.fromEntries(Object.entries(taken).map(([id, g]) => [id, g / whole]))]];
  });
  return new Map(shares);
}

interface Fitted {
  fit: HardnessFit | null;
  leftOut: number;
}

/** What a fit rests on, told by a few numbers: a cup that is closed changes no more. */
const STATE = `SELECT coalesce((SELECT max(seq) FROM hardness_reading), 0) || ' ' || coalesce((SELECT max(seq) FROM balance), 0) || ' ' ||
  coalesce((SELECT sum(version) || ' ' || count(*) FROM material WHERE kind = 'plastisol'), '') AS state`;
const fits = new WeakMap<Db, Map<Scale, { state: string; fitted: Fitted }>>();

/** The same fit for every tap at the bench, until a reading, a closing or a label changes it. */
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
    additives: additives(db, scale),
  };
}

/** What the parts of a cup make together; null where it is not known of one of them. */
export function hardnessOfParts(db: Db, parts: Part[], grams: number[], scale: Scale) {
  if (parts.length === 0 || parts.some((part) => part.materialId === null)) return null;
  const { fit } = fitted(db, scale);
  const whole = grams.reduce((sum, one) => sum + one, 0);
  if (!fit || whole <= 0) return null;
  const points = new Map(
    parts.every((part) => part.kind === 'plastisol')
      ? []
      : additives(db, scale).map((one) => [one.materialId, one.pointsPerPercent]),
  );
  const mixed = mixHardness(
    parts.map((part, i) => {
      const own = fit.parts[part.materialId as string];
      return {
        share: (grams[i] as number) / whole,
        hardness: own?.hardness ?? null,
        sd: own?.sd ?? null,
        pointsPerPercent: points.get(part.materialId as string) ?? null,
      };
    }),
  );
  return mixed && { scale, ...mixed, n: fit.n };
}
