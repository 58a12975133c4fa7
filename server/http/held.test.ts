import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Pour } from '../../contract/pours.ts';
import type { Ledger } from '../../contract/recipes.ts';
import { box } from '../../core/shape/testing.ts';
import { writeStl } from '../../core/shape/write.ts';
import { setPasscode } from '../session/passcode.ts';
import { stocked, TestWorkshop } from '../testing/workshop.ts';
import { KEPT_DAYS } from './idempotency.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const count = (table: string) =>
  (workshop.data.db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n;

describe('answers that are remembered', () => {
  test('serve a lost answer for a week, and are thrown away after it', async () => {
    await workshop.post('/customers', { name: 'Tideline' }, { key: 'first' });
    workshop.waits(24 * KEPT_DAYS - 1);
    const again = await workshop.post<{ name: string }>('/customers', { name: 'Tideline' }, { key: 'first' });
    expect([again.status, again.body.name, count('customer')]).toEqual([201, 'Tideline', 1]);
    workshop.waits(2);
    await workshop.post('/customers', { name: 'North Stack' }, { key: 'second' });
    expect(workshop.data.db.prepare('SELECT key FROM idempotency').all()).toEqual([{ key: 'second' }]);
  });

  test('are looked up before slow work begins: a repeated key works nothing out again', async () => {
    const body = { calculator: 'clay.bake', title: 'bake', input: { thicknessMm: 18 } };
    const first = await workshop.post('/kept', body, { key: 'kept once' });
    const again = await workshop.post('/kept', body, { key: 'kept once' });
    expect([again.body, count('kept_result')]).toEqual([first.body, 1]);
    const other = await workshop.post('/kept', { ...body, title: 'other' }, { key: 'kept once' });
    expect([other.status, other.body.error.code]).toEqual([409, 'key-reused']);
  });

  test('hold for a mesh as well: sent twice under one key it is there once', async () => {
    const send = (key: string, bytes: Uint8Array) =>
      fetch(`${workshop.url}/api/meshes`, {
        method: 'POST',
        headers: { 'idempotency-key': key },
        body: new Uint8Array(bytes),
      }).then(async (answer) => ({ status: answer.status, body: (await answer.json()) as { id: string } }));
    const [one, two] = await Promise.all([send('m', writeStl(box(3, 3, 3))), send('m', writeStl(box(3, 3, 3)))]);
    const three = await send('m', writeStl(box(3, 3, 3)));
    expect([one.status, two.body.id, three.body.id, count('mesh')]).toEqual([201, one.body.id, one.body.id, 1]);
    expect((await send('m', writeStl(box(4, 4, 4)))).status).toBe(409);
  });
});

describe('a tap that had to wait', () => {
  test.each([
    ['a minute ago', -60, -60],
    ['in the future, by a clock that is fast', 600, 0],
    ['long ago, by a clock that is wrong', -30 * 86_400, -12 * 3600],
  ])('%s is believed as far as can be', async (_what, saidS, keptS) => {
    const { mold, recipe } = await stocked(workshop);
    const { body: pour } = await workshop.post<Pour>('/pours', {
      colourwayId: recipe.id,
      molds: [{ moldId: mold.id, shots: 2 }],
    });
    const at = (seconds: number) => new Date(workshop.now.getTime() + seconds * 1000).toISOString();
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: mold.id, tappedAt: at(saidS) });
    expect(body.shots.map((shot) => shot.at)).toEqual([at(keptS)]);
    // Its mold opens so long after it was drawn, not after it was heard of.
    const waitS = body.molds[0]?.opens.waitS[0] as number;
    expect(waitS).toBeGreaterThan(60);
    expect(body.molds[0]?.opensAt).toBe(at(keptS + waitS));
  });

  test('is refused where the moment is none', async () => {
    const { body: ledger } = await workshop.post<Ledger>('/ledgers', { title: 't', batchMl: 200 });
    const { colourant } = await stocked(workshop);
    const answer = await workshop.post(`/ledgers/${ledger.id}/doses`, {
      materialId: colourant.id,
      amount: 1,
      unit: 'drop',
      tappedAt: 'yesterday',
    });
    expect([answer.status, answer.body.error.path]).toEqual([400, 'tappedAt']);
  });
});

