import { boundsOf, type Mesh } from './mesh.ts';

/** Which way a bait is looked at. */
export const LOOKS = ['side', 'above', 'front'] as const;
export type Look = (typeof LOOKS)[number];

/** How thick a bait is behind each point of a picture of it, and how near its surface comes. */
export interface Chords {
  columns: number;
  rows: number;
  cellMm: number;
  /** Plastic behind each point, mm; 0 beside the bait. Row by row from the top, nose to the left. */
  thickMm: Float32Array;
  /** How near the surface comes to the eye, mm from the bait's middle plane. */
  nearMm: Float32Array;
}

/** Of each look: the axes to the right, up and towards the eye, and which way the first two run. */
const AXES: Record<Look, { right: 0 | 1; up: 1 | 2; eye: 0 | 1 | 2; rightWay: 1 | -1; eyeWay: 1 | -1 }> = {
  side: { right: 0, up: 2, eye: 1, rightWay: 1, eyeWay: -1 },
  above: { right: 0, up: 1, eye: 2, rightWay: 1, eyeWay: 1 },
  front: { right: 1, up: 2, eye: 0, rightWay: 1, eyeWay: -1 },
};
/** Points lie a hair off the grid of a drawn mesh, and off its diagonals, so that none falls on an edge. */
const [OFF_X, OFF_Y] = [0.4871, 0.5217];

/**
 * A bait seen straight on: plastic behind each point along the line of sight, by where surfaces that look towards the eye and away from it
 * lie. Overlapping folds add up, hollows do not count.
 * @param mesh closed, mm. @param columns points along the longer side of the picture.
 */
export function chordsOf(mesh: Mesh, look: Look, columns: number): Chords {
  const { right, up, eye, eyeWay } = AXES[look];
  const { min, max } = boundsOf(mesh.positions);
  const [wide, tall] = [max[right] - min[right], max[up] - min[up]];
  const cellMm = Math.max(wide, tall, 1e-6) / columns;
  const [across, down] = [Math.max(1, Math.ceil(wide / cellMm)), Math.max(1, Math.ceil(tall / cellMm))];
  const middle = (min[eye] + max[eye]) / 2;
  const thickMm = new Float32Array(across * down);
  const nearMm = new Float32Array(across * down).fill(Number.NEGATIVE_INFINITY);
  const { positions: p, triangles: t } = mesh;
  const x = (corner: number) => ((p[3 * corner + right] as number) - min[right]) / cellMm - OFF_X;
  const y = (corner: number) => (max[up] - (p[3 * corner + up] as number)) / cellMm - OFF_Y;
  const z = (corner: number) => eyeWay * ((p[3 * corner + eye] as number) - middle);
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i] as number, t[i + 1] as number, t[i + 2] as number];
    const [ax, ay, az] = [x(a), y(a), z(a)];
    const [bx, by, bz] = [x(b), y(b), z(b)];
    const [cx, cy, cz] = [x(c), y(c), z(c)];
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area === 0) continue;
    const fromY = Math.max(0, Math.ceil(Math.min(ay, by, cy)));
    const toY = Math.min(down - 1, Math.floor(Math.max(ay, by, cy)));
    const fromX = Math.max(0, Math.ceil(Math.min(ax, bx, cx)));
    const toX = Math.min(across - 1, Math.floor(Math.max(ax, bx, cx)));
    for (let row = fromY; row <= toY; row++) {
      for (let column = fromX; column <= toX; column++) {
        const wa = ((bx - column) * (cy - row) - (cx - column) * (by - row)) / area;
        const wb = ((cx - column) * (ay - row) - (ax - column) * (cy - row)) / area;
        const wc = 1 - wa - wb;
        if (wa < 0 || wb < 0 || wc < 0) continue;
        const at = row * across + column;
        const near = wa * az + wb * bz + wc * cz;
        // Seen from the eye a surface that looks towards it winds one way, one that looks away the other.
        const towards = isTowards(look) === area < 0 ? 1 : -1;
        thickMm[at] = (thickMm[at] as number) + towards * near;
        if (near > (nearMm[at] as number)) nearMm[at] = near;
      }
    }
  }
  for (let at = 0; at < thickMm.length; at++) {
    if ((thickMm[at] as number) > 0) continue;
    thickMm[at] = 0;
    nearMm[at] = 0;
  }
  return { columns: across, rows: down, cellMm, thickMm, nearMm };
}

/** Whether right, up and towards the eye are a right-handed set: then rows that run down turn the winding round. */
function isTowards(look: Look): boolean {
  const { right, up, eye, eyeWay } = AXES[look];
  const isCyclic = (right + 1) % 3 === up && (up + 1) % 3 === eye;
  return isCyclic === eyeWay > 0;
}

/** How much of the length counts as the tail, and which of the points as the deep of the body. */
const [TAIL_SHARE, DEEP_SHARE] = [0.12, 0.9];

const at = (sorted: Float32Array, share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;

/** A thin and a thick place of it to judge a colour by: the middle of the tail’s points, and what a tenth of all are thicker than. */
export function thinAndThick({ columns, thickMm }: Chords): { tailMm: number; bodyMm: number } {
  const from = (1 - TAIL_SHARE) * columns;
  const all = thickMm.filter((mm) => mm > 0).sort();
  const tail = thickMm.filter((mm, i) => mm > 0 && i % columns >= from).sort();
  return { tailMm: at(tail, 0.5), bodyMm: at(all, DEEP_SHARE) };
}
