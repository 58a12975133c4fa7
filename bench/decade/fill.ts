// Years of three makers, written by the server's own actions, an evening a transaction.
import { createHash } from 'node:crypto';
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ladderSteps } from '../../core/water/ladder.ts';
import { Random } from '../../demo/random.ts';
import { DataFolder } from '../../server/backup/data.ts';
import { all, first, insert, run } from '../../server/db/rows.ts';
import { newId } from '../../server/ids.ts';
import { addDose, addLedger } from '../../server/ledgers/store.ts';
import { addOrder, pack } from '../../server/orders/store.ts';
import { closePour } from '../../server/pours/close.ts';
import { layOutPour } from '../../server/pours/layout.ts';
import { linkedCups } from '../../server/pours/linked.ts';
import { weighIn } from '../../server/pours/parts.ts';
import { getPour } from '../../server/pours/read.ts';
import { addMarks, addRedo, addShot } from '../../server/pours/shots.ts';
import { addHeat, openPour } from '../../server/pours/write.ts';
import { addRevision } from '../../server/recipes/store.ts';
import { rack, stockOut } from '../../server/stock/store.ts';
import { undo } from '../../server/undo/store.ts';
import { restock, type Stock, stockUp, Writer } from './stock.ts';

const EVENINGS_A_YEAR = 150;
const POURS_AN_EVENING = 14;
const START = Date.UTC(2016, 8, 1, 17);
const LADDER = {
  scale: '00' as const,
  hardness: 34,
  wristHeightMm: 6,
  wristLengthMm: 12,
  paddleDiameterMm: 14,
  paddleThicknessMm: 4,
  walkingMPerS: 0.8,
};

/** Of one plastisol, of two, or with remelt of the colour where there is some. */
function blendFor({ db }: Writer, { plastics: [soft, firm] }: Stock, random: Random, colourwayId: string) {
  if (random.chance(0.5)) return undefined;
  const [more, less] = random.chance(0.7) ? [soft, firm] : [firm, soft];
  const bin = first<{ id: string }>(
    db,
    `SELECT bin.id FROM bin JOIN bin_level l ON l.bin_id = bin.id WHERE bin.away_at IS NULL AND (bin.colourway_id = ? OR bin.colourway_id IS NULL)
     GROUP BY bin.id HAVING sum(l.grams) > 20 ORDER BY bin.colourway_id IS NOT NULL LIMIT 1`,
    [colourwayId],
  );
  if (bin && random.chance(0.4))
    return [
      { materialId: more, share: 0.6 },
      { binId: bin.id, share: 0.4 },
    ];
  return [
    { materialId: more, share: 0.7 },
    { materialId: less, share: 0.3 },
  ];
}

/** What is left of a cup: into the bin, kept apart, or into the next cup, which is laid out for it. */
function leftover(writer: Writer, stock: Stock, random: Random): string | undefined {
  if (random.chance(0.02)) return 'kept';
  if (!random.chance(0.05)) return undefined;
  const moldId = random.pick(stock.molds).id;
  return layOutPour(
    writer.db,
    { colourwayId: random.pick(stock.recipes), molds: [{ moldId, shots: 6 }], orderLines: [] },
    writer.at,
  );
}

/** One cup, drawn, looked at and weighed; about eight shots and five marks a shot. */
function pourCup(writer: Writer, stock: Stock, random: Random, orderLine?: Line): void {
  const { db } = writer;
  const mold =
    orderLine === undefined
      ? random.pick(stock.molds)
      : (stock.molds.find((one) => one.baitId === orderLine.baitId) as Stock['molds'][number]);
  const colourwayId = orderLine?.colourwayId ?? random.pick(stock.colourways);
  const shots = 6 + Math.floor(random.between(0, 5));
  const blend = blendFor(writer, stock, random, colourwayId);
  const id = layOutPour(
    db,
    {
      colourwayId,
      ...(blend ? { blend } : {}),
      makerId: random.pick(stock.makers),
      molds: [{ moldId: mold.id, shots }],
      orderLines: orderLine ? [{ orderLineId: orderLine.id, baits: 8 }] : [],
    },
    writer.at,
  );
  drawCup(writer, stock, random, { id, mold, shots });
}

