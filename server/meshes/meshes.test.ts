import { readdirSync, truncateSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Master } from '../../contract/masters.ts';
import type { MeshRow } from '../../contract/meshes.ts';
import { moved, together } from '../../core/shape/mesh.ts';
import { readMesh } from '../../core/shape/read.ts';
import { STARTS } from '../../core/shape/starts.ts';
import { box, sphere } from '../../core/shape/testing.ts';
import { weld } from '../../core/shape/weld.ts';
import { writeObj, writeStl } from '../../core/shape/write.ts';
import { TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeAll(async () => {
  workshop = await TestWorkshop.open();
});
afterAll(() => workshop.close());

const send = async <T>(path: string, bytes: Uint8Array, type = 'application/octet-stream') => {
  const answer = await fetch(`${workshop.url}/api${path}`, {
    method: 'POST',
    body: Buffer.from(bytes),
    headers: { 'content-type': type },
  });
  return { status: answer.status, body: (await answer.json()) as T & { error: { code: string; message: string } } };
};
const fileOf = async (id: string, format: string) =>
  new Uint8Array(await (await fetch(`${workshop.url}/api/meshes/${id}/file?format=${format}`)).arrayBuffer());

const plate = box(60, 20, 4);
const PADDLE = STARTS[0]?.spec;

describe('a file that is brought', () => {
  test('is measured, kept as it came, and comes back in each format with the same volume', async () => {
    const bytes = writeObj(plate);
    const { status, body } = await send<MeshRow>('/meshes', bytes);
    expect(status).toBe(201);
    expect(body).toMatchObject({ format: 'obj', unit: 'mm', bytes: bytes.length });
    expect(body.facts).toMatchObject({ triangles: 12, watertight: true, looksLike: 'mm' });
    expect(body.facts.volumeMl).toBeCloseTo(4.8, 9);
    expect(body.facts.thickestMm).toBeCloseTo(4, 3);
    expect(await fileOf(body.id, 'original')).toEqual(new Uint8Array(bytes));
    for (const format of ['stl', 'obj']) {
      const again = weld(readMesh(await fileOf(body.id, format)).soup).mesh;
      expect(again.triangles.length).toBe(36);
    }
    expect(Buffer.from((await fileOf(body.id, '3mf')).subarray(0, 2)).toString()).toBe('PK');
  });

  test('the size of inches is asked about, and read again in them', async () => {
    const { body } = await send<MeshRow>('/meshes', writeStl(box(4, 1, 0.5)));
    expect(body.facts.looksLike).toBe('in');
    const { body: inches } = await workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, { unit: 'in' });
    expect(inches.facts.sizeMm.map((mm) => Math.round(mm * 10) / 10)).toEqual([101.6, 25.4, 12.7]);
    expect(inches).toMatchObject({ fromId: body.id, changed: null });
  });

  test('one that is inside out is refused as a master in words, and is one once it is mended', async () => {
    const { positions, triangles } = box(40, 20, 10);
    const inward = triangles.slice();
    for (let t = 0; t < inward.length; t += 3)
      [inward[t + 1], inward[t + 2]] = [triangles[t + 2] as number, triangles[t + 1] as number];
    const { body } = await send<MeshRow>('/meshes', writeStl({ positions, triangles: inward }));
    expect(body.facts).toMatchObject({ volumeMl: expect.closeTo(8, 9), flipped: true, thickestMm: null });
    const bait = { name: 'Fender', shape: 'stick', kind: 'print', meshId: body.id };
    const refused = await workshop.post('/masters', bait);
    expect([refused.status, refused.body.error.code]).toEqual([400, 'bad-mesh']);
    expect(refused.body.error.message).toMatch(/inside out\. Mend it first/);
    const { body: mended } = await workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, { repair: true });
    const { body: master } = await workshop.post<Master>('/masters', { ...bait, meshId: mended.id });
    expect(master.latest).toMatchObject({ thickestMm: expect.closeTo(10, 3), volumeMl: expect.closeTo(8, 6) });
  });

  test('parts that reach into each other are mended into one, and what they share counts once', async () => {
    const brick = box(40, 20, 10);
    const twin = moved(brick, ([x, y, z]) => [x + 30, y + 0.01, z + 0.01]);
    const { body } = await send<MeshRow>('/meshes', writeStl(together(brick, twin)));
    expect(body.facts.volumeMl).toBeCloseTo(16, 6);
    const { body: mended } = await workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, { repair: true });
    // They share 10 × 19.99 × 9.99 mm.
    expect(mended.facts.volumeMl).toBeCloseTo(16 - (10 * 19.99 * 9.99) / 1000, 3);
    expect([mended.facts.shells, mended.facts.watertight, mended.changed?.united]).toEqual([1, true, true]);
  });

  test('an open one has no volume, is refused as a master, and is mended with what that changed', async () => {
    const whole = sphere(10, 2000);
    const open = { positions: whole.positions, triangles: whole.triangles.slice(0, -30) };
    const { body } = await send<MeshRow>('/meshes', writeStl(open));
    expect(body.facts).toMatchObject({ watertight: false, volumeMl: null, thickestMm: null });
    expect(body.facts.faults.join()).toMatch(/open edge/);
    const bait = { name: 'Cork', shape: 'stick', kind: 'print', meshId: body.id };
    const refused = await workshop.post('/masters', bait);
    expect([refused.status, refused.body.error.code, refused.body.error.path]).toEqual([400, 'bad-mesh', 'meshId']);
    const { body: mended } = await workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, { repair: true });
    expect(mended.changed).toMatchObject({ holesFilled: 1, holesLeft: 0 });
    expect(mended.facts.watertight).toBe(true);
    const { body: master } = await workshop.post<Master>('/masters', { ...bait, meshId: mended.id });
    expect(master.latest.volumes[0]).toMatchObject({ how: 'mesh', ml: mended.facts.volumeMl });
    expect(master.latest.thickestMm).toBeCloseTo(20, 0);
  });

  test('mended twice by one key it is there once; a file that a power cut tore is written anew', async () => {
    const bytes = writeStl(box(11, 7, 3));
    const { body } = await send<MeshRow>('/meshes', bytes);
    const again = () => workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, { unit: 'in' }, { key: 'glove' });
    const [first, second] = [await again(), await again()];
    expect([first.status, second.status, second.body.id]).toEqual([201, 201, first.body.id]);
    const other = await workshop.post(`/meshes/${body.id}/prepared`, { unit: 'mm' }, { key: 'glove' });
    expect(other.body.error.code).toBe('key-reused');
    truncateSync(join(workshop.data.files, body.hash), 90);
    await send<MeshRow>('/meshes', bytes);
    expect(await fileOf(body.id, 'original')).toEqual(new Uint8Array(bytes));
  });

  test.each([
    ['text', Buffer.from('not a mesh at all')],
    ['nothing', Buffer.alloc(0)],
    ['a header that lies', Buffer.concat([Buffer.alloc(80), Buffer.from([255, 255, 255, 127]), Buffer.alloc(1000)])],
    ['a cut STL', Buffer.from(writeStl(plate)).subarray(0, 300)],
  ])('%s is refused and leaves nothing behind', async (_what, bytes) => {
    const before = readdirSync(workshop.data.files).length;
    const { status, body } = await send('/meshes', bytes);
    expect([status, body.error.code]).toEqual([400, 'bad-mesh']);
    expect(readdirSync(workshop.data.files).length).toBe(before);
    expect(readdirSync(workshop.data.root).filter((name) => name.startsWith('mesh-'))).toEqual([]);
  });

  test('more than 64 MB is refused while it still comes in', async () => {
    const { status, body } = await send('/meshes', Buffer.alloc(64 * 1024 * 1024 + 10));
    expect([status, body.error.code]).toEqual([413, 'too-large']);
  });
});

