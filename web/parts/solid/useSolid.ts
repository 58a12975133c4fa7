import { useQuery } from '@tanstack/react-query';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { Told } from '../../../core/failure.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import type { Judged, JudgeWish, JudgeWorker } from '../../workers/judge.ts';
import type { Sculpted, Sculptor } from '../../workers/sculptor.ts';
import { handOf, useErrand } from '../../workers/useErrand.ts';

const SETTLED_MS = 250;

interface SculptWish {
  spec: ShapeSpec;
  grain: 'draft' | 'fine';
}

const hireSculptor = () =>
  handOf<Sculptor, SculptWish, Sculpted>(
    () => new Worker(new URL('../../workers/sculptor.ts', import.meta.url), { type: 'module' }),
    (api, { spec, grain }) => api.sculpt(spec, grain),
  );

/**
 * The solid of a spec: a draft for every change, the newest wish first, and the fine one once the hand rests. All of it
 * is worked out beside the page, which never waits.
 */
export function useSculpted(spec: ShapeSpec): { solid: Sculpted | null; fine: boolean; problem: Told | null } {
  const [rested, setRested] = useState<ShapeSpec | null>(null);
  const [state, setState] = useState<{ solid: Sculpted; of: SculptWish } | null>(null);
  const [problem, setProblem] = useState<Told | null>(null);
  useEffect(() => {
    const rest = setTimeout(() => setRested(spec), SETTLED_MS);
    return () => clearTimeout(rest);
  }, [spec]);
  const wish = useMemo<SculptWish>(() => ({ spec, grain: rested === spec ? 'fine' : 'draft' }), [spec, rested]);
  useErrand(
    wish,
    hireSculptor,
    {
      answer: (of, solid) => {
        setState({ solid, of });
        setProblem(null);
      },
      problem: (_of, why) => setProblem(why),
    },
    { newer: 'waits' },
  );
  return {
    solid: state?.solid ?? null,
    fine: state !== null && state.of.grain === 'fine' && state.of.spec === spec,
    problem,
  };
}

type JudgeTask = JudgeWish & { positions: Float32Array };
interface JudgePart {
  part: Judged;
  done: number;
}

interface Judging {
  judged: Judged;
  /** Of it, what was told of the shape as it is now. */
  fresh: Judged;
  done: number;
}

const makeJudge = () => new Worker(new URL('../../workers/judge.ts', import.meta.url), { type: 'module' });
const hireJudge = () =>
  handOf<JudgeWorker, JudgeTask, void, JudgePart>(makeJudge, (api, { positions, ...wish }, tell) =>
    api.judge(
      positions,
      wish,
      proxy(async (part: Judged, done: number) => tell({ part, done })),
    ),
  );

/** Judges a solid beside the page; a new one stops the judging of the old one. */
export function useJudged(
  positions: Float32Array | null,
  { ballMm, coneDeg, up, bored }: JudgeWish,
): { judged: Judged; done: number; problem: Told | null } {
  const [state, setState] = useState<Judging>({ judged: {}, fresh: {}, done: 0 });
  const [problem, setProblem] = useState<Told | null>(null);
  const task = useMemo<JudgeTask | null>(
    () => (positions ? { positions, ballMm, coneDeg, up, bored } : null),
    [positions, ballMm, coneDeg, up, bored],
  );
  useErrand(
    task,
    hireJudge,
    {
      begins: () => {
        setState(({ judged }) => ({ judged, fresh: {}, done: 0 }));
        setProblem(null);
      },
      part: (_task, { part, done }) =>
        setState(({ judged, fresh }) => ({ judged: { ...judged, ...part }, fresh: { ...fresh, ...part }, done })),
      answer: () => setState((now) => ({ ...now, done: 1 })),
      problem: (_task, why) => {
        // What was known of the shape before says nothing of this one.
        setState(({ fresh, done }) => ({ judged: fresh, fresh, done }));
        setProblem(why);
      },
    },
    { newer: 'ends' },
  );
  return { judged: state.judged, done: state.done, problem };
}

/** Asks the judge about a mesh of the workshop. */
export async function withFile<T>(
  id: string,
  use: (judge: Remote<JudgeWorker>, bytes: Uint8Array) => Promise<T>,
): Promise<T> {
  const answer = await fetch(`/api/meshes/${id}/file?format=stl`);
  if (!answer.ok) throw new Error('The mesh cannot be read.');
  const bytes = new Uint8Array(await answer.arrayBuffer());
  const worker = makeJudge();
  // A worker that cannot be loaded says nothing through its port.
  const died = new Promise<never>((_, fail) => {
    worker.addEventListener('error', () => fail(new Error('The mesh could not be judged; load the page again.')));
  });
  try {
    return await Promise.race([use(wrap<JudgeWorker>(worker), bytes), died]);
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
