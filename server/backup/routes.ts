import { rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { Router } from 'express';
import { restore, saveUpload, writeBackup } from './archive.ts';
import type { DataFolder } from './data.ts';

const RESTORE_LIMIT = 4e9;

export function backupRouter(data: DataFolder, clock: () => Date, touched: (keys: string[]) => void): Router {
  return Router()
    .get('/backup', async (_request, response) => {
      const now = clock();
      response.type('application/gzip').attachment(`blunko-${now.toISOString().slice(0, 10)}.tar.gz`);
      await writeBackup(data, response, now);
    })
    .post('/restore', async (request, response) => {
      const now = clock();
      const upload = join(data.root, `upload-${now.getTime()}.tar.gz`);
      try {
        await saveUpload(request, upload, RESTORE_LIMIT);
        const kept = await restore(data, upload, now);
        touched(['*']);
        response.status(201).json({ restored: true, keptAs: basename(kept) });
      } finally {
        rmSync(upload, { force: true });
      }
    });
}