describe('calculations on a file', () => {
  const stl = writeStl(plate);
  test('by the body and the query, and by a form', async () => {
    const reach = await send<{ greatestMm: number }>(
      '/calc/mesh.toolReach?ballMm=3&direction=[0,0,1]',
      stl,
      'model/stl',
    );
    expect(reach.status).toBe(200);
    expect(reach.body.greatestMm).toBeCloseTo(1.5 * (Math.sqrt(3) - 1), 1);
    const form = new FormData();
    form.append('file', new Blob([Buffer.from(stl)]), 'plate.stl');
    form.append('input', JSON.stringify({ direction: [0, 0, 1] }));
    const answer = await fetch(`${workshop.url}/api/calc/mesh.parting`, { method: 'POST', body: form });
    expect(await answer.json()).toMatchObject({ undercutMm2: 0, flatBack: true });
  });

  test('broken input beside a good file says which', async () => {
    const { status, body } = await send<{ error: { path: string } }>('/calc/mesh.toolReach?ballMm=x1', stl);
    expect([status, body.error.code, body.error.path]).toEqual([400, 'malformed-json', 'ballMm']);
    expect((await send('/calc/mesh.airTraps?direction=[0,0,0]', stl)).body.error.code).toBe('invalid-input');
  });

  test('long work tells over the live line how far it is, and can be stopped', async () => {
    const job = '01a2104b-d28c-7190-9cb6-63408534159c';
    const live = await fetch(`${workshop.url}/api/live`);
    const reader = live.body?.getReader() as ReadableStreamDefaultReader<Uint8Array>;
    const asked = send(`/calc/mesh.bestTilt?job=${job}`, writeStl(sphere(20, 200_000)));
    let heard = '';
    while (!heard.includes('event: job')) {
      const { value, done } = await reader.read();
      if (done) throw new Error('The live line ended.');
      heard += Buffer.from(value).toString();
    }
    expect(heard).toMatch(new RegExp(`"job":"${job}","done":0\\.\\d+`));
    const stopped = await fetch(`${workshop.url}/api/jobs/${job}`, { method: 'DELETE' });
    expect(stopped.status).toBe(204);
    expect((await asked).body.error.code).toBe('cancelled');
    expect((await fetch(`${workshop.url}/api/jobs/${job}`, { method: 'DELETE' })).status).toBe(404);
    await reader.cancel();
    // The next question gets a thread of its own again.
    expect((await send<{ triangles: number }>('/calc/mesh.measure', stl)).body.triangles).toBe(12);
  });
});

