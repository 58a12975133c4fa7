import type * as v from 'valibot';
import type { Bin, BinPuck, BinWithMoves, binMixBody, binMoveBody } from '../../contract/bins.ts';
import { usual } from '../../core/defaults.ts';
import { Failure } from '../../core/failure.ts';
import { binGrams, colourOf, countBin, type Layer, partOf, takeFromBin } from '../../core/plastisol/bin.ts';
import { mixRemelt } from '../../core/plastisol/remelt.ts';
import { g, say } from '../../core/units/say.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { asLayer, asRow, COLOUR_SUMS, type LayerRow, SUMS } from './layers.ts';

/** −1 stands for heats that nobody knows, since a sum needs a key. */
const LEVELS = (where: string) =>
  `SELECT bin_id, nullif(heats, -1) AS heats, grams, salt_g, salt_unknown_g, ${COLOUR_SUMS.join(', ')} FROM bin_level
   WHERE abs(grams) > 1e-9${where} ORDER BY heats < 0, heats`;

function layersByBin(db: Db): Map<string, Layer[]> {
  const layers = new Map<string, Layer[]>();
  for (const { binId, ...layer } of all<LayerRow & { binId: string }>(db, LEVELS('')))
    layers.set(binId, [...(layers.get(binId) ?? []), asLayer(layer)]);
  return layers;
}

export const layersOf = (db: Db, binId: string): Layer[] =>
  all<LayerRow & { binId: string }>(db, LEVELS(' AND bin_id = ?'), [binId]).map(({ binId: _, ...row }) => asLayer(row));

const MOVES_SHOWN = 12;

const movesOf = (db: Db, binId: string) =>
  all<Omit<BinWithMoves['moves'][number], 'reversed'> & { gone: boolean }>(
    db,
    `SELECT m.id, m.kind, m.grams, m.heats, pour.code AS pour_code, m.note, m.at, NOT ${standing('bin_move', 'm')} AS gone
     FROM bin_move m LEFT JOIN pour ON pour.id = m.pour_id WHERE m.bin_id = ? AND m.reverses IS NULL AND m.puck_id IS NULL ORDER BY m.seq DESC LIMIT ${MOVES_SHOWN}`,
    [binId],
  ).map(({ gone, ...move }) => ({ ...move, reversed: gone }));

type Bare = Omit<Bin, 'grams' | 'layers' | 'heats' | 'unknownFraction' | 'colour'>;

function complete(bare: Bare, layers: Layer[]): Bin {
  const there = layers.filter((one) => one.grams > 0);
  const mixed = there.length > 0 ? mixRemelt({ parts: there.map(({ grams, heats }) => ({ grams, heats })) }) : null;
  return {
    ...bare,
    grams: binGrams(layers),
    layers,
    heats: mixed && mixed.unknownFraction < 1 ? mixed.heats : null,
    unknownFraction: mixed?.unknownFraction ?? 0,
    colour: colourOf(there),
  };
}

const BARE = 'SELECT id, version, away_at, name, hex, colourway_id FROM bin';

export function listBins(db: Db): Bin[] {
  const layers = layersByBin(db);
  return all<Bare>(db, `${BARE} ORDER BY name`).map((bare) => complete(bare, layers.get(bare.id) ?? []));
}

/** The newest puck of a bin that stands; null: none was cooked. */
const puckOf = (db: Db, binId: string): BinPuck | null =>
  first<BinPuck>(
    db,
    `SELECT p.id, p.output, p.at FROM bin_puck p WHERE p.bin_id = ? AND ${standing('bin_puck', 'p')} ORDER BY p.seq DESC LIMIT 1`,
    [binId],
  ) ?? null;

export function getBin(db: Db, id: string): BinWithMoves {
  mustFind(db, 'bin', id, 'bin');
  const bin = complete(first<Bare>(db, `${BARE} WHERE id = ?`, [id]) as Bare, layersOf(db, id));
  return { ...bin, puck: puckOf(db, id), moves: movesOf(db, id) };
}

