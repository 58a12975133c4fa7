// npm run mutate -- --sample 150 --seed 1: as many small changes as that, drawn by chance over all of core and of the server, each tried
// against the tests that read the changed file. Prints what no test noticed, and the share that was, with its interval.
import { spawn, spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';

const HANDS = 2;
/** A change that makes a test wait for ever is noticed too. */
const LONGEST_MS = 400_000;
/** Words are read by people, not by tests. */
const LEFT_OUT = ['StringLiteral', 'BlockStatement'];
/** Only the interval's figures: 95 % of a normal curve lie within so many deviations. */
const Z = 1.96;

/** mulberry32: the same seed draws the same sample everywhere. */
function drawnBy(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Every change that the mutation tester knows for these files. */
export async function changesIn(home, root, files) {
  const from = (name) => pathToFileURL(createRequire(join(home, 'package.json')).resolve(name)).href;
  const { createInstrumenter } = await import(from('@stryker-mutator/instrumenter'));
  const { createInjector } = await import(
    pathToFileURL(
      createRequire(join(home, 'node_modules', '@stryker-mutator', 'core', 'package.json')).resolve('typed-inject'),
    ).href
  );
  const quiet = () => {};
  const log = {
    trace: quiet,
    debug: quiet,
    info: quiet,
    warn: quiet,
    error: quiet,
    fatal: quiet,
    isDebugEnabled: () => false,
  };
  const instrumenter = createInjector()
    .provideValue('logger', log)
    .provideValue('getLogger', () => log)
    .provideValue('options', {})
    .injectFunction(createInstrumenter);
  const read = files.map((name) => ({ name, mutate: true, content: readFileSync(join(root, name), 'utf8') }));
  const { mutants } = await instrumenter.instrument(read, {
    plugins: null,
    excludedMutations: LEFT_OUT,
    ignorers: [],
    noHeader: true,
  });
  const text = new Map(read.map(({ name, content }) => [name, content]));
  const offsetOf = (name, { line, column }) =>
    text
      .get(name)
      .split('\n')
      .slice(0, line)
      .reduce((sum, row) => sum + row.length + 1, column);
  return mutants
    .filter((mutant) => !mutant.statusReason)
    .map(({ fileName, location, replacement, mutatorName }) => {
      const [start, end] = [offsetOf(fileName, location.start), offsetOf(fileName, location.end)];
      const whole = text.get(fileName);
      return {
        file: fileName,
        line: location.start.line + 1,
        kind: mutatorName,
        was: whole.slice(start, end),
        becomes: replacement,
        changed: whole.slice(0, start) + replacement + whole.slice(end),
        whole,
      };
    });
}

/** Whether the tests that these words ask for fail. */
function fails(folder, asked) {
  return new Promise((done) => {
    const child = spawn(
      join(folder, 'node_modules', '.bin', 'vitest'),
      [...asked, '--run', '--bail', '1', '--passWithNoTests', '--reporter', 'dot', '--maxWorkers', '1'],
      { cwd: folder, stdio: 'ignore', detached: true },
    );
    const late = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), LONGEST_MS);
    child.on('exit', (code) => {
      clearTimeout(late);
      done(code !== 0);
    });
  });
}

async function noticed(folder, { file, changed, whole }) {
  writeFileSync(join(folder, file), changed);
  try {
    // What stands beside it first: most changes are found there, in a tenth of the time. Last the whole room, since a
    // thread's program is started by its name and related to nothing.
    for (const asked of [[`${dirname(file)}/`], ['related', file], [`${file.split('/')[0]}/`]])
      if (await fails(folder, asked)) return true;
    return false;
  } finally {
    writeFileSync(join(folder, file), whole);
  }
}

