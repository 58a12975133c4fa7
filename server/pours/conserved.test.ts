// Grams over random evenings of linked cups: what went in came out, for each set of cups that were weighed together and in all.
// EVENINGS=10000 for as many; the tests run a few hundred.
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Colourway } from '../../contract/colourways.ts';
import type { Material } from '../../contract/materials.ts';
import type { Recipe } from '../../contract/recipes.ts';
import { balanceOf, lostG } from '../../core/yield/counts.ts';
import { addToBin } from '../bins/store.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addDose } from '../ledgers/store.ts';
import { addLot } from '../materials/store.ts';
import { stocked, TestWorkshop } from '../testing/workshop.ts';
import { closePour, weighAgain } from './close.ts';
import { layOutPour } from './layout.ts';
import { linkedCups } from './linked.ts';
import { addMarks, addParts, addRedo, addShot } from './shots.ts';
import { addHeat, openPour } from './write.ts';

const EVENINGS = Number(process.env.EVENINGS ?? 300);
const CAVITIES = 4;
const BAIT_G = 10.2;

let workshop: TestWorkshop;
let db: Db;
let moldId: string;
let salt: string;
let plastics: string[];
let colourways: string[];
let bin: string;

beforeAll(async () => {
  workshop = await TestWorkshop.open();
  db = workshop.data.db;
  db.pragma('synchronous = OFF');
  const stock = await stocked(workshop);
  moldId = stock.mold.id;
  const { made } = workshop;
  const material = async (name: string, kind: string) =>
    (await made<Material>('/materials', { name, kind, lot: { code: 'A1', grams: 1 } })).id;
  salt = await material('Fine salt', 'salt');
  plastics = [stock.plastisol.id, await material('Firm 58', 'plastisol'), await material('Loft Ease', 'softener')];
  const items = [{ materialId: stock.colourant.id, amount: 6, unit: 'drop' }];
  const pearl = await made<Recipe>('/recipes', { name: 'Limpet', hex: '#d8cdb8', basisMl: 240, items });
  const layered = (name: string, joins: string) =>
    made<Colourway>('/colourways', {
      name,
      hex: '#7fa3a0',
      notes: '',
      layers: [
        { place: 'belly', recipeId: pearl.id, measure: 'share', shareFraction: 0.3 },
        { place: 'side', recipeId: stock.recipe.id, measure: 'ml', eachMl: 1, joins },
        { place: 'back', recipeId: pearl.id, measure: 'rest', joins },
      ],
    });
  colourways = [
    stock.recipe.id,
    pearl.id,
    (await layered('Together', 'together')).id,
    (await layered('One by one', 'melted')).id,
  ];
  for (const lot of all<{ id: string }>(db, 'SELECT id FROM lot'))
    insert(db, 'lot_move', { id: newId(), lotId: lot.id, kind: 'received', grams: 1e9, note: '', at: 'now' });
  bin = newId();
  insert(db, 'bin', { id: bin, name: 'Used', hex: '#557755', createdAt: 'now' });
  const at = workshop.now.toISOString();
  addLot(db, plastics[0] as string, { code: 'B1', bottleStrength: 1, grams: 1e9 }, at);
  addToBin(
    db,
    bin,
    [
      { heats: 2, grams: 1e6, saltG: 1e4, saltUnknownG: 0 },
      { heats: null, grams: 1e6, saltG: 0, saltUnknownG: 1e6 },
    ],
    {
      kind: 'given',
      at,
    },
  );
});
afterAll(() => workshop.close());

const part = fc.double({ min: 0, max: 1, noNaN: true });
const cup = fc.record({
  colour: fc.nat(3),
  shots: fc.integer({ min: 1, max: 3 }),
  bad: fc.nat(4),
  own: fc.nat(2),
  blend: fc.tuple(part, part, part, part),
  saltG: fc.nat(30),
  redo: fc.boolean(),
  lends: fc.boolean(),
  // Shares of what is not baits: left, on the glass; the rest nobody can account for.
  left: part,
  film: part,
  leftTo: fc.constantFrom('bin', 'kept', 'next'),
  // What was left is put on the scale again afterwards, and is as much of what it was.
  again: fc.option(fc.double({ min: 0.3, max: 1.2, noNaN: true }), { nil: null }),
});
type Cup = typeof cup extends fc.Arbitrary<infer C> ? C : never;

