import type { Layer, MoldLevels } from '../../contract/colourways.ts';
import type { MoldRow } from '../../contract/molds.ts';
import { type Told, tried } from '../../core/failure.ts';
import { cupFor } from '../../core/plan/cup.ts';
import { drawnOf } from '../../core/plan/glasses.ts';
import { meltsOf } from '../../core/plan/layers.ts';
import { layersByColourway } from '../colourways/store.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { levelsOf } from '../molds/levels.ts';
import { usableMolds } from '../molds/store.ts';
import type { OpenLine } from '../orders/need.ts';

/** What each mold draws out of the glasses of each colour that is wanted in its bait. */
export interface Drawing {
  baits: { id: string; name: string; shape: string; finishS: number; dryH: number }[];
  colours: { id: string; name: string; hex: string }[];
  molds: (MoldRow & Partial<MoldLevels>)[];
  layers: Map<string, Layer[]>;
  /** A shot out of its fullest glass, over all colours. */
  shotMl: Map<string, number>;
  /** Of each colour, the molds it is poured in, and a shot of each out of its fullest glass. */
  drawnBy: Map<string, { moldId: string; ml: number }[]>;
  /** Of each colour, its fullest glass beside that. */
  shares: Map<string, number>;
  /** Of each colour, its melts by their share of the fullest one's millilitres. */
  melts: Map<string, { recipeId: string; ratio: number }[]>;
  /** What stays in a glass. */
  residueMl: number;
  /** "bait colour" that no mold here makes, and why. */
  without: Map<string, Told | null>;
}

const named = <T>(db: Db, table: 'bait' | 'colourway_called', columns: string, ids: string[]) =>
  all<T>(db, `SELECT ${columns} FROM ${table} WHERE id IN (SELECT value FROM json_each(@ids))`, {
    ids: JSON.stringify([...new Set(ids)]),
  });

export function drawingOf(db: Db, wanted: OpenLine[]): Drawing {
  const baits = named<Drawing['baits'][number]>(
    db,
    'bait',
    'id, name, shape, finish_s, dry_h',
    wanted.map(({ baitId }) => baitId),
  );
  const colours = named<Drawing['colours'][number]>(
    db,
    'colourway_called',
    'id, name, hex',
    wanted.map(({ colourwayId }) => colourwayId),
  );
  const here = new Set(baits.map(({ id }) => id));
  const usable = usableMolds(db).filter(({ baitId }) => here.has(baitId));
  const layers = layersByColourway(
    db,
    colours.map(({ id }) => id),
  );
  const levels = levelsOf(db, usable, [...layers.values()].flat());
  const molds = usable.map((mold) => ({ ...mold, levels: levels.get(mold.id)?.levels }));
  /** What a shot takes out of its fullest glass, and what stays in that glass: two shots less one, and one less that. */
  const drawn = (mold: (typeof molds)[number], colourwayId: string) =>
    tried(() =>
      meltsOf(layers.get(colourwayId) ?? [])
        .map(({ recipeId, layers: which }) => {
          const cook = (shots: number) =>
            cupFor(drawnOf([{ mold, shots }], layers.get(colourwayId) ?? [], which, 1)).cookMl;
          const [one, two] = [cook(1), cook(2)];
          return { recipeId, shotMl: two - one, residueMl: 2 * one - two };
        })
        .reduce(
          ({ melts, ...most }, { recipeId, ...each }) => ({
            ...(each.shotMl > most.shotMl ? each : most),
            melts: [...melts, { recipeId, ml: each.shotMl }],
          }),
          { shotMl: 0, residueMl: 0, melts: [] as { recipeId: string; ml: number }[] },
        ),
    );
  const [shotMl, without] = [new Map<string, number>(), new Map<string, Told | null>()];
  const melts: Drawing['melts'] = new Map();
  const drawnBy: Drawing['drawnBy'] = new Map();
  let residueMl = 0;
  for (const key of new Set(wanted.map((line) => `${line.baitId} ${line.colourwayId}`))) {
    const [baitId, colourwayId] = key.split(' ') as [string, string];
    const tries = molds.filter((mold) => mold.baitId === baitId).map((mold) => ({ mold, ...drawn(mold, colourwayId) }));
    if (!tries.some(({ value }) => value)) without.set(key, tries[0]?.refused ?? null);
    for (const { mold, value } of tries) {
      if (!value) continue;
      residueMl = Math.max(residueMl, value.residueMl);
      melts.set(
        colourwayId,
        value.melts.map(({ recipeId, ml }) => ({ recipeId, ratio: ml / value.shotMl })),
      );
      shotMl.set(mold.id, Math.max(shotMl.get(mold.id) ?? 0, value.shotMl));
      drawnBy.set(colourwayId, [...(drawnBy.get(colourwayId) ?? []), { moldId: mold.id, ml: value.shotMl }]);
    }
  }
  const shares = new Map(
    [...drawnBy].map(([colourwayId, rows]) => [
      colourwayId,
      Math.min(1, Math.max(...rows.map(({ moldId, ml }) => ml / (shotMl.get(moldId) as number)))),
    ]),
  );
  return { baits, colours, molds, layers, shotMl, drawnBy, shares, melts, residueMl, without };
}
