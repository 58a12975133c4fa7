import { useEffect, useMemo, useState } from 'react';
import type { MeshRow } from '../../../contract/meshes.ts';
import type { Vec3 } from '../../../core/shape/mesh.ts';
import { applied, matrixOf, type Turn } from '../../../core/shape/turn.ts';
import { MmField } from '../../parts/MmField.tsx';
import { type Layer, Solid } from '../../parts/solid/Solid.tsx';
import { readMeshFile } from '../../parts/solid/useSolid.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { Drawn } from '../../workers/solid.ts';
import type { BroughtMesh } from './useBroughtMesh.ts';

const STRAIGHT: Turn = { x: 0, y: 0, z: 0 };
const WAYS: [axis: keyof Turn, label: string][] = [
  ['x', 'Rolled, °'],
  ['y', 'Nose down, °'],
  ['z', 'Nose to the right, °'],
];
/** Kept between half a turn either way. */
const within = (deg: number) => ((((deg + 180) % 360) + 360) % 360) - 180;
const tenth = (value: number) => Math.round(value * 10) / 10;

function turned(values: Float32Array, turn: Turn): Float32Array<ArrayBuffer> {
  const matrix = matrixOf(turn);
  const out = new Float32Array(values.length);
  for (let i = 0; i < values.length; i += 3)
    out.set(applied(matrix, [values[i] as number, values[i + 1] as number, values[i + 2] as number]), i);
  return out;
}

/** Set down about its own middle, so that it stays in sight however it is turned; and its size. */
function centred(positions: Float32Array<ArrayBuffer>): { positions: Float32Array<ArrayBuffer>; sizeMm: Vec3 } {
  const low: Vec3 = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const high: Vec3 = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < positions.length; i++) {
    const [k, at] = [i % 3, positions[i] as number];
    if (at < (low[k] as number)) low[k] = at;
    if (at > (high[k] as number)) high[k] = at;
  }
  const out = positions.map((at, i) => at - ((low[i % 3] as number) + (high[i % 3] as number)) / 2);
  return { positions: out, sizeMm: high.map((value, k) => value - (low[k] as number)) as Vec3 };
}

/** A brought mesh turned until its nose is to the left and its back is up, and made as long as it shall be. */
export function StandIt({ mesh, brought }: { mesh: MeshRow; brought: BroughtMesh }) {
  const { text } = useTaste();
  const { lie } = mesh.facts;
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const [turn, setTurn] = useState<Turn>(STRAIGHT);
  const [scale, setScale] = useState(1);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let live = true;
    readMeshFile(mesh.id).then(
      (found) => live && setDrawn(found),
      (error: unknown) => live && setProblem(error instanceof Error ? error.message : String(error)),
    );
    return () => {
      live = false;
    };
  }, [mesh.id]);
  const shown = useMemo(
    () => drawn && { ...drawn, ...centred(turned(drawn.positions, turn)), normals: turned(drawn.normals, turn) },
    [drawn, turn],
  );
  const layers = useMemo<Layer[]>(() => (shown ? [{ ...shown, colour: '--bait' }] : []), [shown]);
  const sizeMm = (shown?.sizeMm ?? mesh.facts.sizeMm).map((mm) => mm * scale) as Vec3;
  const changed = scale !== 1 || WAYS.some(([axis]) => turn[axis] !== 0);
  const told = lie && { x: tenth(lie.turn.x), y: tenth(lie.turn.y), z: tenth(lie.turn.z) };
  return (
    <section className="flex flex-col gap-2 border-t border-[var(--rule)] pt-3" aria-label="How it lies">
      <h3 className="text-lg">How it lies</h3>
      <p className="text-sm">
        {!lie || lie.nose === null
          ? 'Its shape does not tell where its nose is: turn it until the nose is to the left and the back up.'
          : lie.isRight
            ? 'It lies as it should, by its shape: nose to the left, back up. Turn it if that is wrong.'
            : `By its shape its nose looks along ${lie.nose} of the file${lie.askewDeg !== null && lie.askewDeg > 1 ? `, ${lie.askewDeg.toFixed(0)}° askew` : ''}. Askew, a mold round it takes a larger block.`}
      </p>
      <div className="grid grid-cols-1 sm:grid-cols-[minmax(0,1fr)_270px] gap-4">
        <div className="flex flex-col min-w-0">
          <Solid
            layers={layers}
            from="side"
            heightPx={190}
            says={`The mesh as it is turned, ${sizeMm.map((mm) => text(mm, 'length')).join(' by ')}.`}
          />
          {problem && <p className="warn text-sm">It cannot be drawn ({problem}); its sizes still tell how it lies.</p>}
          <p className="label-small flex justify-between" aria-hidden>
            <span>← nose</span>
            <span>tail →</span>
          </p>
          <p className="figure text-base text-center">{sizeMm.map((mm) => text(mm, 'length')).join(' × ')}</p>
        </div>
        <div className="flex flex-col gap-1.5">
          {told && !lie.isRight && (
            <button type="button" className="btn btn-sm btn-line" onClick={() => setTurn(told)}>
              Turn it by its shape
            </button>
          )}
          {WAYS.map(([axis, label]) => (
            <div key={axis} className="flex items-center gap-1">
              <div className="flex-1">
                <MmField
                  label={label}
                  value={turn[axis]}
                  least={-180}
                  most={180}
                  step={1}
                  plain
                  onChange={(deg) => setTurn({ ...turn, [axis]: deg })}
                />
              </div>
              <button
                type="button"
                className="btn btn-xs btn-line"
                aria-label={`${label.split(',')[0]}, a quarter more`}
                onClick={() => setTurn({ ...turn, [axis]: tenth(within(turn[axis] + 90)) })}
              >
                +90
              </button>
            </div>
          ))}
          <MmField
            label="Long"
            value={sizeMm[0]}
            least={2}
            most={1000}
            step={0.5}
            onChange={(mm) => setScale((scale * mm) / sizeMm[0])}
          />
          {changed && (
            <div className="flex gap-2 flex-wrap">
              <button
                type="button"
                className="btn btn-sm btn-primary"
                disabled={brought.job !== null}
                onClick={() => brought.stand(turn, scale)}
              >
                Take it so
              </button>
              <button
                type="button"
                className="link text-sm"
                onClick={() => {
                  setTurn(STRAIGHT);
                  setScale(1);
                }}
              >
                as it came
              </button>
            </div>
          )}
        </div>
      </div>
    </section>
  );
}
