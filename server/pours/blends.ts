import { LRUCache } from 'lru-cache';
import type * as v from 'valibot';
import type { BlendWish } from '../../contract/blend.ts';
import type { pourBody } from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import { blendAsk, blendShares, canBlend } from '../../core/plastisol/parts.ts';
import { latestLayers } from '../colourways/store.ts';
import type { Db } from '../db/open.ts';
import { first } from '../db/rows.ts';
import type { Jobs } from '../jobs/jobs.ts';
import { plastics } from './plastics.ts';

export interface Wanted {
  scale: 'A' | '00';
  value: number;
}

type NewPour = Pick<v.InferOutput<typeof pourBody>, 'colourwayId' | 'molds' | 'wanted' | 'blend'>;

/** How hard the baits of a mold are to be, where that was written down. */
export function wantedOfMold(db: Db, moldId: string | undefined): Wanted | null {
  const row = first<{ scale: 'A' | '00' | null; value: number | null }>(
    db,
    `SELECT bait.wanted_scale AS scale, bait.wanted_hardness AS value FROM mold JOIN bait ON bait.id = mold.bait_id
     WHERE mold.id = ?`,
    [moldId ?? ''],
  );
  return row?.scale && row.value !== null ? { scale: row.scale, value: row.value } : null;
}

export const keyOf = ({ scale, value }: Wanted) => `${scale} ${value}`;

/** What each cup of a laying out is to read: as asked, else as its layer says, else as its bait. */
function wantedIn(db: Db, body: NewPour): Wanted[] {
  const bait = wantedOfMold(db, body.molds[0]?.moldId);
  if (body.wanted) return [body.wanted];
  const { layers } = latestLayers(db, body.colourwayId);
  const wanted = layers.map((layer) => layer.wanted ?? bait).filter((one): one is Wanted => one !== null);
  return [...new Map(wanted.map((one) => [keyOf(one), one])).values()];
}

/** The same plastics at the same prices blend to the same shares: solved once while the server runs. */
const solved = new LRUCache<string, Record<string, number>>({ max: 500 });

const solve = async (jobs: Jobs, asked: ReturnType<typeof blendAsk>, signal: AbortSignal) =>
  ((await jobs.calculate('hardness.blend', asked, { signal })) as { fractions: Record<string, number> }).fractions;

/** The cheapest blend of what lies in the store for that hardness; where none reaches it, the plastic that comes nearest. */
async function blendFor(
  db: Db,
  jobs: Jobs,
  { scale, value }: Wanted,
  signal: AbortSignal,
): Promise<BlendWish | undefined> {
  const { items, additives } = plastics(db, scale);
  const known = items.filter((one) => one.hardness !== null && one.levelG > 0);
  const there = additives.filter((one) => one.levelG > 0);
  if (!canBlend(known, there)) return undefined;
  const asked = blendAsk({ scale, value }, known, there);
  const key = JSON.stringify(asked);
  try {
    const fractions = solved.get(key) ?? (await solve(jobs, asked, signal));
    solved.set(key, fractions);
    return blendShares(fractions);
  } catch (error) {
    if (!(error instanceof Failure) || error.code !== 'hardness-out-of-reach') throw error;
    const off = (hardness: number | null) => Math.abs((hardness ?? 0) - value);
    const [nearest] = [...known].sort((a, b) => off(a.hardness) - off(b.hardness));
    return nearest && [{ materialId: nearest.materialId, share: 1 }];
  }
}

/** Blends for what the baits want, by how hard; none where the maker chose one, or where no two plastics are known. */
export async function blendsIn(
  db: Db,
  jobs: Jobs,
  body: NewPour,
  signal: AbortSignal,
): Promise<Map<string, BlendWish>> {
  const blends = new Map<string, BlendWish>();
  const there = first(db, 'SELECT 1 FROM colourway WHERE id = ?', [body.colourwayId]);
  if (body.blend || !there) return blends;
  for (const wanted of wantedIn(db, body)) {
    const blend = await blendFor(db, jobs, wanted, signal);
    if (blend) blends.set(keyOf(wanted), blend);
  }
  return blends;
}
