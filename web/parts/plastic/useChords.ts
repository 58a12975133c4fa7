import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import type { Chords, Look } from '../../../core/shape/chords.ts';
import type { Chorder } from '../../workers/chorder.ts';

/** Points along a bait: as many as a screen shows of a large picture or a small one, few enough to paint between two frames. */
const COLUMNS = { large: 560, small: 220 } as const;

/** One worker for each shape, gone when it has answered. */
async function chordsOfMesh(meshId: string, columns: number, look: Look): Promise<Chords> {
  const worker = new Worker(new URL('../../workers/chorder.ts', import.meta.url), { type: 'module' });
  try {
    return await Promise.race([
      wrap<Chorder>(worker).chords(meshId, columns, look),
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
    queryFn: () => chordsOfMesh(meshId as string, COLUMNS[size], look),
    enabled: meshId !== null,
    staleTime: Number.POSITIVE_INFINITY,
    throwOnError: false,
    retry: 1,
  });
