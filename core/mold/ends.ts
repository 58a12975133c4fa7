import type { Mesh, Vec3 } from '../shape/mesh.ts';

/** The middle of what lies at the nose's end (−1) or the tail's (1): a flat end has no tip. */
export function endOf({ positions: p }: Mesh, way: 1 | -1): Vec3 {
  let x = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < p.length; i += 3) x = Math.max(x, way * (p[i] as number));
  const near = (i: number) => way * (p[i] as number) > x - 0.3;
  const middle = (k: 1 | 2) => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = 0; i < p.length; i += 3) {
      if (!near(i)) continue;
      low = Math.min(low, p[i + k] as number);
      high = Math.max(high, p[i + k] as number);
    }
    return (low + high) / 2;
  };
  return [way * x, middle(1), middle(2)];
}
