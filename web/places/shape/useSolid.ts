import { useQuery } from '@tanstack/react-query';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import type { Judged, JudgeWish, JudgeWorker } from '../../workers/judge.ts';
import type { Sculpted, Sculptor } from '../../workers/sculptor.ts';

const SETTLED_MS = 250;

/**
 * The solid of a spec: a draft for every change, the newest wish first, and the fine one once the hand rests. All of it
 * is worked out beside the page, which never waits.
 */
export function useSculpted(spec: ShapeSpec): { solid: Sculpted | null; fine: boolean; problem: string | null } {
  const sculptor = useRef<Remote<Sculptor> | null>(null);
  const busy = useRef(false);
  const wanted = useRef<ShapeSpec | null>(null);
  const [state, setState] = useState<{ solid: Sculpted; of: ShapeSpec; fine: boolean } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    const worker = new Worker(new URL('../../workers/sculptor.ts', import.meta.url), { type: 'module' });
    sculptor.current = wrap<Sculptor>(worker);
    return () => worker.terminate();
  }, []);

  useEffect(() => {
    wanted.current = spec;
    const follow = async () => {
      if (busy.current) return;
      busy.current = true;
      try {
        while (wanted.current) {
          const next: ShapeSpec = wanted.current;
          wanted.current = null;
          const solid = await sculptor.current?.sculpt(next, 'draft');
          if (solid) setState({ solid, of: next, fine: false });
        }
        setProblem(null);
      } catch (error) {
        setProblem(error instanceof Error ? error.message : String(error));
      } finally {
        busy.current = false;
      }
    };
    void follow();
    const rest = setTimeout(async () => {
      try {
        const solid = await sculptor.current?.sculpt(spec, 'fine');
        if (solid && wanted.current === null)
          setState((now) => (now && now.of !== spec ? now : { solid, of: spec, fine: true }));
      } catch (error) {
        setProblem(error instanceof Error ? error.message : String(error));
      }
    }, SETTLED_MS);
    return () => clearTimeout(rest);
  }, [spec]);
  return { solid: state?.solid ?? null, fine: state?.fine === true && state.of === spec, problem };
}

/** Judges a solid beside the page; a new one stops the judging of the old one. */
export function useJudged(
  positions: Float32Array | null,
  { ballMm, coneDeg, up }: JudgeWish,
): { judged: Judged; done: number; problem: string | null } {
  const [state, setState] = useState<{ judged: Judged; done: number }>({ judged: {}, done: 0 });
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (!positions) return;
    let live = true;
    setState(({ judged }) => ({ judged, done: 0 }));
    setProblem(null);
    const worker = new Worker(new URL('../../workers/judge.ts', import.meta.url), { type: 'module' });
    const judge = wrap<JudgeWorker>(worker);
    const tell = async (part: Judged, done: number) => {
      if (live) setState(({ judged }) => ({ judged: { ...judged, ...part }, done }));
    };
    judge
      .judge(positions, { ballMm, coneDeg, up }, proxy(tell))
      .catch((error: unknown) => {
        if (live) setProblem(error instanceof Error ? error.message : String(error));
      })
      .finally(() => worker.terminate());
    return () => {
      live = false;
      worker.terminate();
    };
  }, [positions, ballMm, coneDeg, up]);
  return { ...state, problem };
}

/** Asks the judge about a mesh of the workshop. */
export async function withFile<T>(
  id: string,
  use: (judge: Remote<JudgeWorker>, bytes: Uint8Array) => Promise<T>,
): Promise<T> {
  const answer = await fetch(`/api/meshes/${id}/file?format=stl`);
  if (!answer.ok) throw new Error('The mesh cannot be read.');
  const bytes = new Uint8Array(await answer.arrayBuffer());
  const worker = new Worker(new URL('../../workers/judge.ts', import.meta.url), { type: 'module' });
  try {
    return await use(wrap<JudgeWorker>(worker), bytes);
  } finally {
    worker.terminate();
  }
}

/** Reads a mesh of the workshop for the screen. */
export const readMeshFile = (id: string) => withFile(id, (judge, bytes) => judge.read(bytes));

/** What a mesh of the workshop covers from the side and from above; nothing until it is read, or where there is none. */
export function useShadows(meshId: string | null) {
  const { data } = useQuery({
    queryKey: ['shadows', meshId],
    queryFn: () => withFile(meshId ?? '', (judge, bytes) => judge.shadows(bytes)),
    enabled: meshId !== null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data ?? null;
}
