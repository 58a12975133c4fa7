import type { ManifoldToplevel } from 'manifold-3d';
import { Failure } from '../failure.ts';
import type { Mesh } from '../shape/mesh.ts';
import { sculpt } from '../shape/sculpt.ts';
import { meshOf } from '../shape/solids.ts';
import type { ShapeSpec } from '../shape/spec.ts';
import type { MoldWish } from './buildWish.ts';
import { boreOf, plugOf } from './channels.ts';
import { Shop } from './shop.ts';

/**
 * The bait as a mold casts it, without its bore or its slots where those are left out.
 * @param spec what it was sculpted from; null for a mesh that was brought: its bore is filled from what the mesh shows.
 * @throws Failure `not-applicable` for slots of a brought mesh, `no-bore`.
 */
export function baitWithout(
  kit: ManifoldToplevel,
  mesh: Mesh,
  spec: ShapeSpec | null,
  without: MoldWish['without'],
  meshes?: ReadonlyMap<string, Mesh>,
): Mesh {
  if (without.length === 0) return mesh;
  if (spec) {
    const noBore = without.includes('bore') ? { bore: null } : {};
    const noSlots = without.includes('slots') ? { bellySlot: null, topSlot: null } : {};
    return sculpt(kit, { ...spec, ...noBore, ...noSlots }, 'fine', meshes);
  }
  if (without.includes('slots'))
    throw new Failure(
      'not-applicable',
      'A mesh that was brought does not tell which of its hollows is a slot: leave it out where it was made.',
      'without',
    );
  const shop = new Shop(kit);
  try {
    return meshOf(shop.all([shop.solid(mesh), shop.rod('x', ...plugOf(boreOf(mesh)))]));
  } finally {
    shop.clear();
  }
}