test('a form whose field is a group is refused, not broken', async () => {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(writeStl(box(3, 3, 3)))]), 'box.stl');
  form.append('a[b]', '1');
  const answer = await fetch(`${workshop.url}/api/calc/mesh.measure`, { method: 'POST', body: form });
  const body = (await answer.json()) as { error: { code: string; path: string } };
  expect([answer.status, body.error.code, body.error.path]).toEqual([400, 'invalid-input', 'a']);
});

test('a client that leaves ends its work: the next question does not wait for it', async () => {
  const star = Array.from({ length: 9000 }, (_, i) => {
    const [turn, r] = [(i * 2 * Math.PI) / 9000, i % 2 ? 40 : 5];
    return `v ${(r * Math.cos(turn)).toFixed(4)} ${(r * Math.sin(turn)).toFixed(4)} ${(i % 7) / 9}`;
  });
  const text = `${star.join('\n')}\n${Array.from({ length: 40 }, () => `f ${star.map((_, i) => i + 1).join(' ')}`).join('\n')}`;
  const left = new AbortController();
  const asked = fetch(`${workshop.url}/api/meshes`, { method: 'POST', body: text, signal: left.signal }).catch(
    () => 'left',
  );
  await new Promise((done) => setTimeout(done, 700));
  // The server itself answers meanwhile: the mesh is not done yet.
  const first = await Promise.race([workshop.get('/health').then(() => 'health'), asked.then(() => 'mesh')]);
  expect(first).toBe('health');
  left.abort();
  expect(await asked).toBe('left');
  const next = await fetch(`${workshop.url}/api/meshes`, {
    method: 'POST',
    body: new Uint8Array(writeStl(box(3, 3, 3))),
    signal: AbortSignal.timeout(15_000),
  });
  expect(next.status).toBe(201);
  expect(count('mesh')).toBe(1);
});

test('a number of sixty thousand digits is refused', async () => {
  const answer = await workshop.post('/calc/mesh.measure', { mesh: { text: `v ${'9'.repeat(60_000)}x 0 0\nf 1 1 1` } });
  expect([answer.status, answer.body.error.code]).toEqual([400, 'bad-mesh']);
});

test('the live line of a session that ends is closed', async () => {
  const guarded = await TestWorkshop.open(true);
  try {
    await setPasscode(guarded.data.db, 'harbour light');
    const opened = await guarded.post('/session', { passcode: 'harbour light' });
    const headers = { cookie: opened.headers.get('set-cookie')?.split(';')[0] ?? '' };
    const live = await fetch(`${guarded.url}/api/live`, { headers });
    const reader = live.body?.getReader() as ReadableStreamDefaultReader<Uint8Array>;
    expect(Buffer.from((await reader.read()).value ?? []).toString()).toContain('event: hello');
    await guarded.ask('POST', '/customers', { name: 'While it lasts' }, { headers });
    expect(Buffer.from((await reader.read()).value ?? []).toString()).toContain('event: stale');
    guarded.waits(24 * 31);
    // Somebody else's write would have been told to it.
    await guarded.post('/session', { passcode: 'harbour light' }).then(async (again) => {
      const cookie = again.headers.get('set-cookie')?.split(';')[0] ?? '';
      await guarded.ask('POST', '/customers', { name: 'After it' }, { headers: { cookie } });
    });
    expect((await reader.read()).done).toBe(true);
  } finally {
    await guarded.close();
  }
});

test('a write says what it made stale, under a name that the live line tells too', async () => {
  const answer = await workshop.post('/customers', { name: 'Tideline' });
  expect(answer.headers.get('x-blunko-stale')).toBe('orders customers rack today line');
  expect(answer.headers.get('x-blunko-write')).toMatch(/^[0-9a-f]{8}-1$/);
});
