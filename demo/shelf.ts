import type { Master } from '../contract/masters.ts';
import type { Material } from '../contract/materials.ts';
import type { Mold } from '../contract/molds.ts';
import type { Customer } from '../contract/orders.ts';
import type { Recipe } from '../contract/recipes.ts';
import type { Bait, Maker, Workshop } from '../contract/workshop.ts';
import { ML_PER_CUP } from '../core/units/convert.ts';
import type { DemoMaker } from './maker.ts';

export interface Shelf {
  makers: Maker[];
  materials: Map<string, Material>;
  baits: Map<string, Bait>;
  masters: Map<string, Master>;
  molds: Map<string, Mold>;
  recipes: Map<string, Recipe>;
  customers: Map<string, Customer>;
}

const MATERIALS = [
  {
    name: 'Soft 22',
    kind: 'plastisol',
    hardnessScale: '00',
    hardness: 22,
    densityGPerMl: 1.02,
    pricePerKgMinor: 1450,
    reorderG: 2500,
  },
  {
    name: 'Firm 58',
    kind: 'plastisol',
    hardnessScale: '00',
    hardness: 58,
    densityGPerMl: 1.02,
    pricePerKgMinor: 1600,
    reorderG: 1000,
  },
  { name: 'Loft Ease', kind: 'softener', densityGPerMl: 0.98, pricePerKgMinor: 900, reorderG: 200 },
  { name: 'Loft Steady', kind: 'stabilizer', densityGPerMl: 0.95, pricePerKgMinor: 2400, reorderG: 100 },
  { name: 'Harbour Blue liquid', kind: 'colourant', hex: '#1f5f8b', dropsPerMl: 22, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Kelp Green liquid', kind: 'colourant', hex: '#55702c', dropsPerMl: 20, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Net Brown liquid', kind: 'colourant', hex: '#7a4b27', dropsPerMl: 21, densityGPerMl: 1.06, reorderG: 30 },
  { name: 'Coal liquid', kind: 'colourant', hex: '#1b1c20', dropsPerMl: 19, densityGPerMl: 1.08, reorderG: 30 },
  { name: 'Buoy Red liquid', kind: 'colourant', hex: '#c33a4a', dropsPerMl: 20, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Lamp Yellow liquid', kind: 'colourant', hex: '#e6b422', dropsPerMl: 20, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Shell pearl', kind: 'powder', hex: '#e9e4da', bulkGPerMl: 0.42, reorderG: 20 },
  { name: 'Fine gold flake 0.4', kind: 'flake', hex: '#c9a13b', bulkGPerMl: 0.85, reorderG: 40 },
  { name: 'Silver flake 0.9', kind: 'flake', hex: '#c3ccd0', bulkGPerMl: 0.78, reorderG: 40 },
  { name: 'Limpet flake 0.6', kind: 'flake', hex: '#b0713e', bulkGPerMl: 0.8, limitC: 171, reorderG: 40 },
  { name: 'Ground sea salt', kind: 'salt', hex: '#f0f0ec', bulkGPerMl: 1.15, pricePerKgMinor: 250, reorderG: 300 },
  {
    name: 'Loft Soft',
    kind: 'silicone',
    mix: { by: 'mass', partA: 10, partB: 1, densityAGPerMl: 1.1, densityBGPerMl: 1.02 },
    potLifeMin: 20,
    demoldMin: 240,
    ratedC: 23,
    pricePerKgMinor: 2900,
    reorderG: 1000,
  },
  {
    name: 'Loft Firm',
    kind: 'silicone',
    mix: { by: 'volume', partA: 1, partB: 1, densityAGPerMl: 1.16, densityBGPerMl: 1.14 },
    potLifeMin: 12,
    demoldMin: 75,
    ratedC: 23,
    pricePerKgMinor: 3300,
    reorderG: 800,
  },
  { name: 'Worm oil', kind: 'oil', densityGPerMl: 0.9, reorderG: 200 },
  { name: 'Eyes, 4 mm', kind: 'eyes', reorderG: 20 },
  { name: 'Laminated bags', kind: 'bags', reorderG: 200 },
] as const;

/** What a new bottle, bag or kit holds, g. */
export const NEW_LOT_G: Record<string, number> = {
  plastisol: 5000,
  softener: 1000,
  stabilizer: 500,
  colourant: 120,
  powder: 100,
  flake: 250,
  salt: 2000,
  silicone: 5500,
  oil: 1000,
  eyes: 60,
  bags: 900,
};

const MASTERS = [
  {
    name: 'Sandlance 110',
    shape: 'paddle',
    kind: 'clay',
    lengthMm: 110,
    widthMm: 16.5,
    heightMm: 17,
    thickestMm: 15.5,
    volumeMl: 12.6,
    pack: 8,
    price: 720,
    wanted: 34,
  },
  {
    name: 'Ragworm 140',
    shape: 'ribbon',
    kind: 'wood',
    lengthMm: 140,
    widthMm: 12,
    heightMm: 10,
    thickestMm: 10,
    volumeMl: 7.8,
    pack: 10,
    price: 690,
    wanted: 26,
  },
  {
    name: 'Squattie 70',
    shape: 'claws',
    kind: 'clay',
    lengthMm: 70,
    widthMm: 25,
    heightMm: 14,
    thickestMm: 13,
    volumeMl: 9.4,
    pack: 8,
    price: 740,
    wanted: 38,
  },
  {
    name: 'Sprat Tube 80',
    shape: 'tube',
    kind: 'print',
    lengthMm: 80,
    widthMm: 13,
    heightMm: 13,
    thickestMm: 13,
    volumeMl: 4.6,
    pack: 10,
    price: 650,
    wanted: 30,
  },
  {
    name: 'Gannet 160',
    shape: 'paddle',
    kind: 'wood',
    lengthMm: 160,
    widthMm: 30,
    heightMm: 36,
    thickestMm: 28,
    volumeMl: 46,
    pack: 2,
    price: 980,
    wanted: 40,
  },
  {
    name: 'Prawnlet 55',
    shape: 'shrimp',
    kind: 'clay',
    lengthMm: 55,
    widthMm: 14,
    heightMm: 12,
    thickestMm: 11,
    volumeMl: 3.7,
    pack: 12,
    price: 640,
    wanted: 28,
  },
] as const;

const DENSITY = { clay: 1.75, wood: 0.62, print: 1.24 } as const;

const RECIPES: { name: string; hex: string; items: [material: string, amount: number, unit: string][] }[] = [
  {
    name: 'Bladderwrack',
    hex: '#66752b',
    items: [
      ['Kelp Green liquid', 22, 'drop'],
      ['Net Brown liquid', 9, 'drop'],
      ['Fine gold flake 0.4', 0.5, 'tsp'],
      ['Ground sea salt', 2, 'tbsp'],
    ],
  },
  {
    name: 'Slack Tide',
    hex: '#4f8796',
    items: [
      ['Harbour Blue liquid', 14, 'drop'],
      ['Kelp Green liquid', 5, 'drop'],
      ['Silver flake 0.9', 0.5, 'tsp'],
    ],
  },
  {
    name: 'Night Ferry',
    hex: '#2b3358',
    items: [
      ['Harbour Blue liquid', 26, 'drop'],
      ['Coal liquid', 14, 'drop'],
      ['Silver flake 0.9', 0.25, 'tsp'],
      ['Ground sea salt', 1, 'tbsp'],
    ],
  },
  {
    name: 'Sea Pink',
    hex: '#dd7f9b',
    items: [
      ['Buoy Red liquid', 8, 'drop'],
      ['Shell pearl', 0.5, 'tsp'],
    ],
  },
  {
    name: 'Lantern',
    hex: '#eda928',
    items: [
      ['Lamp Yellow liquid', 24, 'drop'],
      ['Buoy Red liquid', 3, 'drop'],
      ['Fine gold flake 0.4', 0.75, 'tsp'],
    ],
  },
  {
    name: 'Limpet',
    hex: '#a5733f',
    items: [
      ['Net Brown liquid', 16, 'drop'],
      ['Limpet flake 0.6', 1, 'tsp'],
      ['Ground sea salt', 2, 'tbsp'],
    ],
  },
  {
    name: 'Ebb Glass',
    hex: '#9fcbb9',
    items: [
      ['Kelp Green liquid', 2, 'drop'],
      ['Harbour Blue liquid', 1, 'drop'],
      ['Shell pearl', 0.25, 'tsp'],
      ['Silver flake 0.9', 0.25, 'tsp'],
    ],
  },
];

const CUSTOMERS = [
  ['Quayside Chandlery', 'the shop on the quay, open till six'],
  ['Ellary Kayak Hire', 'slipway hut'],
  ['North Stack Anglers’ Club', 'meets on the first Thursday'],
  ['Tideline', 'guide school, beginners’ sets each spring'],
];

async function addMasters(maker: DemoMaker, shelf: Shelf): Promise<void> {
  for (const { volumeMl, pack, price, wanted, ...shape } of MASTERS) {
    const density = DENSITY[shape.kind];
    const volume = { how: 'weighed', grams: Number((volumeMl * density).toFixed(1)), densityGPerMl: density };
    const master = await maker.post<Master>('/masters', {
      ...shape,
      flatBack: shape.name !== 'Gannet 160',
      packCount: pack,
      volume,
    });
    shelf.masters.set(shape.name, master);
    const bait = await maker.call<Bait>(
      'PATCH',
      `/baits/${master.baitId}`,
      { priceMinor: price, wantedScale: '00', wantedHardness: wanted },
      1,
    );
    shelf.baits.set(shape.name, bait);
  }
}

export async function revise(
  maker: DemoMaker,
  shelf: Shelf,
  name: string,
  reason: string,
  change: Record<string, number>,
  second?: string,
): Promise<void> {
  const master = shelf.masters.get(name) as Master;
  const { id, lengthMm, widthMm, heightMm, thickestMm, volumeMl } = master.latest;
  const revised = await maker.post<Master>(`/masters/${master.id}/revisions`, {
    reason,
    parentId: id,
    ...(second ? { secondParentId: shelf.masters.get(second)?.latest.id } : {}),
    lengthMm,
    widthMm,
    heightMm,
    thickestMm,
    ...change,
    volume: { how: 'displaced', ml: Number(((volumeMl ?? 1) * 1.01).toFixed(1)) },
  });
  shelf.masters.set(name, revised);
}

/** A recipe changed for a reason; the old one stays as the pours of its time knew it. */
export async function deepen(
  maker: DemoMaker,
  shelf: Shelf,
  name: string,
  reason: string,
  change: Record<string, number>,
): Promise<void> {
  const recipe = shelf.recipes.get(name) as Recipe;
  const items = recipe.revision.items.map(({ materialId, materialName, amount, unit }) => ({
    materialId,
    amount: change[materialName] ?? amount,
    unit,
  }));
  const body = { name, hex: recipe.hex, notes: recipe.notes, basisMl: recipe.revision.basisMl, items, reason };
  shelf.recipes.set(name, await maker.call<Recipe>('PUT', `/recipes/${recipe.id}`, body, recipe.version));
}

async function addMolds(maker: DemoMaker, shelf: Shelf): Promise<void> {
  const bought = [
    {
      name: 'Sandlance 110 × 4',
      bait: 'Sandlance 110',
      kind: 'aluminium',
      fill: 'injection',
      cavities: 4,
      columns: 4,
      sprueMl: 7,
      injectorMl: 180,
    },
    {
      name: 'Ragworm 140 × 6',
      bait: 'Ragworm 140',
      kind: 'aluminium',
      fill: 'injection',
      cavities: 6,
      columns: 6,
      sprueMl: 9,
      injectorMl: 180,
    },
    {
      name: 'Sprat rods × 10',
      bait: 'Sprat Tube 80',
      kind: 'dip-rods',
      fill: 'dip',
      cavities: 10,
      columns: 5,
      sprueMl: 0,
    },
    {
      name: 'Gannet two-piece',
      bait: 'Gannet 160',
      kind: 'silicone-two-piece',
      fill: 'gravity',
      cavities: 1,
      columns: 1,
      sprueMl: 6,
    },
  ];
  for (const { bait, ...mold } of bought) {
    const master = shelf.masters.get(bait) as Master;
    const made = await maker.post<Mold>('/molds', {
      ...mold,
      baitId: master.baitId,
      revisionId: master.latest.id,
      cavityMl: master.latest.volumeMl,
    });
    shelf.molds.set(mold.name, made);
  }
  await planMold(maker, shelf, 'Prawnlet 55', 6, 'Prawnlet 55 × 6');
  await planMold(maker, shelf, 'Squattie 70', 6, 'Squattie 70 × 6');
}

/** An open-face block, planned, mixed, and all its steps done. */
export async function planMold(
  maker: DemoMaker,
  shelf: Shelf,
  bait: string,
  count: number,
  name: string,
  done = true,
): Promise<Mold> {
  const master = shelf.masters.get(bait) as Master;
  const rubber = shelf.materials.get('Loft Soft') as Material;
  const { volumeMl, lengthMm, widthMm, heightMm } = master.latest;
  const mold = await maker.post<Mold>('/molds', {
    name,
    kind: 'silicone-open',
    fill: 'open-pour',
    baitId: master.baitId,
    revisionId: master.latest.id,
    cavities: count,
    cavityMl: volumeMl,
    rubberId: rubber.id,
    planInput: {
      pour: 'open-face',
      masters: [{ volumeMl, lengthMm, widthMm, heightMm, count }],
      mix: rubber.mix,
      potLifeMin: rubber.potLifeMin,
      demoldMin: rubber.demoldMin,
      roomC: 12,
      pricePerKgMinor: rubber.pricePerKgMinor,
    },
  });
  await maker.post(`/molds/${mold.id}/events`, { kind: 'mixed' });
  const steps = [
    'board',
    'spot',
    'box',
    'level',
    'weigh',
    'bubbles',
    'pour',
    ...(done ? ['demold', 'cure', 'first'] : []),
  ];
  for (const step of steps) {
    maker.waits(done ? 4 : 1);
    await maker.post(`/molds/${mold.id}/events`, { kind: 'step', step });
  }
  shelf.molds.set(name, mold);
  return mold;
}

/** Everything that stands in the loft on the first day. */
export async function fillShelf(maker: DemoMaker): Promise<Shelf> {
  const shelf: Shelf = {
    makers: [],
    materials: new Map(),
    baits: new Map(),
    masters: new Map(),
    molds: new Map(),
    recipes: new Map(),
    customers: new Map(),
  };
  await maker.call<Workshop>(
    'PATCH',
    '/workshop',
    { name: 'Skerry Lane Softbaits', currency: 'EUR', roomC: 12, glassMl: 500 },
    1,
  );
  for (const name of ['Una', 'Corm'])
    shelf.makers.push(await maker.post<Maker>('/makers', { name, system: 'metric', temperature: 'C' }));
  await maker.post('/measures', { name: 'scoop', count: 10, grams: 6.8 });
  await maker.post('/measures', { name: 'squirt', count: 20, grams: 17 });
  for (const material of MATERIALS) {
    const grams = NEW_LOT_G[material.kind] as number;
    shelf.materials.set(
      material.name,
      await maker.post<Material>('/materials', { ...material, lot: { code: 'A1', grams } }),
    );
  }
  await addMasters(maker, shelf);
  for (const recipe of RECIPES) {
    const items = recipe.items.map(([material, amount, unit]) => ({
      materialId: shelf.materials.get(material)?.id,
      amount,
      unit,
    }));
    shelf.recipes.set(
      recipe.name,
      await maker.post<Recipe>('/recipes', { name: recipe.name, hex: recipe.hex, basisMl: ML_PER_CUP, items }),
    );
  }
  await addMolds(maker, shelf);
  for (const [name, contact] of CUSTOMERS)
    shelf.customers.set(name as string, await maker.post<Customer>('/customers', { name, contact }));
  return shelf;
}
