import type { Manifold } from 'manifold-3d';
import { many } from './grain.ts';
import type { Mesh } from './mesh.ts';
import { outlineOf, type Section } from './outline.ts';
import type { Solids } from './solids.ts';
import type { ShapeSpec } from './spec.ts';
import { type Ring, rounded, sweep } from './sweep.ts';

/** Points round the body, at grain 1. */
const ROUND = 48;
/** A scale or a ridge is drawn by this many points each way, as long as the whole stays within bounds. */
const TO_A_SCALE = 7;
const MOST_ROUND = 200;
const MOST_ALONG = 420;
/** A scale is so much longer than the row it stands in: it lies over the next. */
const OVERLAY = 1.5;

/** @param cutMm what is taken off the skin at a point, by its number. */
export function bodyRing(
  x: number,
  { top, bottom, half }: Section,
  flatBelly: number,
  points: number,
  cutMm?: (point: number) => number,
): Ring {
  return Array.from({ length: points }, (_, k) => {
    const turn = (2 * Math.PI * k) / points;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const power = s < 0 ? 2 + 6 * flatBelly : 2;
    const off = cutMm ? cutMm(k) : 0;
    return [
      x,
      (half - Math.min(off, half * MOST_CUT)) * Math.sign(c) * Math.abs(c) ** (2 / power),
      (s < 0 ? bottom - Math.min(off, bottom * MOST_CUT) : top - Math.min(off, top * MOST_CUT)) *
        Math.sign(s) *
        Math.abs(s) ** (2 / power),
    ];
  });
}

/** Of a half-width, as much as a texture may take. */
const MOST_CUT = 0.3;

/**
 * How deep the skin is cut so far along and so far round (0 to 1): rows of scales like tiles, each over the one behind, half
 * a scale aside from row to row; or fine rings.
 */
export function textureAt(texture: NonNullable<ShapeSpec['texture']>, bodyMm: number, roundMm: number) {
  const { kind, sizeMm, depthMm } = texture;
  const [from, to] = [Math.min(texture.fromAt, texture.toAt) * bodyMm, Math.max(texture.fromAt, texture.toAt) * bodyMm];
  const columns = Math.max(4, Math.round(roundMm / sizeMm));
  // A scale's own coordinates: along it from 0 to 1, and whether the point lies on it.
  const along = (row: number, x: number, round: number): number => {
    const across = 2 * Math.abs(((((round * columns + row / 2) % 1) + 1) % 1) - 0.5);
    const long = sizeMm * (1 + (OVERLAY - 1) * (1 - across ** 2));
    return (x - row * sizeMm) / long;
  };
  return (x: number, round: number): number => {
    if (x < from || x > to) return 0;
    const ease = Math.min(1, (x - from) / sizeMm, (to - x) / sizeMm);
    if (kind === 'ridges') return (ease * depthMm * (1 - Math.cos((2 * Math.PI * (x - from)) / sizeMm))) / 2;
    const row = Math.floor(x / sizeMm);
    const before = along(row - 1, x, round);
    const on = before <= 1 ? before : along(row, x, round);
    return ease * depthMm * (1 - on);
  };
}

const roundOf = ({ stations }: ShapeSpec) =>
  Math.max(...stations.map(({ topMm, bottomMm, widthMm }) => (Math.PI * (topMm + bottomMm + widthMm)) / 2));

export function body(spec: ShapeSpec, g: number): Mesh {
  const { sectionAt, endMm } = outlineOf(spec);
  const { texture } = spec;
  const nose = Math.min(spec.noseMm, spec.bodyMm * 0.9);
  const usual = Math.max(endMm / 260, (spec.ribs ? Math.min(0.9, spec.ribs.widthMm / 5) : 0.9) / g);
  const step = texture ? Math.min(usual, Math.max(endMm / MOST_ALONG, texture.sizeMm / TO_A_SCALE / g)) : usual;
  const xs: number[] = [];
  const cap = nose > 0 ? many(14, g) : 1;
  for (let i = 0; i < cap; i++) xs.push(nose * (1 - Math.cos((Math.PI * i) / (2 * cap))));
  const rest = Math.max(8, Math.ceil((endMm - nose) / step));
  for (let i = 0; i <= rest; i++) xs.push(nose + ((endMm - nose) * i) / rest);
  const round = many(ROUND, g);
  if (!texture) return sweep(xs.map((x) => bodyRing(x, sectionAt(x), spec.flatBelly, round)));
  const roundMm = roundOf(spec);
  const wanted = texture.kind === 'scales' ? many((TO_A_SCALE * roundMm) / texture.sizeMm, g) : round;
  const points = Math.min(MOST_ROUND, Math.max(round, wanted));
  const cut = textureAt(texture, spec.bodyMm, roundMm);
  return sweep(xs.map((x) => bodyRing(x, sectionAt(x), spec.flatBelly, points, (k) => cut(x, k / points))));
}

/** Round plates on both sides, level with the skin in front and proud behind. */
export function gillPlates(
  solids: Solids,
  spec: ShapeSpec,
  { at, acrossMm, raiseMm }: NonNullable<ShapeSpec['gills']>,
  sectionAt: (x: number) => Section,
  g: number,
): Manifold[] {
  const middle = at * spec.bodyMm;
  const from = middle - acrossMm / 2;
  const raised = sweep(
    rounded(many(24, g)).map((share) => {
      const x = from + share * acrossMm;
      const { top, bottom, half } = sectionAt(x);
      const by = raiseMm * share;
      return bodyRing(x, { top: top + by, bottom: bottom + by, half: half + by }, spec.flatBelly, many(ROUND, g));
    }),
  );
  const { top, bottom, half } = sectionAt(middle);
  const wide = 2 * (half + raiseMm) + 10;
  const { Manifold } = solids.kit;
  const disc = solids.keep(Manifold.cylinder(wide, acrossMm / 2, acrossMm / 2, many(48, g), true));
  const across = solids.keep(solids.keep(disc.rotate([90, 0, 0])).translate([middle, 0, (top - bottom) / 2]));
  return [solids.keep(Manifold.intersection([solids.solid(raised), across]))];
}
