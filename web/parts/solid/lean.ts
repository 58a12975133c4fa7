import { minus, type Vec3 } from '../../../core/shape/mesh.ts';

/** Which end of the bait is lifted by a tilt away from `up`. */
export function leanWord(direction: Vec3, up: Vec3): string {
  const lean = minus(direction, up);
  const most = lean.map(Math.abs).indexOf(Math.max(...lean.map((part, k) => (up[k] === 0 ? Math.abs(part) : 0))));
  const ends = [
    ['nose', 'tail'],
    ['left side', 'right side'],
    ['belly', 'back'],
  ][most] as [string, string];
  return `${(lean[most] as number) < 0 ? ends[0] : ends[1]} higher`;
}
