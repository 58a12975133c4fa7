import { rmSync } from 'node:fs';
import { basename } from 'node:path';
import { type Response, Router } from 'express';
import { Failure } from '../../core/failure.ts';
import type { Jobs } from '../jobs/jobs.ts';
import type { DataFolder } from './data.ts';
import { Snapshots } from './snapshots.ts';
import { saveUpload } from './upload.ts';

const RESTORE_LIMIT = 4e9;
/** A download that takes nothing for so long is given up. */
const STALLED_MS = 60_000;

/** Sends a file to its end or until the client leaves or stalls; neither is a fault of ours. */
function handOver(response: Response, path: string): Promise<void> {
  response.setTimeout(STALLED_MS, () => response.destroy());
  return new Promise((done, failed) => {
    response.sendFile(path, (error?: NodeJS.ErrnoException) => {
      if (error && !response.headersSent && !response.destroyed) failed(error);
      else done();
    });
  });
}

export function backupRouter(
  data: DataFolder,
  jobs: Jobs,
  clock: () => Date,
  touched: (keys: string[]) => void,
): Router {
  const snapshots = new Snapshots(data, jobs);
  let restoring = false;
  const restore = async (archive: string, now: Date) => {
    const stamp = now.toISOString().replaceAll(/[:.]/g, '-');
    const folder = data.scratch('staged');
    try {
      const { missing } = await jobs.archive.run<{ missing: number }>({ kind: 'unpack', archive, folder });
      return { kept: data.replaceWith(folder, stamp), missing };
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  };
  return Router()
    .get('/backup', async (_request, response) => {
      const now = clock();
      await snapshots.read(now, async (archive) => {
        if (response.destroyed) return;
        response.attachment(`blunko-${now.toISOString().slice(0, 10)}.tar.gz`).type('application/gzip');
        await handOver(response, archive);
      });
    })
    .post('/restore', async (request, response) => {
      if (restoring) throw new Failure('busy', 'A restore is under way; wait until it is done.');
      restoring = true;
      const upload = data.scratch('upload');
      try {
        await saveUpload(request, upload, RESTORE_LIMIT);
        const { kept, missing } = await restore(upload, clock());
        touched(['*']);
        response.status(201).json({ restored: true, keptAs: basename(kept), missingFiles: missing });
      } finally {
        restoring = false;
        rmSync(upload, { force: true });
      }
    });
}
