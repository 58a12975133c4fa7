import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import type { Master } from '../../contract/masters.ts';
import type { Material } from '../../contract/materials.ts';
import type { Mold } from '../../contract/molds.ts';
import type { Order } from '../../contract/orders.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Recipe } from '../../contract/recipes.ts';
import type { DataFolder } from '../backup/data.ts';
import { type Opened, open } from '../listen.ts';

export interface Answer<T> {
  status: number;
  body: T & { error: { code: string; message: string; path?: string; current?: Record<string, unknown> } };
  headers: Headers;
}

interface Asking {
  version?: number;
  key?: string;
  headers?: Record<string, string>;
}

/** A real workshop on a real file, spoken to over HTTP, with a clock in the test's hand. */
export class TestWorkshop {
  now = new Date('2026-03-02T18:00:00.000Z');
  private constructor(readonly opened: Opened) {}

  get data(): DataFolder {
    return this.opened.data;
  }

  get url(): string {
    return this.opened.url;
  }

  static async open(
    lan = false,
    root = mkdtempSync(join(tmpdir(), 'blunko-test-')),
    pages?: string,
  ): Promise<TestWorkshop> {
    let workshop: TestWorkshop | undefined;
    const opened = await open({
      root,
      clock: () => workshop?.now ?? new Date(),
      log: pino({ level: 'silent' }),
      port: 0,
      ...(lan ? { lan: { port: 0 } } : {}),
      ...(pages === undefined ? {} : { pages }),
    });
    workshop = new TestWorkshop(opened);
    return workshop;
  }

  async close(): Promise<void> {
    await this.opened.close();
    rmSync(this.data.root, { recursive: true, force: true });
  }

  async ask<T = Record<string, unknown>>(
    method: string,
    path: string,
    body?: unknown,
    asking: Asking = {},
  ): Promise<Answer<T>> {
    const headers: Record<string, string> = { ...asking.headers };
    if (body !== undefined) headers['content-type'] = 'application/json';
    if (asking.version !== undefined) headers['if-match'] = `"${asking.version}"`;
    if (asking.key) headers['idempotency-key'] = asking.key;
    const text = typeof body === 'string' ? body : JSON.stringify(body);
    const response = await fetch(`${this.url}/api${path}`, { method, headers, body: body === undefined ? null : text });
    return { status: response.status, body: (await response.json()) as Answer<T>['body'], headers: response.headers };
  }

  get = <T>(path: string) => this.ask<T>('GET', path);
  post = <T>(path: string, body: unknown, asking?: Asking) => this.ask<T>('POST', path, body, asking);

  /** What was asked for, done; refused, the test fails with the refusal. */
  made = async <T>(path: string, body: unknown): Promise<T> => {
    const answer = await this.post<T>(path, body);
    if (answer.status >= 300) throw new Error(`${path}: ${JSON.stringify(answer.body)}`);
    return answer.body;
  };

  waits(hours: number): void {
    this.now = new Date(this.now.getTime() + hours * 3600_000);
  }

