import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { served } from './served.ts';

const root = () => mkdtempSync(join(tmpdir(), 'blunko-start-'));

/** Starts the server as its scripts do and waits for its address. */
async function start(...args: string[]): Promise<{ child: ChildProcess; said: () => string; port: number }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', '--port', '0', ...args], {
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
  });
  let text = '';
  child.stdout?.on('data', (part) => {
    text += part;
  });
  child.stderr?.on('data', (part) => {
    text += part;
  });
  const port = await new Promise<number>((done) =>
    child.once('message', (message) => done((message as { port: number }).port)),
  );
  return { child, said: () => text, port };
}

const ended = (child: ChildProcess) => new Promise<number | null>((done) => child.once('exit', (code) => done(code)));
const calc = (args: string[], input: string) => {
  const { status, stdout } = spawnSync(process.execPath, ['scripts/calc.mjs', ...args], {
    input,
    encoding: 'utf8',
  });
  return { status, stdout };
};

test('what a maker is served is a production build, whatever the shell says; it is built once, and a lost part is said', async () => {
  test.setTimeout(120_000);
  const data = root();
  const workshop = await served('start', '--data', data);
  const page = await (await fetch(`${workshop.url}/orders`)).text();
  const scripts = [...page.matchAll(/assets\/[\w-]+\.js/g)].map(([name]) => name);
  const codes = await Promise.all(scripts.map(async (name) => (await fetch(`${workshop.url}/${name}`)).text()));
  // What only development builds of the page and route libraries have, and paths of their sources.
  const development =
    /jsxDEV|react-dom-client\.development|_debugStack|Error handled by React Router default|fileName:\s*"\/|\/work\/|\/home\//;
  expect(codes.map((text) => development.exec(text)?.[0])).toEqual(codes.map(() => undefined));
  expect(codes.join('').length).toBeLessThan(500_000);
  const script = scripts.find((name) => name.includes('/index-'));
  const code = codes[scripts.indexOf(script as string)] as string;
  const asked = (encoding: string, path = script) =>
    fetch(`${workshop.url}/${path}`, { headers: { 'accept-encoding': encoding } });
  const [small, zipped, plain] = [await asked('br, gzip'), await asked('gzip'), await asked('identity')];
  const told = (answer: Response) =>
    ['content-encoding', 'content-type', 'cache-control'].map(
      (name) => answer.headers.get(name)?.toLowerCase() ?? null,
    );
  const kept = ['text/javascript; charset=utf-8', 'public, max-age=31536000, immutable'];
  expect([told(small), told(zipped), told(plain)]).toEqual([
    ['br', ...kept],
    ['gzip', ...kept],
    [null, ...kept],
  ]);
  expect(Number(small.headers.get('content-length'))).toBeLessThan(code.length / 3);
  expect([await small.text(), await zipped.text(), await plain.text()]).toEqual([code, code, code]);
  const wasm = readdirSync('dist/assets').find((name) => name.endsWith('.wasm'));
  expect(told(await asked('br', `assets/${wasm}`)).slice(0, 2)).toEqual(['br', 'application/wasm']);
  const lost = await fetch(`${workshop.url}/assets/Gone-abc123.js`);
  expect([lost.status, lost.headers.get('content-type')]).toEqual([404, 'text/plain; charset=utf-8']);
  expect((await fetch(`${workshop.url}/no/such/place`)).status).toBe(200);
  expect(await workshop.stop()).toBe(0);
  const again = await served('start', '--data', data);
  expect(again.said()).not.toContain('Building the pages');
  expect(await again.stop()).toBe(0);
  rmSync(data, { recursive: true, force: true });
});

test('the demo opens what stands in its folder as it was left, and makes nothing over it', async () => {
  const data = root();
  const workshop = await served('start', '--data', data);
  const maker = { name: 'Una', system: 'us', temperature: 'F' };
  const made = await fetch(`${workshop.url}/api/makers`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(maker),
  });
  expect(made.status).toBe(201);
  await workshop.stop();
  const demo = await served('demo', '--data', data);
  expect(demo.said()).toContain('as it was left');
  const makers = (await (await fetch(`${demo.url}/api/makers`)).json()) as { items: object[] };
  expect(makers.items).toMatchObject([maker]);
  expect(await demo.stop()).toBe(0);
  rmSync(data, { recursive: true, force: true });
});

test('a second server on the same records refuses in words, and a passcode that can be guessed or not typed too', async () => {
  const data = root();
  const first = await start('--data', data);
  const other = (...args: string[]) => {
    const { status, stderr } = spawnSync(
      process.execPath,
      ['--import', 'tsx', 'server/main.ts', '--port', '0', ...args],
      { encoding: 'utf8' },
    );
    return [status, stderr.trim()];
  };
  expect(other('--data', data)).toEqual([1, expect.stringMatching(/^Another Blunko is at work on .*--data\.$/)]);
  const gone = ended(first.child);
  first.child.kill('SIGTERM');
  await gone;
  expect(other('--data', data, '--lan', '--passcode', '1')).toEqual([
    1,
    expect.stringContaining('Passcode: must have at least 6 characters'),
  ]);
  expect(other('--data', data, '--lan', '--passcode', 'tab\there it is')).toEqual([
    1,
    expect.stringContaining('that a tablet can type'),
  ]);
  rmSync(data, { recursive: true, force: true });
});

