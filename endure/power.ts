import { spawnSync } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type Counts, type Part, rounds } from './counts.ts';
import { Dosing } from './doses.ts';
import { start, stopped, translated } from './program.ts';

/** A library that keeps, at each flush, a copy of the file as the disk has it from then on. */
function watcher(folder: string): string {
  const library = join(folder, 'asTheDisk.so');
  const source = fileURLToPath(new URL('./asTheDisk.c', import.meta.url));
  const { status, stderr, error } = spawnSync('cc', ['-shared', '-fPIC', '-O1', '-o', library, source, '-ldl'], {
    encoding: 'utf8',
  });
  if (status !== 0)
    throw new Error(`A power cut needs a C compiler (apt-get install gcc libc6-dev): ${error?.message ?? stderr}`);
  return library;
}

/** A data folder with nothing in it but what had been flushed. */
function afterTheCut(disk: string, live: string): string {
  const root = mkdtempSync(join(tmpdir(), 'blunko-after-'));
  for (const name of readdirSync(disk)) {
    // What was deleted is gone: SQLite flushes the folder as well.
    if (name.endsWith('.part') || !existsSync(join(live, ...name.split('~')))) continue;
    const path = join(root, ...name.split('~'));
    mkdirSync(join(path, '..'), { recursive: true });
    copyFileSync(join(disk, name), path);
  }
  return root;
}

/**
 * The power is cut in the middle of writes: of every file only what had been flushed is still there.
 * @param careless leaves out the flushing, to show that this is noticed.
 */
export async function cuts(most: number, until: number, careless = false): Promise<Counts> {
  const work = mkdtempSync(join(tmpdir(), 'blunko-power-'));
  const library = watcher(work);
  const plain = translated(careless ? 'careless-server' : 'cut-server');
  if (careless) {
    const file = join(plain, 'server/db/open.js');
    writeFileSync(file, readFileSync(file, 'utf8').replace('synchronous = FULL', 'synchronous = OFF'));
  }
  const counts = { cuts: 0, answered: 0, lost: 0, doubled: 0, broken: 0 };
  try {
    counts.cuts = await rounds(most, until, async (round) => {
      const [root, disk] = [join(work, `live-${round}`), join(work, `disk-${round}`)];
      for (const folder of [root, disk]) mkdirSync(folder);
      const dosing = new Dosing();
      const env = { LD_PRELOAD: library, BLUNKO_LIVE: root, BLUNKO_DISK: disk };
      const { child, api, gone } = await start(plain, root, env);
      await dosing.prepare(api);
      const tapping = dosing.tap(api, 400);
      await new Promise((done) => setTimeout(done, 150 + ((round * 97) % 400)));
      child.kill('SIGKILL');
      await Promise.all([gone, tapping]);
      counts.answered += dosing.answered.size;
      const after = afterTheCut(disk, root);
      try {
        const again = await start(plain, after);
        const { lost, doubled } = await dosing.compared(again.api);
        counts.lost += lost;
        counts.doubled += doubled;
        await stopped(again);
      } catch {
        // What does not even start has lost everything.
        counts.broken += 1;
        counts.lost += dosing.answered.size;
      } finally {
        for (const folder of [after, root, disk]) rmSync(folder, { recursive: true, force: true });
      }
    });
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
  return counts;
}

export const power: Part = ({ rounds: most, until }) => cuts(most, until);
