import type { MoldFacts, MoldRow } from '../../contract/molds.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

type Facts = MoldFacts & Pick<MoldRow, 'kind' | 'fill'>;

interface Recorded extends Omit<Facts, 'wallMm'> {
  id: string;
  plan: { input: { wallMm: number } } | null;
  build: { wish: { wallMm: number } } | null;
}

/** What is known of molds as heat goes through them, by mold: of the revision that each was made from, not of the newest. */
export function factsOf(db: Db, moldIds: string[]): Map<string, Facts> {
  const rows = all<Recorded>(
    db,
    `SELECT mold.id, mold.kind, fill, plan, build, r.thickest_mm AS thickness_mm FROM mold
     LEFT JOIN master_revision r ON r.id = mold.revision_id WHERE mold.id IN (SELECT value FROM json_each(?))`,
    [JSON.stringify(moldIds)],
  );
  return new Map(
    rows.map(({ id, plan, build, ...fact }) => [
      id,
      { ...fact, wallMm: plan?.input.wallMm ?? build?.wish.wallMm ?? null },
    ]),
  );
}
