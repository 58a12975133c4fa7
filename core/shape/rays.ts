import { BackSide, BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import type { Mesh, Vec3 } from './mesh.ts';

/** Where a ray meets a mesh, and what of it is nearest a point: a tree of boxes over the triangles. */
export class Rays {
  private readonly tree: MeshBVH;
  private readonly ray = new Ray(new Vector3(), new Vector3());
  private readonly point = new Vector3();

  constructor(mesh: Mesh) {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(new Float32Array(mesh.positions), 3));
    geometry.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
    this.tree = new MeshBVH(geometry, { indirect: true, targetLeafSize: 6 } as ConstructorParameters<
      typeof MeshBVH
    >[1]);
  }

  /**
   * The first face met along a unit direction, only faces seen from inside when `leaving`: how far it is, and how
   * squarely it is met (1: head on).
   */
  first([x, y, z]: Vec3, [dx, dy, dz]: Vec3, leaving: boolean): { distance: number; square: number } | undefined {
    this.ray.origin.set(x, y, z);
    this.ray.direction.set(dx, dy, dz);
    const hit = this.tree.raycastFirst(this.ray, leaving ? BackSide : DoubleSide);
    if (!hit) return undefined;
    const normal = hit.face?.normal;
    return { distance: hit.distance, square: normal ? Math.abs(normal.dot(this.ray.direction)) : 1 };
  }

  /** Nearest point of the surface and how far it is, mm. */
  nearest([x, y, z]: Vec3, within = Number.POSITIVE_INFINITY): { point: Vec3; distance: number } | undefined {
    this.point.set(x, y, z);
    const hit = this.tree.closestPointToPoint(this.point, undefined, 0, within);
    // A leaf that was opened may hold something a little farther than asked for.
    return hit && hit.distance <= within
      ? { point: [hit.point.x, hit.point.y, hit.point.z], distance: hit.distance }
      : undefined;
  }
}
