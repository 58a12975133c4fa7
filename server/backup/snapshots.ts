import { rmSync } from 'node:fs';
import { Failure } from '../../core/failure.ts';
import type { Jobs } from '../jobs/jobs.ts';
import type { DataFolder } from './data.ts';

/** Archives that may lie beside each other: one that is read slowly must not keep the next from being made. */
const MOST = 2;

interface Snapshot {
  of: string;
  archive: string;
  readers: number;
  made: Promise<unknown>;
}

/** Archives of the workshop, made once for all who ask while nothing was written, and gone when nobody reads them. */
export class Snapshots {
  private readonly there: Snapshot[] = [];

  constructor(
    private readonly data: DataFolder,
    private readonly jobs: Jobs,
  ) {}

  /** Gives a whole archive to `use`; it lies there until `use` is done. */
  async read(now: Date, use: (archive: string) => Promise<void>): Promise<void> {
    const snapshot = this.current(now);
    snapshot.readers += 1;
    try {
      await snapshot.made;
      await use(snapshot.archive);
    } finally {
      snapshot.readers -= 1;
      if (snapshot.readers === 0) {
        this.there.splice(this.there.indexOf(snapshot), 1);
        rmSync(snapshot.archive, { force: true });
      }
    }
  }

  private current(now: Date): Snapshot {
    const { data } = this;
    const { n } = data.db.prepare('SELECT total_changes() AS n').get() as { n: number };
    const of = `${data.generation} ${n}`;
    const same = this.there.find((one) => one.of === of);
    if (same) return same;
    if (this.there.length >= MOST)
      throw new Failure('busy', 'Two backups are being downloaded already. Wait for one of them, or cancel it.');
    const archive = data.scratch('archive');
    const folder = data.scratch('backup');
    const made = this.jobs.archive.run({
      kind: 'make',
      db: data.file,
      files: data.files,
      folder,
      archive,
      now: now.toISOString(),
    });
    const snapshot = { of, archive, readers: 0, made };
    this.there.push(snapshot);
    return snapshot;
  }
}
