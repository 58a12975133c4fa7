import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { CalcWork } from './calcWork.ts';
import { Lane } from './lane.ts';

let lane: Lane<CalcWork>;
let told: [string, number][] = [];
const opened = (longestMs: number) =>
  new Lane<CalcWork>({
    work: './calcWork.ts',
    longestMs,
    tooLong: 'That took too long.',
    tell: (name, done) => told.push([name, done]),
  });
beforeEach(() => {
  told = [];
  lane = opened(60_000);
});
afterEach(() => lane.close());

/** A tetrahedron with legs of 6 mm, 36 mm³, as a text STL. */
const STL = (() => {
  const corners = ['0 0 0', '6 0 0', '0 6 0', '0 0 6'];
  const faces = [
    [0, 2, 1],
    [0, 1, 3],
    [1, 2, 3],
    [0, 3, 2],
  ];
  const lines = faces.flatMap((face) => [
    'facet normal 0 0 0',
    'outer loop',
    ...face.map((i) => `vertex ${corners[i]}`),
    'endloop',
    'endfacet',
  ]);
  return new TextEncoder().encode(['solid t', ...lines, 'endsolid t', ''].join('\n'));
})();

const figure = (amount: number): CalcWork => ({
  kind: 'calc',
  name: 'clay.bake',
  input: { thicknessMm: amount },
});
const why = (job: Promise<unknown>) =>
  job.then(
    () => 'done',
    (error: Error & { code?: string; path?: string }) =>
      [error.code, error.message, error.path].filter(Boolean).join(': '),
  );

describe('a lane beside the server', () => {
  test('answers in turn, each its own', async () => {
    const answers = await Promise.all([18, 6, 30].map((mm) => lane.run<{ minutes: number }>(figure(mm))));
    // 15 minutes for each 6 mm.
    expect(answers.map((one) => one.minutes)).toEqual([45, 15, 75]);
  });

  test('a refusal comes through as one, with its field; the next piece is answered', async () => {
    expect(await why(lane.run(figure(-1)))).toMatch(/^invalid-input: .*: thicknessMm$/);
    expect(await why(lane.run({ kind: 'calc', name: 'no.such', input: {} }))).toMatch(/^unknown-calculator: /);
    expect(await lane.run(figure(6))).toMatchObject({ minutes: 15 });
  });

  test('what breaks in it is an error of the program, not a refusal', async () => {
    const broken = { kind: 'stubs', specs: [null], format: 'stl', name: 'x' } as unknown as CalcWork;
    const error = await lane.run(broken).catch((thrown: unknown) => thrown);
    expect(error).toBeInstanceOf(Error);
    expect(error).not.toHaveProperty('code');
    expect(await lane.run(figure(6))).toMatchObject({ minutes: 15 });
  });

  test('a mesh of its bytes is measured in the unit that was told', async () => {
    const survey = async (unit: 'mm' | 'cm') =>
      (await lane.run<{ format: string; facts: { volumeMl: number } }>({ kind: 'survey', bytes: STL, unit })).facts;
    expect((await survey('mm')).volumeMl).toBeCloseTo(36 / 1000, 9);
    expect((await survey('cm')).volumeMl).toBeCloseTo(36, 6);
    const measured = await lane.run<{ volumeMl: number }>({
      kind: 'calc',
      name: 'mesh.measure',
      input: { unit: 'mm' },
      bytes: STL,
    });
    expect(measured.volumeMl).toBeCloseTo(0.036, 9);
  });

  test('what is written again holds as much', async () => {
    const bytes = await lane.run<Uint8Array>({ kind: 'convert', bytes: STL, unit: 'mm', format: 'obj', name: 'tetra' });
    const text = new TextDecoder().decode(bytes);
    expect([text.match(/^v /gm)?.length, text.match(/^f /gm)?.length]).toEqual([4, 4]);
    const again = await lane.run<{ facts: { volumeMl: number } }>({ kind: 'survey', bytes, unit: 'mm' });
    expect(again.facts.volumeMl).toBeCloseTo(0.036, 6);
  });

  test('who waits can be cancelled by name, and so can who runs; the others go on', async () => {
    const running = why(lane.run({ kind: 'survey', bytes: STL, unit: 'mm' }, { name: 'first' }));
    const waiting = why(lane.run(figure(6), { name: 'second' }));
    const third = lane.run(figure(12));
    expect([lane.cancel('second'), lane.cancel('first'), lane.cancel('nobody')]).toEqual([true, true, false]);
    expect(await Promise.all([running, waiting])).toEqual(
      Array(2).fill('cancelled: Stopped, as you asked. Nothing was kept.'),
    );
    expect(await third).toMatchObject({ minutes: 30 });
  });

  test('who left needs no answer, before its turn or after', async () => {
    const gone = new AbortController();
    gone.abort();
    expect(await why(lane.run(figure(6), { signal: gone.signal }))).toBe('cancelled: Whoever asked has left.');
    const leaves = new AbortController();
    const running = why(lane.run({ kind: 'survey', bytes: STL, unit: 'mm' }, { signal: leaves.signal }));
    leaves.abort();
    expect(await running).toBe('cancelled: Whoever asked has left.');
    expect(await lane.run(figure(6))).toMatchObject({ minutes: 15 });
  });

  test('what takes too long is stopped and says so; what waits behind it is answered', async () => {
    lane = opened(1);
    const slow = why(lane.run({ kind: 'survey', bytes: STL, unit: 'mm' }));
    expect(await slow).toBe('too-large: That took too long.');
  });

  test('a lane that closes leaves nobody waiting', async () => {
    const jobs = [6, 12].map((mm) => why(lane.run(figure(mm))));
    lane.close();
    expect(await Promise.all(jobs)).toEqual(Array(2).fill('cancelled: The workshop is closing.'));
  });

  test('named work tells how far it is, in steps that are worth it', async () => {
    await lane.run({ kind: 'survey', bytes: STL, unit: 'mm' }, { name: 'named' });
    await lane.run({ kind: 'survey', bytes: STL, unit: 'mm' });
    const shares = told.map(([, done]) => done);
    expect(new Set(told.map(([name]) => name))).toEqual(new Set(['named']));
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBeGreaterThan(0.8);
    // Not every ray is news.
    for (const [i, share] of shares.entries()) expect(share - (shares[i - 1] ?? 0)).toBeGreaterThanOrEqual(0.02);
  });

  test('several solids lie in a row with a gap between, none in another', async () => {
    const { STARTS } = await import('../../core/shape/starts.ts');
    const spec = STARTS[0]?.spec;
    if (!spec) throw new Error('no shape to start from');
    const measured = async (specs: (typeof spec)[]) => {
      const bytes = await lane.run<Uint8Array>({ kind: 'stubs', specs, format: 'stl', name: 'row' });
      const { facts } = await lane.run<{ facts: { volumeMl: number; sizeMm: number[]; shells: number } }>({
        kind: 'survey',
        bytes,
        unit: 'mm',
      });
      return facts;
    };
    const [one, three] = [await measured([spec]), await measured([spec, spec, spec])];
    expect(three.shells).toBe(3 * one.shells);
    expect(three.volumeMl).toBeCloseTo(3 * one.volumeMl, 3);
    expect(three.sizeMm[1]).toBeCloseTo(3 * (one.sizeMm[1] as number) + 2 * 8, 3);
    expect(three.sizeMm[0]).toBeCloseTo(one.sizeMm[0] as number, 3);
  });
});
