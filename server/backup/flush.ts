import { closeSync, fsyncSync, openSync, readdirSync } from 'node:fs';
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

/** Brings a file to the disk, and its name. */
export function flushFile(folder: string, name: string): void {
  flush(join(folder, name));
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
