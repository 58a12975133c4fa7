import { doubleNormals, type Mesh } from '../../core/shape/mesh.ts';

/** A mesh as a screen draws it: corners of each triangle on their own, with normals that keep creases sharp. */
export interface Drawn {
  /** Nine numbers a triangle, mm. */
  positions: Float32Array<ArrayBuffer>;
  normals: Float32Array<ArrayBuffer>;
}

/** Neighbours that meet at less than this are shaded as one smooth skin: cosine of 38°. */
const SMOOTH = Math.cos((38 * Math.PI) / 180);

export function drawn(mesh: Mesh): Drawn {
  const { triangles: t, positions: p } = mesh;
  const doubles = doubleNormals(mesh);
  const sizes = new Float64Array(t.length / 3);
  for (let n = 0; n < sizes.length; n++)
    sizes[n] = Math.hypot(doubles[3 * n] as number, doubles[3 * n + 1] as number, doubles[3 * n + 2] as number) || 1;
  const start = new Int32Array(p.length / 3 + 1);
  for (const at of t) (start[at + 1] as number)++;
  for (let c = 0; c + 1 < start.length; c++) (start[c + 1] as number) += start[c] as number;
  const fill = start.slice();
  const around = new Int32Array(t.length);
  for (let i = 0; i < t.length; i++) around[(fill[t[i] as number] as number)++] = Math.floor(i / 3);
  const positions = new Float32Array(3 * t.length);
  const normals = new Float32Array(3 * t.length);
  for (let i = 0; i < t.length; i++) {
    const corner = t[i] as number;
    const own = Math.floor(i / 3);
    let [x, y, z] = [0, 0, 0];
    for (let k = start[corner] as number; k < (start[corner + 1] as number); k++) {
      const other = around[k] as number;
      const [ax, ay, az] = [
        doubles[3 * other] as number,
        doubles[3 * other + 1] as number,
        doubles[3 * other + 2] as number,
      ];
      const along =
        (ax * (doubles[3 * own] as number) +
          ay * (doubles[3 * own + 1] as number) +
          az * (doubles[3 * own + 2] as number)) /
        ((sizes[other] as number) * (sizes[own] as number));
      if (other !== own && along < SMOOTH) continue;
      x += ax;
      y += ay;
      z += az;
    }
    const size = Math.hypot(x, y, z) || 1;
    for (let k = 0; k < 3; k++) positions[3 * i + k] = p[3 * corner + k] as number;
    normals[3 * i] = x / size;
    normals[3 * i + 1] = y / size;
    normals[3 * i + 2] = z / size;
  }
  return { positions, normals };
}
