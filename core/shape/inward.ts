import { boundsOf, type Mesh, triangleCount } from './mesh.ts';
import { Rays } from './rays.ts';

/** A solid with how far plastic goes in behind each of its triangles. */
export interface Inward {
  /** Plastic behind the middle of each triangle, square to it, mm. */
  mm: Float32Array;
  /** That middle: share of the length from the nose, height over the bait's middle in mm. */
  along: Float32Array;
  high: Float32Array;
  /** How much higher it gets a mm inwards. */
  rise: Float32Array;
}

/** Starts a little inside, so that a ray does not meet the face that it leaves, mm. */
const SKIN_MM = 1e-4;

/**
 * How thick a bait is behind its skin, triangle by triangle.
 * @param mesh closed, mm. Source: distance to the first face met from inside along the inward normal.
 */
export function inwardOf(mesh: Mesh): Inward {
  const rays = new Rays(mesh);
  const { positions: p, triangles: t } = mesh;
  const { min, max } = boundsOf(p);
  const count = triangleCount(mesh);
  const made = () => new Float32Array(count);
  const found: Inward = { mm: made(), along: made(), high: made(), rise: made() };
  for (let i = 0; i < count; i++) {
    const [a, b, c] = [3 * (t[3 * i] as number), 3 * (t[3 * i + 1] as number), 3 * (t[3 * i + 2] as number)];
    const at = (corner: number, axis: number) => p[corner + axis] as number;
    const edge = (to: number, axis: number) => at(to, axis) - at(a, axis);
    const nx = edge(b, 1) * edge(c, 2) - edge(b, 2) * edge(c, 1);
    const ny = edge(b, 2) * edge(c, 0) - edge(b, 0) * edge(c, 2);
    const nz = edge(b, 0) * edge(c, 1) - edge(b, 1) * edge(c, 0);
    const size = Math.hypot(nx, ny, nz) || 1;
    const middle = [0, 1, 2].map((axis) => (at(a, axis) + at(b, axis) + at(c, axis)) / 3) as [number, number, number];
    const inward: [number, number, number] = [-nx / size, -ny / size, -nz / size];
    const from: [number, number, number] = [
      middle[0] + inward[0] * SKIN_MM,
      middle[1] + inward[1] * SKIN_MM,
      middle[2] + inward[2] * SKIN_MM,
    ];
    found.mm[i] = (rays.first(from, inward, true)?.distance ?? 0) + SKIN_MM;
    found.along[i] = (middle[0] - min[0]) / (max[0] - min[0] || 1);
    found.high[i] = middle[2] - (min[2] + max[2]) / 2;
    found.rise[i] = inward[2];
  }
  return found;
}
