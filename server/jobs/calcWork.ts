import { calculate } from '../../core/calculators.ts';
import { repairedMesh, repairSchema } from '../../core/shape/calculators.ts';
import { measure } from '../../core/shape/measure.ts';
import { type Mesh, moved, type Soup } from '../../core/shape/mesh.ts';
import { type MeshUnit, readMesh } from '../../core/shape/read.ts';
import { loadModeller, sculpt } from '../../core/shape/sculpt.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { thickness } from '../../core/shape/thickness.ts';
import { united } from '../../core/shape/unite.ts';
import { weld } from '../../core/shape/weld.ts';
import { type ExportFormat, writeMesh } from '../../core/shape/write.ts';
import { check } from '../../core/validate.ts';
import { answerWith } from './answer.ts';

export type CalcWork =
  | { kind: 'calc'; name: string; input: unknown; bytes?: Uint8Array }
  | { kind: 'survey'; bytes: Uint8Array; unit: MeshUnit }
  | { kind: 'prepare'; bytes: Uint8Array; unit: MeshUnit; repair: boolean }
  | { kind: 'sculpt'; spec: ShapeSpec }
  | { kind: 'convert'; bytes: Uint8Array; unit: MeshUnit; format: ExportFormat; name: string }
  | { kind: 'stubs'; specs: ShapeSpec[]; format: ExportFormat; name: string };

type Progress = (done: number) => void;

/** Volume, size and sections of a mesh; the sections only where there is an inside to look through. */
function factsOf(mesh: Mesh, collapsed: number, progress: Progress) {
  const measured = measure(mesh, collapsed);
  // Inside out there is nothing inside to look through.
  const sections = measured.volumeMl === null || measured.flipped ? null : thickness(mesh, progress);
  return {
    ...measured,
    thickestMm: sections?.thickestMm ?? null,
    thinnestMm: sections?.thinnestMm ?? null,
  };
}

function surveyOf(soup: Soup, progress: Progress) {
  const { mesh, collapsed } = weld(soup);
  return factsOf(mesh, collapsed, progress);
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

async function work(task: CalcWork, progress: Progress): Promise<unknown> {
  switch (task.kind) {
    case 'calc':
      return calculate(task.name, task.input, { ...(task.bytes ? { mesh: task.bytes } : {}), progress });
    case 'survey': {
      const { format, soup } = readMesh(task.bytes, task.unit);
      return { format, facts: surveyOf(soup, progress) };
    }
    case 'prepare': {
      const { soup } = readMesh(task.bytes, task.unit);
      const made = task.repair
        ? repairedMesh(check(repairSchema, { unit: task.unit }), { mesh: task.bytes })
        : { mesh: weld(soup).mesh, changed: null };
      const whole = task.repair ? united(await loadModeller(), made.mesh) : null;
      const bytes = writeMesh(whole ?? made.mesh, 'stl');
      // Measured as it will be read again, in single precision.
      return {
        bytes,
        changed: made.changed && { ...made.changed, united: whole !== null },
        facts: surveyOf(readMesh(bytes).soup, progress),
      };
    }
    case 'sculpt': {
      const bytes = writeMesh(sculpt(await loadModeller(), task.spec), 'stl');
      return { bytes, facts: surveyOf(readMesh(bytes).soup, progress) };
    }
    case 'convert':
      return writeMesh(weld(readMesh(task.bytes, task.unit).soup).mesh, task.format, task.name);
    case 'stubs': {
      const kit = await loadModeller();
      const solids = task.specs.map((spec) => sculpt(kit, spec));
      return writeMesh(inARow(solids, 8), task.format, task.name);
    }
  }
}

answerWith(work);
