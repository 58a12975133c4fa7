import { doubleNormals, type Mesh, triangleCount, type Vec3 } from './mesh.ts';

/** A place on the surface, the outward unit normal there and how much of the surface it stands for. */
export interface Sample {
  triangle: number;
  point: Vec3;
  normal: Vec3;
  areaMm2: number;
}

/** Most places one triangle is looked at in, along a side. */
const MOST_ALONG = 24;

/**
 * Places spread over the surface: one a triangle, more where triangles are large, so that a box of twelve triangles is
 * looked at as closely as a bait of a hundred thousand.
 * @param wanted about how many; where there are far more triangles than that, every so many-th stands for the others.
 */
export function samplesOf(mesh: Mesh, wanted = 20_000): Sample[] {
  const normals = doubleNormals(mesh);
  const count = triangleCount(mesh);
  const areas = new Float64Array(count);
  let total = 0;
  for (let t = 0; t < count; t++) {
    const [x, y, z] = [normals[3 * t] as number, normals[3 * t + 1] as number, normals[3 * t + 2] as number];
    // Not Math.hypot: it takes ten times as long, and nothing here is near its limits.
    const area = Math.sqrt(x * x + y * y + z * z) / 2;
    areas[t] = area;
    total += area;
  }
  const share = total / wanted;
  const { positions: p, triangles: index } = mesh;
  const out: Sample[] = [];
  // Odd, so that a mesh drawn in pairs of triangles is not looked at on one side of its pairs only.
  const every = 2 * Math.max(0, Math.round((count / wanted - 1) / 2)) + 1;
  for (let t = 0; t < count; t += every) {
    const area = areas[t] as number;
    if (!(area > 1e-12)) continue;
    const normal: Vec3 = [
      (normals[3 * t] as number) / (2 * area),
      (normals[3 * t + 1] as number) / (2 * area),
      (normals[3 * t + 2] as number) / (2 * area),
    ];
    const along = Math.min(MOST_ALONG, Math.max(1, Math.round(Math.sqrt(area / share))));
    const [a, b, c] = [
      3 * (index[3 * t] as number),
      3 * (index[3 * t + 1] as number),
      3 * (index[3 * t + 2] as number),
    ];
    for (let i = 0; i < along; i++) {
      for (let j = 0; j < 2 * (along - i) - 1; j++) {
        // Middles of the small triangles that `along` cuts a side make.
        const down = j % 2;
        const half = (j - down) / 2;
        const u = (i + (down ? 2 / 3 : 1 / 3)) / along;
        const w = (half + (down ? 2 / 3 : 1 / 3)) / along;
        const rest = 1 - u - w;
        const point: Vec3 = [
          rest * (p[a] as number) + u * (p[b] as number) + w * (p[c] as number),
          rest * (p[a + 1] as number) + u * (p[b + 1] as number) + w * (p[c + 1] as number),
          rest * (p[a + 2] as number) + u * (p[b + 2] as number) + w * (p[c + 2] as number),
        ];
        out.push({ triangle: t, point, normal, areaMm2: (every * area) / (along * along) });
      }
    }
  }
  return out;
}

/**
 * Values of all triangles from those that were looked at: one that was passed over takes that of the last before it,
 * which in a drawn mesh is a near one. Values below zero stand for “not asked about” and are not handed on.
 * @param asked whether a triangle that was passed over is asked about at all.
 */
export function filledIn(values: Float32Array, samples: Sample[], asked: (triangle: number) => boolean = () => true) {
  const seen = new Uint8Array(values.length);
  for (const { triangle } of samples) seen[triangle] = 1;
  let last = 0;
  for (let t = 0; t < values.length; t++) {
    const value = values[t] as number;
    if (seen[t]) last = value < 0 ? last : value;
    else if (value <= 0 && asked(t)) values[t] = last;
  }
  return values;
}