/** One go after another, each part pinned to nothing: what it weighs is told by its volume. */
function draw(lead: string, wish: Cup, lender: string | undefined, now: Date): number {
  const pour = openPour(db, lead);
  const cups = all<{ id: string; recipeId: string }>(
    db,
    'SELECT id, recipe_id FROM pour WHERE id = @lead OR lead_id = @lead ORDER BY place',
    { lead },
  );
  const layers = all<{ recipeId: string; joins: string | null }>(
    db,
    'SELECT recipe_id, joins FROM colourway_layer WHERE revision_id = ? ORDER BY position',
    [pour.colourwayRevisionId],
  );
  let baits = 0;
  for (let n = 0; n < wish.shots; n++) {
    const id = newId();
    const parts = layers.map((layer, index) => {
      const own = cups.find((one) => one.recipeId === layer.recipeId) as { id: string };
      return { layer: index, pourId: own.id, lastDose: null, lastHeat: null };
    });
    const together = layers.length === 1 || layers[1]?.joins === 'together';
    // A single cup may have the help of another one of the evening.
    const all =
      lender && layers.length === 1 && parts[0]
        ? [
            { ...parts[0], share: 0.6 },
            { ...parts[0], pourId: lender, share: 0.4 },
          ]
        : parts;
    addShot(db, pour, { id, moldId, parts: together ? all : parts.slice(0, 1) }, now);
    if (!together) for (const one of parts.slice(1)) addParts(db, pour, id, [one], now);
    if (wish.redo && layers.length > 1)
      addRedo(
        db,
        pour,
        id,
        { layer: 1, cavity: 1, pourId: parts[1]?.pourId as string, minutes: null, reason: null },
        now,
      );
    const marks = Array.from({ length: CAVITIES }, (_, i) =>
      i < wish.bad
        ? { cavity: i + 1, grade: 'remelt' as const, reason: 'bubble' as const }
        : i < wish.bad + wish.own
          ? { cavity: i + 1, grade: 'own' as const, reason: 'colour' as const }
          : { cavity: i + 1, grade: 'sell' as const },
    );
    addMarks(db, pour, id, marks, now);
    baits += CAVITIES - Math.min(CAVITIES, wish.bad);
  }
  return baits;
}

type Own = Parameters<typeof lostG>[0] & { cookedG: number; returnedG: number };

interface Closing {
  ids: string[];
  cookedG: number;
  goodG: number;
  rejectG: number;
}

const sum = (sql: string, ids: string[]) =>
  first<{ g: number | null }>(db, sql.replace('@ids', 'SELECT value FROM json_each(@ids)'), {
    ids: JSON.stringify(ids),
  })?.g ?? 0;

/** Balances of these cups as they were weighed last. */
const LAST = `balance b WHERE b.pour_id IN (@ids) AND b.seq = (SELECT max(x.seq) FROM balance x WHERE x.pour_id = b.pour_id)`;

/** What went into these cups, and what became of it. */
function checkSet({ ids, cookedG, goodG, rejectG }: Closing): void {
  const lots = -sum('SELECT sum(grams) AS g FROM lot_move WHERE pour_id IN (@ids)', ids);
  const outOfBins = -sum(
    `SELECT sum(grams) AS g FROM bin_move WHERE kind IN ('used', 'reversed') AND pour_id IN (@ids)`,
    ids,
  );
  const fromCups = sum('SELECT sum(grams) AS g FROM cup_transfer WHERE pour_id IN (@ids)', ids);
  expect(lots + outOfBins + fromCups).toBeCloseTo(cookedG, 3);
  const of = (what: string) => sum(`SELECT sum(${what}) AS g FROM ${LAST}`, ids);
  expect(of('cooked_g')).toBeCloseTo(cookedG, 6);
  expect([of('good_g'), of('reject_g')]).toEqual([expect.closeTo(goodG, 6), expect.closeTo(rejectG, 6)]);
  const intoBins = sum(`SELECT sum(grams) AS g FROM bin_move WHERE kind = 'cup' AND pour_id IN (@ids)`, ids);
  const intoCups = sum('SELECT sum(grams) AS g FROM cup_transfer WHERE from_pour_id IN (@ids)', ids);
  expect(intoBins + intoCups).toBeCloseTo(rejectG + of('returned_g'), 4);
  // No cup gave more than it held, and of none is more known to be salt than it weighs.
  for (const row of all<Parameters<typeof balanceOf>[1][number] & { goodG: number; rejectG: number }>(
    db,
    `SELECT cooked_g, good_g, reject_g, returned_g, residue_g, degassed_g FROM ${LAST.replace('@ids', 'SELECT value FROM json_each(?)')}`,
    [JSON.stringify(ids)],
  ))
    expect(balanceOf(row, [row]).unaccountedG).toBeGreaterThanOrEqual(0);
  const parts = sum(
    'SELECT sum(p.ml) AS g FROM shot_part p JOIN shot s ON s.id = p.shot_id WHERE s.pour_id IN (@ids)',
    ids,
  );
  const molds = sum(
    'SELECT sum(m.cavities * m.cavity_ml + m.sprue_ml + m.runner_ml) AS g FROM shot s JOIN mold m ON m.id = s.mold_id WHERE s.pour_id IN (@ids)',
    ids,
  );
  expect(parts).toBeCloseTo(molds, 6);
}

