import { closeSync, existsSync, openSync, readSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { Router } from 'express';
import sharp from 'sharp';
import * as v from 'valibot';
import { PHOTO_ABOUT, rowId } from '../../contract/fields.ts';
import { Failure } from '../../core/failure.ts';
import { HEIC_SAID, isHeic, PICTURE_HEAD, PICTURE_LIMIT } from '../../core/picture.ts';
import { check } from '../../core/validate.ts';
import { hashOf } from '../backup/archive.ts';
import type { DataFolder } from '../backup/data.ts';
import { putFile } from '../backup/flush.ts';
import { saveUpload } from '../backup/upload.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';

const TYPES: Record<string, string> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

const aboutQuery = v.strictObject({
  aboutType: v.picklist(PHOTO_ABOUT),
  aboutId: rowId,
});

interface Photo {
  id: string;
  hash: string;
  type: string;
}

/** More than any camera here takes; a small file can say that it unfolds to far more than a memory holds. */
const MOST_PIXELS = 100_000_000;

function headOf(path: string): Buffer {
  const head = Buffer.alloc(PICTURE_HEAD);
  const file = openSync(path, 'r');
  try {
    readSync(file, head, 0, PICTURE_HEAD, 0);
    return head;
  } finally {
    closeSync(file);
  }
}

/** What the bytes are, whatever the sender called them. */
async function typeOf(file: string): Promise<string> {
  if (isHeic(headOf(file))) throw new Failure('bad-photo', HEIC_SAID);
  // Only its header is read here: nothing is unfolded before it is known how large it is.
  const found = await sharp(file, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  const type = found ? TYPES[found.format] : undefined;
  if (!found || !type)
    throw new Failure('bad-photo', 'That is no JPEG, PNG or WebP picture that can be read; send another.');
  if (found.width * found.height > MOST_PIXELS)
    throw new Failure(
      'bad-photo',
      `That picture is ${found.width} × ${found.height} points, more than can be worked with; make it smaller.`,
    );
  return type;
}

const damaged = () => {
  throw new Failure('bad-photo', 'That picture is damaged; send another.');
};

/** A picture that says where and with what it was taken is kept without that, upright; any other as it came. */
async function withoutPlace(file: string, type: string): Promise<string> {
  const { exif, xmp, iptc } = await sharp(file).metadata();
  if (!exif && !xmp && !iptc) return file;
  const bare = `${file}.bare`;
  const picture = sharp(file).rotate().keepIccProfile();
  const written =
    type === 'image/jpeg'
      ? picture.jpeg({ quality: 92 })
      : type === 'image/webp'
        ? picture.webp({ quality: 92 })
        : picture.png();
  await written.toFile(bare).catch(damaged);
  return bare;
}

/** A WebP says in its header how long it is: one that a power cut tore is shorter. */
function isWhole(thumb: string): boolean {
  if (!existsSync(thumb)) return false;
  const head = Buffer.alloc(12);
  const file = openSync(thumb, 'r');
  try {
    return readSync(file, head, 0, 12, 0) === 12 && head.readUInt32LE(4) + 8 === statSync(thumb).size;
  } finally {
    closeSync(file);
  }
}

/** Makes the small picture of a stored one, unless it is there and whole. */
async function ensureThumb(data: DataFolder, from: string, hash: string): Promise<string> {
  const thumb = join(data.files, `${hash}.thumb`);
  if (isWhole(thumb)) return thumb;
  const part = data.scratch('thumb');
  try {
    await sharp(from).rotate().resize(360, 360, { fit: 'inside' }).webp().toFile(part).catch(damaged);
    renameSync(part, thumb);
  } finally {
    rmSync(part, { force: true });
  }
  return thumb;
}

export function photoRouter(data: DataFolder, clock: () => Date, touched: (keys: string[]) => void): Router {
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
    .get('/photos/:id{/:size}', async (request, response) => {
      const photo = mustFind<Photo>(data.db, 'photo', request.params.id as string, 'photo');
      const whole = join(data.files, photo.hash);
      if (!existsSync(whole)) throw new Failure('not-found', 'The file of this photo is not there; restore a backup.');
      const small = request.params.size === 'thumb';
      response
        .type(small ? 'image/webp' : photo.type)
        .set('cache-control', 'private, max-age=31536000, immutable')
        .sendFile(small ? await ensureThumb(data, whole, photo.hash) : whole, { dotfiles: 'allow' });
    })
    .post('/photos', async (request, response) => {
      const about = check(aboutQuery, { ...request.query });
      mustFind(data.db, about.aboutType, about.aboutId, about.aboutType);
      const upload = data.scratch('photo');
      try {
        await saveUpload(request, upload, PICTURE_LIMIT);
        const type = await typeOf(upload);
        const bare = await withoutPlace(upload, type);
        const hash = await hashOf(bare);
        await ensureThumb(data, bare, hash);
        putFile(bare, data.files, hash);
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
        for (const left of [upload, `${upload}.bare`]) rmSync(left, { force: true });
      }
    });
}
