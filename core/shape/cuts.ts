import type { Manifold } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { bodyRing } from './body.ts';
import { many } from './grain.ts';
import type { Mesh } from './mesh.ts';
import { halfAt, type Section } from './outline.ts';
import type { Solids } from './solids.ts';
import type { ShapeSpec } from './spec.ts';
import { rounded, sweep } from './sweep.ts';

/** A groove with round ends, cut from below or above. */
function slot(
  solids: Solids,
  spec: ShapeSpec,
  cut: NonNullable<ShapeSpec['bellySlot']>,
  sectionAt: (x: number) => Section,
  under: boolean,
): Manifold {
  const { Manifold } = solids.kit;
  const [from, to] = [cut.fromAt, cut.toAt].sort((a, b) => a - b).map((at) => at * spec.bodyMm) as [number, number];
  const { top, bottom } = sectionAt((from + to) / 2);
  const depth = cut.depthMm;
  const tall = depth + 60;
  const z = under ? -bottom + depth - tall : top - depth;
  const end = (x: number) =>
    solids.keep(solids.keep(Manifold.cylinder(tall, cut.widthMm / 2, cut.widthMm / 2, 20)).translate([x, 0, z]));
  return solids.keep(Manifold.hull([end(from), end(Math.max(to, from + 0.1))]));
}

/** Everything that is cut out of a shape: sockets, slots, bore, mouth, hollow. */
export function cuts(solids: Solids, spec: ShapeSpec, sectionAt: (x: number) => Section, g: number): Manifold[] {
  const { Manifold } = solids.kit;
  const out: Manifold[] = [];
  if (spec.eyes) {
    const { diameterMm, at, upMm } = spec.eyes;
    const x = at * spec.bodyMm;
    const y = halfAt(sectionAt(x), upMm);
    for (const side of [1, -1])
      out.push(solids.keep(solids.keep(Manifold.sphere(diameterMm / 2, 24)).translate([x, side * y, upMm])));
  }
  if (spec.mouth) out.push(gape(solids, spec.mouth, sectionAt));
  if (spec.hollow) out.push(solids.solid(inside(spec, spec.hollow, sectionAt, g)));
  if (spec.bellySlot) out.push(slot(solids, spec, spec.bellySlot, sectionAt, true));
  if (spec.topSlot) out.push(slot(solids, spec, spec.topSlot, sectionAt, false));
  if (spec.bore) {
    const { diameterMm, upMm } = spec.bore;
    const [from, to] = [spec.bore.fromAt, spec.bore.toAt].sort((a, b) => a - b).map((at) => at * spec.bodyMm) as [
      number,
      number,
    ];
    // Open ends are cut a little beyond, so that no skin stays over them.
    const start = from <= 0 ? -5 : from;
    const rod = solids.keep(Manifold.cylinder(Math.max(0.1, to - start), diameterMm / 2, diameterMm / 2, 40));
    out.push(solids.keep(solids.keep(rod.rotate([0, 90, 0])).translate([start, 0, upMm])));
  }
  return out;
}

/** A wedge right across the head, wide at the lips, rounded at the corner of the mouth. */
function gape(
  solids: Solids,
  { depthMm, gapMm, upMm }: NonNullable<ShapeSpec['mouth']>,
  sectionAt: (x: number) => Section,
): Manifold {
  const wide = 2 * sectionAt(depthMm).half + 20;
  const roll = (x: number, radius: number) =>
    solids.keep(
      solids
        .keep(solids.keep(solids.kit.Manifold.cylinder(wide, radius, radius, 24, true)).rotate([90, 0, 0]))
        .translate([x, 0, upMm]),
    );
  const corner = Math.max(0.15, 0.22 * gapMm);
  return solids.keep(solids.kit.Manifold.hull([roll(Math.max(0, depthMm - corner), corner), roll(-1, gapMm / 2)]));
}

/** The room inside a hollow body: its own outline, smaller by the wall all round. */
function inside(
  spec: ShapeSpec,
  { skinMm, fromAt, toAt }: NonNullable<ShapeSpec['hollow']>,
  sectionAt: (x: number) => Section,
  g: number,
): Mesh {
  const [from, to] = [Math.min(fromAt, toAt) * spec.bodyMm, Math.max(fromAt, toAt) * spec.bodyMm];
  const rings = rounded(many(40, g)).map((share) => {
    const x = from + share * (to - from);
    const { top, bottom, half } = sectionAt(x);
    const least = Math.min((top + bottom) / 2, half) - skinMm;
    const end = Math.sqrt(Math.max(0.0025, 1 - (2 * share - 1) ** 4));
    const size = (mm: number) => Math.max(0.05, (mm - skinMm) * end);
    return {
      least,
      ring: bodyRing(x, { top: size(top), bottom: size(bottom), half: size(half) }, spec.flatBelly, many(36, g)),
    };
  });
  if (to - from < 1 || rings.every(({ least }) => least < LEAST_ROOM_MM))
    throw new Failure(
      'does-not-fit',
      'Its wall leaves no room for a hollow there; make it thinner, or the body thicker.',
      'hollow',
    );
  return sweep(rings.map(({ ring }) => ring));
}

const LEAST_ROOM_MM = 0.4;