function evening(cups: Cup[], now: Date): void {
  const at = now.toISOString();
  const leads = cups.map((wish) => {
    const weights = [
      ...plastics.map((materialId, i) => ({ materialId, share: wish.blend[i] as number })),
      { binId: bin, share: wish.blend[3] },
    ].filter((one) => one.share > 0.01);
    const whole = weights.reduce((total, one) => total + one.share, 0);
    const blend = whole > 0 ? weights.map((one) => ({ ...one, share: one.share / whole })) : undefined;
    return layOutPour(
      db,
      {
        colourwayId: colourways[wish.colour] as string,
        molds: [{ moldId, shots: wish.shots }],
        orderLines: [],
        ...(blend ? { blend } : {}),
      },
      at,
    );
  });
  const baits = leads.map((lead, i) => {
    const wish = cups[i] as Cup;
    addHeat(db, openPour(db, lead), { kind: 'cook', c: 170 }, at);
    if (wish.saltG > 0)
      addDose(db, openPour(db, lead).ledgerId, { materialId: salt, amount: wish.saltG, unit: 'g' }, at);
    return draw(lead, wish, wish.lends ? leads[i + 1] : undefined, now);
  });
  const closed = new Set<string>();
  const sets: (Closing & { own: Own; again: number | null })[] = [];
  for (const [i, lead] of leads.entries()) {
    if (closed.has(lead)) continue;
    const wish = cups[i] as Cup;
    const ids = linkedCups(db, lead).map((one) => one.id);
    const mine = leads.filter((one) => ids.includes(one));
    const kept = mine.reduce((total, one) => total + (baits[leads.indexOf(one)] as number), 0);
    const shots = mine.reduce((total, one) => total + (cups[leads.indexOf(one)] as Cup).shots, 0);
    const [goodG, rejectG] = [kept * BAIT_G, (shots * CAVITIES - kept) * BAIT_G + wish.saltG];
    // What was poured in from another cup is part of what was cooked.
    const pouredIn = sum('SELECT sum(grams) AS g FROM cup_transfer WHERE pour_id IN (@ids)', ids);
    const each = (goodG + rejectG) * 1.3 + 60 + pouredIn;
    const rest = each * ids.length - goodG - rejectG;
    const own = {
      cookedG: each,
      returnedG: (rest / ids.length) * wish.left * 0.9,
      // Weighed by some of them, and not by others.
      residueG: wish.film < 0.2 ? null : (rest / ids.length) * (1 - wish.left) * wish.film * 0.8,
      degassedG: wish.film < 0.6 ? null : (rest / ids.length) * (1 - wish.left) * wish.film * 0.2,
    };
    const next = leads.find((one) => !closed.has(one) && !ids.includes(one));
    const leftTo = wish.leftTo === 'kept' ? 'kept' : wish.leftTo === 'next' && own.returnedG > 0 ? next : undefined;
    closePour(
      db,
      lead,
      {
        ...own,
        goodG,
        rejectG,
        ...(leftTo ? { leftTo } : {}),
        others: ids.filter((id) => id !== lead).map((pourId) => ({ pourId, ...own })),
      },
      now,
    );
    for (const id of ids) closed.add(id);
    const set = { ids, cookedG: each * ids.length, goodG, rejectG };
    checkSet(set);
    sets.push({ ...set, own, again: wish.again });
  }
  for (const { own, again, ...set } of sets) {
    const [id, ...others] = set.ids;
    if (again === null || others.length > 0 || own.returnedG < 1) continue;
    // More than was there cannot have been left.
    const most = own.cookedG - set.goodG - set.rejectG - lostG(own);
    const returnedG = Math.min(own.returnedG * again, most);
    weighAgain(db, id as string, { ...own, goodG: set.goodG, rejectG: set.rejectG, returnedG }, at);
    for (const one of sets) checkSet(one);
  }
}

test(`grams are conserved over ${EVENINGS} evenings, for each set of cups and in all`, { timeout: 40 * 60_000 }, () => {
  fc.assert(
    fc.property(fc.array(cup, { minLength: 1, maxLength: 4 }), (cups) => {
      workshop.waits(24);
      db.transaction(() => evening(cups, workshop.now))();
    }),
    { numRuns: EVENINGS },
  );
  // In all: what lies in the bins is what went into them less what went out, by rows and by the sums kept beside them.
  const rows = first<{ g: number }>(db, 'SELECT sum(grams) AS g FROM bin_move')?.g ?? 0;
  const levels = first<{ g: number }>(db, 'SELECT sum(grams) AS g FROM bin_level')?.g ?? 0;
  expect(levels).toBeCloseTo(rows, 2);
  // What comes back was cooked once more than the freshest of what went in; of what nobody knew, nobody knows more now.
  const least = first<{ n: number }>(
    db,
    `SELECT min(heats) AS n FROM bin_move WHERE kind = 'cup' AND heats IS NOT NULL`,
  );
  expect(least?.n).toBe(1);
  expect(
    first<{ n: number }>(db, `SELECT count(*) AS n FROM bin_move WHERE kind = 'cup' AND heats IS NULL`)?.n,
  ).toBeGreaterThan(0);
  const marks = first<{ n: number }>(db, `SELECT count(*) AS n FROM mark_now WHERE grade IN ('sell', 'own')`)?.n;
  expect(first<{ n: number }>(db, 'SELECT sum(baits) AS n FROM rack_level')?.n).toBe(marks);
});