/** Another name where this one is taken: a colour's bin is made without asking. */
function freeName(db: Db, name: string): string {
  for (let n = 1; ; n++) {
    const tried = n === 1 ? name : `${name} ${n}`;
    if (!first(db, 'SELECT 1 FROM bin WHERE name = ? COLLATE NOCASE', [tried])) return tried;
  }
}

/** The bin that a colour's sprues and rejects go to; made when the first do. */
export function binOfColourway(db: Db, colourwayId: string, at: string): string {
  const known = first<{ id: string }>(db, 'SELECT id FROM bin WHERE colourway_id = ?', [colourwayId]);
  if (known) return known.id;
  const { name, hex } = first(db, 'SELECT name, hex FROM colourway_called WHERE id = ?', [colourwayId]) as {
    name: string;
    hex: string;
  };
  const id = newId();
  insert(db, 'bin', { id, name: freeName(db, name), hex, colourwayId, createdAt: at });
  return id;
}

interface About {
  kind: 'cup' | 'given' | 'used' | 'mixed' | 'counted' | 'reversed';
  pourId?: string;
  note?: string;
  /** Of the first row, where the screen chose it. */
  id?: string | undefined;
  at: string;
}

export function addToBin(db: Db, binId: string, layers: Layer[], { id, note = '', ...about }: About): void {
  layers
    .filter((layer) => layer.grams !== 0)
    .forEach((layer, index) => {
      insert(db, 'bin_move', { id: newId(index === 0 ? id : undefined), binId, ...asRow(layer), ...about, note });
    });
}

const negative = (layer: Layer): Layer => partOf(layer, -1);

/** Grams go out of a bin into a cup, of everything in it alike. @returns what they were. */
export function takeOutOfBin(db: Db, binId: string, grams: number, about: { pourId: string; at: string }): Layer[] {
  const taken = takeFromBin(layersOf(db, binId), grams);
  addToBin(db, binId, taken.map(negative), { kind: 'used', ...about });
  return taken;
}

/** What is left of a cup lies apart, by the cup's own name. @returns the bin. */
export function keptBin(db: Db, cup: { code: string; recipeName: string; hex: string }, at: string): string {
  const id = newId();
  insert(db, 'bin', { id, name: freeName(db, `${cup.recipeName}, ${cup.code}`), hex: cup.hex, createdAt: at });
  return id;
}

/** Stirs grams of several bins into a new one; each gives of everything in it alike. */
export function mixBins(db: Db, { from, ...bin }: v.InferOutput<typeof binMixBody>, at: string): string {
  const id = newId();
  insert(db, 'bin', { id, ...bin, createdAt: at });
  from.forEach(({ binId, grams }, index) => {
    if (!first(db, 'SELECT 1 FROM bin WHERE id = ?', [binId]))
      throw new Failure('invalid-input', 'That bin is not here.', `from.${index}.binId`);
    const layers = layersOf(db, binId);
    if (grams > binGrams(layers) + 1e-9)
      throw new Failure(
        'not-enough-stock',
        say`There are ${g(binGrams(layers))} in it; weigh it if there is more.`,
        `from.${index}.grams`,
      );
    const taken = takeFromBin(layers, grams);
    addToBin(db, binId, taken.map(negative), { kind: 'mixed', note: `into ${bin.name}`, at });
    addToBin(db, id, taken, { kind: 'mixed', at });
  });
  return id;
}

/** What a pour took out of a bin, or put into bins, by how often it was cooked. */
const sumsOf = (db: Db, pourId: string, kinds: string, binId: string | null) =>
  all<LayerRow & { binId: string }>(
    db,
    `SELECT bin_id, heats, ${SUMS} FROM bin_move
     WHERE pour_id = ? AND kind IN (${kinds}) AND (? IS NULL OR bin_id = ?) GROUP BY bin_id, heats`,
    [pourId, binId, binId],
  ).map(({ binId: of, ...row }) => ({ binId: of, ...asLayer(row) }));

