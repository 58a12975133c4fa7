import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import type { Chords } from '../../../core/shape/chords.ts';
import type { Chorder } from '../../workers/chorder.ts';

/** Points along a bait: more than a screen shows of it, few enough to paint between two frames. */
const COLUMNS = 560;

/** One worker for each shape, gone when it has answered. */
async function chordsOfMesh(meshId: string): Promise<Chords> {
  const worker = new Worker(new URL('../../workers/chorder.ts', import.meta.url), { type: 'module' });
  try {
    return await Promise.race([
      wrap<Chorder>(worker).chords(meshId, COLUMNS),
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
export const useChords = (meshId: string | null) =>
  useQuery({
    queryKey: ['chords', meshId],
    queryFn: () => chordsOfMesh(meshId as string),
    enabled: meshId !== null,
    staleTime: Number.POSITIVE_INFINITY,
    throwOnError: false,
    retry: 1,
  });
