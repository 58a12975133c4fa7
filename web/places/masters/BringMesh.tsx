import { useRef, useState } from 'react';
import type { MeshChanges, MeshRow } from '../../../contract/meshes.ts';
import type { MeshUnit } from '../../../core/shape/read.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { StandIt } from './StandIt.tsx';
import { type BroughtMesh, useBroughtMesh } from './useBroughtMesh.ts';

const UNIT_WORDS: Record<MeshUnit, string> = { mm: 'millimetres', cm: 'centimetres', in: 'inches', m: 'metres' };

type Counted = Exclude<keyof MeshChanges, 'united' | 'skinMm' | 'turned' | 'scaled'>;
const CHANGED: [key: Counted, one: string, many: string][] = [
  ['cornersJoined', 'corner joined', 'corners joined'],
  ['collapsedDropped', 'triangle without area dropped', 'triangles without area dropped'],
  ['doublesDropped', 'triangle dropped that was there twice', 'triangles dropped that were there twice'],
  ['trianglesTurned', 'triangle turned the right way out', 'triangles turned the right way out'],
  ['shellsTurned', 'part turned the right way out', 'parts turned the right way out'],
  ['edgesCut', 'edge where solids only touched cut apart', 'edges where solids only touched cut apart'],
  ['holesFilled', 'hole closed', 'holes closed'],
  ['trianglesAdded', 'triangle added for that', 'triangles added for that'],
  ['holesLeft', 'hole left: too large to be guessed', 'holes left: too large to be guessed'],
];

interface Props {
  onReady(mesh: MeshRow): void;
  action: string;
}

/** Takes an STL or OBJ, says what it measures and what is wrong with it, and offers to mend it. */
export function BringMesh({ onReady, action }: Props) {
  const brought = useBroughtMesh();
  const { mesh, error, job, done, stop } = brought;
  return (
    <div className="flex flex-col gap-4">
      <DropHere onFile={brought.take} />
      {job && (
        <div className="flex items-center gap-3" role="status">
          <progress className="w-64 h-3 accent-[var(--rest)]" value={done} max={1} aria-label="Measuring" />
          <span className="figure text-sm">{Math.round(done * 100)} %</span>
          <button type="button" className="link text-sm" onClick={stop}>
            Stop
          </button>
        </div>
      )}
      <Refusal error={error} />
      {mesh && <Measured mesh={mesh} brought={brought} onReady={onReady} action={action} />}
    </div>
  );
}

