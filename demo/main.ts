import { addDays, format, setHours, setMinutes, subDays, subMinutes } from 'date-fns';
import type { Bin } from '../contract/bins.ts';
import type { Page } from '../contract/fields.ts';
import type { Instrument } from '../contract/instruments.ts';
import type { Material } from '../contract/materials.ts';
import type { Order, OrderRow, Origin, RackRow } from '../contract/orders.ts';
import type { Pour } from '../contract/pours.ts';
import type { Clock } from '../contract/workshop.ts';
import { logDips, renewClaws, weighMolds } from './care.ts';
import { colours } from './colours.ts';
import { blendCup, COLD, type Mood, packAndSend, pourCup, pourFor, readHardness, restock, USUAL } from './evening.ts';
import { DemoMaker } from './maker.ts';
import { Random } from './random.ts';
import { deepen, fillShelf, planMold, revise, type Shelf } from './shelf.ts';
import { inWater } from './water.ts';

const SEED = 20260417;
const DAYS = 730;

const root = process.argv[2];
if (!root) {
  console.error('Say where: node --import tsx demo/main.ts FOLDER');
  process.exit(2);
}

const at = (day: Date, hour: number, minute = 0) => setMinutes(setHours(day, hour), minute);

/** They pour a third of the year: before the spring, and again in autumn. */
const inSeason = (day: Date) => [2, 3, 4, 9, 10].includes(day.getMonth());

type Wish = [packs: number, bait: string, colour: string];

function wishes(random: Random, customer: string): Wish[] {
  const colours = ['Bladderwrack', 'Slack Tide', 'Night Ferry', 'Sea Pink', 'Lantern', 'Limpet', 'Ebb Glass'];
  const baits = [
    'Sandlance 110',
    'Sandlance 110',
    'Ragworm 140',
    'Squattie 70',
    'Prawnlet 55',
    'Sprat Tube 80',
    'Gannet 160',
  ];
  if (customer === 'Tideline')
    return [
      [6, 'Sandlance 110', 'Bladderwrack'],
      [6, 'Prawnlet 55', 'Sea Pink'],
      [4, 'Squattie 70', 'Limpet'],
    ];
  const lines: Wish[] = [];
  for (let n = random.whole(1, 3); n > 0; n--) {
    const bait = random.pick(baits);
    // The big one is poured in layers, as it always was.
    const wish: Wish = [random.whole(2, 5), bait, bait === 'Gannet 160' ? 'Gannet Coat' : random.pick(colours)];
    if (!lines.some(([, bait, colour]) => bait === wish[1] && colour === wish[2])) lines.push(wish);
  }
  return lines;
}

function takeOrder(
  maker: DemoMaker,
  shelf: Shelf,
  customer: string,
  dueOn: Date,
  lines: Wish[],
  notes = '',
): Promise<Order> {
  return maker.post<Order>('/orders', {
    customerId: shelf.customers.get(customer)?.id,
    dueOn: format(dueOn, 'yyyy-MM-dd'),
    notes,
    lines: lines.map(([packs, bait, colour]) => ({
      packs,
      baitId: shelf.baits.get(bait)?.id,
      colourwayId: shelf.colourways.get(colour),
      perPack: shelf.baits.get(bait)?.packCount,
    })),
  });
}

/** One order from the day it was taken to the day it was sent. */
async function serveOrder(
  maker: DemoMaker,
  shelf: Shelf,
  random: Random,
  day: Date,
  customer: string,
  lines: Wish[],
  mood: Mood,
): Promise<void> {
  maker.now = at(day, 10, random.whole(0, 59));
  const order = await takeOrder(maker, shelf, customer, addDays(day, 12), lines);
  const evening = addDays(day, random.whole(1, 4));
  for (let tries = 0; tries < 3; tries++) {
    maker.now = at(addDays(evening, tries * 2), 18, random.whole(20, 59));
    const poured = await pourFor(maker, shelf, order.id, random, mood, 3);
    maker.now = at(addDays(evening, tries * 2 + 1), 23, 30);
    if (poured.length === 0 && tries > 0) break;
    maker.waits(24 * 60);
    for (const pour of poured) if (random.chance(0.85)) await readHardness(maker, pour, random);
    if (await packAndSend(maker, shelf, order.id)) break;
  }
}

async function leaves(maker: DemoMaker, random: Random, day: Date): Promise<void> {
  maker.now = at(day, 9);
  const { items } = await maker.get<Page<RackRow>>('/rack');
  const sold = items.filter((one) => one.grade === 'sell' && one.cured && one.baits > 2).at(random.whole(0, 3));
  // Own water is fished before anything that could be sold.
  const own = random.chance(0.6) ? items.find((one) => one.grade === 'own' && one.cured) : undefined;
  const row = own ?? sold;
  if (!row) return;
  const kind = own ? 'fished' : random.pick(['fished', 'fished', 'given', 'scrapped'] as const);
  const note = { fished: 'off the north slip', given: 'a handful for the school', scrapped: 'bent in the tray' }[kind];
  await maker.post('/rack/out', {
    kind,
    baitId: row.baitId,
    colourwayId: row.colourwayId,
    pourId: row.pourId,
    grade: row.grade,
    baits: Math.min(row.baits, random.whole(1, 5)),
    note,
  });
}