  /** Every row of every table, to show that a refusal wrote nothing. */
  rows(): number {
    const tables = this.data.db
      .prepare(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`)
      .all();
    return (tables as { name: string }[]).reduce(
      (sum, { name }) => sum + (this.data.db.prepare(`SELECT count(*) AS n FROM ${name}`).get() as { n: number }).n,
      0,
    );
  }
}

export interface Stocked {
  master: Master;
  mold: Mold;
  recipe: Recipe;
  colourant: Material;
  plastisol: Material;
  order: Order;
}

/** One bait, one mold of 4, one colour, and an order of 2 packs of 8. */
export async function stocked(workshop: TestWorkshop): Promise<Stocked> {
  const { made } = workshop;
  const plastisol = await made<Material>('/materials', {
    name: 'Soft 22',
    kind: 'plastisol',
    densityGPerMl: 1.02,
    lot: { code: 'A1', grams: 5000 },
  });
  const colourant = await made<Material>('/materials', {
    name: 'Harbour Blue liquid',
    kind: 'colourant',
    lot: { code: 'B1', grams: 100 },
  });
  const master = await made<Master>('/masters', {
    name: 'Sandlance 110',
    shape: 'paddle',
    kind: 'clay',
    lengthMm: 110,
    widthMm: 16,
    heightMm: 17,
    thickestMm: 15,
    volume: { how: 'displaced', ml: 10 },
  });
  const mold = await made<Mold>('/molds', {
    name: 'Sandlance × 4',
    kind: 'aluminium',
    fill: 'injection',
    baitId: master.baitId,
    revisionId: master.latest.id,
    cavities: 4,
    cavityMl: 10,
    sprueMl: 5,
  });
  const recipe = await made<Recipe>('/recipes', {
    name: 'Slack Tide',
    hex: '#4f8796',
    basisMl: 240,
    items: [{ materialId: colourant.id, amount: 24, unit: 'drop' }],
  });
  const order = await made<Order>('/orders', {
    newCustomer: { name: 'Quayside Chandlery' },
    dueOn: '2026-03-09',
    lines: [{ baitId: master.baitId, colourwayId: recipe.id, packs: 2, perPack: 8 }],
  });
  return { master, mold, recipe, colourant, plastisol, order };
}

/** Two plastics whose labels say how hard they are, unlike the stocked drum's. */
export async function softAndFirm(workshop: TestWorkshop): Promise<Material[]> {
  const made: Material[] = [];
  for (const [name, hardness, pricePerKgMinor] of [
    ['Soft 20', 20, 1000],
    ['Firm 60', 60, 2000],
  ] as const) {
    const label = { name, kind: 'plastisol', densityGPerMl: 1.02, hardnessScale: '00', hardness, pricePerKgMinor };
    made.push((await workshop.post<Material>('/materials', { ...label, lot: { code: 'A1', grams: 5000 } })).body);
  }
  return made;
}

/** A cup of two shots of the stocked mold. */
export const twoShots = async (workshop: TestWorkshop, { recipe, mold }: Stocked, more: object = {}): Promise<Pour> =>
  (await workshop.post<Pour>('/pours', { colourwayId: recipe.id, molds: [{ moldId: mold.id, shots: 2 }], ...more }))
    .body;

/** Draws the first shot of a cup and marks its four baits to sell. @param more the cups that it is drawn from. */
export async function firstShot(workshop: TestWorkshop, { mold }: Stocked, pour: Pour, more: object = {}) {
  const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: mold.id, ...more });
  const marks = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
  await workshop.post(`/pours/${pour.id}/shots/${body.shots[0]?.id}/marks`, { marks });
}

/** Lays out, draws and marks `shots` of the stocked mold, the first cavity of the first shot bad. */
export async function poured(workshop: TestWorkshop, { mold, recipe }: Stocked, shots: number): Promise<Pour> {
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: recipe.id,
    molds: [{ moldId: mold.id, shots }],
  });
  for (let n = 0; n < shots; n++) {
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: mold.id });
    const marks = [1, 2, 3, 4].map((cavity) =>
      n === 0 && cavity === 1 ? { cavity, grade: 'remelt', reason: 'bubble' } : { cavity, grade: 'sell' },
    );
    await workshop.post(`/pours/${pour.id}/shots/${body.shots.at(-1)?.id}/marks`, { marks });
  }
  return pour;
}

const tenths = (g: number) => Math.round(g * 10) / 10;

/** Weighed so that it balances: 10.2 g a bait. */
export const closing = (good: number, bad: number) => ({
  cookedG: tenths((good + bad) * 10.2 + 50),
  goodG: tenths(good * 10.2),
  rejectG: tenths(bad * 10.2),
  returnedG: 40,
  residueG: 6,
});
