import { LRUCache } from 'lru-cache';
import type { MoldLevels } from '../../contract/colourways.ts';
import type { MoldRow } from '../../contract/molds.ts';
import { standing, UP } from '../../core/mold/stands.ts';
import { type LayerAmount, levelsIn } from '../../core/plan/layers.ts';
import { sharesBelow } from '../../core/shape/level.ts';
import { type MeshUnit, readMesh } from '../../core/shape/read.ts';
import { weld } from '../../core/shape/weld.ts';
import { type Db, filesBeside } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { meshBytes } from '../meshes/files.ts';

/** A file goes by its content, so what was measured of it once stays true. */
const known = new LRUCache<string, { tallMm: number; levels: Record<string, number> }>({ max: 2000 });

type Stood = Pick<MoldRow, 'id' | 'fill' | 'fitting'>;

/**
 * How tall the cavity of each mold is as it stands, and what of it lies under each of these levels. A mold whose bait has no
 * mesh here, or one that is dipped, is not among them.
 */
export function levelsOf(db: Db, molds: Stood[], layers: LayerAmount[]): Map<string, MoldLevels> {
  const asked = levelsIn(layers);
  if (asked.length === 0) return new Map();
  const meshes = new Map(
    all<{ id: string; hash: string; unit: MeshUnit }>(
      db,
      `SELECT mold.id, mesh.hash, mesh.unit FROM mold JOIN master_revision r ON r.id = mold.revision_id JOIN mesh ON mesh.id = r.mesh_id
       WHERE mold.id IN (SELECT value FROM json_each(?))`,
      [JSON.stringify(molds.map(({ id }) => id))],
    ).map((mesh) => [mesh.id, mesh]),
  );
  return new Map(
    molds.flatMap(({ id, fill, fitting }) => {
      const mesh = meshes.get(id);
      const stands = standing(fill, fitting?.stands ?? null);
      if (!mesh || !stands) return [];
      const key = `${mesh.hash} ${mesh.unit} ${stands.way}`;
      const found = known.get(key) ?? { tallMm: 0, levels: {} };
      const missing = asked.filter((to) => found.levels[to] === undefined);
      if (missing.length > 0) {
        const places = readMesh(meshBytes(filesBeside(db.name), mesh), mesh.unit).places;
        const { tallMm, shares } = sharesBelow(weld(places).mesh, UP[stands.way], missing);
        found.tallMm = tallMm;
        missing.forEach((to, i) => {
          found.levels[to] = shares[i] as number;
        });
        known.set(key, found);
      }
      return [[id, { moldId: id, stands, ...found }] as [string, MoldLevels]];
    }),
  );
}