async function twoYears(maker: DemoMaker, shelf: Shelf, random: Random, today: Date): Promise<void> {
  const customers = ['Quayside Chandlery', 'Ellary Kayak Hire', 'North Stack Anglers’ Club'];
  let coldLeft = 3;
  const once = new Set<string>();
  const onceBefore = async (ago: number, limit: number, what: (m: DemoMaker, s: Shelf, r: Random) => Promise<void>) => {
    if (ago >= limit || once.has(what.name)) return;
    once.add(what.name);
    await what(maker, shelf, random);
  };
  for (let ago = DAYS - 8; ago > 16; ago -= random.whole(4, 7)) {
    const day = subDays(today, ago);
    if (!inSeason(day)) continue;
    const cold = coldLeft > 0 && ago < 300 && day.getMonth() === 2;
    if (cold) coldLeft -= 1;
    const customer = day.getMonth() === 3 && random.chance(0.3) ? 'Tideline' : random.pick(customers);
    await serveOrder(maker, shelf, random, day, customer, wishes(random, customer), {
      ...(cold ? COLD : USUAL),
      gapes: ago < 240 ? 0.1 : 0.01,
    });
    if (random.chance(0.6)) await leaves(maker, random, addDays(day, 9));
    await onceBefore(ago, 560, weighMolds);
    await onceBefore(ago, 330, logDips);
    await onceBefore(ago, 250, renewClaws);
    if (ago < 520 && shelf.masters.get('Sandlance 110')?.latest.number === 1)
      await revise(maker, shelf, 'Sandlance 110', 'wrist thinner, so that it kicks slower', {}, (spec) => ({
        ...spec,
        wrist: { ...spec.wrist, thicknessMm: 3.4 },
      }));
    if (ago < 430 && shelf.recipes.get('Bladderwrack')?.revision.number === 1)
      await deepen(maker, shelf, 'Bladderwrack', 'deeper, the ribbon tails came out washed out', {
        'Kelp Green liquid': 26,
      });
    if (ago < 240 && shelf.recipes.get('Night Ferry')?.revision.number === 1)
      await deepen(maker, shelf, 'Night Ferry', 'less black: it swallowed the flake', { 'Coal liquid': 9 });
    if (ago < 400 && shelf.masters.get('Squattie 70')?.latest.number === 1)
      await revise(maker, shelf, 'Squattie 70', 'claws shorter, they tore at demolding', {}, (spec) => ({
        ...spec,
        limbs: spec.limbs.map((limb) => (limb.kind === 'claw' ? { ...limb, lengthMm: limb.lengthMm - 3 } : limb)),
      }));
    if (ago < 260 && shelf.masters.get('Gannet 160')?.latest.number === 1)
      await revise(
        maker,
        shelf,
        'Gannet 160',
        'tail of the Sandlance on the old body',
        {},
        (spec) => ({
          ...spec,
          wrist: { thicknessMm: 7, heightMm: 10, lengthMm: 20 },
          tail: { kind: 'paddle', lengthMm: 12, acrossMm: 24, thicknessMm: 6, angleDeg: 10, strands: 10 },
        }),
        'Sandlance 110',
      );
    if (ago < 180 && shelf.masters.get('Sandlance 110')?.latest.number === 2)
      await revise(maker, shelf, 'Sandlance 110', 'belly slot deepened for a wider hook', {}, (spec) => ({
        ...spec,
        bellySlot: spec.bellySlot && { ...spec.bellySlot, depthMm: 7.5 },
      }));
  }
}

/** Old clocks were seen to at the time; only tonight's run on. */
async function endClocks(maker: DemoMaker): Promise<void> {
  for (;;) {
    const { items } = await maker.get<Page<Clock>>('/clocks');
    if (items.length === 0) return;
    for (const clock of items) await maker.call('POST', `/clocks/${clock.id}/taps`, { ended: true });
  }
}

/** What goes with each bag, and the one that somebody wrote about: two of its tails had set bent. */
async function atThePackingTable(maker: DemoMaker): Promise<void> {
  const { items } = await maker.get<Page<Material>>('/materials?limit=200');
  for (const [name, amount] of [
    ['Round labels', 1],
    ['Worm oil', 1.5],
  ] as const)
    await maker.post('/pack-with', { materialId: items.find((one) => one.name === name)?.id, amount });
  const sent = await maker.get<Page<OrderRow>>('/orders?only=gone&sort=-due&limit=20');
  const shop = sent.items.find(({ customer, sentAt }) => customer === 'Quayside Chandlery' && sentAt !== null);
  if (!shop) return;
  const [bag] = (await maker.get<Order>(`/orders/${shop.id}`)).bags;
  const [origin] = (await maker.get<Page<Origin>>(`/bags/${bag?.code}/origin`)).items;
  const [mold] = origin?.molds ?? [];
  if (!bag || !origin || !mold) return;
  const wrong = {
    pourId: origin.pourId,
    moldId: mold.moldId,
    baits: 2,
    reason: 'bent',
    note: 'two tails set to one side',
  };
  await maker.post(`/bags/${bag.code}/complaints`, wrong);
}

