import { createHash } from 'node:crypto';
import { readFileSync, rmSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { type Request, type Response, Router } from 'express';
import multer from 'multer';
import {
  exportQuery,
  ladderFileQuery,
  type MeshFacts,
  type MeshRow,
  meshQuery,
  preparedBody,
} from '../../contract/meshes.ts';
import type { LadderRow } from '../../contract/water.ts';
import { mustFindCalculator } from '../../core/calculators.ts';
import { Failure } from '../../core/failure.ts';
import { FILE_LIMIT } from '../../core/shape/read.ts';
import type { Silhouette } from '../../core/shape/silhouette.ts';
import { check } from '../../core/validate.ts';
import { type LadderStep, stubSpec } from '../../core/water/ladder.ts';
import type { DataFolder } from '../backup/data.ts';
import { saveUpload } from '../backup/upload.ts';
import { mustFind } from '../db/rows.ts';
import { type Answer, answered, keyed, once } from '../http/idempotency.ts';
import { leaving } from '../jobs/jobs.ts';
import { addMesh, getMesh, type Meshes, meshBytes, prepared, storeBytes } from './files.ts';

const TYPES = { stl: 'model/stl', obj: 'model/obj', '3mf': 'model/3mf', original: 'application/octet-stream' };

interface Upload {
  bytes: Uint8Array;
  fields: Record<string, string>;
}

/** The file of a request, sent as the body itself or as one part of a form, by way of the disk. */
async function uploaded(request: Request, data: DataFolder): Promise<Upload> {
  const path = data.scratch('mesh');
  try {
    const fields = request.is('multipart/form-data') ? await fromForm(request, path) : {};
    if (!request.is('multipart/form-data')) await saveUpload(request, path, FILE_LIMIT);
    return { bytes: readFileSync(path), fields };
  } finally {
    rmSync(path, { force: true });
  }
}

/** Brings the one file of a form to a path and gives its other fields, all of them text. */
function fromForm(request: Request, path: string): Promise<Record<string, string>> {
  const form = multer({
    storage: multer.diskStorage({
      destination: dirname(path),
      filename: (_request, _file, name) => name(null, basename(path)),
    }),
    limits: { fileSize: FILE_LIMIT, files: 1, fields: 20 },
  });
  return new Promise((done, failed) => {
    form.any()(request, request.res as never, (error: unknown) => {
      const code = (error as { code?: string } | undefined)?.code;
      const files = (request.files ?? []) as unknown[];
      const fields = Object.entries((request.body ?? {}) as Record<string, unknown>);
      // "a[b]" in a form makes an object of a field.
      const nested = fields.find(([, value]) => typeof value !== 'string');
      if (code === 'LIMIT_FILE_SIZE') failed(new Failure('too-large', 'A mesh file may have up to 64 MB.', 'mesh'));
      else if (error) failed(new Failure('invalid-input', 'The form cannot be read; send one file and its fields.'));
      else if (files.length === 0)
        failed(new Failure('invalid-input', 'The form has no file; add an STL or OBJ.', 'mesh'));
      else if (nested)
        failed(new Failure('invalid-input', `${nested[0]} must be one text, not a list or a group.`, nested[0]));
      else done(Object.fromEntries(fields) as Record<string, string>);
    });
  });
}

/** A calculation's input beside a file: one JSON text, or a query of single fields. */
function inputOf(
  query: Record<string, unknown>,
  fields: Record<string, string>,
): { input: unknown; job: string | undefined } {
  const { job, input, ...rest } = { ...query, ...fields } as Record<string, string>;
  const read = (text: string, path: string): unknown => {
    try {
      return JSON.parse(text);
    } catch {
      if (/^[a-z]+$/i.test(text)) return text;
      throw new Failure('malformed-json', `${path} is not valid JSON.`, path);
    }
  };
  const singles = Object.fromEntries(Object.entries(rest).map(([key, text]) => [key, read(text, key)]));
  const whole = input === undefined ? {} : read(input, 'input');
  if (whole === null || typeof whole !== 'object' || Array.isArray(whole))
    throw new Failure('invalid-input', 'input must be an object.', 'input');
  return { input: { ...whole, ...singles }, job };
}

const sendAnswer = (response: Response, { status, body }: Answer) =>
  void response.status(status).type('application/json').send(body);

export function meshRouter(meshes: Meshes, clock: () => Date, touched: (keys: string[]) => void): Router {
  const { data, jobs } = meshes;
  return Router()
    .post('/meshes', async (request, response) => {
      const { unit, job } = check(meshQuery, { ...request.query });
      const { bytes } = await uploaded(request, data);
      const told = keyed(request, createHash('sha256').update(bytes).digest('hex'));
      const earlier = answered(data.db, told);
      if (earlier) return sendAnswer(response, earlier);
      const { format, facts, outline } = await jobs.solid<{
        format: MeshRow['format'];
        facts: MeshFacts;
        outline: Silhouette | null;
      }>({ kind: 'survey', bytes, unit }, { name: job, signal: leaving(response) });
      const hash = storeBytes(data, bytes);
      const at = clock().toISOString();
      const answer = once(data.db, told, 201, at, () => {
        const id = addMesh(
          data.db,
          { hash, format, unit, bytes: bytes.length, facts, outline, fromId: null, changed: null },
          at,
        );
        return getMesh(data.db, id);
      });
      if (!answer.again) touched(['meshes']);
      sendAnswer(response, answer);
    })
    .get('/meshes/:id', (request, response) => {
      response.json(getMesh(data.db, request.params.id as string));
    })
    .get('/meshes/:id/file', async (request, response) => {
      const { format, name = 'bait' } = check(exportQuery, { ...request.query });
      const mesh = getMesh(data.db, request.params.id as string);
      const bytes = meshBytes(data.files, mesh);
      const same = format === 'original' || (format === 'stl' && mesh.format === 'stl' && mesh.unit === 'mm');
      const out = same
        ? bytes
        : await jobs.solid<Uint8Array>(
            { kind: 'convert', bytes, unit: mesh.unit, format, name },
            { signal: leaving(response) },
          );
      const ending = format === 'original' ? mesh.format.slice(0, 3) : format;
      response
        .type(TYPES[format])
        .set('content-disposition', `attachment; filename="${fileName(name)}.${ending}"`)
        .set('cache-control', 'private, max-age=31536000, immutable')
        .send(Buffer.from(out));
    })
    .get('/ladders/:id/file', async (request, response) => {
      const { format, name, step } = check(ladderFileQuery, { ...request.query });
      const ladder = mustFind<LadderRow>(data.db, 'ladder', request.params.id as string, 'tail ladder');
      const chosen = step === undefined ? ladder.steps : [stepOf(ladder, step)];
      const out = await jobs.solid<Uint8Array>(
        { kind: 'stubs', specs: chosen.map(stubSpec), format, name: name ?? ladder.name },
        { signal: leaving(response) },
      );
      response
        .type(TYPES[format])
        .set('content-disposition', `attachment; filename="${fileName(name ?? ladder.name)}.${format}"`)
        .send(Buffer.from(out));
    })
    .delete('/jobs/:id', (request, response) => {
      if (!jobs.cancel(request.params.id as string))
        throw new Failure('not-found', 'There is no such work under way; it may have ended.');
      response.status(204).end();
    })
    .post('/calc/:name', async (request, response, next) => {
      if (request.is('application/json') || request.get('content-type') === undefined) return next();
      const { name } = request.params as { name: string };
      if (!mustFindCalculator(name).takesMesh) return next();
      const { bytes, fields } = await uploaded(request, data);
      const { input, job } = inputOf(request.query as Record<string, unknown>, fields);
      response.json(await jobs.calculate(name, input, { name: job, signal: leaving(response) }, bytes));
    });
}

function stepOf(ladder: LadderRow, text: string): LadderStep {
  const step = ladder.steps[Number(text)];
  if (!step) throw new Failure('invalid-input', `This ladder has steps 0 to ${ladder.steps.length - 1}.`, 'step');
  return step;
}

/** Routes that take JSON, after its reader. */
export function meshJsonRouter(meshes: Meshes, clock: () => Date, touched: (keys: string[]) => void): Router {
  return Router().post('/meshes/:id/prepared', async (request, response) => {
    const { unit, job, ...wish } = check(preparedBody, request.body);
    const { data } = meshes;
    const told = keyed(request);
    const earlier = answered(data.db, told);
    if (earlier) return sendAnswer(response, earlier);
    const from = getMesh(data.db, request.params.id as string);
    const made = await prepared(
      meshes,
      from,
      { unit: unit ?? from.unit, ...wish },
      { name: job, signal: leaving(response) },
    );
    const at = clock().toISOString();
    const answer = once(data.db, told, 201, at, () => getMesh(data.db, addMesh(data.db, made, at)));
    if (!answer.again) touched(['meshes']);
    sendAnswer(response, answer);
  });
}

/** Letters, digits and dashes of a name: what every file system takes. */
export const fileName = (name: string) =>
  name
    .normalize('NFKD')
    .replace(/[^\w-]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'bait';
