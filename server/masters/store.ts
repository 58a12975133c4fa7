import type * as v from 'valibot';
import type { ListQuery, Page } from '../../contract/fields.ts';
import type { Master, MasterRow, Revision, revisionBody, VolumeReading, volumeBody } from '../../contract/masters.ts';
import type { MeshFacts } from '../../contract/meshes.ts';
import type { Bait } from '../../contract/workshop.ts';
import { Failure } from '../../core/failure.ts';
import type { MasterKind } from '../../core/mold/masterStuff.ts';
import { contradiction, type Sizes } from '../../core/shape/plausible.ts';
import { wholeSpec } from '../../core/shape/spec.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';
import { addMesh, getMesh, type NewMesh } from '../meshes/files.ts';

type Volume = v.InferOutput<typeof volumeBody>;

const mlOf = (volume: Volume) => (volume.how === 'weighed' ? volume.grams / volume.densityGPerMl : volume.ml);

/** Figures that contradict each other are asked about, not kept in silence. */
export function askAbout(sizes: Sizes, volume: Volume | undefined, sure: boolean): void {
  const found = sure ? null : contradiction(sizes, volume ? mlOf(volume) : null);
  if (found) throw new Failure('contradicts-itself', found.said, found.path);
}

export function addVolume(db: Db, revisionId: string, volume: Volume, at: string): void {
  const ml = mlOf(volume);
  const weighed = volume.how === 'weighed' ? { grams: volume.grams, densityGPerMl: volume.densityGPerMl } : {};
  insert(db, 'volume_reading', { id: newId(volume.id), revisionId, how: volume.how, ...weighed, ml, at });
}

/** Newest first, by revision. */
function volumesByRevision(db: Db, revisionIds: string[]): Map<string, VolumeReading[]> {
  const volumes = new Map<string, VolumeReading[]>(revisionIds.map((id) => [id, []]));
  for (const { revisionId, ...reading } of all<VolumeReading & { revisionId: string }>(
    db,
    `SELECT revision_id, id, how, grams, density_g_per_ml, ml, at FROM volume_reading
     WHERE revision_id IN (SELECT value FROM json_each(?)) ORDER BY revision_id, seq DESC`,
    [JSON.stringify(revisionIds)],
  ))
    volumes.get(revisionId)?.push(reading);
  return volumes;
}

type BareRevision = Omit<Revision, 'volumes' | 'volumeMl' | 'mesh' | 'kind'> & {
  facts: MeshFacts | null;
  kind: MasterKind | null;
  masterKind: MasterKind;
};
const REVISION = `SELECT r.*, mesh.facts, of.kind AS master_kind FROM master_revision r
  JOIN master of ON of.id = r.master_id LEFT JOIN mesh ON mesh.id = r.mesh_id`;

function withVolumes(db: Db, revisions: BareRevision[]): Revision[] {
  const known = volumesByRevision(
    db,
    revisions.map((row) => row.id),
  );
  return revisions.map(({ facts, kind, masterKind, ...revision }) => {
    const volumes = known.get(revision.id) ?? [];
    return {
      ...revision,
      kind: kind ?? masterKind,
      spec: revision.spec && wholeSpec(revision.spec),
      mesh: facts,
      volumes,
      volumeMl: volumes[0]?.ml ?? null,
    };
  });
}

const revisionsOf = (db: Db, masterId: string): Revision[] =>
  withVolumes(db, all<BareRevision>(db, `${REVISION} WHERE r.master_id = ? ORDER BY r.number DESC`, [masterId]));

/** The newest revision of each master. */
const latestOf = (db: Db, masterIds: string[]): (Revision & { masterId: string })[] =>
  withVolumes(
    db,
    all<BareRevision>(
      db,
      `${REVISION} WHERE r.master_id IN (SELECT value FROM json_each(?))
       AND r.number = (SELECT max(number) FROM master_revision WHERE master_id = r.master_id)`,
      [JSON.stringify(masterIds)],
    ),
  ) as (Revision & { masterId: string })[];

