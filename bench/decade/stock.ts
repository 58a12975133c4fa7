// The store, the molds and the colours of three makers, before their first evening.
import type * as v from 'valibot';
import type { moldBody } from '../../contract/molds.ts';
import { shapeSpecSchema } from '../../core/shape/spec.ts';
import { STARTS } from '../../core/shape/starts.ts';
import { check } from '../../core/validate.ts';
import { addColourway } from '../../server/colourways/store.ts';
import type { Db } from '../../server/db/open.ts';
import { first, insert, run } from '../../server/db/rows.ts';
import { newId } from '../../server/ids.ts';
import { addRevision as addMasterRevision } from '../../server/masters/store.ts';
import { addLot } from '../../server/materials/store.ts';
import { addMold } from '../../server/molds/store.ts';
import { addCustomer } from '../../server/orders/store.ts';
import { addRecipe } from '../../server/recipes/store.ts';
import { addBait } from '../../server/workshop/store.ts';

const [BAITS, RECIPES, LAYERED, CUSTOMERS] = [16, 24, 6, 60];
/** Holds what one mold takes in an evening, so that a laying out is one cup of each melt. */
const GLASS_ML = 1200;
const MINUTE_MS = 60_000;

export interface Stock {
  baits: string[];
  molds: { id: string; baitId: string; cavities: number }[];
  recipes: string[];
  /** What is ordered: each recipe, and some in layers. */
  colourways: string[];
  colourants: string[];
  /** A soft plastisol and a firm one. */
  plastics: [string, string];
  materials: string[];
  customers: string[];
  makers: string[];
  revisions: string[];
}

export class Writer {
  constructor(
    readonly db: Db,
    public now: Date,
  ) {}
  get at(): string {
    return this.now.toISOString();
  }
  waits(minutes: number): void {
    this.now = new Date(this.now.getTime() + minutes * MINUTE_MS);
  }
  row(table: string, values: Record<string, unknown>): string {
    const id = newId();
    insert(this.db, table, { id, ...values });
    return id;
  }
}

export function stockUp(writer: Writer): Stock {
  const { db } = writer;
  const times = <T>(count: number, make: (n: number) => T) => Array.from({ length: count }, (_, n) => make(n));
  const material = (name: string, kind: string, more: Record<string, unknown> = {}) => {
    const id = writer.row('material', { name, kind, strength: 1, reorderG: 100, createdAt: writer.at, ...more });
    addLot(db, id, { code: 'first', bottleStrength: 1, grams: kind === 'plastisol' ? 20_000 : 200 }, writer.at);
    return id;
  };
  const plastics = [
    material('Soft 22', 'plastisol', { densityGPerMl: 1.02, hardnessScale: '00', hardness: 22, pricePerKgMinor: 1400 }),
    material('Firm 58', 'plastisol', { densityGPerMl: 1.04, hardnessScale: '00', hardness: 58, pricePerKgMinor: 1600 }),
  ] as [string, string];
  const colourants = times(20, (n) => material(`Harbour ${n}`, 'colourant', { dropsPerMl: 20, densityGPerMl: 1.05 }));
  const makers = times(3, (n) =>
    writer.row('maker', { name: `Maker ${n}`, system: 'metric', temperature: 'C', createdAt: writer.at }),
  );
  writer.row('measure', { name: 'scoop', count: 10, grams: 6.8, densityGPerMl: 0.8, ml: 0.85, createdAt: writer.at });
  const revisions: string[] = [];
  const baits = times(BAITS, (n) => {
    const baitId = addBait(db, { name: `Sandlance ${n}`, shape: 'paddle', packCount: 8 }, writer.at);
    run(db, `UPDATE bait SET price_minor = 700, wanted_scale = '00', wanted_hardness = 34 WHERE id = ?`, [baitId]);
    const master = writer.row('master', { baitId, kind: 'clay', flatBack: 0, createdAt: writer.at });
    const spec = n % 2 === 0 ? check(shapeSpecSchema, STARTS[0]?.spec) : undefined;
    let parentId: string | undefined;
    for (let k = 0; k < 6; k++) {
      parentId = addMasterRevision(
        db,
        master,
        {
          reason: `try ${k}`,
          lengthMm: 110,
          widthMm: 16,
          heightMm: 17,
          thickestMm: 15,
          ...(spec ? { spec } : {}),
          ...(parentId ? { parentId } : {}),
          volume: { how: 'displaced', ml: 12 },
        },
        writer.at,
      );
      revisions.push(parentId);
    }
    return baitId;
  });
  const molds = baits.flatMap((baitId, n) =>
    times(2, (k) => {
      const body = {
        name: `Sandlance ${n} × ${k === 0 ? 4 : 6}`,
        kind: 'aluminium',
        fill: 'injection',
        baitId,
        cavities: k === 0 ? 4 : 6,
        cavityMl: 12,
        sprueMl: 4,
        runnerMl: 0,
        injectorMl: 120,
      };
      const id = addMold(db, body as unknown as v.InferOutput<typeof moldBody>, writer.at);
      return { id, baitId, cavities: body.cavities };
    }),
  );
  const recipes = times(RECIPES, (n) => {
    const items = times(4, (k) => ({
      materialId: colourants[(n + 3 * k) % colourants.length] as string,
      amount: 8 + k,
      unit: 'drop',
    }));
    const hex = `#${(0x203040 + n * 0x070503).toString(16).slice(0, 6)}`;
    return addRecipe(db, { name: `Tide ${n}`, hex, notes: '', basisMl: 240, items, reason: 'first' }, writer.at);
  });
  const layered = times(LAYERED, (n) => {
    const [belly, back] = [recipes[n] as string, recipes[n + LAYERED] as string];
    const whole = { wanted: null, joins: null };
    const layers = [
      { ...whole, place: 'belly' as const, recipeId: belly, measure: 'share' as const, amount: 0.5 },
      {
        ...whole,
        place: 'back' as const,
        recipeId: back,
        measure: 'rest' as const,
        amount: null,
        joins: n % 2 === 0 ? ('together' as const) : ('melted' as const),
      },
    ];
    return addColourway(db, { name: `Laminate ${n}`, hex: '#406080', notes: '', layers, reason: 'first' }, writer.at);
  });
  run(db, 'UPDATE workshop SET glass_ml = ?', [GLASS_ML]);
  const customers = times(CUSTOMERS, (n) =>
    addCustomer(db, { name: `Customer ${n}`, contact: '', notes: '' }, writer.at),
  );
  const colourways = [...recipes, ...layered];
  return {
    baits,
    molds,
    recipes,
    colourways,
    colourants,
    plastics,
    materials: [...plastics, ...colourants],
    customers,
    makers,
    revisions,
  };
}

export function restock({ db, at }: Writer, { materials, plastics }: Pick<Stock, 'materials' | 'plastics'>): void {
  for (const id of materials) {
    const { g } = first<{ g: number }>(db, 'SELECT coalesce(sum(grams), 0) AS g FROM lot_level WHERE material_id = ?', [
      id,
    ]) as { g: number };
    const isPlastisol = plastics.includes(id);
    if (g < (isPlastisol ? 12_000 : 60))
      addLot(db, id, { code: at, bottleStrength: 1, grams: isPlastisol ? 20_000 : 250 }, at);
  }
}