/** The workshop as it stands when somebody opens it: baits curing, rubber setting, a cup half poured, orders short. */
async function tonight(maker: DemoMaker, shelf: Shelf, random: Random, now: Date): Promise<void> {
  maker.now = subDays(now, 6);
  await endClocks(maker);
  await atThePackingTable(maker);
  const kayak = await takeOrder(maker, shelf, 'Ellary Kayak Hire', addDays(now, 6), [
    [3, 'Ragworm 140', 'Sea Pink'],
    [2, 'Squattie 70', 'Bladderwrack'],
  ]);
  const quay = await takeOrder(
    maker,
    shelf,
    'Quayside Chandlery',
    addDays(now, 2),
    [
      [4, 'Sandlance 110', 'Slack Tide'],
      [3, 'Squattie 70', 'Night Ferry'],
      [2, 'Sandlance 110', 'Night Ferry'],
    ],
    'for the window',
  );
  const club = await takeOrder(maker, shelf, 'North Stack Anglers’ Club', addDays(now, 4), [
    [5, 'Sandlance 110', 'Bladderwrack'],
    [2, 'Prawnlet 55', 'Lantern'],
  ]);
  await takeOrder(
    maker,
    shelf,
    'Tideline',
    addDays(now, 13),
    [
      [6, 'Prawnlet 55', 'Sea Pink'],
      [4, 'Sandlance 110', 'Night Tide'],
    ],
    'beginners’ sets',
  );

  maker.now = subMinutes(now, 60 * 27);
  const cured = await pourFor(maker, shelf, kayak.id, random, USUAL, 2);
  for (const pour of cured.slice(1)) {
    maker.now = subMinutes(now, 30);
    await readHardness(maker, pour, random);
  }
  maker.now = subMinutes(now, 60 * 6);
  await pourFor(maker, shelf, club.id, random, USUAL, 1);

  maker.now = subMinutes(now, 60 * 5);
  const used = await maker.post<Bin>('/bins', { name: 'Used baits, mixed', hex: '#7d7a5b' });
  const bucket = { kind: 'given', heats: null, saltG: null, note: 'a bucket from the club', looked: true };
  await maker.post(`/bins/${used.id}/moves`, { ...bucket, grams: 860 });
  await restock(maker, shelf, 'Loft Soft');
  maker.now = subMinutes(now, 60 * 4);
  await colours(maker, 'Tideline');
  maker.now = subMinutes(now, 19);
  await planMold(maker, shelf, 'Sandlance 110', 3, 'Sandlance 110 × 3, open face', false);

  maker.now = subMinutes(now, 34);
  const order = await maker.get<Order>(`/orders/${quay.id}`);
  const cup = order.need.cups[0];
  if (!cup) throw new Error('The demo’s first order was to be short.');
  const { molds, orderLines } = cup.tonight ?? cup;
  const pour = await maker.post<Pour>('/pours', {
    colourwayId: cup.colourwayId,
    makerId: shelf.makers[0]?.id,
    molds: molds.map(({ moldId, shots }) => ({ moldId, shots })),
    orderLines,
  });
  maker.now = subMinutes(now, 16);
  await pourCup(maker, await blendCup(maker, pour, random), random, USUAL, 3);
  maker.now = subMinutes(now, 1);
  await maker.post(`/pours/${pour.id}/heats`, { kind: 'reading', c: 168 });
  await instruments(maker, pour.id);
}

/** What stands in for the loft's instruments; the thermometer points at the open cup. */
async function instruments(maker: DemoMaker, pourId: string): Promise<void> {
  for (const [kind, name] of [
    ['thermometer', 'Loft thermometer'],
    ['scale', 'Loft scale'],
    ['oven', 'Loft microwave'],
  ]) {
    const { id } = await maker.post<Instrument>('/instruments', { kind, name, how: 'stand-in' });
    if (kind === 'thermometer') await maker.post(`/instruments/${id}/aim`, { pourId });
  }
}

const started = Date.now();
const now = new Date();
const maker = await DemoMaker.at(root);
const random = new Random(SEED);
maker.now = at(subDays(now, DAYS), 9);
const shelf = await fillShelf(maker);
await twoYears(maker, shelf, random, now);
await inWater(maker, shelf, random, now);
await tonight(maker, shelf, random, now);
await maker.close();
console.log(`Skerry Lane Softbaits stands in ${root} (${((Date.now() - started) / 1000).toFixed(1)} s).`);
