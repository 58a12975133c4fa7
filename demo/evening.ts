import type { Bin } from '../contract/bins.ts';
import type { Part, Plastics } from '../contract/blend.ts';
import type { Colourway } from '../contract/colourways.ts';
import type { Page } from '../contract/fields.ts';
import type { Material } from '../contract/materials.ts';
import type { Order } from '../contract/orders.ts';
import type { Pour } from '../contract/pours.ts';
import { goes } from '../core/plan/layers.ts';
import { doseOf } from '../core/plastisol/recipe.ts';
import { type Grade, type Reason, TRIMMED } from '../core/yield/grades.ts';
import { NEW_LOT_G } from './catalogue.ts';
import type { DemoMaker } from './maker.ts';
import type { Random } from './random.ts';
import type { Shelf } from './shelf.ts';

/** A cold spell that shows in the charts: the share of rejects in it. */
export interface Mood {
  rejects: number;
  likely: Reason[];
  /** Share of the aluminium mold's baits with flash: its clamps wear. */
  gapes?: number;
}

export const USUAL: Mood = { rejects: 0.035, likely: ['bubble', 'short', 'bent'] };
export const COLD: Mood = { rejects: 0.22, likely: ['dent', 'short', 'short'] };

/** One cavity of the aluminium Sandlance mold vents badly. */
const BAD_CAVITY = { mold: 'Sandlance 110 × 4', cavity: 4, rejects: 0.14 };

async function doseAsWritten(maker: DemoMaker, pour: Pour): Promise<void> {
  for (const item of pour.plan.items) {
    await maker.post(`/ledgers/${pour.ledgerId}/doses`, { materialId: item.materialId, ...doseOf(item) });
    maker.waits(0.5);
  }
}

function marksFor(pour: Pour, moldId: string, random: Random, mood: Mood) {
  const mold = pour.molds.find((row) => row.moldId === moldId);
  return Array.from({ length: mold?.cavities ?? 0 }, (_, index) => {
    const weak = mold?.name === BAD_CAVITY.mold && index + 1 === BAD_CAVITY.cavity ? BAD_CAVITY.rejects : 0;
    const cavity = index + 1;
    if (mold?.name === BAD_CAVITY.mold && mood.gapes && random.chance(mood.gapes))
      return { cavity, grade: 'remelt', reason: TRIMMED };
    if (!random.chance(mood.rejects + weak))
      return { cavity, grade: 'sell', ...(random.chance(0.04) ? { reason: TRIMMED } : {}) };
    const reason =
      weak > 0 && random.chance(0.7) ? 'short' : random.chance(0.8) ? random.pick(mood.likely) : random.pick(COMMON);
    // A bubble where it will be cut anyway, an odd tone: kept for own water.
    const kept = SECONDS.includes(reason) && random.chance(0.5);
    return { cavity, grade: kept ? 'own' : 'remelt', reason };
  });
}

/** What goes wrong in any mold, and what of it still swims. */
const COMMON: Reason[] = ['bubble', 'short', 'hollow', 'flash', 'dent', 'bent', 'tear', 'colour', 'ripple'];
const SECONDS: Reason[] = ['bubble', 'bent', 'colour', 'dent', 'ripple'];

const MINUTES_A_SHOT = 2.6;

/** Draws one shot go by go, each part named by what is in its cup. */
async function drawShot(maker: DemoMaker, pour: Pour, moldId: string): Promise<Pour> {
  let [drawn, shotId] = [pour, ''];
  for (const [n, layers] of goes(pour.layers).entries()) {
    const cups = await Promise.all(
      pour.cups
        .filter((cup) => cup.layers.some((layer) => layers.includes(layer)))
        .map((cup) => maker.get<Pour>(`/pours/${cup.id}`)),
    );
    const parts = layers.flatMap((layer) =>
      cups
        .filter(({ id }) => pour.cups.find((cup) => cup.id === id)?.layers.includes(layer))
        .map(({ id, doses, heats }) => ({
          layer,
          pourId: id,
          lastDose: doses.at(-1)?.id ?? null,
          lastHeat: heats.at(-1)?.id ?? null,
        })),
    );
    if (n === 0) drawn = await maker.post<Pour>(`/pours/${pour.id}/shots`, { moldId, parts });
    else {
      // Cold first; then its surface is melted and the next goes on.
      maker.waits(3);
      drawn = await maker.post<Pour>(`/pours/${pour.id}/shots/${shotId}/parts`, { parts });
    }
    shotId = drawn.shots.at(-1)?.id ?? '';
  }
  return drawn;
}

