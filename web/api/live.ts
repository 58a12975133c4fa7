import type { QueryClient } from '@tanstack/react-query';
import { learnServerTime } from './now.ts';

/** Listens for what became stale on any other screen; after a gap everything is fetched again. */
export function listen(client: QueryClient): () => void {
  const source = new EventSource('/api/live');
  let gap = false;
  source.addEventListener('hello', (event) => {
    learnServerTime((JSON.parse((event as MessageEvent<string>).data) as { now: string }).now);
    if (gap) void client.invalidateQueries();
    gap = false;
  });
  source.addEventListener('stale', (event) => {
    const { keys } = JSON.parse((event as MessageEvent<string>).data) as { keys: string[] };
    if (keys.includes('*')) void client.invalidateQueries();
    for (const key of keys) void client.invalidateQueries({ queryKey: [key] });
  });
  source.addEventListener('job', (event) => {
    const detail = JSON.parse((event as MessageEvent<string>).data) as { job: string; done: number };
    window.dispatchEvent(new CustomEvent('blunko:job', { detail }));
  });
  source.addEventListener('error', () => {
    gap = true;
  });
  return () => source.close();
}