export function addRevision(
  db: Db,
  masterId: string,
  body: Omit<v.InferOutput<typeof revisionBody>, 'parentId' | 'sure'> & { parentId?: string; sure?: boolean },
  at: string,
  sculpted?: NewMesh,
): string {
  const { volume, spec, meshId: brought, kind, sure = false, ...measured } = body;
  if (spec && brought) throw new Failure('invalid-input', 'Give a spec or a mesh, not both.', 'meshId');
  const id = newId();
  const meshId = sculpted ? addMesh(db, sculpted, at) : brought;
  const facts = meshId ? solidFacts(db, meshId) : undefined;
  const values = { ...dimensionsOf(measured, facts), spec: spec ?? null, meshId: meshId ?? null };
  askAbout(values as Sizes, volume, sure);
  const number =
    (first<{ n: number }>(db, 'SELECT max(number) AS n FROM master_revision WHERE master_id = ?', [masterId])?.n ?? 0) +
    1;
  insert(db, 'master_revision', { id, masterId, number, kind: kind ?? null, ...values, createdAt: at });
  if (facts?.volumeMl)
    insert(db, 'volume_reading', { id: newId(), revisionId: id, how: 'mesh', ml: facts.volumeMl, at });
  if (volume) addVolume(db, id, volume, at);
  return id;
}

/** A mesh that is to be a master must have an inside: what is open is mended first. */
function solidFacts(db: Db, meshId: string): MeshFacts {
  const { facts } = getMesh(db, meshId);
  if (facts.volumeMl === null || facts.flipped)
    throw new Failure('bad-mesh', `This mesh is no solid yet. ${facts.faults.join(' ')} Mend it first.`, 'meshId');
  return facts;
}

const SIDES = ['lengthMm', 'widthMm', 'heightMm', 'thickestMm'] as const;

/** Sizes as measured by hand, the others from the mesh: x is the length, y the width, z the height. */
function dimensionsOf<T extends Partial<Record<(typeof SIDES)[number], number>>>(measured: T, facts?: MeshFacts) {
  const own = facts
    ? {
        lengthMm: facts.sizeMm[0],
        widthMm: facts.sizeMm[1],
        heightMm: facts.sizeMm[2],
        thickestMm: facts.thickestMm ?? Math.min(...facts.sizeMm),
      }
    : {};
  const given = Object.fromEntries(Object.entries(measured).filter(([, value]) => value !== undefined));
  const values = { ...own, ...given } as T;
  const missing = SIDES.find((side) => values[side] === undefined);
  if (missing) throw new Failure('invalid-input', `${missing} is missing; give a number, a spec or a mesh.`, missing);
  return values;
}

/** A parent must be a revision that exists; the first must be one of this master, the second may be another's. */
export function checkParents(db: Db, masterId: string, parentId: string, secondParentId?: string): void {
  if (!first(db, 'SELECT 1 FROM master_revision WHERE id = ? AND master_id = ?', [parentId, masterId])) {
    throw new Failure('invalid-input', 'The revision it grew from is not one of this master.', 'parentId');
  }
  if (secondParentId && !first(db, 'SELECT 1 FROM master_revision WHERE id = ?', [secondParentId])) {
    throw new Failure('invalid-input', 'The second parent is not a revision known here.', 'secondParentId');
  }
}

const LISTING = {
  select: `SELECT /*sort*/ master.*, bait.name, bait.shape, bait.away_at,
    (SELECT count(*) FROM mold JOIN master_revision r ON r.id = mold.revision_id WHERE r.master_id = master.id) AS molds
    FROM master JOIN bait ON bait.id = master.bait_id`,
  sorts: { name: 'bait.name', created: 'master.created_at' },
  order: 'name',
  search: 'bait.name LIKE @q',
  idColumn: 'master.id',
};

export function listMasters(db: Db, query: ListQuery): Page<MasterRow> {
  const found = page<Omit<MasterRow, 'latest'>>(db, LISTING, query);
  const latest = latestOf(
    db,
    found.items.map((row) => row.id),
  );
  return {
    ...found,
    items: found.items.map((row) => {
      const newest = latest.find((one) => one.masterId === row.id) as Revision;
      return { ...row, kind: newest.kind, latest: newest };
    }),
  };
}

export function getMaster(db: Db, id: string): Master {
  mustFind(db, 'master', id, 'master');
  const row = first<Omit<MasterRow, 'latest'>>(db, `${LISTING.select.replace('/*sort*/', '')} WHERE master.id = ?`, [
    id,
  ]);
  const revisions = revisionsOf(db, id);
  return {
    ...(row as Omit<MasterRow, 'latest'>),
    kind: (revisions[0] as Revision).kind,
    latest: revisions[0] as Revision,
    revisions,
    bait: mustFind<Bait>(db, 'bait', (row as MasterRow).baitId, 'bait'),
    moldList: all(
      db,
      `SELECT mold.id, mold.name, r.number AS revision_number FROM mold LEFT JOIN master_revision r ON r.id = mold.revision_id
       WHERE mold.bait_id = ? ORDER BY mold.created_at`,
      [(row as MasterRow).baitId],
    ),
  };
}
