import { closeSync, fsyncSync, openSync, readdirSync, renameSync } from 'node:fs';
import { join } from 'node:path';

function flush(path: string): void {
  const handle = openSync(path, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Brings a folder's list of names to the disk: a file that was renamed into it is there after a power cut. */
export function flushFolder(path: string): void {
  // Windows has no folders to flush.
  if (process.platform !== 'win32') flush(path);
}

/** Gives a finished file its place: it is on the disk before it gets its name, so that no power cut leaves half of it there. */
export function putFile(from: string, folder: string, name: string): void {
  flush(from);
  renameSync(from, join(folder, name));
  flushFolder(folder);
}

/** Brings all that is in a folder to the disk. */
export function flushAll(path: string): void {
  for (const one of readdirSync(path, { withFileTypes: true })) {
    if (one.isDirectory()) flushAll(join(path, one.name));
    else flush(join(path, one.name));
  }
  flushFolder(path);
}
