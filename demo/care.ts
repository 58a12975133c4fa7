import type { Mold } from '../contract/molds.ts';
import type { DemoMaker } from './maker.ts';
import type { Random } from './random.ts';
import { makeMold, type Shelf } from './shelf.ts';

/** A few months in they put ten baits and a shot on the scale, dip with a caliper beside, and wipe the faces. */
export async function weighMolds(maker: DemoMaker, shelf: Shelf, random: Random): Promise<void> {
  for (const [name, share] of [
    ['Sandlance 110 × 4', 1.045],
    ['Squattie 70 × 6', 0.985],
  ] as const) {
    const mold = shelf.molds.get(name);
    if (!mold) throw new Error(`The demo has no mold ${name}.`);
    const bait = mold.cavityMl * share * 1.02;
    const tenths = (g: number) => Math.round(g * 10) / 10;
    for (const count of [10, 8])
      await maker.post(`/molds/${mold.id}/weighings`, {
        of: 'bait',
        count,
        grams: tenths(count * bait * random.between(0.99, 1.01)),
      });
    if (mold.sprueMl > 0)
      await maker.post(`/molds/${mold.id}/weighings`, {
        of: 'shot',
        count: 1,
        grams: tenths(mold.cavities * bait + mold.sprueMl * 1.02 * 1.1),
      });
    await maker.post(`/molds/${mold.id}/events`, { kind: 'cleaned' });
  }
}

/** Walls of tubes against the cup's temperature, over the seasons. */
export async function logDips(maker: DemoMaker, shelf: Shelf, random: Random): Promise<void> {
  const rods = shelf.molds.get('Sprat rods × 10');
  if (!rods) throw new Error('The demo has no rods.');
  for (let n = 0; n < 9; n++) {
    const cupC = random.whole(150, 160);
    const dips = random.pick([2, 3, 3]);
    const wallMm = Math.round(dips * 0.64 * (1 + 0.026 * (155 - cupC)) * random.between(0.94, 1.06) * 20) / 20;
    await maker.post(`/molds/${rods.id}/dips`, { dips, wallMm, cupC });
  }
}

/** The claws’ open block is worn after two seasons, and made anew of the same master. */
export async function renewClaws(maker: DemoMaker, shelf: Shelf): Promise<void> {
  const old = shelf.molds.get('Squattie 70 × 6');
  if (!old) throw new Error('The demo has no block of claws.');
  const made = await maker.post<Mold>(`/molds/${old.id}/rebuilds`, { name: 'Squattie 70 × 6, 2nd' });
  await makeMold(maker, made, true);
  shelf.molds.set('Squattie 70 × 6', made);
}
