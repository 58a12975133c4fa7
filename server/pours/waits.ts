import { LRUCache } from 'lru-cache';
import type * as v from 'valibot';
import type { pourBody } from '../../contract/pours.ts';
import { waitsLearnt } from '../../core/process/learntWait.ts';
import { type Opening, WARM_AFTER_SHOTS } from '../../core/process/opening.ts';
import { type Waits, waitsByKind } from '../../core/process/waits.ts';
import type { Db } from '../db/open.ts';
import type { Jobs } from '../jobs/jobs.ts';
import { factsOf } from '../molds/facts.ts';
import { workshop } from '../workshop/store.ts';
import { waitsLearntIn } from './hands.ts';

/** The same mold in the same room waits as it did before: worked out once while the server runs. */
const known = new LRUCache<string, Waits>({ max: 500 });

async function remembered(asked: Opening, work: () => Promise<Waits>): Promise<Waits> {
  const key = JSON.stringify(asked);
  const found = known.get(key) ?? (await work());
  known.set(key, found);
  return found;
}

/** How long each shot of each mold waits, of what is known about it and as its openings taught; a mold that is not here is refused later, in words. */
export async function waitsIn(
  db: Db,
  jobs: Jobs,
  { molds }: v.InferOutput<typeof pourBody>,
  signal: AbortSignal,
): Promise<(Waits | undefined)[]> {
  const { roomC } = workshop(db);
  const moldIds = molds.map(({ moldId }) => moldId);
  const facts = factsOf(db, moldIds);
  const worked = await Promise.all(
    molds.map(async ({ moldId }) => {
      const fact = facts.get(moldId);
      if (!fact) return undefined;
      const { kind, fill, thicknessMm, wallMm } = fact;
      if (thicknessMm === null) return waitsByKind(kind);
      const asked: Opening = {
        kind,
        fill,
        thicknessMm,
        roomC,
        shots: WARM_AFTER_SHOTS,
        ...(wallMm === null ? {} : { wallMm }),
      };
      return remembered(asked, () => jobs.calculate('heat.opening', asked, { signal }) as Promise<Waits>);
    }),
  );
  const learnt = waitsLearntIn(db, moldIds);
  return worked.map((waits, index) => {
    const here = learnt.get(molds[index]?.moldId as string);
    return waits && here ? waitsLearnt(waits, here) : waits;
  });
}
