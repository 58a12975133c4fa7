import { readdirSync, truncateSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Master } from '../../contract/masters.ts';
import type { MeshRow } from '../../contract/meshes.ts';
import type { BaitOutline } from '../../contract/workshop.ts';
import { measure } from '../../core/shape/measure.ts';
import { moved, together } from '../../core/shape/mesh.ts';
import { readMesh } from '../../core/shape/read.ts';
import { loadModeller, sculpt } from '../../core/shape/sculpt.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { STARTS } from '../../core/shape/starts.ts';
import { ellipse, sweep } from '../../core/shape/sweep.ts';
import { box, sphere } from '../../core/shape/testing.ts';
import { stood } from '../../core/shape/turn.ts';
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
      const again = weld(readMesh(await fileOf(body.id, format)).places).mesh;
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

  test('one that lies askew is told how, and is turned, stood and scaled as it is told', async () => {
    const bait = sculpt(await loadModeller(), PADDLE as ShapeSpec, 'draft');
    const askew = stood(bait, { x: 25, y: -38, z: 70 }, 1);
    const { body } = await send<MeshRow>('/meshes', writeStl(askew));
    const { lie } = body.facts;
    expect(lie?.isRight).toBe(false);
    expect(lie?.askewDeg).toBeGreaterThan(20);
    const { body: straight } = await workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, {
      turn: lie?.turn,
      scale: 1.1,
    });
    const long = measure(bait).sizeMm;
    expect(straight.facts.sizeMm[0]).toBeCloseTo(long[0] * 1.1, 0);
    expect(straight.facts.volumeMl).toBeCloseTo((measure(bait).volumeMl as number) * 1.1 ** 3, 2);
    expect([straight.facts.lie?.isRight, straight.facts.lie?.nose]).toEqual([true, '-x']);
    expect(straight.facts.boundsMm.min[0]).toBeCloseTo(0, 4);
    expect(straight.changed).toMatchObject({ scaled: 1.1, turned: lie?.turn });
  });

  test('what runs through itself is named where, and its skin is drawn anew round what it encloses', async () => {
    // A rod wound round so flat that its end runs into its beginning.
    const rings = Array.from({ length: 61 }, (_, i) => {
      const turn = (400 * i * Math.PI) / 180 / 60;
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      return ellipse([9 * c, 9 * s, (1.2 * turn) / Math.PI], [-3 * c, -3 * s, 0], [0, 0, 3], 16);
    });
    const { body } = await send<MeshRow>('/meshes', writeStl(sweep(rings)));
    expect(body.facts.crossesAtMm?.length).toBeGreaterThan(0);
    expect(body.facts.faults.join()).toMatch(/runs through itself near \d/);
    const { status, body: drawn } = await workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, { skin: true });
    expect(status).toBe(201);
    expect(drawn.facts).toMatchObject({ watertight: true, flipped: false, shells: 1, crossesAtMm: [] });
    // What lay there twice counts once: 40 of 400 degrees.
    expect((drawn.facts.volumeMl as number) / (body.facts.volumeMl as number)).toBeCloseTo(0.91, 1);
    expect(drawn.changed?.skinMm).toBeLessThan(0.5);
  }, 60_000);

  test('large holes are closed where they are asked to be', async () => {
    const tall = box(60, 80, 40);
    const open = { positions: tall.positions, triangles: tall.triangles.slice(0, -6) };
    const { body } = await send<MeshRow>('/meshes', writeStl(open));
    const { body: mended } = await workshop.post<MeshRow>(`/meshes/${body.id}/prepared`, { repair: true });
    expect([mended.changed?.holesLeft, mended.facts.volumeMl]).toEqual([1, null]);
    const { body: whole } = await workshop.post<MeshRow>(`/meshes/${mended.id}/prepared`, {
      repair: true,
      holes: 'all',
    });
    expect(whole.facts.volumeMl).toBeCloseTo(192, 6);
  });

  test('a shape is joined with a mesh that was brought; one that is open is refused in words', async () => {
    const { body: brick } = await send<MeshRow>('/meshes', writeStl(box(30, 6, 6)));
    const brought = {
      meshId: brick.id,
      how: 'join',
      scale: 1,
      turnDeg: { x: 0, y: 0, z: 90 },
      toMm: { x: 40, y: 0, z: 0 },
    };
    const asked = { name: 'Crossbill', shape: 'paddle', kind: 'print', spec: { ...PADDLE, brought } };
    const { body: master } = await workshop.post<Master>('/masters', asked);
    expect(master.latest.widthMm).toBeCloseTo(30, 3);
    const { body: sheet } = await send<MeshRow>(
      '/meshes',
      writeStl({ positions: box(9, 9, 9).positions, triangles: box(9, 9, 9).triangles.slice(0, -6) }),
    );
    const open = { ...asked, name: 'Open', spec: { ...PADDLE, brought: { ...brought, meshId: sheet.id } } };
    expect((await workshop.post('/masters', open)).body.error).toMatchObject({ code: 'bad-mesh', path: 'brought' });
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
  test('is drawn in lists by its own outline, and by the newest; what it is made of can change with a revision', async () => {
    const { body: master } = await workshop.post<Master>('/masters', {
      name: 'Outline',
      shape: 'paddle',
      kind: 'natural',
      spec: PADDLE,
    });
    const drawn = async () =>
      (await workshop.get<Page<BaitOutline>>('/baits/outlines')).body.items.find((row) => row.baitId === master.baitId);
    const first = await drawn();
    // 16 wide and 16.8 high over 97.7 long.
    expect([first?.wide, first?.tall]).toEqual([expect.closeTo(0.164, 2), expect.closeTo(0.172, 2)]);
    const points = [...(first?.side ?? '').matchAll(/[ML]([\d.]+) ([\d.]+)/g)].map(([, x, y]) => [
      Number(x),
      Number(y),
    ]);
    expect(points.length).toBeGreaterThan(20);
    expect(Math.max(...points.map(([x]) => x as number))).toBeCloseTo(1, 3);
    // Behind the wrist stands the paddle: there it is as high as a disc of 14 mm.
    const behind = points.filter(([x]) => (x as number) > 0.97).map(([, y]) => y as number);
    expect((Math.max(...behind) - Math.min(...behind)) * (first?.tall ?? 0) * 97.7).toBeCloseTo(14, 0);
    const { body: cast } = await workshop.post<Master>(`/masters/${master.id}/revisions`, {
      reason: 'cast in resin, reworked',
      parentId: master.latest.id,
      kind: 'cast',
      spec: { ...PADDLE, bodyMm: 60 },
    });
    expect([cast.kind, cast.revisions.map((row) => row.kind)]).toEqual(['cast', ['cast', 'natural']]);
    expect((await drawn())?.wide).toBeGreaterThan(0.19);
  });

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
