import { join } from 'node:path';
import Database from 'better-sqlite3';
import { Failure } from '../../core/failure.ts';

/** A server that was just told to stop may still be closing. */
const PATIENCE_MS = 1500;

/**
 * Holds a data folder for one server. The lock is the operating system's and ends with the process, however that ends.
 * @throws Failure `in-use` when another server holds it.
 */
export function holdFolder(root: string): { release(): void } {
  const lock = new Database(join(root, 'lock.db'), { timeout: PATIENCE_MS });
  try {
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if (!String((error as { code?: string }).code).startsWith('SQLITE_BUSY')) throw error;
    throw new Failure(
      'in-use',
      `Another Blunko is at work on ${root}. Close it first, or choose another folder with --data.`,
    );
  }
  return { release: () => lock.close() };
}
