import { makeArchive, unpackChecked } from '../backup/archive.ts';
import { answerWith } from './answer.ts';

export type ArchiveWork =
  | { kind: 'make'; db: string; files: string; folder: string; archive: string; now: string }
  | { kind: 'unpack'; archive: string; folder: string };

answerWith<ArchiveWork>((task) =>
  task.kind === 'make' ? makeArchive(task) : unpackChecked(task.archive, task.folder),
);
