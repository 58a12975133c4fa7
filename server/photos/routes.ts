import { createHash } from 'node:crypto';
import { createReadStream, existsSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import sharp from 'sharp';
import * as v from 'valibot';
import { rowId } from '../../contract/fields.ts';
import { Failure } from '../../core/failure.ts';
import { check } from '../../core/validate.ts';
import { saveUpload } from '../backup/archive.ts';
import type { DataFolder } from '../backup/data.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';

const PHOTO_LIMIT = 64 * 1024 * 1024;
const TYPES: Record<string, string> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

const aboutQuery = v.strictObject({
  aboutType: v.picklist(['master', 'mold', 'recipe', 'pour', 'water_test']),
  aboutId: rowId,
});

interface Photo {
  id: string;
  hash: string;
  type: string;
}

/** What the bytes are, whatever the sender called them. */
async function typeOf(file: string): Promise<string> {
  const format = await sharp(file, { limitInputPixels: 100_000_000 })
    .metadata()
    .then((found) => found.format)
    .catch(() => undefined);
  const type = format ? TYPES[format] : undefined;
  if (!type) throw new Failure('bad-photo', 'That is no JPEG, PNG or WebP picture that can be read; send another.');
  return type;
}

async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

export function photoRouter(data: DataFolder, clock: () => Date, touched: (keys: string[]) => void): Router {
  const fileOf = (id: string, thumb: boolean) => {
    const photo = mustFind<Photo>(data.db, 'photo', id, 'photo');
    return {
      path: join(data.files, thumb ? `${photo.hash}.thumb` : photo.hash),
      type: thumb ? 'image/webp' : photo.type,
    };
  };
  return Router()
    .get('/photos', (request, response) => {
      const { aboutType, aboutId } = check(aboutQuery, { ...request.query });
      const items = all(
        data.db,
        'SELECT id, type, created_at FROM photo WHERE about_type = ? AND about_id = ? ORDER BY created_at',
        [aboutType, aboutId],
      );
      response.json({ items, nextCursor: null });
    })
    .get('/photos/:id{/:size}', (request, response) => {
      const { path, type } = fileOf(request.params.id as string, request.params.size === 'thumb');
      response
        .type(type)
        .set('cache-control', 'private, max-age=31536000, immutable')
        .sendFile(path, { dotfiles: 'allow' });
    })
    .post('/photos', async (request, response) => {
      const about = check(aboutQuery, { ...request.query });
      mustFind(data.db, about.aboutType, about.aboutId, about.aboutType);
      const upload = join(data.root, `photo-${newId()}`);
      try {
        await saveUpload(request, upload, PHOTO_LIMIT);
        const type = await typeOf(upload);
        const hash = await hashOf(upload);
        const stored = join(data.files, hash);
        if (!existsSync(`${stored}.thumb`)) {
          await sharp(upload)
            .rotate()
            .resize(360, 360, { fit: 'inside' })
            .webp()
            .toFile(`${stored}.thumb`)
            .catch(() => {
              throw new Failure('bad-photo', 'That picture is damaged; send another.');
            });
        }
        if (!existsSync(stored)) renameSync(upload, stored);
        const same = first<Photo>(data.db, 'SELECT * FROM photo WHERE about_type = ? AND about_id = ? AND hash = ?', [
          about.aboutType,
          about.aboutId,
          hash,
        ]);
        const id = same?.id ?? newId();
        if (!same) insert(data.db, 'photo', { id, hash, type, ...about, createdAt: clock().toISOString() });
        touched(['photos']);
        response.status(201).json({ id, type });
      } finally {
        rmSync(upload, { force: true });
      }
    });
}
