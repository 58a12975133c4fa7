import { useQuery } from '@tanstack/react-query';
import type { Remote } from 'comlink';
import type { Chords, Look } from '../../../core/shape/chords.ts';
import { askOnce } from '../../workers/askOnce.ts';
import type { Chorder } from '../../workers/chorder.ts';

/** Points along a bait: as many as a screen shows of a large picture or a small one, few enough to paint between two frames. */
const COLUMNS = { large: 560, small: 220 } as const;

const asked = <T>(ask: (chorder: Remote<Chorder>) => Promise<T>) =>
  askOnce<Chorder, T>(() => new Worker(new URL('../../workers/chorder.ts', import.meta.url), { type: 'module' }), ask);

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

/** Where a bait is cut, as a share of its length. */
export const CUTS = [
  { at: 0.25, where: 'behind the head' },
  { at: 0.5, where: 'in the middle' },
  { at: 0.75, where: 'before the tail' },
];
/** Which of them is spoken of alone. */
export const MIDDLE_CUT = 1;

/** A bait as a solid with how thick it is behind its skin, and cut across. */
export const useSolidOf = (meshId: string | null) =>
  useQuery({
    queryKey: ['chords', meshId, 'solid'],
    queryFn: () =>
      asked((chorder) =>
        chorder.solid(
          meshId as string,
          CUTS.map(({ at }) => at),
        ),
      ),
    enabled: meshId !== null,
    staleTime: Number.POSITIVE_INFINITY,
    throwOnError: false,
    retry: 1,
  });
