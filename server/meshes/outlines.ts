import type { Logger } from 'pino';
import type { Silhouette } from '../../core/shape/silhouette.ts';
import { all, first } from '../db/rows.ts';
import { addOutline, type Meshes, meshBytes } from './files.ts';

/**
 * Draws the outlines of what an older program kept: one after the other beside the server, each kept once it is there. What
 * cannot be drawn stays drawn by its kind.
 */
export async function drawMissing({ data, jobs }: Meshes, touched: (keys: string[]) => void, log: Logger) {
  const db = data.db;
  const missing = all<{ id: string; hash: string }>(
    db,
    `SELECT mesh.id, mesh.hash FROM master
     JOIN master_revision r ON r.master_id = master.id
       AND r.number = (SELECT max(number) FROM master_revision WHERE master_id = master.id)
     JOIN mesh ON mesh.id = r.mesh_id
     WHERE NOT EXISTS (SELECT 1 FROM mesh_outline WHERE mesh_id = mesh.id)`,
    [],
  );
  for (const mesh of missing) {
    try {
      const outline = await jobs.solid<Silhouette | null>({ kind: 'outline', bytes: meshBytes(data.files, mesh) });
      // Closed or restored meanwhile: the next start goes on.
      if (data.db !== db || !db.open) return;
      if (!outline || first(db, 'SELECT 1 FROM mesh_outline WHERE mesh_id = ?', [mesh.id])) continue;
      addOutline(db, mesh.id, outline);
      touched(['baits']);
    } catch (error) {
      log.warn({ err: error, mesh: mesh.id }, 'an outline could not be drawn');
      if (data.db !== db || !db.open) return;
    }
  }
}
