import * as v from 'valibot';
import { finite, positive } from '../bounds.ts';
import { Failure } from '../failure.ts';
import { airTraps, bestTilt, terrainOf } from './airTraps.ts';
import { level } from './level.ts';
import { measure } from './measure.ts';
import { length, type Mesh, type Progress, type Vec3 } from './mesh.ts';
import { bestParting, parting } from './parting.ts';
import type { Places } from './places.ts';
import { readMesh } from './read.ts';
import { repair } from './repair.ts';
import { shapeSpecSchema, tailOf } from './spec.ts';
import { STARTS } from './starts.ts';
import { type Welded, weld } from './weld.ts';

// The modeller and the trees of boxes are large: they are loaded by the calculators that need them.

/** What comes with a calculation besides its input: a file's bytes, and somebody who watches. */
export interface Beside {
  mesh?: Uint8Array;
  progress?: Progress;
  /** A clock, for what may be cut off by time. */
  nowMs?: () => number;
}

const place = v.pipe(finite, v.minValue(-1e6), v.maxValue(1e6));
const point = v.strictTuple([place, place, place]);
const direction = v.pipe(
  point,
  v.check((d) => length(d) > 1e-9, 'a direction cannot be [0, 0, 0]'),
);
const index = v.pipe(finite, v.integer(), v.minValue(0), v.maxValue(6_000_000, 'too-large'));

export const meshFields = {
  /** The mesh itself, where it does not come as a file: the text of an STL or OBJ, or corners and triangles. */
  mesh: v.optional(
    v.union([
      v.strictObject({ text: v.pipe(v.string(), v.minLength(1), v.maxLength(64_000_000, 'too-large')) }),
      v.strictObject({
        positionsMm: v.pipe(v.array(place), v.minLength(9), v.maxLength(9_000_000, 'too-large')),
        triangles: v.pipe(v.array(index), v.minLength(3), v.maxLength(6_000_000, 'too-large')),
      }),
    ]),
  ),
  unit: v.optional(v.picklist(['mm', 'cm', 'in', 'm']), 'mm'),
} as const;

type MeshInput = v.InferOutput<v.ObjectSchema<typeof meshFields, undefined>>;

function placesIn({ mesh, unit }: MeshInput, beside?: Beside): Places {
  if (beside?.mesh) return readMesh(beside.mesh, unit).places;
  if (!mesh) throw new Failure('invalid-input', 'mesh is missing; give an STL or OBJ file.', 'mesh');
  if ('text' in mesh)
    return readMesh(
      Uint8Array.from(mesh.text, (letter) => letter.charCodeAt(0) & 255),
      unit,
    ).places;
  const { positionsMm, triangles } = mesh;
  const corners = positionsMm.length / 3;
  if (!Number.isInteger(corners)) throw new Failure('bad-mesh', 'Corners need three numbers each.', 'mesh.positionsMm');
  if (triangles.length % 3 !== 0) throw new Failure('bad-mesh', 'Triangles need three corners each.', 'mesh.triangles');
  const text = ['o inline'];
  for (let i = 0; i < positionsMm.length; i += 3)
    text.push(`v ${positionsMm[i]} ${positionsMm[i + 1]} ${positionsMm[i + 2]}`);
  for (let i = 0; i < triangles.length; i += 3)
    text.push(
      `f ${(triangles[i] as number) + 1} ${(triangles[i + 1] as number) + 1} ${(triangles[i + 2] as number) + 1}`,
    );
  return readMesh(
    Uint8Array.from(text.join('\n'), (letter) => letter.charCodeAt(0)),
    unit,
  ).places;
}

export const given = (input: MeshInput, beside?: Beside): Welded => weld(placesIn(input, beside));

/** A mesh that is no closed solid has no inside: the questions that need one are refused, with the way out. */
export function closedOnly({ mesh, collapsed }: Welded): Mesh {
  const { watertight, flipped, faults } = measure(mesh, collapsed);
  if (!watertight || flipped)
    throw new Failure(
      'bad-mesh',
      `This needs a closed mesh. ${faults.join(' ')} Repair it first (mesh.repair).`,
      'mesh',
    );
  return mesh;
}

const map = v.optional(v.boolean(), false);
const asList = (values: Float32Array, wanted: boolean) => (wanted ? { perTriangle: Array.from(values) } : {});

