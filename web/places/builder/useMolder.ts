import { proxy, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { Failure, type Told } from '../../../core/failure.ts';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import type { MoldPart } from '../../../core/mold/pieces.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import type { Cutter } from '../../../core/shape/toolReach.ts';
import type { ExportFormat } from '../../../core/shape/write.ts';
import { fileName, handOver } from '../../parts/files.ts';
import type { DrawnMold, Molder } from '../../workers/molder.ts';
import { handOf, useErrand } from '../../workers/useErrand.ts';

const SETTLED_MS = 400;
/** A wavy seam of a large mesh is moved and built again several times over. */
const LONGEST_MS = 600_000;

export interface Built {
  mold: DrawnMold | null;
  done: number;
  building: boolean;
  problem: Told | null;
  /** What is shown was built for another wish: stopped, refused, or not begun yet. */
  stale: boolean;
  stop(): void;
  /** Which cutter a machined one asks for; null until it is known. */
  cutter: Cutter | null;
  /** One part, or all of them beside each other. @param of whose mold it is: the file's name begins with it. */
  download(of: string, name: MoldPart['name'] | 'all parts', format: ExportFormat): Promise<void>;
}

interface MoldTask {
  meshId: string;
  /** What it was sculpted from, as text. */
  spec: string;
  /** The wish as text: two that say the same are one. */
  wished: string;
}
type MoldPartTold = { done: number } | { mold: DrawnMold };

async function bytesOf(meshId: string): Promise<Uint8Array> {
  const answer = await fetch(`/api/meshes/${meshId}/file?format=stl`);
  if (!answer.ok) throw new Failure('not-found', 'The mesh of this master cannot be read.');
  return new Uint8Array(await answer.arrayBuffer());
}

const hireMolder = () =>
  handOf<Molder, MoldTask, Built['cutter'], MoldPartTold>(
    () => new Worker(new URL('../../workers/molder.ts', import.meta.url), { type: 'module' }),
    async (api, { meshId, spec: shaped, wished }, tell) => {
      const wish = JSON.parse(wished) as MoldWish;
      const spec = JSON.parse(shaped) as ShapeSpec | null;
      const mold = await api.build(
        await bytesOf(meshId),
        spec,
        wish,
        proxy((done: number) => tell({ done })),
      );
      tell({ mold });
      return wish.kind === 'machined' ? await api.cutter() : null;
    },
  );

/** A mold built beside the page once the hand rests; a newer wish stops the older build, and nothing half-built is shown. */
export function useMolder(meshId: string | null, spec: ShapeSpec | null, wish: MoldWish): Built {
  const [shown, setShown] = useState<{ mold: DrawnMold; of: string } | null>(null);
  const [cutter, setCutter] = useState<Built['cutter']>(null);
  const [state, setState] = useState({ done: 0, building: false, problem: null as Told | null });
  const [task, setTask] = useState<MoldTask | null>(null);
  const molder = useRef<Remote<Molder> | null>(null);
  const wished = JSON.stringify(wish);
  const shaped = JSON.stringify(spec);
  useEffect(() => {
    const rest = setTimeout(() => setTask(meshId ? { meshId, spec: shaped, wished } : null), SETTLED_MS);
    return () => clearTimeout(rest);
  }, [meshId, shaped, wished]);
  const errand = useErrand(
    task,
    () => {
      const hand = hireMolder();
      molder.current = hand.api;
      return hand;
    },
    {
      begins: () => setState({ done: 0, building: true, problem: null }),
      part: (of, told) => {
        if ('done' in told) return setState((now) => ({ ...now, done: told.done }));
        setShown({ mold: told.mold, of: of.meshId + of.wished });
        setCutter(null);
        setState({ done: 1, building: false, problem: null });
      },
      answer: (_of, known) => setCutter(known),
      problem: (_of, problem) => setState({ done: 0, building: false, problem }),
    },
    { newer: 'ends', longestMs: LONGEST_MS },
  );
  const stop = () => {
    errand.current?.stop();
    setState((now) => ({ ...now, building: false }));
  };
  const download = async (of: string, name: MoldPart['name'] | 'all parts', format: ExportFormat) => {
    const bytes = await (name === 'all parts' ? molder.current?.allParts() : molder.current?.file(name, format));
    if (bytes) handOver(bytes, 'application/octet-stream', fileName(of, `${name.replace(' ', '-')}.${format}`));
  };
  return { mold: shown?.mold ?? null, stale: shown?.of !== `${meshId}${wished}`, cutter, ...state, stop, download };
}