interface LaidOut {
  id: string;
  mold: Stock['molds'][number];
  shots: number;
}

function drawCup(writer: Writer, stock: Stock, random: Random, { id, mold, shots }: LaidOut): void {
  const { db } = writer;
  const pour = openPour(db, id);
  const cups = linkedCups(db, id).map((cup) => openPour(db, cup.id));
  if (random.chance(0.5))
    for (const part of getPour(db, id).parts.filter((one) => one.fromPourId === null))
      weighIn(db, id, { partId: part.id, grams: part.plannedG }, writer.at);
  for (const cup of cups) addHeat(db, cup, { kind: 'cook', c: 175 }, writer.at);
  for (const item of all<{ ledgerId: string; materialId: string; amount: number; unit: string }>(
    db,
    `SELECT ledger_id, material_id, amount, unit FROM recipe_item i JOIN pour ON pour.recipe_revision_id = i.revision_id
     WHERE pour.id IN (SELECT value FROM json_each(?))`,
    [JSON.stringify(cups.map((cup) => cup.id))],
  )) {
    const { ledgerId, ...what } = item;
    const dose = newId();
    addDose(db, ledgerId, { id: dose, ...what }, writer.at);
    if (random.chance(0.03)) {
      undo(db, dose, undefined, writer.now);
      addDose(db, ledgerId, what, writer.at);
    }
  }
  let [good, bad] = [0, 0];
  for (let n = 0; n < shots; n++) {
    writer.waits(2);
    const shot = newId();
    addShot(db, pour, { id: shot, moldId: mold.id }, writer.now);
    if (cups.length > 1 && random.chance(0.05))
      addRedo(
        db,
        pour,
        shot,
        { layer: 1, cavity: 1, pourId: (cups[1] as { id: string }).id, minutes: 3, reason: 'bleed' },
        writer.now,
      );
    if (random.chance(0.02)) {
      undo(db, shot, undefined, writer.now);
      continue;
    }
    if (n === 3) addHeat(db, pour, { kind: 'reading', c: 168 }, writer.at);
    const marks = Array.from({ length: mold.cavities }, (_, index) =>
      random.chance(0.06)
        ? {
            cavity: index + 1,
            grade: random.chance(0.3) ? ('own' as const) : ('remelt' as const),
            reason: random.chance(0.3) ? ('flash' as const) : ('bubble' as const),
          }
        : { cavity: index + 1, grade: 'sell' as const },
    );
    addMarks(db, pour, shot, marks, writer.now);
    bad += marks.filter((mark) => mark.grade === 'remelt').length;
    good += marks.filter((mark) => mark.grade === 'sell' || mark.grade === 'own').length;
  }
  const own = { cookedG: ((good + bad) * 12) / cups.length + 60, returnedG: 40, residueG: 6, degassedG: null };
  const others = cups.filter((cup) => cup.id !== id).map((cup) => ({ pourId: cup.id, ...own }));
  const leftTo = leftover(writer, stock, random);
  const weighed = { ...own, goodG: good * 12, rejectG: bad * 12, others, ...(leftTo ? { leftTo } : {}) };
  closePour(db, id, weighed, writer.now);
  if (good + bad > 0 && random.chance(0.5))
    writer.row('hardness_reading', {
      pourId: id,
      scale: '00',
      value: 33 + random.between(0, 4),
      early: 0,
      at: writer.at,
    });
  if (leftTo === undefined || leftTo === 'kept') return;
  const { molds } = getPour(db, leftTo);
  const next = stock.molds.find((one) => one.id === molds[0]?.moldId) as LaidOut['mold'];
  drawCup(writer, stock, random, { id: leftTo, mold: next, shots: 6 });
}

interface Line {
  id: string;
  orderId: string;
  baitId: string;
  colourwayId: string;
}