export const measureSchema = v.strictObject(meshFields);
export const repairSchema = v.strictObject({
  ...meshFields,
  weldMm: v.optional(positive(10), 0.01),
  holeMm: v.optional(positive(1e5), 60),
});
export const airTrapsSchema = v.strictObject({
  ...meshFields,
  direction: v.optional(direction, [0, 0, 1]),
  pourPoint: v.optional(point),
});
export const bestTiltSchema = v.strictObject({
  ...meshFields,
  direction: v.optional(direction, [0, 0, 1]),
  pourPoint: v.optional(point),
  coneDeg: v.optional(v.pipe(finite, v.gtValue(0), v.maxValue(90)), 30),
});
export const levelSchema = v.pipe(
  v.strictObject({
    ...meshFields,
    direction: v.optional(direction, [0, 0, 1]),
    /** Above the lowest point along the direction. */
    heightMm: v.optional(finite),
    volumeMl: v.optional(finite),
  }),
  v.check(
    (wish) => (wish.heightMm === undefined) !== (wish.volumeMl === undefined),
    'give a height or a volume, one of the two',
  ),
);
export const partingSchema = v.strictObject({ ...meshFields, direction: v.optional(direction), map });
export const thicknessSchema = v.strictObject({ ...meshFields, map });
export const toolReachSchema = v.strictObject({
  ...meshFields,
  direction: v.optional(direction, [0, 0, 1]),
  ballMm: v.pipe(finite, v.minValue(0.2), v.maxValue(40, 'too-large')),
  partingMm: v.optional(place),
  map,
});
export const sculptSchema = v.strictObject({
  start: v.optional(v.picklist(STARTS.map((start) => start.id))),
  spec: v.optional(shapeSpecSchema),
});

export function measureFile(input: v.InferOutput<typeof measureSchema>, beside?: Beside) {
  const { mesh, collapsed } = given(input, beside);
  return measure(mesh, collapsed);
}

export function repairFile(input: v.InferOutput<typeof repairSchema>, beside?: Beside) {
  const { mesh: _, ...report } = repair(placesIn(input, beside), input);
  return report;
}

/** The mended mesh itself, for a caller that can take a file. */
export function repairedMesh(input: v.InferOutput<typeof repairSchema>, beside?: Beside) {
  return repair(placesIn(input, beside), input);
}

export function airTrapsFile(input: v.InferOutput<typeof airTrapsSchema>, beside?: Beside) {
  const terrain = terrainOf(closedOnly(given(input, beside)));
  return { traps: airTraps(terrain, input.direction as Vec3, input.pourPoint as Vec3 | undefined) };
}

export function bestTiltFile(input: v.InferOutput<typeof bestTiltSchema>, beside?: Beside) {
  const terrain = terrainOf(closedOnly(given(input, beside)));
  return bestTilt(
    terrain,
    input.direction as Vec3,
    input.coneDeg,
    input.pourPoint as Vec3 | undefined,
    beside?.progress,
  );
}

export function levelFile(input: v.InferOutput<typeof levelSchema>, beside?: Beside) {
  const mesh = closedOnly(given(input, beside));
  const wish = input.heightMm !== undefined ? { heightMm: input.heightMm } : { volumeMl: input.volumeMl as number };
  return level(mesh, input.direction as Vec3, wish);
}

export function partingFile(input: v.InferOutput<typeof partingSchema>, beside?: Beside) {
  const mesh = closedOnly(given(input, beside));
  const { caughtPerTriangle, ...found } = input.direction
    ? parting(mesh, input.direction as Vec3, beside?.progress)
    : bestParting(mesh, beside?.progress).best;
  return { ...found, ...asList(caughtPerTriangle, input.map) };
}

export async function thicknessFile(input: v.InferOutput<typeof thicknessSchema>, beside?: Beside) {
  const { thickness } = await import('./thickness.ts');
  const { perTriangleMm, ...found } = thickness(closedOnly(given(input, beside)), beside?.progress);
  return { ...found, ...asList(perTriangleMm, input.map) };
}

export async function toolReachFile(input: v.InferOutput<typeof toolReachSchema>, beside?: Beside) {
  const { toolReach } = await import('./toolReach.ts');
  const mesh = closedOnly(given(input, beside));
  const way = input.direction as Vec3;
  const planeMm = input.partingMm ?? parting(mesh, way).planeMm;
  const { perTriangleMm, ...found } = toolReach(mesh, way, input.ballMm, planeMm, beside?.progress);
  return { ...found, partingMm: planeMm, ...asList(perTriangleMm, input.map) };
}

export function specOf(input: v.InferOutput<typeof sculptSchema>) {
  if (input.start !== undefined && input.spec !== undefined)
    throw new Failure('invalid-input', 'Give a starting shape or a spec, not both.', 'spec');
  const spec = input.spec ?? STARTS.find((start) => start.id === (input.start ?? 'paddle'))?.spec;
  return spec as NonNullable<typeof spec>;
}

export async function sculptFigures(input: v.InferOutput<typeof sculptSchema>) {
  const spec = specOf(input);
  const { loadModeller, sculpt } = await import('./sculpt.ts');
  return { ...measure(sculpt(await loadModeller(), spec)), tail: tailOf(spec) };
}
