import { moved } from '../core/shape/mesh.ts';
import { sphere } from '../core/shape/testing.ts';

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;

/** The median of several runs after one to warm up, ms. */
export function timed(run: () => unknown, runs: number): number {
  run();
  return median(
    Array.from({ length: runs }, () => {
      const start = performance.now();
      run();
      return performance.now() - start;
    }),
  );
}

/** As long as a bait, with twelve ribs: nothing in it is flat, and the ribs are undercut from the front. */
export const ribbed = (triangles: number) =>
  moved(sphere(1, triangles), ([x, y, z]) => {
    const swell = 1 + 0.06 * Math.cos(12 * Math.PI * x);
    return [55 * x, 9 * y * swell, 8 * z * swell];
  });
