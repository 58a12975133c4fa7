import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { type Mesh, pruned, triangleCount, type Vec3 } from './mesh.ts';
import { outlineOf, type Section } from './outline.ts';
import { meshOf, Solids } from './solids.ts';
import type { ShapeSpec } from './spec.ts';
import { ellipse, endRound, type Ring, rounded, sweep } from './sweep.ts';
import { shellsOf, topologyOf } from './topology.ts';

/** How closely a solid is drawn: a draft follows the hand, the fine one is measured and kept. */
export type Grain = 'draft' | 'fine';
const GRAIN: Record<Grain, number> = { draft: 0.45, fine: 1.15 };
/** Points round the body, at grain 1. */
const ROUND = 48;
const many = (count: number, g: number) => Math.max(6, 2 * Math.round((count * g) / 2));
const RAD = Math.PI / 180;
/** What a part is pushed into its neighbour, so that the two are one, mm. */
const OVERLAP = 0.8;
/** Slivers below this are dissolved, so that a file in single precision is still closed, mm. */
const SLIVER_MM = 2e-3;
/** Crumbs and bubbles smaller than this, left where cuts graze a surface, are no part of a bait, mm³. */
const CRUMB_MM3 = 1;

let solver: Promise<ManifoldToplevel> | undefined;

/** The solid modeller; `wasmUrl` is where a page finds it, in Node it finds itself. */
export function loadModeller(wasmUrl?: string): Promise<ManifoldToplevel> {
  solver ??= import('manifold-3d').then(async ({ default: make }) => {
    const loaded = await make((wasmUrl ? { locateFile: () => wasmUrl } : undefined) as never);
    loaded.setup();
    return loaded;
  });
  return solver;
}

function bodyRing(x: number, { top, bottom, half }: Section, flatBelly: number, points: number): Ring {
  return Array.from({ length: points }, (_, k) => {
    const turn = (2 * Math.PI * k) / points;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const power = s < 0 ? 2 + 6 * flatBelly : 2;
    return [
      x,
      half * Math.sign(c) * Math.abs(c) ** (2 / power),
      (s < 0 ? bottom : top) * Math.sign(s) * Math.abs(s) ** (2 / power),
    ];
  });
}

function body(spec: ShapeSpec, g: number): Mesh {
  const { sectionAt, endMm } = outlineOf(spec);
  const nose = Math.min(spec.noseMm, spec.bodyMm * 0.9);
  const step = Math.max(endMm / 260, (spec.ribs ? Math.min(0.9, spec.ribs.widthMm / 5) : 0.9) / g);
  const xs: number[] = [];
  const cap = nose > 0 ? many(14, g) : 1;
  for (let i = 0; i < cap; i++) xs.push(nose * (1 - Math.cos((Math.PI * i) / (2 * cap))));
  const rest = Math.max(8, Math.ceil((endMm - nose) / step));
  for (let i = 0; i <= rest; i++) xs.push(nose + ((endMm - nose) * i) / rest);
  return sweep(xs.map((x) => bodyRing(x, sectionAt(x), spec.flatBelly, many(ROUND, g))));
}

/** Which way a sweep runs decides which half-axis comes first, so that its outside is outside. */
const along = (middle: Vec3, y: number, z: number, points: number, power = 2) =>
  ellipse(middle, [0, y, 0], [0, 0, z], points, power);

/** A disc across the stream, leaning back by `leanDeg`, its rim rounded. */
function disc(g: number, x: number, tall: number, wide: number, thick: number, leanDeg: number): Mesh {
  const [s, c] = [Math.sin(leanDeg * RAD), Math.cos(leanDeg * RAD)];
  return sweep(
    rounded(many(10, g)).map((share) => {
      const off = (share - 0.5) * thick;
      const rim = Math.max(0.05, Math.sqrt(Math.max(0, 1 - (2 * share - 1) ** 4)));
      return ellipse(
        [x + (0.5 * thick + off) * c, 0, -(0.5 * thick + off) * s],
        [0, (wide / 2) * rim, 0],
        [(tall / 2) * rim * s, 0, (tall / 2) * rim * c],
        many(40, g),
      );
    }),
  );
}

function straight(g: number, x: number, length: number, fromY: number, fromZ: number, tip: number): Mesh {
  return sweep(
    rounded(many(26, g)).map((share) => {
      const end = Math.max(0.04, endRound(share, Math.min(0.5, tip / length)));
      const taper = (from: number) => Math.max(tip / 2, from + (tip / 2 - from) * share) * end;
      return along([x + share * length, 0, 0], taper(fromY), taper(fromZ), many(32, g));
    }),
  );
}

