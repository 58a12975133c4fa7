import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import type { Mesh } from './mesh.ts';

/** Solids made on the way; freed together whatever happens. */
export class Solids {
  private readonly made: Manifold[] = [];
  constructor(readonly kit: ManifoldToplevel) {}
  keep(one: Manifold): Manifold {
    this.made.push(one);
    return one;
  }
  solid(mesh: Mesh): Manifold {
    const held = new this.kit.Mesh({
      numProp: 3,
      vertProperties: Float32Array.from(mesh.positions),
      triVerts: mesh.triangles,
    });
    return this.keep(new this.kit.Manifold(held));
  }
  clear(): void {
    for (const one of this.made) one.delete();
  }
}

/** What a solid's surface is, corners shared. */
export function meshOf(solid: Manifold): Mesh {
  const { numProp, vertProperties, triVerts, mergeFromVert, mergeToVert } = solid.getMesh();
  const count = vertProperties.length / numProp;
  const positions = new Float64Array(3 * count);
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 3; k++) positions[3 * i + k] = vertProperties[numProp * i + k] as number;
  const to = Uint32Array.from({ length: count }, (_, i) => i);
  if (mergeFromVert && mergeToVert)
    for (let i = 0; i < mergeFromVert.length; i++) to[mergeFromVert[i] as number] = mergeToVert[i] as number;
  return { positions, triangles: triVerts.map((at) => to[at] as number) as Uint32Array };
}