/** Cooks, doses, draws and marks; stops after `most` shots where a cup is to be left half-way. */
export async function pourCup(
  maker: DemoMaker,
  pour: Pour,
  random: Random,
  mood: Mood,
  most = Number.POSITIVE_INFINITY,
): Promise<void> {
  const base = `/pours/${pour.id}`;
  const high = pour.molds.some((mold) => mold.fill === 'dip') ? 159 : 176;
  const low = high === 159 ? 150 : 165;
  let c = random.around(high, 2);
  const plainFirst = pour.cups.length === 1 && random.chance(0.12);
  for (const cup of pour.cups) {
    await maker.post(`/pours/${cup.id}/heats`, { kind: 'cook', c: Math.round(c) });
    maker.waits(1);
    if (!plainFirst) await doseAsWritten(maker, await maker.get<Pour>(`/pours/${cup.id}`));
  }
  let drawn = 0;
  for (const mold of pour.molds) {
    for (let n = 0; n < mold.shots && drawn < most; n++) {
      c -= random.between(0.9, 1.7) * MINUTES_A_SHOT * 0.8;
      if (c < low + 1) {
        c = random.around(high - 1, 2);
        for (const cup of pour.cups) await maker.post(`/pours/${cup.id}/heats`, { kind: 'reheat', c: Math.round(c) });
      } else if (drawn % 3 === 2) await maker.post(`${base}/heats`, { kind: 'reading', c: Math.round(c) });
      const after = await drawShot(maker, pour, mold.moldId);
      const shot = after.shots.at(-1);
      if (plainFirst && drawn === 0) await doseAsWritten(maker, pour);
      // A layer that bled or slipped is lifted out and poured again.
      if (shot && pour.layers.length > 1 && random.chance(0.12))
        await maker.post(`${base}/shots/${shot.id}/redone`, {
          layer: pour.layers.length - 1,
          cavity: 1,
          pourId: pour.cups.at(-1)?.id,
          minutes: 5,
          reason: 'bleed',
        });
      drawn += 1;
      maker.waits(random.between(MINUTES_A_SHOT * 0.7, MINUTES_A_SHOT * 1.3));
      if (shot && drawn < most)
        await maker.post(`${base}/shots/${shot.id}/marks`, { marks: marksFor(pour, mold.moldId, random, mood) });
    }
  }
}

/** What the plastics really read here, whatever their labels say, and what remelt has hardened to. */
const TRULY: Record<string, number> = { 'Soft 22': 24, 'Firm 58': 60 };
const REMELT_READS = 37;
const NOISE = 1.4;

/** Blends a cup for what its bait wants, by what this workshop knows of its plastics, at times with remelt; and weighs it in. */
export async function blendCup(maker: DemoMaker, pour: Pour, random: Random): Promise<Pour> {
  if (!pour.wanted) return pour;
  const { items } = await maker.get<Plastics>('/plastics?scale=00');
  const [soft, firm] = ['Soft 22', 'Firm 58'].map((name) => items.find((one) => one.name === name));
  if (!soft?.hardness || !firm?.hardness) return pour;
  const firmShare = Math.min(1, Math.max(0, (pour.wanted.value - soft.hardness) / (firm.hardness - soft.hardness)));
  const bin = (await maker.get<Page<Bin>>('/bins')).items.find((one) => one.colourwayId === pour.colourwayId);
  const remelt = bin && bin.grams > 500 && random.chance(0.4) ? random.pick([0.15, 0.25, 0.3]) : 0;
  const blend = [
    { materialId: firm.materialId, share: firmShare * (1 - remelt) },
    { materialId: soft.materialId, share: (1 - firmShare) * (1 - remelt) },
    { binId: bin?.id, share: remelt },
  ].filter((part) => part.share > 0);
  const blended = await maker.call<Pour>('PATCH', `/pours/${pour.id}`, { blend }, pour.version);
  for (const part of blended.parts) {
    maker.waits(0.4);
    const grams = Math.max(1, Math.round(random.around(part.plannedG, 2)));
    await maker.post(`/pours/${pour.id}/weighed`, { partId: part.id, grams });
  }
  return maker.get<Pour>(`/pours/${pour.id}`);
}

const inCupG = (pour: Pour, random: Random) =>
  pour.parts.length > 0
    ? pour.parts.reduce((sum, part) => sum + (part.weighedG ?? part.plannedG), 0) + pour.dosed.g
    : pour.plan.cookG * random.between(1.0, 1.03);

