import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { axisOf, mustBend } from './axis.ts';
import { body, gillPlates } from './body.ts';
import { cuts } from './cuts.ts';
import { GRAIN, type Grain, RAD } from './grain.ts';
import { fins, limbs } from './limbs.ts';
import { boundsOf, type Mesh, moved, pruned, triangleCount, type Vec3 } from './mesh.ts';
import { outlineOf } from './outline.ts';
import { meshOf, Solids } from './solids.ts';
import type { ShapeSpec } from './spec.ts';
import { tails } from './tails.ts';
import { shellsOf, topologyOf } from './topology.ts';

/** Slivers below this are dissolved, so that a file in single precision is still closed, mm. */
const SLIVER_MM = 2e-3;
/** Crumbs and bubbles smaller than this, left where cuts graze a surface, are no part of a bait, mm³. */
const CRUMB_MM3 = 1;
/** Longest side of a triangle that is bent, mm. */
const BENT_SIDE_MM = 2.5;

let solver: Promise<ManifoldToplevel> | undefined;

/** The solid modeller; `wasmUrl` is where a page finds it, in Node it finds itself. */
export function loadModeller(wasmUrl?: string): Promise<ManifoldToplevel> {
  solver ??= import('manifold-3d').then(async ({ default: make }) => {
    const loaded = await make((wasmUrl ? { locateFile: () => wasmUrl } : undefined) as never);
    loaded.setup();
    return loaded;
  });
  return solver;
}

/** Six times the volume under one triangle, mm³. */
function sixfold({ positions: p, triangles: t }: Mesh, triangle: number): number {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * (t[3 * triangle + k] as number)) as [number, number, number];
  const [ax, ay, az] = [p[a] as number, p[a + 1] as number, p[a + 2] as number];
  const [bx, by, bz] = [p[b] as number, p[b + 1] as number, p[b + 2] as number];
  const [cx, cy, cz] = [p[c] as number, p[c + 1] as number, p[c + 2] as number];
  return ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
}

function withoutCrumbs(mesh: Mesh): Mesh {
  const { shell, shells } = shellsOf(mesh, topologyOf(mesh));
  if (shells < 2) return mesh;
  const volumes = new Float64Array(shells);
  for (let n = 0; n < triangleCount(mesh); n++) {
    const at = shell[n] as number;
    volumes[at] = (volumes[at] as number) + sixfold(mesh, n) / 6;
  }
  const stays = (corner: number) => Math.abs(volumes[shell[Math.floor(corner / 3)] as number] as number) >= CRUMB_MM3;
  return pruned({ positions: mesh.positions, triangles: mesh.triangles.filter((_, corner) => stays(corner)) });
}

/** What a carving hand does, to corners only, so that nothing opens. */
function carve({ positions, triangles }: Mesh, { taper, bendMm }: ShapeSpec['carved'], wholeMm: number): Mesh {
  if (taper === 0 && bendMm === 0) return { positions, triangles };
  const out = positions.slice();
  for (let i = 0; i < out.length; i += 3) {
    const share = (out[i] as number) / wholeMm;
    const scale = 1 - taper * (share - 0.5);
    out[i + 1] = (out[i + 1] as number) * scale + bendMm * share * share;
    out[i + 2] = (out[i + 2] as number) * scale;
  }
  return { positions: out, triangles };
}

