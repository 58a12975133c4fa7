import type { QueryClient } from '@tanstack/react-query';

/** Writes whose news has come, by their answer or over the live line: whichever is first fetches. */
const heard: string[] = [];
const REMEMBERED = 60;

let client: QueryClient | null = null;

export function fetchThrough(queries: QueryClient): void {
  client = queries;
}

/** Fetches again what a write made stale, once; everything where all of it is. */
export async function staled(keys: string[], write?: string): Promise<void> {
  if (!client) return;
  if (write !== undefined) {
    if (heard.includes(write)) return;
    heard.push(write);
    if (heard.length > REMEMBERED) heard.shift();
  }
  const queries = client;
  await Promise.all(
    keys.includes('*')
      ? [queries.invalidateQueries()]
      : keys.map((key) => queries.invalidateQueries({ queryKey: [key] })),
  );
}
