import type * as v from 'valibot';
import type { pourBody } from '../../contract/pours.ts';
import { type Opening, WARM_AFTER_SHOTS } from '../../core/process/opening.ts';
import { type Waits, waitsByKind } from '../../core/process/waits.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import type { Jobs } from '../jobs/jobs.ts';
import { workshop } from '../workshop/store.ts';

interface Known extends Pick<Opening, 'kind' | 'fill'> {
  thicknessMm: number | null;
  id: string;
  plan: { input: { wallMm: number } } | null;
  build: { wish: { wallMm: number } } | null;
}

/** The same mold in the same room waits as it did before: worked out once while the server runs. */
const known = new Map<string, Waits>();
const MOST_KNOWN = 500;

async function worked(asked: Opening, work: () => Promise<Waits>): Promise<Waits> {
  const key = JSON.stringify(asked);
  const found = known.get(key) ?? (await work());
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(key, found);
  return found;
}

/** How long each shot of each mold waits, of what is known about it; a mold that is not here is refused later, in words. */
export async function waitsIn(
  db: Db,
  jobs: Jobs,
  { molds }: v.InferOutput<typeof pourBody>,
  signal: AbortSignal,
): Promise<(Waits | undefined)[]> {
  const { roomC } = workshop(db);
  const rows = all<Known>(
    db,
    `SELECT mold.id, kind, fill, plan, build, thickest_mm AS thickness_mm FROM mold
     LEFT JOIN master_revision r ON r.id = mold.revision_id WHERE mold.id IN (SELECT value FROM json_each(?))`,
    [JSON.stringify(molds.map(({ moldId }) => moldId))],
  );
  const waits = molds.map(async ({ moldId }) => {
    const mold = rows.find((row) => row.id === moldId);
    if (!mold) return undefined;
    if (mold.thicknessMm === null) return waitsByKind(mold.kind);
    const { kind, fill, thicknessMm, plan, build } = mold;
    const wallMm = plan?.input.wallMm ?? build?.wish.wallMm;
    const asked = {
      kind,
      fill,
      thicknessMm,
      roomC,
      shots: WARM_AFTER_SHOTS,
      ...(wallMm === undefined ? {} : { wallMm }),
    };
    return worked(asked, () => jobs.calculate('heat.opening', asked, { signal }) as Promise<Waits>);
  });
  return Promise.all(waits);
}