function takeOrder(writer: Writer, stock: Stock, random: Random): Line[] {
  const { db } = writer;
  const lines = Array.from({ length: 1 + Math.floor(random.between(0, 3)) }, () => ({
    baitId: random.pick(stock.baits),
    colourwayId: random.pick(stock.colourways),
    packs: 1 + Math.floor(random.between(0, 4)),
    perPack: 8,
  }));
  const dueOn = new Date(writer.now.getTime() + 10 * 86_400_000).toISOString().slice(0, 10);
  const id = addOrder(
    db,
    { customerId: random.pick(stock.customers), dueOn, notes: '', gift: false, lines },
    writer.at,
  );
  return all<Line>(db, 'SELECT id, order_id, bait_id, colourway_id FROM order_line WHERE order_id = ?', [id]);
}

/** Packs what is there, sends what is packed, and clears away what nobody asked for. */
function packUp(writer: Writer, random: Random): void {
  const { db } = writer;
  for (const order of all<{ id: string }>(
    db,
    'SELECT id FROM customer_order WHERE sent_at IS NULL AND cancelled_at IS NULL ORDER BY due_on',
  )) {
    let left = 0;
    for (const line of all<{ id: string; packs: number; packed: number }>(
      db,
      'SELECT id, packs, (SELECT count(*) FROM bag WHERE bag.order_line_id = l.id) AS packed FROM order_line l WHERE order_id = ?',
      [order.id],
    ))
      for (let n = line.packed; n < line.packs; n++) {
        try {
          pack(db, order.id, { lineId: line.id, bags: 1 }, writer.at);
        } catch {
          // Not enough yet: the order waits for another evening.
          left += 1;
        }
      }
    if (left === 0)
      run(db, 'UPDATE customer_order SET sent_at = ?, version = version + 1 WHERE id = ?', [writer.at, order.id]);
    else if (random.chance(0.04))
      run(db, 'UPDATE customer_order SET cancelled_at = ?, version = version + 1 WHERE id = ?', [writer.at, order.id]);
  }
  const lying = rack(db, writer.at);
  for (const row of lying.slice(0, Math.max(0, lying.length - 250)))
    stockOut(
      db,
      {
        kind: random.chance(0.5) ? 'fished' : 'given',
        baitId: row.baitId,
        colourwayId: row.colourwayId,
        pourId: row.pourId,
        grade: row.grade,
        baits: row.baits,
        note: '',
      },
      writer.at,
    );
}

