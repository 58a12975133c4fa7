import type { Manifold } from 'manifold-3d';
import type { Vec3 } from '../shape/mesh.ts';
import { Solids } from '../shape/solids.ts';

/** Facets of what is round. */
export const ROUND = 32;

/** Where one cavity lies: its own origin moved, and turned round so that its tail lies to the left. */
export interface Pose {
  x: number;
  y: number;
  turned: boolean;
}

export const ml = (solid: Manifold) => solid.volume() / 1000;

/** Where a mold’s blocks, rods and boxes are made. */
export class Shop extends Solids {
  box(low: Vec3, high: Vec3): Manifold {
    const size = high.map((value, k) => value - (low[k] as number)) as Vec3;
    return this.keep(this.keep(this.kit.Manifold.cube(size)).translate(low));
  }
  /** From one place to another along x, y or z, its radius growing from `r0` to `r1`. */
  rod(axis: 'x' | 'y' | 'z', from: Vec3, long: number, r0: number, r1 = r0): Manifold {
    const up = this.keep(this.kit.Manifold.cylinder(long, r0, r1, ROUND));
    const turned = axis === 'z' ? up : this.keep(up.rotate(axis === 'x' ? [0, 90, 0] : [-90, 0, 0]));
    return this.keep(turned.translate(from));
  }
  ball(at: Vec3, radius: number): Manifold {
    return this.keep(this.keep(this.kit.Manifold.sphere(radius, ROUND)).translate(at));
  }
  all(parts: Manifold[]): Manifold {
    return this.keep(this.kit.Manifold.union(parts));
  }
  /** The same where none touches another: nothing is looked for, so it costs next to nothing. */
  beside(parts: Manifold[]): Manifold {
    return parts.length === 1 ? (parts[0] as Manifold) : this.keep(this.kit.Manifold.compose(parts));
  }
  less(one: Manifold, parts: Manifold[]): Manifold {
    return parts.length === 0 ? one : this.keep(this.kit.Manifold.difference([one, ...parts]));
  }
  both(parts: Manifold[]): Manifold {
    return this.keep(this.kit.Manifold.intersection(parts));
  }
  moved(solid: Manifold, by: Vec3): Manifold {
    return this.keep(solid.translate(by));
  }
  /** What lies beyond a plane with this normal, that far from the origin along it. */
  beyond(solid: Manifold, normal: Vec3, from: number): Manifold {
    return this.keep(solid.trimByPlane(normal, from));
  }
  /** Without the crumbs that a grazing cut leaves beside it, each under a cubic millimetre. */
  withoutCrumbs(solid: Manifold): Manifold {
    const pieces = solid.decompose().map((piece) => this.keep(piece));
    const large = pieces.filter((piece) => piece.volume() > 1);
    return large.length === pieces.length || large.length === 0 ? solid : this.beside(large);
  }
  /** Worked out now: what is set in several places would be worked out anew for each. */
  done(solid: Manifold): Manifold {
    solid.numTri();
    return solid;
  }
  set(solid: Manifold, { x, y, turned }: Pose): Manifold {
    const faced = turned ? this.keep(solid.rotate([0, 0, 180])) : solid;
    return this.keep(faced.translate([x, y, 0]));
  }
}
