import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
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
  let state = seed | 0;
  const next = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const below = (n: number) => Math.floor(next() * n);
  return { next, below, pick: <T>(from: readonly T[]) => from[below(from.length)] as T };
}
