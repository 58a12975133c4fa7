import type { Colourway } from '../contract/colourways.ts';
import type { Master } from '../contract/masters.ts';
import type { Material } from '../contract/materials.ts';
import type { Mold } from '../contract/molds.ts';
import type { Customer } from '../contract/orders.ts';
import type { Recipe } from '../contract/recipes.ts';
import type { Bait, Maker, Workshop } from '../contract/workshop.ts';
import type { ShapeSpec, Station } from '../core/shape/spec.ts';
import { startFor } from '../core/shape/starts.ts';
import { ML_PER_CUP } from '../core/units/convert.ts';
import {
  CUSTOMERS,
  DENSITY,
  LAYERED,
  MASTERS,
  MATERIALS,
  NEW_LOT_G,
  PRICE_PER_KG,
  RECIPES,
  STEPS,
} from './catalogue.ts';
import type { DemoMaker } from './maker.ts';

export interface Shelf {
  makers: Maker[];
  materials: Map<string, Material>;
  baits: Map<string, Bait>;
  masters: Map<string, Master>;
  molds: Map<string, Mold>;
  recipes: Map<string, Recipe>;
  /** What can be ordered, by name: each recipe, and what is layered of them. */
  colourways: Map<string, string>;
  customers: Map<string, Customer>;
}

/** Each was drawn before it was carved or printed; the sizes were measured on the finished master. */
type Sized = Pick<(typeof MASTERS)[number], 'name' | 'shape' | 'lengthMm' | 'widthMm' | 'heightMm'>;

function specFor({ name, shape, lengthMm, widthMm, heightMm }: Sized): ShapeSpec {
  const started = startFor(shape, lengthMm, widthMm, heightMm);
  const widest = Math.max(...started.stations.map((one) => one.widthMm));
  const fuller = (one: Station) =>
    one.widthMm === widest
      ? one
      : { ...one, topMm: one.topMm * 1.12, bottomMm: one.bottomMm * 1.12, widthMm: one.widthMm * 1.12 };
  const spec = { ...started, stations: started.stations.map(fuller) };
  if (name !== 'Gannet 160') return spec;
  return {
    ...spec,
    wrist: { thicknessMm: 9, heightMm: 11, lengthMm: 16 },
    tail: { kind: 'boot', lengthMm: 30, acrossMm: 16, thicknessMm: 7, angleDeg: 34, strands: 10 },
    inserts: [{ kind: 'weight', massG: 12, volumeMl: 1.06, at: 0.3, upMm: -9 }],
  };
}

async function addMasters(maker: DemoMaker, shelf: Shelf): Promise<void> {
  for (const { volumeMl, pack, price, wanted, ...shape } of MASTERS) {
    const density = DENSITY[shape.kind];
    const volume = { how: 'weighed', grams: Number((volumeMl * density).toFixed(1)), densityGPerMl: density };
    const master = await maker.post<Master>('/masters', {
      ...shape,
      spec: specFor(shape),
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
  reshape: (spec: ShapeSpec) => ShapeSpec,
  second?: string,
): Promise<void> {
  const master = shelf.masters.get(name) as Master;
  const { id, lengthMm, widthMm, heightMm, thickestMm, spec } = master.latest;
  const revised = await maker.post<Master>(`/masters/${master.id}/revisions`, {
    reason,
    parentId: id,
    ...(second ? { secondParentId: shelf.masters.get(second)?.latest.id } : {}),
    lengthMm,
    widthMm,
    heightMm,
    thickestMm,
    ...change,
    ...(spec ? { spec: reshape(spec) } : {}),
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
      fitting: {
        eyeMm: 8,
        hookSlot: 'insert',
        stands: 'back-up',
        notes: 'keel weight on its wire before it is closed',
      },
      inserts: [
        { cavity: null, kind: 'weight', stuff: 'tungsten', massG: 5, stays: true, fromNoseMm: 64, upMm: -9 },
        {
          cavity: null,
          kind: 'wire',
          stuff: 'stainless',
          diameterMm: 1.2,
          lengthMm: 120,
          stays: true,
          fromNoseMm: 62,
          upMm: 0,
        },
      ],
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
  await makeMold(maker, mold, done);
  shelf.molds.set(name, mold);
  return mold;
}

/** Rubber is left alone until its clock says so. */
async function setThrough(maker: DemoMaker, moldId: string): Promise<void> {
  const { readyAt } = await maker.get<Mold>(`/molds/${moldId}`);
  const leftMs = readyAt && readyAt !== 'unmixed' ? Date.parse(readyAt) - maker.now.getTime() : 0;
  maker.waits(Math.max(0, leftMs) / 60_000 + 5);
}

/** Its rubber mixed and poured, step by step; not yet taken out unless `done`. */
export async function makeMold(maker: DemoMaker, mold: Mold, done: boolean): Promise<void> {
  await maker.post(`/molds/${mold.id}/events`, { kind: 'mixed' });
  const steps = [
    'board',
    'spot',
    'box',
    'level',
    'weigh',
    ...(done ? ['bubbles', 'pour', 'demold', 'cure', 'first'] : []),
  ];
  for (const step of steps) {
    maker.waits(done ? 4 : 1);
    if (step === 'demold') await setThrough(maker, mold.id);
    await maker.post(`/molds/${mold.id}/events`, { kind: 'step', step });
  }
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
    colourways: new Map(),
    customers: new Map(),
  };
  await maker.call<Workshop>(
    'PATCH',
    '/workshop',
    {
      name: 'Skerry Lane Softbaits',
      currency: 'EUR',
      roomC: 12,
      glassMl: 500,
      clubFraction: 0.9,
      shopFraction: 0.75,
      roundMinor: 10,
      injectors: 2,
      boardBaits: 400,
    },
    1,
  );
  for (const name of ['Una', 'Corm'])
    shelf.makers.push(await maker.post<Maker>('/makers', { name, system: 'metric', temperature: 'C' }));
  await maker.post('/measures', { name: 'scoop', count: 10, grams: 6.8 });
  await maker.post('/measures', { name: 'squirt', count: 20, grams: 17 });
  for (const material of MATERIALS) {
    const grams = NEW_LOT_G[material.kind] as number;
    const pricePerKgMinor = PRICE_PER_KG[material.kind];
    shelf.materials.set(
      material.name,
      await maker.post<Material>('/materials', {
        ...(pricePerKgMinor === undefined ? {} : { pricePerKgMinor }),
        ...material,
        lot: { code: 'A1', grams },
      }),
    );
  }
  for (const { of, ...step } of STEPS) {
    const { id } = shelf.materials.get(of) as Material;
    await maker.post<Material>(`/materials/${id}/steps`, { how: 'typed', ...step });
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
  for (const [name, { id }] of shelf.recipes) shelf.colourways.set(name, id);
  for (const { name, hex, notes, layers } of LAYERED) {
    const made = await maker.post<Colourway>('/colourways', {
      name,
      hex,
      notes,
      layers: layers.map(([place, melt, much, joins]) => ({
        place,
        recipeId: shelf.recipes.get(melt)?.id,
        ...much,
        joins,
      })),
    });
    shelf.colourways.set(name, made.id);
  }
  await addMolds(maker, shelf);
  for (const [name, contact, priceList] of CUSTOMERS)
    shelf.customers.set(name, await maker.post<Customer>('/customers', { name, contact, priceList }));
  return shelf;
}