/** Wilson's interval of a share: honest near none and all. */
export function wilson(hits, n) {
  const p = hits / n;
  const middle = (p + (Z * Z) / (2 * n)) / (1 + (Z * Z) / n);
  const half = (Z * Math.sqrt((p * (1 - p)) / n + (Z * Z) / (4 * n * n))) / (1 + (Z * Z) / n);
  return [middle - half, middle + half];
}

const short = (code) => {
  const line = code.replace(/\s+/g, ' ');
  return line.length > 70 ? `${line.slice(0, 70)}…` : line;
};

/** How many lines of code that are not blank are tests: tables, properties, journeys and what these stand on. */
export function shareOfTests(root) {
  const listed = spawnSync('git', ['ls-files', '-z'], { cwd: root, encoding: 'utf8' }).stdout.split('\0');
  const lines = { tests: 0, all: 0 };
  for (const file of listed.filter(
    (name) => /\.(ts|tsx|mjs|sql|css|html)$/.test(name) && existsSync(join(root, name)),
  )) {
    const count = readFileSync(join(root, file), 'utf8')
      .split('\n')
      .filter((line) => line.trim() !== '').length;
    lines.all += count;
    if (/\.(test|spec)\.tsx?$|^e2e\//.test(file)) lines.tests += count;
  }
  return lines;
}

export async function sample(root, home, { size, seed, rooms = ['core', 'server'] }) {
  const place = join(root, '.bench-data', 'sample');
  rmSync(place, { recursive: true, force: true });
  const listed = spawnSync('git', ['ls-files', '-z'], { cwd: root, encoding: 'utf8' }).stdout.split('\0');
  const tracked = listed.filter((file) => file !== '' && existsSync(join(root, file)) && !file.startsWith('docs/'));
  const code = tracked
    .filter((file) => rooms.includes(file.split('/')[0]))
    .filter((file) => /\.ts$/.test(file) && !/\.test\.ts$|\.d\.ts$|\/testing[./]/.test(file));
  // Each hand works in a copy of its own; the project itself is never changed.
  const folders = Array.from({ length: HANDS }, (_, hand) => {
    const folder = join(place, String(hand));
    mkdirSync(folder, { recursive: true });
    for (const file of tracked) {
      mkdirSync(dirname(join(folder, file)), { recursive: true });
      copyFileSync(join(root, file), join(folder, file));
    }
    symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
    return folder;
  });
  let fewest = 1;
  for (const room of rooms) {
    const draw = drawnBy(seed);
    const all = await changesIn(
      home,
      root,
      code.filter((file) => file.startsWith(`${room}/`)),
    );
    const chosen = all
      .map((change) => ({ change, at: draw() }))
      .sort((a, b) => a.at - b.at)
      .slice(0, size)
      .map(({ change }) => change);
    let killed = 0;
    let tried = 0;
    const queue = [...chosen];
    await Promise.all(
      folders.map(async (folder) => {
        for (let change = queue.pop(); change; change = queue.pop()) {
          tried += 1;
          // Where it is, for whoever waits up to an hour for it.
          process.stderr.write(`\r${room}: ${tried} of ${chosen.length} `);
          if (await noticed(folder, change)) killed += 1;
          else
            console.log(
              `survived  ${change.file}:${change.line}  ${change.kind}: ${short(change.was)} → ${short(change.becomes)}`,
            );
        }
      }),
    );
    const [low, high] = wilson(killed, chosen.length);
    const percent = (share) => `${Math.round(1000 * share) / 10} %`;
    console.log(
      `${room}: ${killed} of ${chosen.length} changes noticed, ${percent(killed / chosen.length)} (95 %: ${percent(low)} to ${percent(high)}), drawn from ${all.length} with seed ${seed}`,
    );
    fewest = Math.min(fewest, killed / chosen.length);
  }
  rmSync(place, { recursive: true, force: true });
  const { tests, all } = shareOfTests(root);
  console.log(`tests: ${tests} of ${all} lines, ${Math.round((1000 * tests) / all) / 10} %`);
  return fewest;
}
