import type { Manifold } from 'manifold-3d';
import { dot, doubleNormals, type Mesh, minus, unit, type Vec3 } from '../shape/mesh.ts';
import type { Arranged } from './arranged.ts';
import type { Shop } from './shop.ts';

/** Stands off the mold's face while it burns, mm; and the plate it is held by. */
const STAND_OFF_MM = 3;
const PLATE_MM = 10;
const MARGIN_MM = 12;
/** Two holes that both electrodes and both halves are set by. */
export const LOCATING_MM = 6;

/** Beyond this a sharp corner is not followed further: it would run away along its own edge. */
const MOST_MITRE = 2;

/**
 * A mesh whose every face has moved in by `byMm`: each corner along the mean of its faces' normals, by the angle they
 * meet it at, as far as the least turned of them asks. For a spark gap, far thinner than any detail.
 */
export function drawnIn(mesh: Mesh, byMm: number): Mesh {
  const { positions: p, triangles: t } = mesh;
  const doubled = doubleNormals(mesh);
  const normalOf = (triangle: number): Vec3 => unit([0, 1, 2].map((k) => doubled[3 * triangle + k] as number) as Vec3);
  const sums = new Float64Array(p.length);
  const at = (corner: number): Vec3 => [
    p[3 * corner] as number,
    p[3 * corner + 1] as number,
    p[3 * corner + 2] as number,
  ];
  for (let i = 0; i < t.length; i++) {
    const first = i - (i % 3);
    const [me, next, last] = [i, first + ((i + 1) % 3), first + ((i + 2) % 3)].map((k) => t[k] as number) as Vec3;
    const [a, b] = [unit(minus(at(next), at(me))), unit(minus(at(last), at(me)))];
    const angle = Math.acos(Math.min(1, Math.max(-1, dot(a, b))));
    const normal = normalOf(first / 3);
    for (let k = 0; k < 3; k++) sums[3 * me + k] = (sums[3 * me + k] as number) + angle * (normal[k] as number);
  }
  const facing = new Float64Array(p.length / 3).fill(1);
  const means = Array.from({ length: p.length / 3 }, (_, c) =>
    unit([sums[3 * c] as number, sums[3 * c + 1] as number, sums[3 * c + 2] as number]),
  );
  t.forEach((corner, i) => {
    const along = dot(means[corner] as Vec3, normalOf(Math.floor(i / 3)));
    facing[corner] = Math.min(facing[corner] as number, along);
  });
  const positions = p.slice();
  means.forEach((mean, c) => {
    const by = byMm * Math.min(MOST_MITRE, 1 / Math.max(1e-6, facing[c] as number));
    for (let k = 0; k < 3; k++) positions[3 * c + k] = (positions[3 * c + k] as number) - by * (mean[k] as number);
  });
  return { positions, triangles: t };
}

/**
 * The electrodes that spark one cavity into the lower and the upper half: smaller than it all round by the gap, each on
 * a plate with the same two locating holes. Z points as in the closed mold.
 */
export function electrodes(
  shop: Shop,
  cavity: Mesh,
  { min, max }: Arranged,
  gapMm: number,
): { lower: Manifold; upper: Manifold } {
  const small = shop.solid(drawnIn(cavity, gapMm));
  const make = (way: 1 | -1): Manifold => {
    const half = shop.beyond(small, [0, 0, way], 0);
    const outline = small.slice(way * 1e-4);
    const neck = shop.keep(outline.extrude(STAND_OFF_MM + 0.5));
    outline.delete();
    const plateFrom = STAND_OFF_MM;
    const plate = shop.box(
      [min[0] - MARGIN_MM, min[1] - MARGIN_MM, plateFrom],
      [max[0] + MARGIN_MM, max[1] + MARGIN_MM, plateFrom + PLATE_MM],
    );
    const y = (min[1] + max[1]) / 2;
    const holes = [min[0] - MARGIN_MM / 2, max[0] + MARGIN_MM / 2].map((x) =>
      shop.rod('z', [x, y, plateFrom - 1], PLATE_MM + 2, LOCATING_MM / 2),
    );
    const held = shop.less(shop.all([neck, plate]), holes);
    // Plate and neck stand on the other side of the parting plane than the half that is burnt.
    const away = way === 1 ? shop.keep(held.mirror([0, 0, 1])) : held;
    return shop.all([half, away]);
  };
  return { lower: make(-1), upper: make(1) };
}