test('a server closes cleanly on Ctrl-C and on a stop, even while a screen listens', async () => {
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    const data = root();
    const { child, port } = await start('--data', data);
    const live = await fetch(`http://127.0.0.1:${port}/api/live`);
    expect(live.status).toBe(200);
    const gone = ended(child);
    child.kill(signal);
    expect(await gone, signal).toBe(0);
    rmSync(data, { recursive: true, force: true });
  }
});

test('--lan invents a passcode, prints it, and demands it; --passcode sets one', async () => {
  const data = root();
  const first = await start('--data', data, '--lan');
  await expect.poll(first.said).toMatch(/Passcode for the bench tablet: \d{8}/);
  const invented = /tablet: (\d{8})/.exec(first.said())?.[1];
  const open = (port: number, passcode: string | undefined) =>
    fetch(`http://127.0.0.1:${port}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ passcode }),
    });
  expect((await fetch(`http://127.0.0.1:${first.port}/api/workshop`)).status).toBe(401);
  expect((await open(first.port, invented)).status).toBe(201);
  const gone = ended(first.child);
  first.child.kill('SIGTERM');
  await gone;
  const second = await start('--data', data, '--lan', '--passcode', 'harbour light');
  expect((await open(second.port, invented)).status).toBe(401);
  expect((await open(second.port, 'harbour light')).status).toBe(201);
  const over = ended(second.child);
  second.child.kill('SIGTERM');
  await over;
  rmSync(data, { recursive: true, force: true });
});

test('--lan in a browser: the passcode is asked for, and then the workshop opens', async ({ page }) => {
  const data = root();
  const { child, port } = await start('--data', data, '--lan', '--passcode', '48151623');
  await page.goto(`http://127.0.0.1:${port}/`);
  await page.getByLabel('Passcode').fill('1');
  await page.getByRole('button', { name: 'Open the workshop' }).click();
  await expect(page.getByText('That is not the passcode.')).toBeVisible();
  await page.getByLabel('Passcode').fill('48151623');
  await page.getByRole('button', { name: 'Open the workshop' }).click();
  await expect(page.getByRole('heading', { name: 'How do you measure?' })).toBeVisible();
  const gone = ended(child);
  child.kill('SIGTERM');
  await gone;
  rmSync(data, { recursive: true, force: true });
});

test('a port that is taken or none is said with the way out', async () => {
  const data = root();
  const { child, port } = await start('--data', data);
  const other = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'server/main.ts', '--port', String(port), '--data', root()],
    { encoding: 'utf8' },
  );
  expect([other.status, other.stderr]).toEqual([
    1,
    `Port ${port} is already in use. Choose another: --port ${port + 1}\n`,
  ]);
  const none = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'server/main.ts', '--port', 'harbour', '--data', root()],
    { encoding: 'utf8' },
  );
  expect([none.status, none.stderr]).toEqual([2, '--port takes a number from 1 to 65535, not "harbour".\n']);
  const gone = ended(child);
  child.kill('SIGTERM');
  await gone;
  rmSync(data, { recursive: true, force: true });
});

test('the calculators from a shell: one, and line by line', () => {
  const one = calc(['clay.bake'], '{"thicknessMm":18}');
  expect([one.status, JSON.parse(one.stdout)]).toEqual([0, { minutes: 45 }]);
  const refused = calc(['clay.bake'], '{"thicknessMm":"18"}');
  expect([refused.status, JSON.parse(refused.stdout)]).toEqual([
    2,
    { error: { code: 'invalid-input', message: 'Thickest section must be a number, not "18".', path: 'thicknessMm' } },
  ]);
  expect([calc(['no.such'], '{}').status, calc(['clay.bake'], '{').status, calc([], '').status]).toEqual([2, 2, 2]);
  const lines = [
    '{"name":"clay.bake","input":{"thicknessMm":6}}',
    '',
    'not json',
    '{"name":"no.such","input":{}}',
    '{"name":"batch.size","input":{"molds":[{"id":"a","shots":1,"cavities":1,"cavityMl":1},{"id":"a","shots":1,"cavities":1,"cavityMl":1}]}}',
    '{"input":{}}',
    '[1]',
    '{"name":"units.convert","input":{"value":-300,"from":"C","to":"F"}}',
    '{"name":"hardness.blend","input":{"scale":"00","target":30,"tolerance":0,"batchG":100,"parts":[{"id":"a","hardness":20},{"id":"b","hardness":40}]}}',
  ].join('\n');
  const { status, stdout } = calc(['--lines'], `${lines}\n`);
  const answers = stdout
    .trim()
    .split('\n')
    .map(
      (line) =>
        JSON.parse(line) as { ok: boolean; output?: Record<string, unknown>; error?: { code: string; path?: string } },
    );
  expect(status).toBe(0);
  expect(
    answers.map((answer) => (answer.ok ? 'ok' : [answer.error?.code, answer.error?.path].filter(Boolean).join(' '))),
  ).toEqual([
    'ok',
    'malformed-json',
    'unknown-calculator',
    'invalid-input molds.1.id',
    'invalid-input name',
    'invalid-input',
    'out-of-range value',
    'ok',
  ]);
  expect(answers[7]?.output?.hardness).toBeCloseTo(30, 6);
});
