import { cornerCount, type Mesh, triangleCount } from './mesh.ts';

/**
 * About so many triangles of a surface, for searching on: corners that lie in one cell become the first of them, and what has
 * no area any more goes. Off by a cell at the most. Source: clustering of corners, Rossignac & Borrel 1993.
 * @returns the mesh itself where it has no more.
 */
export function coarsened(mesh: Mesh, wanted: number, areaMm2: number): Mesh {
  if (triangleCount(mesh) <= wanted) return mesh;
  const cell = Math.sqrt((2 * areaMm2) / wanted);
  const { positions: p, triangles: t } = mesh;
  const seen = new Map<number, number>();
  const to = new Uint32Array(cornerCount(mesh));
  const kept: number[] = [];
  for (let c = 0; c < to.length; c++) {
    const [i, j, k] = [0, 1, 2].map((n) => Math.floor((p[3 * c + n] as number) / cell) + 1e5) as [
      number,
      number,
      number,
    ];
    const key = (i * 2e5 + j) * 2e5 + k;
    const found = seen.get(key);
    to[c] = found ?? kept.length / 3;
    if (found !== undefined) continue;
    seen.set(key, kept.length / 3);
    kept.push(p[3 * c] as number, p[3 * c + 1] as number, p[3 * c + 2] as number);
  }
  const triangles: number[] = [];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [to[t[i] as number], to[t[i + 1] as number], to[t[i + 2] as number]] as [number, number, number];
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
  }
  return { positions: Float64Array.from(kept), triangles: Uint32Array.from(triangles) };
}
