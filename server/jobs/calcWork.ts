import type { MeshChanges } from '../../contract/meshes.ts';
import { calculate } from '../../core/calculators.ts';
import { Failure } from '../../core/failure.ts';
import { repairedMesh, repairSchema } from '../../core/shape/calculators.ts';
import { crossings } from '../../core/shape/crossing.ts';
import { lieOf } from '../../core/shape/lies.ts';
import { measure } from '../../core/shape/measure.ts';
import { type Mesh, moved } from '../../core/shape/mesh.ts';
import type { Places } from '../../core/shape/places.ts';
import { type MeshUnit, readMesh } from '../../core/shape/read.ts';
import { loadModeller, sculpt } from '../../core/shape/sculpt.ts';
import { silhouetteOf } from '../../core/shape/silhouette.ts';
import { skinned } from '../../core/shape/skinned.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { thickness } from '../../core/shape/thickness.ts';
import { stood, type Turn } from '../../core/shape/turn.ts';
import { united } from '../../core/shape/unite.ts';
import { weld } from '../../core/shape/weld.ts';
import { type ExportFormat, writeMesh } from '../../core/shape/write.ts';
import { check } from '../../core/validate.ts';
import { answerWith } from './answer.ts';

export type CalcWork =
  | { kind: 'calc'; name: string; input: unknown; bytes?: Uint8Array }
  | { kind: 'survey'; bytes: Uint8Array; unit: MeshUnit }
  | ({ kind: 'prepare'; bytes: Uint8Array; unit: MeshUnit } & Preparing)
  | { kind: 'sculpt'; spec: ShapeSpec; brought?: Uint8Array }
  | { kind: 'outline'; bytes: Uint8Array }
  | { kind: 'convert'; bytes: Uint8Array; unit: MeshUnit; format: ExportFormat; name: string }
  | { kind: 'stubs'; specs: ShapeSpec[]; format: ExportFormat; name: string };

/** What is to be done to a mesh before it is used. */
export interface Preparing {
  repair: boolean;
  /** Which holes are closed: those that a scan leaves, or all. */
  holes: 'small' | 'all';
  /** Its skin drawn anew round all that it encloses. */
  skin: boolean;
  turn?: Turn | undefined;
  scale: number;
}

type Progress = (done: number) => void;

/** A hole as long as this is any hole, mm. */
const ANY_HOLE_MM = 1e5;

/** Volume, size and sections of a mesh; the sections only where there is an inside to look through. */
function factsOf(mesh: Mesh, collapsed: number, progress: Progress, isBrought: boolean) {
  const measured = measure(mesh, collapsed);
  // Inside out there is nothing inside to look through.
  const sections = measured.volumeMl === null || measured.flipped ? null : thickness(mesh, progress);
  // What is sculpted here is joined as solids: only what was brought may run through itself.
  const crosses = isBrought ? crossings(mesh) : [];
  const at = crosses.map((place) => place.map((value) => value.toFixed(0)).join(', ')).join('; ');
  return {
    ...measured,
    faults:
      crosses.length === 0
        ? measured.faults
        : [...measured.faults, `It runs through itself near ${at} (mm): what lies there twice counts twice.`],
    crossesAtMm: crosses,
    lie: lieOf(mesh),
    thickestMm: sections?.thickestMm ?? null,
    thinnestMm: sections?.thinnestMm ?? null,
  };
}

function surveyOf(places: Places, progress: Progress, isBrought = true) {
  const { mesh, collapsed } = weld(places);
  return factsOf(mesh, collapsed, progress, isBrought);
}

/** Several solids in a row along y, with a gap, as one mesh. */
function inARow(meshes: Mesh[], gapMm: number): Mesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  let y = 0;
  for (const mesh of meshes) {
    const { boundsMm } = measure(mesh);
    const shift = y - boundsMm.min[1];
    const first = positions.length / 3;
    for (const value of moved(mesh, ([x, own, z]) => [x, own + shift, z]).positions) positions.push(value);
    for (const at of mesh.triangles) triangles.push(at + first);
    y += boundsMm.max[1] - boundsMm.min[1] + gapMm;
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** A mesh as a file, measured as it will be read again, in single precision; and the outline that it is drawn by. */
async function kept(mesh: Mesh, progress: Progress, isBrought = true) {
  const bytes = writeMesh(mesh, 'stl');
  const { places } = readMesh(bytes);
  const facts = surveyOf(places, progress, isBrought);
  return {
    bytes,
    facts,
    outline: facts.volumeMl === null ? null : silhouetteOf(await loadModeller(), weld(places).mesh),
  };
}

async function preparedMesh(
  task: Preparing & { bytes: Uint8Array; unit: MeshUnit },
  places: Places,
  progress: Progress,
) {
  const { repair, holes, skin, turn, scale } = task;
  let mesh: Mesh = weld(places).mesh;
  let changed: MeshChanges | null = null;
  if (repair) {
    const wish = { unit: task.unit, ...(holes === 'all' ? { holeMm: ANY_HOLE_MM } : {}) };
    const made = repairedMesh(check(repairSchema, wish), { mesh: task.bytes });
    const whole = united(await loadModeller(), made.mesh);
    mesh = whole ?? made.mesh;
    changed = { ...made.changed, united: whole !== null };
  }
  if (skin) {
    const drawn = skinned(await loadModeller(), mesh, progress);
    if (!drawn) throw new Failure('bad-mesh', 'Nothing in it encloses a volume; mend it where it was made.', 'skin');
    mesh = drawn.mesh;
    changed = { ...changed, skinMm: drawn.cellMm };
  }
  if (turn || scale !== 1) {
    mesh = stood(mesh, turn ?? { x: 0, y: 0, z: 0 }, scale);
    changed = { ...changed, turned: turn ?? { x: 0, y: 0, z: 0 }, scaled: scale };
  }
  return { mesh, changed };
}

async function work(task: CalcWork, progress: Progress): Promise<unknown> {
  switch (task.kind) {
    case 'calc':
      return calculate(task.name, task.input, {
        ...(task.bytes ? { mesh: task.bytes } : {}),
        progress,
        nowMs: () => performance.now(),
      });
    case 'survey': {
      const { format, places } = readMesh(task.bytes, task.unit);
      const facts = surveyOf(places, progress);
      const outline = facts.volumeMl === null ? null : silhouetteOf(await loadModeller(), weld(places).mesh);
      return { format, facts, outline };
    }
    case 'prepare': {
      const { places } = readMesh(task.bytes, task.unit);
      const { mesh, changed } = await preparedMesh(task, places, (done) => progress(0.6 * done));
      return { changed, ...(await kept(mesh, (done) => progress(0.6 + 0.4 * done))) };
    }
    case 'sculpt': {
      const { spec, brought } = task;
      const meshes = new Map(
        spec.brought && brought ? [[spec.brought.meshId, weld(readMesh(brought).places).mesh]] : [],
      );
      return kept(sculpt(await loadModeller(), spec, 'fine', meshes), progress, spec.brought !== null);
    }
    case 'outline':
      return silhouetteOf(await loadModeller(), weld(readMesh(task.bytes).places).mesh);
    case 'convert':
      return writeMesh(weld(readMesh(task.bytes, task.unit).places).mesh, task.format, task.name);
    case 'stubs': {
      const kit = await loadModeller();
      const solids = task.specs.map((spec) => sculpt(kit, spec));
      return writeMesh(inARow(solids, 8), task.format, task.name);
    }
  }
}

answerWith(work);
