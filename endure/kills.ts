import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Bounds, Counts, Part } from './counts.ts';
import { rounds } from './counts.ts';
import { Closing } from './cups.ts';
import { Dosing } from './doses.ts';
import { start, stopped, translated } from './program.ts';
import { Drawing } from './shots.ts';
import type { Tablets } from './tablets.ts';

/** The real process killed in the middle of writes, over and over; a killed process only: the disk keeps what it was given. */
const killed = async (tablets: Tablets, { rounds: most, until }: Bounds): Promise<Counts> => {
  const root = mkdtempSync(join(tmpdir(), 'blunko-kill-'));
  const plain = translated('killed-server');
  const counts = { kills: 0, answered: 0, lost: 0, doubled: 0, broken: 0, left: 0 };
  try {
    counts.kills = await rounds(most, until, async (round) => {
      const { child, api, gone } = await start(plain, root);
      if (round === 0) await tablets.prepare(api);
      const { lost, doubled, broken } = await tablets.compared(api);
      counts.lost += lost;
      counts.doubled += doubled;
      counts.broken += broken;
      const work = tablets.tap(api, 200);
      // Something half-written lies about, as after a kill in an upload.
      writeFileSync(join(root, 'live', 'files', `.half-${round}`), 'half');
      await new Promise((done) => setTimeout(done, 25 + ((round * 37) % 140)));
      child.kill('SIGKILL');
      await Promise.all([gone, work]);
    });
    const last = await start(plain, root);
    const { api } = last;
    await tablets.sendWaiting(api);
    const { lost, doubled, broken } = await tablets.compared(api);
    counts.lost += lost;
    counts.doubled += doubled;
    counts.broken += broken;
    counts.answered = tablets.answered.size;
    counts.left = readdirSync(join(root, 'live', 'files')).length;
    await stopped(last);
    const db = new Database(join(root, 'live', 'blunko.db'), { readonly: true });
    if (db.pragma('integrity_check', { simple: true }) !== 'ok') counts.broken += 1;
    db.close();
  } finally {
    rmSync(root, { recursive: true, force: true });
  }
  return counts;
};

export const kills: Part = (bounds) => killed(new Dosing(), bounds);
/** The same while shots of several cups are drawn. */
export const layers: Part = (bounds) => killed(new Drawing(), bounds);
/** The same while blended cups are closed. */
export const cups: Part = (bounds) => killed(new Closing(), bounds);
