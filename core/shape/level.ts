import { Failure } from '../failure.ts';
import { ml, mm, say } from '../units/say.ts';
import { cross, dot, type Mesh, triangleCount, unit, type Vec3 } from './mesh.ts';

const MM3_PER_ML = 1000;

/** Heights of a mesh's corners along a direction, mm, and twice the area of each triangle as seen along it. */
interface Standing {
  heights: Float64Array;
  seen: Float64Array;
  low: number;
  high: number;
}

function standing({ positions: p, triangles: t }: Mesh, direction: Vec3): Standing {
  const d = unit(direction);
  const heights = new Float64Array(p.length / 3);
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < heights.length; i++) {
    const height = (p[3 * i] as number) * d[0] + (p[3 * i + 1] as number) * d[1] + (p[3 * i + 2] as number) * d[2];
    heights[i] = height;
    low = Math.min(low, height);
    high = Math.max(high, height);
  }
  const corner = (at: number) => Array.from(p.subarray(3 * at, 3 * at + 3)) as Vec3;
  const seen = Float64Array.from({ length: t.length / 3 }, (_, i) => {
    const [a, b, c] = [0, 1, 2].map((k) => corner(t[3 * i + k] as number)) as [Vec3, Vec3, Vec3];
    const side = (to: Vec3): Vec3 => [to[0] - a[0], to[1] - a[1], to[2] - a[2]];
    return dot(cross(side(b), side(c)), d);
  });
  return { heights, seen, low, high };
}

/** Volume below a plane across the direction, mm³: the divergence of (height − plane), which is nothing on the cut itself. */
function below(mesh: Mesh, { heights, seen }: Standing, plane: number): number {
  const t = mesh.triangles;
  let twice = 0;
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [x, y, z] = [0, 1, 2].map((k) => (heights[t[3 * i + k] as number] as number) - plane) as Vec3;
    const [a, b, c] = [Math.min(x, y, z), 0, Math.max(x, y, z)];
    const middle = x + y + z - a - c;
    if (a >= b) continue;
    let mean: number;
    if (c <= 0) mean = (a + middle + c) / 3;
    // One corner is below: a small triangle similar to the whole.
    else if (middle >= 0) mean = ((a / (a - middle)) * (a / (a - c)) * a) / 3;
    // One is above: the whole less what stands over the plane.
    else mean = (a + middle + c) / 3 - ((c / (c - middle)) * (c / (c - a)) * c) / 3;
    twice += (seen[i] as number) * mean;
  }
  return twice / 2;
}

const HALVINGS = 60;

/**
 * How high a solid is filled, or how much fills it to a height: the level is a plane across `direction`.
 * @param mesh closed, mm. @param wish one of a height above the lowest point, mm, and a volume, mL.
 * @returns both. @throws Failure `out-of-range` below the lowest point or over the highest, for a negative volume or more than the whole.
 * Source: divergence theorem over the part below the plane; the height by halving, to the last digit.
 */
export function level(
  mesh: Mesh,
  direction: Vec3,
  wish: { heightMm: number } | { volumeMl: number },
): { heightMm: number; ml: number } {
  const stood = standing(mesh, direction);
  const tall = stood.high - stood.low;
  const at = (heightMm: number) => Math.max(0, below(mesh, stood, stood.low + heightMm) / MM3_PER_ML);
  const whole = at(tall);
  if ('heightMm' in wish) {
    const { heightMm } = wish;
    if (heightMm < 0 || heightMm > tall * (1 + 1e-9))
      throw new Failure(
        'out-of-range',
        say`It is ${mm(tall)} high this way up; ${mm(heightMm)} is outside of it.`,
        'heightMm',
      );
    return { heightMm, ml: at(heightMm) };
  }
  const { volumeMl } = wish;
  if (volumeMl < 0 || volumeMl > whole * (1 + 1e-9))
    throw new Failure('out-of-range', say`It holds ${ml(whole)}; ${ml(volumeMl)} is outside of that.`, 'volumeMl');
  let [from, to] = [0, tall];
  for (let turn = 0; turn < HALVINGS && to - from > 1e-12 * tall; turn++) {
    const middle = (from + to) / 2;
    if (at(middle) < volumeMl) from = middle;
    else to = middle;
  }
  return { heightMm: (from + to) / 2, ml: volumeMl };
}

/**
 * What of a solid lies under levels across a direction.
 * @param fractions of its height that way, 0 to 1. @returns its height, mm, and a share of its volume for each, 0 to 1.
 */
export function sharesBelow(mesh: Mesh, direction: Vec3, fractions: number[]): { tallMm: number; shares: number[] } {
  const stood = standing(mesh, direction);
  const tallMm = stood.high - stood.low;
  const whole = below(mesh, stood, stood.high);
  const shares = fractions.map((to) => Math.min(1, Math.max(0, below(mesh, stood, stood.low + to * tallMm) / whole)));
  return { tallMm, shares };
}