function tails(spec: ShapeSpec, endMm: number, g: number): Mesh[] {
  const { kind, lengthMm: length, acrossMm: across, thicknessMm: thick, angleDeg: angle } = spec.tail;
  const x = endMm - Math.min(OVERLAP, spec.wrist.lengthMm / 2);
  const long = length + (endMm - x);
  switch (kind) {
    case 'paddle':
      return [disc(g, x, across, across, thick, Math.min(angle, 80))];
    case 'boot':
      return [disc(g, x, Math.max(across, length), across, thick, Math.min(angle, 80))];
    case 'straight':
      return [straight(g, x, long, spec.wrist.thicknessMm / 2, Math.max(across, 0.6) / 2, thick)];
    case 'twin':
      return [1, -1].map((side) => {
        const lean = side * Math.min(angle, 80) * RAD;
        const root = Math.min(across, spec.wrist.heightMm) / 2;
        const one = straight(g, 0, long, root, root, thick);
        return turned(one, lean, [x, side * (root * 0.6), 0]);
      });
    case 'beaver':
      return [
        sweep(
          rounded(many(28, g)).map((share) => {
            const bulge = Math.max(0.06, Math.sin(Math.PI * Math.min(0.995, 0.1 + 0.9 * share)) ** 0.6);
            const neck = spec.wrist.thicknessMm / 2;
            return along(
              [x + share * long, 0, 0],
              Math.max(neck * (1 - share), (across / 2) * bulge),
              (thick / 2) * Math.max(0.3, endRound(share, 0.08)),
              many(40, g),
            );
          }),
        ),
      ];
    case 'ribbon': {
      const waves = 1.5;
      const swing = (Math.tan(Math.min(angle, 60) * RAD) * long) / (2 * Math.PI * waves);
      return [
        sweep(
          rounded(many(64, g)).map((share) => {
            const y = swing * Math.sin(2 * Math.PI * waves * share) * Math.min(1, 3 * share);
            const tall = (across / 2) * (1 - 0.6 * share) * Math.max(0.1, endRound(share, 0.06));
            return along(
              [x + share * long, y, 0],
              (thick / 2) * Math.max(0.25, endRound(share, 0.03)),
              tall,
              many(24, g),
              3,
            );
          }),
        ),
      ];
    }
    case 'curl': {
      const turn = Math.max(20, angle) * RAD;
      const radius = long / turn;
      return [
        sweep(
          rounded(many(56, g)).map((share) => {
            const at = turn * share;
            const tall = (across / 2) * (1 - 0.55 * share) * Math.max(0.1, endRound(share, 0.08));
            const reach = Math.min(tall, radius * 0.9);
            const [s, c] = [Math.sin(at), Math.cos(at)];
            const middle: Vec3 = [x + radius * s, 0, -radius * (1 - c)];
            return ellipse(
              middle,
              [0, (thick / 2) * Math.max(0.25, endRound(share, 0.04)), 0],
              [s * reach, 0, c * reach],
              many(24, g),
              3,
            );
          }),
        ),
      ];
    }
  }
}

/** Turned about the vertical by `turn`, then set at `to`. */
function turned(mesh: Mesh, turn: number, to: Vec3, drop = 0): Mesh {
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  const [sd, cd] = [Math.sin(drop), Math.cos(drop)];
  const positions = new Float64Array(mesh.positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [x0, y, z0] = [mesh.positions[i] as number, mesh.positions[i + 1] as number, mesh.positions[i + 2] as number];
    const [x, z] = [x0 * cd + z0 * sd, z0 * cd - x0 * sd];
    positions[i] = to[0] + x * c - y * s;
    positions[i + 1] = to[1] + x * s + y * c;
    positions[i + 2] = to[2] + z;
  }
  return { positions, triangles: mesh.triangles };
}

function limbs(spec: ShapeSpec, sectionAt: (x: number) => Section, g: number): Mesh[] {
  const out: Mesh[] = [];
  for (const limb of spec.limbs) {
    for (let pair = 0; pair < limb.pairs; pair++) {
      const x = Math.min(spec.bodyMm, limb.at * spec.bodyMm + pair * limb.stepMm);
      const { half } = sectionAt(x);
      const thick = limb.thicknessMm / 2;
      const root = Math.max(0, half - Math.max(OVERLAP, thick));
      for (const side of [1, -1]) {
        const to: Vec3 = [x, side * root, 0];
        const turn = side * limb.angleDeg * RAD;
        const reach = limb.lengthMm + (half - root);
        const arm = limb.kind === 'claw' ? reach * 0.6 : reach;
        out.push(
          turned(
            straight(g / 2, 0, arm, thick, thick, limb.kind === 'claw' ? thick * 1.6 : thick * 0.9),
            turn,
            to,
            limb.dropDeg * RAD,
          ),
        );
        if (limb.kind === 'claw') {
          const pincer = sweep(
            rounded(many(12, g)).map((share) => {
              const bulge = Math.max(0.08, Math.sin(Math.PI * Math.min(0.99, 0.04 + 0.96 * share)) ** 0.7);
              return along(
                [arm * 0.85 + share * (reach - arm * 0.85), 0, 0],
                thick * 2.2 * bulge,
                thick * 1.1 * bulge,
                many(18, g),
              );
            }),
          );
          out.push(turned(pincer, turn, to, limb.dropDeg * RAD));
        }
      }
    }
  }
  return out;
}

