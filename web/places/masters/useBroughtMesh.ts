import { useState } from 'react';
import { v7 } from 'uuid';
import type * as v from 'valibot';
import type { MeshRow, preparedBody } from '../../../contract/meshes.ts';
import type { MeshUnit } from '../../../core/shape/read.ts';
import type { Turn } from '../../../core/shape/turn.ts';
import { ApiError, call, NoAnswer } from '../../api/client.ts';
import { useJob } from '../../api/jobs.ts';

/** Sends the bytes as they are; the answer says what they measure. */
async function upload(file: File, job: string): Promise<MeshRow> {
  const answer = await fetch(`/api/meshes?job=${job}`, {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'application/octet-stream' },
  }).catch(() => {
    throw new NoAnswer();
  });
  const body = (await answer.json()) as MeshRow & { error?: { code: string; message: string } };
  if (!answer.ok)
    throw new ApiError(
      answer.status,
      body.error?.code ?? 'internal',
      body.error?.message ?? 'Something broke; try again.',
    );
  return body;
}

type Prepare = Omit<v.InferInput<typeof preparedBody>, 'job'>;

/** A mesh on its way in: sent, measured, asked about its unit, mended. */
export function useBroughtMesh() {
  const [mesh, setMesh] = useState<MeshRow | null>(null);
  const [unitTold, setUnitTold] = useState(false);
  /** What was done to it, step by step. */
  const [changes, setChanges] = useState<NonNullable<MeshRow['changed']>[]>([]);
  const [error, setError] = useState<unknown>(null);
  const [job, setJob] = useState<string | null>(null);
  const done = useJob(job);
  const work = async (task: (job: string) => Promise<MeshRow>) => {
    const id = v7();
    setJob(id);
    setError(null);
    try {
      const made = await task(id);
      setMesh(made);
      if (made.changed) setChanges((now) => [...now, made.changed as (typeof now)[number]]);
    } catch (failure) {
      setError(failure);
    } finally {
      setJob(null);
    }
  };
  // One thing at a time: what comes next is done to what comes of this.
  const prepare = (wish: Prepare) =>
    mesh &&
    job === null &&
    work((id) => call<MeshRow>(`/meshes/${mesh.id}/prepared`, { method: 'POST', body: { ...wish, job: id } }));
  return {
    mesh,
    error,
    job,
    done,
    /** It looks like no millimetres, and nobody said yet what one step of it is. */
    asksUnit: mesh !== null && mesh.facts.looksLike !== 'mm' && !unitTold && mesh.fromId === null,
    take: (file: File | undefined) => {
      if (!file) return;
      setMesh(null);
      setChanges([]);
      setUnitTold(false);
      void work((id) => upload(file, id));
    },
    tellUnit: (unit: MeshUnit) => {
      setUnitTold(true);
      if (unit !== 'mm') void prepare({ unit });
    },
    changes,
    mended: changes.some((one) => one.holesFilled !== undefined),
    mend: () => void prepare({ repair: true }),
    closeAll: () => void prepare({ repair: true, holes: 'all' }),
    skin: () => void prepare({ skin: true }),
    stand: (turn: Turn, scale: number) => void prepare({ turn, scale }),
    stop: () => void fetch(`/api/jobs/${job}`, { method: 'DELETE' }),
  };
}

export type BroughtMesh = ReturnType<typeof useBroughtMesh>;
