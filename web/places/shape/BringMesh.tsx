import { useRef, useState } from 'react';
import { v7 } from 'uuid';
import type { MeshRow } from '../../../contract/meshes.ts';
import type { MeshUnit } from '../../../core/shape/read.ts';
import { ApiError, call, NoAnswer } from '../../api/client.ts';
import { useJob } from '../../api/jobs.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

const UNIT_WORDS: Record<MeshUnit, string> = { mm: 'millimetres', cm: 'centimetres', in: 'inches', m: 'metres' };

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

const CHANGED: [key: keyof NonNullable<MeshRow['changed']>, one: string, many: string][] = [
  ['cornersJoined', 'corner joined', 'corners joined'],
  ['collapsedDropped', 'triangle without area dropped', 'triangles without area dropped'],
  ['doublesDropped', 'triangle dropped that was there twice', 'triangles dropped that were there twice'],
  ['trianglesTurned', 'triangle turned the right way out', 'triangles turned the right way out'],
  ['shellsTurned', 'part turned the right way out', 'parts turned the right way out'],
  ['holesFilled', 'hole closed', 'holes closed'],
  ['trianglesAdded', 'triangle added for that', 'triangles added for that'],
  ['holesLeft', 'hole left: too large to be guessed', 'holes left: too large to be guessed'],
];

/** Takes an STL or OBJ, says what it measures and what is wrong with it, and offers to mend it. */
export function BringMesh({ onReady, action }: { onReady(mesh: MeshRow): void; action: string }) {
  const { text } = useTaste();
  const input = useRef<HTMLInputElement>(null);
  const [mesh, setMesh] = useState<MeshRow | null>(null);
  const [unitTold, setUnitTold] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const [over, setOver] = useState(false);
  const [job, setJob] = useState<string | null>(null);
  const done = useJob(job);
  const work = async (task: (job: string) => Promise<MeshRow>) => {
    const id = v7();
    setJob(id);
    setError(null);
    try {
      setMesh(await task(id));
    } catch (failure) {
      setError(failure);
    } finally {
      setJob(null);
    }
  };
  const take = (file: File | undefined) => {
    if (!file) return;
    setMesh(null);
    setUnitTold(false);
    void work((id) => upload(file, id));
  };
  const prepare = (wish: { unit?: MeshUnit; repair?: boolean }) =>
    mesh && work((id) => call<MeshRow>(`/meshes/${mesh.id}/prepared`, { method: 'POST', body: { ...wish, job: id } }));
  const facts = mesh?.facts;
  const asks = facts !== undefined && facts.looksLike !== 'mm' && !unitTold && mesh?.fromId === null;
  return (
    <div className="flex flex-col gap-4">
      <fieldset
        className={`border-2 border-dashed rounded-md p-6 flex flex-col items-start gap-3 ${over ? 'border-[var(--rest)] bg-[var(--sheet)]' : 'border-[var(--edge)]'}`}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          take(event.dataTransfer.files[0]);
        }}
        aria-label="Drop a mesh here"
      >
        <p className="text-lg font-bold">Drop an STL or OBJ here</p>
        <p className="soft">Binary or text, up to 64 MB and two million triangles. Nose along x, back up along z.</p>
        <input
          ref={input}
          type="file"
          accept=".stl,.obj,model/stl,model/obj"
          className="sr-only"
          aria-label="Mesh file"
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <button type="button" className="btn btn-line" onClick={() => input.current?.click()}>
          Choose a file
        </button>
      </fieldset>
      {job && (
        <div className="flex items-center gap-3" role="status">
          <progress className="w-64 h-3 accent-[var(--rest)]" value={done} max={1} aria-label="Measuring" />
          <span className="figure text-sm">{Math.round(done * 100)} %</span>
          <button
            type="button"
            className="link text-sm"
            onClick={() => void fetch(`/api/jobs/${job}`, { method: 'DELETE' })}
          >
            Stop
          </button>
        </div>
      )}
      <Refusal error={error} />
      {mesh && facts && (
        <section className="sheet p-4 flex flex-col gap-3" aria-label="What it measures">
          <p className="figure text-xl">
            {facts.sizeMm.map((mm) => text(mm, 'length')).join(' × ')}
            {facts.volumeMl !== null && <span className="rest"> {text(facts.volumeMl, 'volume')}</span>}
          </p>
          <p className="label-small">
            {facts.triangles.toLocaleString('en-GB')} triangles,{' '}
            {facts.shells === 1 ? 'one part' : `${facts.shells} parts`}
            {facts.thickestMm !== null && `, thickest ${text(facts.thickestMm, 'length')}`}
          </p>
          {asks && (
            <div className="flex flex-col gap-2">
              <p className="warn font-bold">
                That is small for a bait: it looks like {UNIT_WORDS[facts.looksLike]}. What is one step of this file?
              </p>
              <div className="flex gap-2">
                {(['mm', 'cm', 'in', 'm'] as const).map((unit) => (
                  <button
                    key={unit}
                    type="button"
                    className={`btn btn-sm ${unit === facts.looksLike ? 'btn-primary' : 'btn-line'}`}
                    onClick={() => {
                      setUnitTold(true);
                      if (unit !== 'mm') void prepare({ unit });
                    }}
                  >
                    {UNIT_WORDS[unit]}
                  </button>
                ))}
              </div>
            </div>
          )}
          {facts.faults.length > 0 && (
            <ul className="warn font-bold">
              {facts.faults.map((fault) => (
                <li key={fault}>{fault}</li>
              ))}
            </ul>
          )}
          {mesh.changed && (
            <ul className="text-sm">
              {CHANGED.filter(([key]) => (mesh.changed?.[key] ?? 0) > 0).map(([key, one, several]) => (
                <li key={key}>
                  <span className="figure">{mesh.changed?.[key]}</span> {mesh.changed?.[key] === 1 ? one : several}
                </li>
              ))}
              {CHANGED.every(([key]) => (mesh.changed?.[key] ?? 0) === 0) && <li>Nothing needed mending.</li>}
            </ul>
          )}
          <div className="flex gap-3">
            {facts.volumeMl === null && !mesh.changed && (
              <button type="button" className="btn btn-primary" onClick={() => void prepare({ repair: true })}>
                Mend it and show what changed
              </button>
            )}
            {facts.volumeMl !== null && (
              <button type="button" className="btn btn-primary" disabled={asks} onClick={() => onReady(mesh)}>
                {action}
              </button>
            )}
            {facts.volumeMl === null && mesh.changed && (
              <p className="font-bold">It is still open. Mend it where it was made, or measure the master by hand.</p>
            )}
          </div>
        </section>
      )}
    </div>
  );
}