/** A mesh that was brought, as large, turned and set as the spec says: about its own middle. */
function placed(mesh: Mesh, { scale, turnDeg, toMm }: NonNullable<ShapeSpec['brought']>): Mesh {
  const { min, max } = boundsOf(mesh.positions);
  const middle = min.map((low, k) => (low + (max[k] as number)) / 2) as Vec3;
  const turn =
    (a: number, b: number, deg: number) =>
    (p: Vec3): Vec3 => {
      const [s, c] = [Math.sin(deg * RAD), Math.cos(deg * RAD)];
      const out: Vec3 = [...p];
      [out[a], out[b]] = [(p[a] as number) * c - (p[b] as number) * s, (p[a] as number) * s + (p[b] as number) * c];
      return out;
    };
  const [aboutX, aboutY, aboutZ] = [turn(1, 2, turnDeg.x), turn(2, 0, turnDeg.y), turn(0, 1, turnDeg.z)];
  return moved(mesh, (p) => {
    const [x, y, z] = aboutZ(aboutY(aboutX(p.map((at, k) => (at - (middle[k] as number)) * scale) as Vec3)));
    return [x + toMm.x, y + toMm.y, z + toMm.z];
  });
}

/** The solid bent along its axis, its long sides parted first so that they follow. */
function bent(solids: Solids, solid: Manifold, spec: ShapeSpec, reachOf: (s: number) => [number, number]): Manifold {
  mustBend(spec, reachOf);
  const axis = axisOf(spec);
  const fine = meshOf(solids.keep(solid.refineToLength(BENT_SIDE_MM)));
  return solids.solid(
    moved(fine, ([x, y, z]) => {
      const [to, up] = axis.place(x, z);
      return [to, y, up];
    }),
  );
}

/**
 * The solid that a spec describes: always closed, since it is made of closed parts joined and cut as solids.
 * @param kit from `loadModeller`. @param meshes by id, those that were brought: closed, mm.
 * @returns a mesh in mm, x from nose to tail.
 * @throws Failure `nothing-left` when the cuts take all of it, `does-not-fit` for a bend or a hollow that cannot be,
 *   `no-such-record` when a brought mesh is not among `meshes`.
 */
export function sculpt(
  kit: ManifoldToplevel,
  spec: ShapeSpec,
  grain: Grain = 'fine',
  meshes?: ReadonlyMap<string, Mesh>,
): Mesh {
  const g = GRAIN[grain];
  const solids = new Solids(kit);
  try {
    const { sectionAt, endMm } = outlineOf(spec);
    const parts = [body(spec, g), ...tails(spec, endMm, g), ...limbs(spec, sectionAt, g), ...fins(spec, sectionAt, g)];
    const whole = solids.keep(
      kit.Manifold.union([
        ...parts.map((part) => solids.solid(part)),
        ...(spec.gills ? gillPlates(solids, spec, spec.gills, sectionAt, g) : []),
      ]),
    );
    const removed = cuts(solids, spec, sectionAt, g);
    let solid = removed.length === 0 ? whole : solids.keep(kit.Manifold.difference([whole, ...removed]));
    if (spec.bends.length > 0)
      solid = bent(solids, solid, spec, (s) => {
        const { top, bottom } = sectionAt(Math.min(s, endMm));
        return [top, bottom];
      });
    if (spec.brought) {
      const mesh = meshes?.get(spec.brought.meshId);
      if (!mesh) throw new Failure('no-such-record', 'The mesh that it was joined with is not there.', 'brought');
      const other = solids.solid(placed(mesh, spec.brought));
      solid = solids.keep(spec.brought.how === 'join' ? solid.add(other) : solid.subtract(other));
    }
    if (spec.cutFlatMm !== null) {
      const low =
        spec.bends.length > 0
          ? solid.boundingBox().min[2]
          : Math.min(...Array.from({ length: 41 }, (_, i) => -sectionAt((spec.bodyMm * i) / 40).bottom));
      solid = solids.keep(solid.trimByPlane([0, 0, 1], low + spec.cutFlatMm));
    }
    const mesh = withoutCrumbs(meshOf(solids.keep(solid.simplify(SLIVER_MM))));
    if (mesh.triangles.length === 0)
      throw new Failure('nothing-left', 'Slots, bore and cut take all of it away; make one of them smaller.', 'spec');
    return carve(mesh, spec.carved, endMm + spec.tail.lengthMm);
  } finally {
    solids.clear();
  }
}
