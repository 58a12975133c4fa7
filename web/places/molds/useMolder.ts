import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { Failure } from '../../../core/failure.ts';
import type { MoldPart } from '../../../core/mold/build.ts';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import type { ExportFormat } from '../../../core/shape/write.ts';
import { handOver } from '../../parts/files.ts';
import type { DrawnMold, Molder } from '../../workers/molder.ts';

const SETTLED_MS = 400;

interface Built {
  mold: DrawnMold | null;
  done: number;
  building: boolean;
  problem: string | null;
  /** What is shown was built for another wish: stopped, refused, or not begun yet. */
  stale: boolean;
  stop(): void;
  /** Which cutter a machined one asks for; null until it is known. */
  cutter: { largestBallMm: number | null; smallestBallMm: number; leftoverMm: number } | null;
  download(name: MoldPart['name'], format: ExportFormat): Promise<void>;
}

/** A mold built beside the page once the hand rests; a newer wish stops the older build, and nothing half-built is shown. */
export function useMolder(meshId: string | null, wish: MoldWish): Built {
  const [shown, setShown] = useState<{ mold: DrawnMold; of: string } | null>(null);
  const [cutter, setCutter] = useState<Built['cutter']>(null);
  const [state, setState] = useState({ done: 0, building: false, problem: null as string | null });
  const running = useRef<{ worker: Worker; molder: Remote<Molder> } | null>(null);
  const wished = JSON.stringify(wish);
  const stop = () => {
    running.current?.worker.terminate();
    running.current = null;
    setState((now) => ({ ...now, building: false }));
  };
  useEffect(() => {
    if (!meshId) return;
    let live = true;
    const start = async () => {
      running.current?.worker.terminate();
      const worker = new Worker(new URL('../../workers/molder.ts', import.meta.url), { type: 'module' });
      const molder = wrap<Molder>(worker);
      running.current = { worker, molder };
      setState({ done: 0, building: true, problem: null });
      try {
        const answer = await fetch(`/api/meshes/${meshId}/file?format=stl`);
        if (!answer.ok) throw new Failure('not-found', 'The mesh of this master cannot be read.');
        const bytes = new Uint8Array(await answer.arrayBuffer());
        const tell = (done: number) => {
          if (live) setState((now) => ({ ...now, done }));
        };
        const built = await molder.build(bytes, JSON.parse(wished) as MoldWish, proxy(tell));
        if (!live) return;
        setShown({ mold: built, of: wished });
        setCutter(null);
        setState({ done: 1, building: false, problem: null });
        if ((JSON.parse(wished) as MoldWish).kind === 'machined') {
          const known = await molder.cutter();
          if (live) setCutter(known);
        }
      } catch (error) {
        if (live)
          setState({ done: 0, building: false, problem: error instanceof Error ? error.message : String(error) });
      }
    };
    const rest = setTimeout(() => void start(), SETTLED_MS);
    return () => {
      live = false;
      clearTimeout(rest);
    };
  }, [meshId, wished]);
  useEffect(() => () => running.current?.worker.terminate(), []);
  const download = async (name: MoldPart['name'], format: ExportFormat) => {
    const bytes = await running.current?.molder.file(name, format);
    if (!bytes) return;
    handOver(bytes, 'application/octet-stream', `${name.replace(' ', '-')}.${format}`);
  };
  return { mold: shown?.mold ?? null, stale: shown?.of !== wished, cutter, ...state, stop, download };
}