describe('a sculpted master', () => {
  test('is made and measured by the server; a revision keeps its figures and its parents', async () => {
    const { body: master } = await workshop.post<Master>('/masters', {
      name: 'Sandlance 110',
      shape: 'paddle',
      kind: 'print',
      spec: PADDLE,
    });
    const { latest } = master;
    expect(latest.spec).toEqual(PADDLE);
    expect(latest.mesh).toMatchObject({ watertight: true, shells: 1, flipped: false });
    expect(latest.volumeMl).toBe(latest.mesh?.volumeMl);
    expect(latest.lengthMm).toBeCloseTo(latest.mesh?.sizeMm[0] ?? 0, 9);
    const thin = { ...PADDLE, wrist: { ...PADDLE?.wrist, thicknessMm: 3 } };
    const { body: next } = await workshop.post<Master>(`/masters/${master.id}/revisions`, {
      reason: 'wrist thinner, so that it kicks slower',
      parentId: latest.id,
      spec: thin,
    });
    expect(next.latest.spec?.wrist.thicknessMm).toBe(3);
    expect(next.latest.volumeMl).toBeLessThan(latest.volumeMl ?? 0);
    expect(next.revisions).toHaveLength(2);
  });

  test.each([
    ['neither figures nor a shape', {}, 'lengthMm'],
    ['a spec beyond reason', { spec: { ...PADDLE, bodyMm: 9000 } }, 'spec.bodyMm'],
    ['a mesh that is nowhere', { meshId: '01a2104b-d28c-7190-9cb6-63408534159c' }, undefined],
  ])('%s is refused', async (_what, change, path) => {
    const { status, body } = await workshop.post('/masters', {
      name: 'Nothing',
      shape: 'stick',
      kind: 'clay',
      ...change,
    });
    expect([status === 400 || status === 404, body.error.path]).toEqual([true, path]);
  });
});
