import { useQuery } from '@tanstack/react-query';
import { type Remote, wrap } from 'comlink';
import type { Chords, Look } from '../../../core/shape/chords.ts';
import type { Chorder } from '../../workers/chorder.ts';

/** Points along a bait: as many as a screen shows of a large picture or a small one, few enough to paint between two frames. */
const COLUMNS = { large: 560, small: 220 } as const;

/** One worker for each shape, gone when it has answered. */
async function asked<T>(ask: (chorder: Remote<Chorder>) => Promise<T>): Promise<T> {
  const worker = new Worker(new URL('../../workers/chorder.ts', import.meta.url), { type: 'module' });
  try {
    return await Promise.race([
      ask(wrap<Chorder>(worker)),
      new Promise<never>((_, failed) => {
        worker.addEventListener('error', (event) =>
          failed(new Error(event.message || 'The drawing part did not load.')),
        );
      }),
    ]);
  } finally {
    worker.terminate();
  }
}

/** How thick a bait is behind each point of it; a mesh never changes under its id. */
export const useChords = (meshId: string | null, size: keyof typeof COLUMNS = 'large', look: Look = 'side') =>
  useQuery({
    queryKey: ['chords', meshId, size, look],
    queryFn: (): Promise<Chords> => asked((chorder) => chorder.chords(meshId as string, COLUMNS[size], look)),
    enabled: meshId !== null,
    staleTime: Number.POSITIVE_INFINITY,
    throwOnError: false,
    retry: 1,
  });

/** Where a bait is cut: behind its head, in its middle, before its tail. */
export const CUTS = [0.25, 0.5, 0.75];

/** A bait as a solid with how thick it is behind its skin, and cut across. */
export const useSolidOf = (meshId: string | null) =>
  useQuery({
    queryKey: ['chords', meshId, 'solid'],
    queryFn: () => asked((chorder) => chorder.solid(meshId as string, CUTS)),
    enabled: meshId !== null,
    staleTime: Number.POSITIVE_INFINITY,
    throwOnError: false,
    retry: 1,
  });