/** What happens now and then: tests, weighings, cleaned molds, trials, results, colours that change. */
function besides(writer: Writer, stock: Stock, random: Random, evening: number): void {
  const { db } = writer;
  const mold = random.pick(stock.molds);
  writer.row('water_test', {
    revisionId: random.pick(stock.revisions),
    place: 'tank',
    placeName: '',
    blend: 'Soft 22',
    scale: '00',
    hardness: 34,
    speeds: [{ at: 'slow', mPerS: 0.4 + random.between(0, 0.3), kicks: 'no' }],
    rig: '',
    notes: '',
    at: writer.at,
  });
  if (evening % 5 === 0)
    writer.row('mold_weighing', {
      moldId: mold.id,
      of: 'bait',
      count: 10,
      grams: 122 + random.between(0, 4),
      densityGPerMl: 1.02,
      at: writer.at,
    });
  // What was kept apart and is used up is put away.
  run(
    db,
    `UPDATE bin SET away_at = ?, version = version + 1 WHERE away_at IS NULL AND colourway_id IS NULL
     AND (SELECT sum(grams) FROM bin_level l WHERE l.bin_id = bin.id) <= 20`,
    [writer.at],
  );
  if (evening % 7 === 0) writer.row('mold_event', { moldId: mold.id, kind: 'cleaned', at: writer.at });
  if (evening % 9 === 0) writer.row('dip_reading', { moldId: mold.id, dips: 3, wallMm: 2.1, cupC: 155, at: writer.at });
  if (evening % 9 === 1)
    writer.row('spark_run', {
      moldId: mold.id,
      electrode: 'A',
      pass: 'roughing',
      amps: 6,
      fromMm: 0,
      toMm: 2,
      minutes: 90,
      seen: 'clean',
      at: writer.at,
    });
  writer.row('photo', {
    hash: createHash('sha256').update(writer.at).digest('hex'),
    type: 'image/jpeg',
    aboutType: 'mold',
    aboutId: mold.id,
    createdAt: writer.at,
  });
  if (evening % 50 === 0) {
    const ladder = writer.row('ladder', {
      name: `Ladder ${evening}`,
      scale: '00',
      hardness: 34,
      walkingMPerS: 0.8,
      steps: ladderSteps(LADDER),
      createdAt: writer.at,
    });
    for (let step = 0; step < 5; step++)
      writer.row('ladder_trial', { ladderId: ladder, step, hz: 3 + step, at: writer.at });
    const ledger = addLedger(db, 'looking', 240, writer.at);
    for (let n = 0; n < 12; n++)
      addDose(db, ledger, { materialId: random.pick(stock.colourants), amount: 5, unit: 'drop' }, writer.at);
    writer.row('kept_result', {
      calculator: 'clay.bake',
      title: 'bake',
      input: { thicknessMm: 18 },
      output: { minutes: 45 },
      createdAt: writer.at,
    });
    const recipe = random.pick(stock.recipes);
    const items = [{ materialId: random.pick(stock.colourants), amount: 12, unit: 'drop' }];
    addRevision(db, recipe, { basisMl: 240, items, reason: 'deeper' }, writer.at);
  }
  for (let n = 0; n < 40; n++) {
    const key = newId();
    insert(db, 'idempotency', { key, request: key, status: 201, body: 'x'.repeat(6000), at: writer.at });
  }
  run(db, 'DELETE FROM idempotency WHERE at < ?', [new Date(writer.now.getTime() - 7 * 86_400_000).toISOString()]);
}

/** A data folder with so many years in it: found from an earlier run, or filled now. */
export function filled(root: string, years: number): void {
  const done = join(root, 'filled');
  if (existsSync(done)) return;
  rmSync(root, { recursive: true, force: true });
  const data = new DataFolder(root);
  const { db } = data;
  // A bench's workshop is made again when it is lost.
  db.pragma('synchronous = OFF');
  const random = new Random(20260417);
  const writer = new Writer(db, new Date(START));
  const stock = db.transaction(() => stockUp(writer))();
  const evenings = years * EVENINGS_A_YEAR;
  const from = performance.now();
  let waiting: Line[] = [];
  for (let evening = 0; evening < evenings; evening++) {
    writer.now = new Date(START + (evening * 365 * 86_400_000) / EVENINGS_A_YEAR);
    db.transaction(() => {
      restock(writer, stock);
      for (let n = 0; n < 2; n++) waiting.push(...takeOrder(writer, stock, random));
      for (let n = 0; n < POURS_AN_EVENING; n++) pourCup(writer, stock, random, waiting.shift());
      waiting = waiting.slice(0, 30);
      writer.waits(60);
      packUp(writer, random);
      besides(writer, stock, random, evening);
    })();
    if (evening % 150 === 149)
      console.log(`  year ${(evening + 1) / 150} of ${years}, ${((performance.now() - from) / 1000).toFixed(0)} s`);
  }
  // A cup is open, as it is when a maker stands at it.
  db.transaction(() => {
    writer.now = new Date();
    const mold = stock.molds[0] as Stock['molds'][number];
    const pour = openPour(
      db,
      layOutPour(
        db,
        { colourwayId: stock.recipes[0] as string, molds: [{ moldId: mold.id, shots: 18 }], orderLines: [] },
        writer.at,
      ),
    );
    addHeat(db, pour, { kind: 'cook', c: 175 }, writer.at);
    const shot = newId();
    addShot(db, pour, { id: shot, moldId: mold.id }, writer.now);
  })();
  db.pragma('wal_checkpoint(TRUNCATE)');
  db.exec('ANALYZE');
  data.close();
  writeFileSync(done, 'filled by npm run bench -- decade\n');
}
