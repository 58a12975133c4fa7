import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Random } from '../demo/random.ts';
import { poured, type Stocked, stocked, TestWorkshop } from '../server/testing/workshop.ts';

/** A workshop with something of everything in it, spoken to over HTTP, on a folder that can be looked into. */
export async function withShop<T>(use: (shop: TestWorkshop, stock: Stocked) => Promise<T>, root?: string): Promise<T> {
  const shop = await TestWorkshop.open(false, root ?? mkdtempSync(join(tmpdir(), 'blunko-endure-')));
  try {
    const stock = await stocked(shop);
    await poured(shop, stock, 2);
    return await use(shop, stock);
  } finally {
    await shop.opened.close();
    rmSync(shop.data.root, { recursive: true, force: true });
  }
}

/** A seeded generator, so that what broke can be had again. */
export function dice(seed: number) {
  const chance = new Random(seed);
  const below = (n: number) => Math.floor(chance.next() * n);
  return { below, pick: <T>(from: readonly T[]) => from[below(from.length)] as T };
}
