import type { Bin } from '../contract/bins.ts';
import type { ColourwayRow } from '../contract/colourways.ts';
import type { Page } from '../contract/fields.ts';
import type { Material } from '../contract/materials.ts';
import type { OrderRow } from '../contract/orders.ts';
import type { Pour, PourRow } from '../contract/pours.ts';
import { bands, layerOver, linearOf, meltOf, type Optics } from '../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../core/colour/nominal.ts';
import type { DemoMaker } from './maker.ts';

const FAMILIES: Record<string, { family: string; favourite?: boolean }> = {
  Bladderwrack: { family: 'weed', favourite: true },
  'Slack Tide': { family: 'sea', favourite: true },
  'Night Ferry': { family: 'sea' },
  'Ebb Glass': { family: 'clear' },
  Limpet: { family: 'shore' },
  Lantern: { family: 'shore' },
  'Sea Pink': { family: 'shrimp' },
  'Night Tide': { family: 'sea' },
};

/** What a bucket of many colours is: brownish, cloudy, some flake. */
const MIXED: Optics = { k: [0.07, 0.075, 0.11], s: [0.05, 0.05, 0.045] };
const PUCK_MM = 3;

/** A puck of a bin of given baits; each looked at over white and black. */
async function knowTheBucket(maker: DemoMaker, name: string): Promise<void> {
  const bins = (await maker.get<Page<Bin>>('/bins')).items;
  const bin = bins.find((one) => one.name === name);
  if (!bin) throw new Error(`The demo has no bin ${name}.`);
  const melt = meltOf(PLAIN_PLASTIC, [{ ...MIXED, mlPerL: 1 }]);
  await maker.post(`/bins/${bin.id}/pucks`, {
    massG: 23.4,
    inWaterG: 1.6,
    flake: 'some',
    hardness: { scale: '00', readings: [41, 44, 43] },
    colour: {
      thicknessMm: PUCK_MM,
      overBlack: layerOver(melt, PUCK_MM, [0, 0, 0]),
      overWhite: layerOver(melt, PUCK_MM, [1, 1, 1]),
    },
  });
}

/** Looks at the pucks of the last cups: each a little deeper than its recipe’s look. */
async function lookAtPucks(maker: DemoMaker): Promise<void> {
  const pours = (await maker.get<Page<PourRow>>('/pours?limit=20')).items.filter((row) => row.closedAt !== null);
  for (const [i, { id }] of pours.slice(0, 4).entries()) {
    const pour = await maker.get<Pour>(`/pours/${id}`);
    const seen = linearOf(pour.hex);
    await maker.post(`/ledgers/${pour.ledgerId}/looks`, {
      how: 'typed',
      thicknessMm: 8,
      seen: bands((band) => seen[band] * (0.86 + 0.03 * i)),
    });
  }
}

/** What is known of this workshop’s colours: families, what flake turns into, a bucket’s puck, looks, and a wish by taste. */
export async function colours(maker: DemoMaker, customer: string): Promise<void> {
  for (const { id, name, version } of (await maker.get<Page<ColourwayRow>>('/colourways?limit=200')).items) {
    const marks = FAMILIES[name];
    if (marks) await maker.call('PATCH', `/colourways/${id}`, marks, version);
  }
  const gold = (await maker.get<Page<Material>>('/materials?limit=200')).items.find((one) => one.limitC !== null);
  if (gold) await maker.call('PATCH', `/materials/${gold.id}`, { turnsHex: '#8f4a2b' }, gold.version);
  await knowTheBucket(maker, 'Used baits, mixed');
  await lookAtPucks(maker);
  const orders = (await maker.get<Page<OrderRow>>('/orders?limit=40&only=open')).items;
  const order = orders.find((one) => one.customer === customer);
  const line = order?.lines[0];
  if (!order || !line) throw new Error(`The demo has no open order of ${customer}.`);
  await maker.post(`/orders/${order.id}/tastes`, {
    baitId: line.baitId,
    theme: 'like a prawn over brown water, warm',
    packs: 2,
    perPack: line.perPack,
  });
}