/** Weighs what came out; the grams add up to what was cooked less a little that nobody can account for. */
export async function closeCup(maker: DemoMaker, id: string, random: Random): Promise<Pour> {
  const pour = await maker.get<Pour>(`/pours/${id}`);
  const grams = (...grades: Grade[]) =>
    pour.shots.reduce((sum, shot) => {
      const mold = pour.molds.find((row) => row.moldId === shot.moldId);
      const ml = (mold?.cavityLayersMl ?? []).reduce((total, one) => total + one, 0);
      return sum + shot.marks.filter(({ grade }) => grade !== 'unmarked' && grades.includes(grade)).length * ml * 1.02;
    }, 0);
  const cups = await Promise.all(pour.cups.map((cup) => maker.get<Pour>(`/pours/${cup.id}`)));
  const tenth = (g: number) => Math.floor(g * 10) / 10;
  const cooked = cups.map((cup) => Math.ceil(inCupG(cup, random) * 10) / 10);
  const all = cooked.reduce((sum, g) => sum + g, 0);
  const [goodG, rejectG] = [tenth(grams('sell', 'own')), tenth(grams('remelt'))];
  const rest = Math.max(0, all - goodG - rejectG);
  const [own, ...others] = cooked.map((cookedG) => {
    const mine = (rest * cookedG) / all;
    const residueG = tenth(Math.min(mine * 0.4, random.between(5, 11)));
    return { cookedG, residueG, returnedG: tenth((mine - residueG) * random.between(0.72, 0.94)) };
  });
  maker.waits(10);
  return maker.post<Pour>(`/pours/${id}/close`, {
    ...own,
    goodG,
    rejectG,
    others: others.map((other, i) => ({ pourId: cups[i + 1]?.id, ...other })),
  });
}

/** Buys what runs low, as a maker does before the evening. */
export async function restock(maker: DemoMaker, shelf: Shelf, name: string): Promise<void> {
  const known = shelf.materials.get(name) as Material;
  const material = await maker.get<Material>(`/materials/${known.id}`);
  if (material.levelG > (material.reorderG ?? 0) * 1.2) return;
  const code = `${String.fromCharCode(65 + (material.lotsEver % 26))}${material.lotsEver + 1}`;
  await maker.post(`/materials/${material.id}/lots`, { code, grams: NEW_LOT_G[material.kind] });
}

/** Lays out the cups that an order's own page proposes, and pours them one after the other. */
export async function pourFor(
  maker: DemoMaker,
  shelf: Shelf,
  orderId: string,
  random: Random,
  mood: Mood,
  mostCups = 3,
): Promise<Pour[]> {
  const order = await maker.get<Order>(`/orders/${orderId}`);
  const closed: Pour[] = [];
  for (const cup of order.need.cups.slice(0, mostCups)) {
    if (cup.molds.length === 0) continue;
    const { layers } = await maker.get<Colourway>(`/colourways/${cup.colourwayId}`);
    for (const { recipeName } of layers)
      for (const { materialName } of shelf.recipes.get(recipeName)?.revision.items ?? [])
        await restock(maker, shelf, materialName);
    await restock(maker, shelf, 'Soft 22');
    const { molds, orderLines } = cup.tonight ?? cup;
    const laidOut = await maker.post<Pour>('/pours', {
      colourwayId: cup.colourwayId,
      makerId: random.pick(shelf.makers).id,
      molds: molds.map(({ moldId, shots }) => ({ moldId, shots: shots + (random.chance(0.35) ? 1 : 0) })),
      orderLines,
    });
    await restock(maker, shelf, 'Firm 58');
    for (const { id } of laidOut.evening.cups.filter((one) => one.leadId === null && one.closedAt === null)) {
      const pour = await maker.get<Pour>(`/pours/${id}`);
      for (const one of pour.cups) await blendCup(maker, await maker.get<Pour>(`/pours/${one.id}`), random);
      maker.waits(8);
      await pourCup(maker, await maker.get<Pour>(`/pours/${id}`), random, mood);
      closed.push(await closeCup(maker, id, random));
      maker.waits(8);
    }
  }
  return closed;
}

export async function readHardness(maker: DemoMaker, pour: Pour, random: Random): Promise<void> {
  if (!pour.wanted || !pour.curedAt) return;
  const readings = random.whole(1, 2);
  for (let n = 0; n < readings; n++) {
    const grams = (part: Part) => part.weighedG ?? part.plannedG;
    const whole = pour.parts.reduce((sum, part) => sum + grams(part), 0);
    const reads = pour.parts.reduce((sum, part) => sum + (grams(part) / whole) * (TRULY[part.name] ?? REMELT_READS), 0);
    const value = Math.round(random.around(reads, NOISE) * 2) / 2;
    await maker.post(`/pours/${pour.id}/hardness`, { scale: pour.wanted.scale, value });
  }
}

/** Packs what can be packed and sends the order when all of it is. */
export async function packAndSend(maker: DemoMaker, shelf: Shelf, orderId: string): Promise<boolean> {
  await restock(maker, shelf, 'Laminated bags');
  let order = await maker.get<Order>(`/orders/${orderId}`);
  for (const line of order.lines) {
    const need = order.need.lines.find((row) => row.lineId === line.id);
    const bags = Math.min(line.packs - line.packed, Math.floor((need?.fromReady ?? 0) / line.perPack));
    if (bags > 0) order = await maker.post<Order>(`/orders/${orderId}/pack`, { lineId: line.id, bags });
  }
  if (order.state !== 'ready') return false;
  maker.waits(30);
  await maker.call('PATCH', `/orders/${orderId}`, { sent: true }, order.version);
  return true;
}