function DropHere({ onFile }: { onFile(file: File | undefined): void }) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  return (
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
        onFile(event.dataTransfer.files[0]);
      }}
      aria-label="Drop a mesh here"
    >
      <p className="text-lg font-bold">Drop an STL or OBJ here</p>
      <p className="soft">
        Binary or text, up to 64 MB and two million triangles. It need not lie straight: it is turned here.
      </p>
      <input
        ref={input}
        type="file"
        accept=".stl,.obj,model/stl,model/obj"
        className="sr-only"
        aria-label="Mesh file"
        onChange={(event) => {
          onFile(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      <button type="button" className="btn btn-line" onClick={() => input.current?.click()}>
        Choose a file
      </button>
    </fieldset>
  );
}

interface MeasuredProps extends Props {
  mesh: MeshRow;
  brought: BroughtMesh;
}

/** What came in, and what is left to do before it can be used. */
function Measured({ mesh, brought, onReady, action }: MeasuredProps) {
  const { text } = useTaste();
  const { asksUnit, tellUnit, mended } = brought;
  const { facts } = mesh;
  const isSolid = facts.volumeMl !== null && !facts.flipped;
  const busy = brought.job !== null;
  return (
    <section className="sheet p-4 flex flex-col gap-3" aria-label="What it measures">
      <p className="figure text-xl">
        {facts.sizeMm.map((mm) => text(mm, 'length')).join(' × ')}
        {facts.volumeMl !== null && <span className="rest"> {text(facts.volumeMl, 'volume')}</span>}
      </p>
      <p className="label-small">
        {facts.triangles.toLocaleString('en-GB')} triangles, {facts.shells === 1 ? 'one part' : `${facts.shells} parts`}
        {facts.thickestMm !== null && `, thickest ${text(facts.thickestMm, 'length')}`}
      </p>
      {asksUnit && <AskUnit looksLike={facts.looksLike} busy={busy} onTell={tellUnit} />}
      {facts.faults.length > 0 && (
        <ul className="warn font-bold">
          {facts.faults.map((fault) => (
            <li key={fault}>{fault}</li>
          ))}
        </ul>
      )}
      {brought.changes.map((changed, i) => (
        <Mended
          // biome-ignore lint/suspicious/noArrayIndexKey: what was done, in the order in which it was done
          key={i}
          changed={changed}
        />
      ))}
      {!asksUnit && <Mending mesh={mesh} brought={brought} isSolid={isSolid} />}
      {isSolid && !asksUnit && <StandIt key={mesh.id} mesh={mesh} brought={brought} />}
      <div className="flex gap-3 items-center flex-wrap">
        {isSolid && (
          <button type="button" className="btn btn-primary" disabled={asksUnit || busy} onClick={() => onReady(mesh)}>
            {action}
          </button>
        )}
        {!isSolid && mended && !busy && (
          <p className="font-bold">
            Nothing here closes it. Mend it where it was made, near the places named, or measure the master by hand.
          </p>
        )}
      </div>
    </section>
  );
}

/** From the mildest to the last: corners and small holes; all holes; the skin drawn anew. */
function Mending({ mesh, brought, isSolid }: { mesh: MeshRow; brought: BroughtMesh; isSolid: boolean }) {
  const { text } = useTaste();
  const { facts } = mesh;
  const busy = brought.job !== null;
  const crosses = (facts.crossesAtMm?.length ?? 0) > 0;
  if (facts.faults.length === 0) return null;
  const holesLeft = mesh.changed?.holesLeft ?? 0;
  return (
    <div className="flex flex-col gap-2 items-start">
      {!brought.mended && (
        <button
          type="button"
          className={`btn ${isSolid ? 'btn-line' : 'btn-primary'}`}
          disabled={busy}
          onClick={brought.mend}
        >
          Mend it and show what changed
        </button>
      )}
      {brought.mended && holesLeft > 0 && (
        <button type="button" className="btn btn-primary" disabled={busy} onClick={brought.closeAll}>
          Close the large holes too
        </button>
      )}
      {brought.mended && (crosses || (!isSolid && holesLeft === 0)) && (
        <>
          <button
            type="button"
            className={`btn ${isSolid ? 'btn-line' : 'btn-primary'}`}
            disabled={busy}
            onClick={brought.skin}
          >
            Draw its skin anew
          </button>
          <p className="text-sm soft max-w-md">
            A new surface round all that it encloses: closed for certain, its sharp edges rounded by some{' '}
            {text(0.4, 'length')}. It takes up to a minute.
          </p>
        </>
      )}
    </div>
  );
}

function AskUnit({ looksLike, busy, onTell }: { looksLike: MeshUnit; busy: boolean; onTell(unit: MeshUnit): void }) {
  return (
    <div className="flex flex-col gap-2">
      <p className="warn font-bold">
        That is small for a bait: it looks like {UNIT_WORDS[looksLike]}. What is one step of this file?
      </p>
      <div className="flex gap-2">
        {(['mm', 'cm', 'in', 'm'] as const).map((unit) => (
          <button
            key={unit}
            type="button"
            className={`btn btn-sm ${unit === looksLike ? 'btn-primary' : 'btn-line'}`}
            disabled={busy}
            onClick={() => onTell(unit)}
          >
            {UNIT_WORDS[unit]}
          </button>
        ))}
      </div>
    </div>
  );
}

function Mended({ changed }: { changed: NonNullable<MeshRow['changed']> }) {
  const { text } = useTaste();
  const counted = CHANGED.filter(([key]) => (changed[key] ?? 0) > 0);
  const { turned, scaled, skinMm } = changed;
  const wasTurned = turned && (turned.x !== 0 || turned.y !== 0 || turned.z !== 0);
  return (
    <ul className="text-sm">
      {counted.map(([key, one, several]) => (
        <li key={key}>
          <span className="figure">{changed[key]}</span> {changed[key] === 1 ? one : several}
        </li>
      ))}
      {changed.united && <li>Parts that reached into each other made one.</li>}
      {skinMm !== undefined && <li>Its skin drawn anew in cells of {text(skinMm, 'length')}.</li>}
      {wasTurned && (
        <li>
          Turned by {turned.x.toFixed(0)}° about its length, {turned.y.toFixed(0)}° nose down, {turned.z.toFixed(0)}°
          aside.
        </li>
      )}
      {scaled !== undefined && scaled !== 1 && <li>Made {scaled.toFixed(3)} times as large.</li>}
      {counted.length === 0 && changed.holesFilled !== undefined && !changed.united && <li>Nothing needed mending.</li>}
    </ul>
  );
}