function fin(spec: ShapeSpec, sectionAt: (x: number) => Section, g: number): Mesh[] {
  if (!spec.fin) return [];
  const { heightMm, thicknessMm } = spec.fin;
  const [from, to] = [spec.fin.fromAt, spec.fin.toAt].sort((a, b) => a - b).map((at) => at * spec.bodyMm) as [
    number,
    number,
  ];
  if (to - from < 0.5) return [];
  return [
    sweep(
      rounded(many(24, g)).map((share) => {
        const x = from + share * (to - from);
        const { top } = sectionAt(x);
        const rise = Math.max(0.05, heightMm * Math.sin(Math.PI * share) ** 0.7);
        const sunk = Math.min(top, 2);
        return along(
          [x, 0, top + (rise - sunk) / 2],
          (thicknessMm / 2) * Math.max(0.3, Math.sin(Math.PI * share)),
          (rise + sunk) / 2,
          many(24, g),
        );
      }),
    ),
  ];
}

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

function cuts(solids: Solids, spec: ShapeSpec, sectionAt: (x: number) => Section): Manifold[] {
  const { Manifold } = solids.kit;
  const out: Manifold[] = [];
  if (spec.eyes) {
    const { diameterMm, at, upMm } = spec.eyes;
    const x = at * spec.bodyMm;
    const { top, bottom, half } = sectionAt(x);
    const tall = upMm >= 0 ? top : bottom;
    const y = half * Math.sqrt(Math.max(0.05, 1 - Math.min(0.95, (upMm / tall) ** 2)));
    for (const side of [1, -1])
      out.push(solids.keep(solids.keep(Manifold.sphere(diameterMm / 2, 24)).translate([x, side * y, upMm])));
  }
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

/** Six times the volume under one triangle, mm³. */
function sixfold({ positions: p, triangles: t }: Mesh, triangle: number): number {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * (t[3 * triangle + k] as number)) as [number, number, number];
  const [ax, ay, az] = [p[a] as number, p[a + 1] as number, p[a + 2] as number];
  const [bx, by, bz] = [p[b] as number, p[b + 1] as number, p[b + 2] as number];
  const [cx, cy, cz] = [p[c] as number, p[c + 1] as number, p[c + 2] as number];
  return ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
}

function withoutCrumbs(mesh: Mesh): Mesh {
  const { shell, shells } = shellsOf(mesh, topologyOf(mesh));
  if (shells < 2) return mesh;
  const volumes = new Float64Array(shells);
  for (let n = 0; n < triangleCount(mesh); n++) {
    const at = shell[n] as number;
    volumes[at] = (volumes[at] as number) + sixfold(mesh, n) / 6;
  }
  const stays = (corner: number) => Math.abs(volumes[shell[Math.floor(corner / 3)] as number] as number) >= CRUMB_MM3;
  return pruned({ positions: mesh.positions, triangles: mesh.triangles.filter((_, corner) => stays(corner)) });
}

/** What a carving hand does, to corners only, so that nothing opens. */
function carve({ positions, triangles }: Mesh, { taper, bendMm }: ShapeSpec['carved'], wholeMm: number): Mesh {
  if (taper === 0 && bendMm === 0) return { positions, triangles };
  const out = positions.slice();
  for (let i = 0; i < out.length; i += 3) {
    const share = (out[i] as number) / wholeMm;
    const scale = 1 - taper * (share - 0.5);
    out[i + 1] = (out[i + 1] as number) * scale + bendMm * share * share;
    out[i + 2] = (out[i + 2] as number) * scale;
  }
  return { positions: out, triangles };
}

/**
 * The solid that a spec describes: always closed, since it is made of closed parts joined and cut as solids.
 * @param kit from `loadModeller`.
 * @returns a mesh in mm, x from nose to tail.
 * @throws Failure `nothing-left` when the cuts take all of it.
 */
export function sculpt(kit: ManifoldToplevel, spec: ShapeSpec, grain: Grain = 'fine'): Mesh {
  const g = GRAIN[grain];
  const solids = new Solids(kit);
  try {
    const { sectionAt, endMm } = outlineOf(spec);
    const parts = [body(spec, g), ...tails(spec, endMm, g), ...limbs(spec, sectionAt, g), ...fin(spec, sectionAt, g)];
    const whole = solids.keep(kit.Manifold.union(parts.map((part) => solids.solid(part))));
    const removed = cuts(solids, spec, sectionAt);
    let solid = removed.length === 0 ? whole : solids.keep(kit.Manifold.difference([whole, ...removed]));
    if (spec.cutFlatMm !== null) {
      const low = Math.min(...Array.from({ length: 41 }, (_, i) => -sectionAt((spec.bodyMm * i) / 40).bottom));
      solid = solids.keep(solid.trimByPlane([0, 0, 1], low + spec.cutFlatMm));
    }
    const mesh = withoutCrumbs(meshOf(solids.keep(solid.simplify(SLIVER_MM))));
    if (mesh.triangles.length === 0)
      throw new Failure('nothing-left', 'Slots, bore and cut take all of it away; make one of them smaller.', 'spec');
    return carve(mesh, spec.carved, endMm + spec.tail.lengthMm);
  } finally {
    solids.clear();
  }
}