export const usedByPour = (db: Db, pourId: string, binId: string | null = null): (Layer & { binId: string })[] =>
  sumsOf(db, pourId, "'used', 'reversed'", binId).map(({ binId: from, ...layer }) => ({
    binId: from,
    ...negative(layer),
  }));
export const returnedByPour = (db: Db, pourId: string) => sumsOf(db, pourId, "'cup'", null);

/** Which of these cups have remelt in them. */
export const poursOfRemelt = (db: Db, pourIds: string[]): string[] =>
  all<{ pourId: string }>(
    db,
    `SELECT DISTINCT pour_id FROM bin_move WHERE kind = 'used' AND pour_id IN (SELECT value FROM json_each(?))`,
    [JSON.stringify(pourIds)],
  ).map((row) => row.pourId);

/** Colours whose cups remelt went into here, and how much of those cups it was. */
export function takingRemelt(db: Db): { colourwayIds: Set<string>; share: number } {
  const rows = all<{ colourwayId: string; grams: number; cookMl: number }>(
    db,
    `SELECT pour.colourway_id, -sum(m.grams) AS grams, max(pour.cook_ml) AS cook_ml
     FROM bin_move m JOIN pour ON pour.id = m.pour_id WHERE m.kind IN ('used', 'reversed')
     GROUP BY m.pour_id HAVING sum(m.grams) < 0`,
  );
  const cookedG = usual('plastisolGPerMl') * rows.reduce((sum, { cookMl }) => sum + cookMl, 0);
  return {
    colourwayIds: new Set(rows.map(({ colourwayId }) => colourwayId)),
    share: cookedG > 0 ? Math.min(1, rows.reduce((sum, { grams }) => sum + grams, 0) / cookedG) : 0,
  };
}

/** Less was used than was said: as much of each goes back. */
export function putBack(
  db: Db,
  binId: string,
  grams: number,
  about: { pourId: string; note: string; at: string },
): void {
  const used = usedByPour(db, about.pourId, binId);
  addToBin(db, binId, takeFromBin(used, grams), { kind: 'reversed', ...about });
}

export function moveBin(db: Db, binId: string, body: v.InferOutput<typeof binMoveBody>, at: string): void {
  mustFind(db, 'bin', binId, 'bin');
  if (body.kind === 'counted') {
    addToBin(db, binId, countBin(layersOf(db, binId), body.grams), {
      kind: 'counted',
      note: body.note,
      id: body.id,
      at,
    });
    return;
  }
  const { grams, heats, saltG } = body;
  if (saltG !== null && saltG > grams)
    throw new Failure('invalid-input', 'It cannot hold more salt than it weighs.', 'saltG');
  const layer = { heats, grams, saltG: saltG ?? 0, saltUnknownG: saltG === null ? grams : 0 };
  addToBin(db, binId, [layer], { kind: 'given', note: body.note, id: body.id, at });
}

/** What was given is taken back by its own row; a cup's grams by weighing it again, a count by counting. */
export function refuseUnlessGiven({ kind }: { kind?: unknown }): void {
  if (kind !== 'given') throw new Failure('not-found', 'There is no such move to take back.');
}

/** SQL: whether remelt whose salt nobody knows went out of bins into a cup. @param pour its id in the query around it. */
export const saltUnknownInto = (pour: string) =>
  `EXISTS (SELECT 1 FROM bin_move m WHERE m.pour_id = ${pour} AND m.kind = 'used' AND abs(m.salt_unknown_g) > 1e-6)`;

/** SQL: grams in the bin that a recipe's own goes to. @param recipe its id in the query around it. */
export const BIN_GRAMS = (recipe: string) =>
  `coalesce((SELECT sum(l.grams) FROM bin JOIN bin_level l ON l.bin_id = bin.id WHERE bin.colourway_id = ${recipe}), 0)`;
