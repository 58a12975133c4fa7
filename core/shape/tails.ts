import { many, OVERLAP, RAD } from './grain.ts';
import type { Mesh, Vec3 } from './mesh.ts';
import { HEEL, type ShapeSpec } from './spec.ts';
import { ellipse, endRound, rolled, rounded, sweep, turned } from './sweep.ts';

/** How deep a strand is rooted, mm. */
const ROOT_MM = 2.5;

/** Which way a sweep runs decides which half-axis comes first, so that its outside is outside. */
export const along = (middle: Vec3, y: number, z: number, points: number, power = 2) =>
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

export function straight(g: number, x: number, length: number, fromY: number, fromZ: number, tip: number): Mesh {
  return sweep(
    rounded(many(26, g)).map((share) => {
      const end = Math.max(0.04, endRound(share, Math.min(0.5, tip / length)));
      const taper = (from: number) => Math.max(tip / 2, from + (tip / 2 - from) * share) * end;
      return along([x + share * length, 0, 0], taper(fromY), taper(fromZ), many(32, g));
    }),
  );
}

/** A boot: a flat sole across the stream, toe down, its heel over the wrist; thickest at the heel. */
function heeled(g: number, x: number, { lengthMm, acrossMm, thicknessMm, angleDeg }: ShapeSpec['tail']): Mesh {
  const lean = Math.min(angleDeg, 80) * RAD;
  const [s, c] = [Math.sin(lean), Math.cos(lean)];
  const sole = HEEL.soleAt * thicknessMm;
  return sweep(
    rounded(many(30, g)).map((share) => {
      const end = Math.max(0.08, Math.min(endRound(share, 0.2), endRound(1 - share, 0.14)));
      const thick = thicknessMm * (0.8 - 0.42 * share) * end;
      // Heel, waist and ball of a foot.
      const wide =
        (acrossMm / 2) * (0.74 - 0.16 * Math.sin(Math.PI * Math.min(1, 2.4 * share)) + 0.3 * share ** 1.5) * end;
      const down = (share - HEEL.over) * lengthMm;
      const back = sole - thicknessMm * (0.8 - 0.42 * share);
      return ellipse(
        [x + s * down + c * back, 0, -c * down + s * back],
        [0, wide, 0],
        [c * thick, 0, s * thick],
        many(32, g),
        2.6,
      );
    }),
  );
}

/** From the wrist's end into the foot, so that the two meet without a notch under the wrist. */
function ankle(g: number, endMm: number, x: number, { wrist, tail }: ShapeSpec): Mesh {
  const lean = Math.min(tail.angleDeg, 80) * RAD;
  const back = HEEL.soleAt * tail.thicknessMm - tail.thicknessMm * 0.6;
  const from = endMm - Math.min(1.5, wrist.lengthMm / 2);
  const to: Vec3 = [x + Math.cos(lean) * back, 0, Math.sin(lean) * back];
  const [tall, wide] = [wrist.heightMm / 2, Math.min(wrist.thicknessMm, tail.acrossMm * 0.7) / 2];
  return sweep(
    Array.from({ length: many(8, g) + 1 }, (_, i) => {
      const share = i / many(8, g);
      const turn = lean * share;
      return ellipse(
        [from + (to[0] - from) * share, 0, to[2] * share ** 2],
        [0, wrist.thicknessMm / 2 + (wide - wrist.thicknessMm / 2) * share, 0],
        [-tall * Math.sin(turn), 0, tall * Math.cos(turn)],
        many(32, g),
      );
    }),
  );
}

/** One lobe of a forked fin: thin side to side, high at its root, a rounded tip. */
function lobe(g: number, long: number, across: number, thick: number): Mesh {
  return sweep(
    rounded(many(30, g)).map((share) => {
      const end = Math.max(0.1, endRound(share, 0.1));
      return along(
        [share * long, 0, 0],
        (thick / 2) * Math.max(0.35, 1 - 0.5 * share) * Math.max(0.3, end),
        (across / 2) * (0.75 + 0.35 * Math.sin(Math.PI * share) - 0.45 * share) * end,
        many(24, g),
      );
    }),
  );
}

export function tails(spec: ShapeSpec, endMm: number, g: number): Mesh[] {
  const { kind, lengthMm: length, acrossMm: across, thicknessMm: thick, angleDeg: angle, strands } = spec.tail;
  const x = endMm - Math.min(OVERLAP, spec.wrist.lengthMm / 2);
  const long = length + (endMm - x);
  switch (kind) {
    case 'paddle':
      return [disc(g, x, across, across, thick, Math.min(angle, 80))];
    case 'boot':
      return [disc(g, x, Math.max(across, length), across, thick, Math.min(angle, 80))];
    case 'heel':
      return [heeled(g, x, spec.tail), ankle(g, endMm, x, spec)];
    case 'straight':
      return [straight(g, x, long, spec.wrist.thicknessMm / 2, Math.max(across, 0.6) / 2, thick)];
    case 'twin':
      return [1, -1].map((side) => {
        const lean = side * Math.min(angle, 80) * RAD;
        const root = Math.min(across, spec.wrist.heightMm) / 2;
        const one = straight(g, 0, long, root, root, thick);
        return turned(one, lean, [x, side * (root * 0.6), 0]);
      });
    case 'fork':
      return [1, -1].map((side) => {
        const lean = side * Math.min(angle, 80) * RAD;
        return turned(lobe(g, long, across, thick), 0, [x, 0, -side * across * 0.12], lean);
      });
    case 'skirt': {
      const wall = spec.wrist.thicknessMm / 2;
      // In the middle of what a bore leaves, else along the edge.
      const ring = spec.bore ? (wall + Math.min(wall, spec.bore.diameterMm / 2)) / 2 : Math.max(0, wall - thick * 0.6);
      const root = Math.min(ROOT_MM, endMm / 2);
      const one = straight(g * 0.6, 0, length + root, thick / 2, thick / 2, thick * 0.7);
      const leant = turned(one, Math.min(angle, 80) * RAD, [endMm - root, ring, 0]);
      return Array.from({ length: strands }, (_, i) => rolled(leant, (2 * Math.PI * i) / strands));
    }
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
