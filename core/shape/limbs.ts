import { many, OVERLAP, RAD } from './grain.ts';
import { type Mesh, moved, type Vec3 } from './mesh.ts';
import { halfAt, type Section } from './outline.ts';
import type { ShapeSpec } from './spec.ts';
import { endRound, rounded, sweep, turned } from './sweep.ts';
import { along, straight } from './tails.ts';

/** Two fingers that stand open: the inner one, which moves on the animal, is the thinner. */
function pincer(g: number, arm: number, reach: number, thick: number): Mesh[] {
  const palm = sweep(
    rounded(many(14, g)).map((share) => {
      const bulge = Math.max(0.08, Math.sin(Math.PI * Math.min(0.97, 0.05 + 0.95 * share)) ** 0.6);
      return along(
        [arm * 0.86 + share * (reach * 0.76 - arm * 0.86), 0, 0],
        thick * 1.9 * bulge,
        thick * 1.2 * bulge,
        many(20, g),
      );
    }),
  );
  const finger = (side: 1 | -1) => {
    const [from, size] = [reach * 0.62, side === 1 ? 1 : 0.78];
    return sweep(
      rounded(many(22, g)).map((share) => {
        const end = Math.max(0.12, endRound(share, 0.12));
        const aside = side * thick * (1.05 + 0.75 * Math.sin(Math.PI * (0.1 + 0.75 * share)) - 0.75 * share);
        return along(
          [from + share * (reach * (side === 1 ? 1 : 0.95) - from), aside, 0],
          thick * 0.82 * size * (1 - 0.68 * share) * end,
          thick * 0.9 * size * (1 - 0.55 * share) * end,
          many(18, g),
        );
      }),
    );
  };
  return [palm, finger(1), finger(-1)];
}

export function limbs(spec: ShapeSpec, sectionAt: (x: number) => Section, g: number): Mesh[] {
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
        const arm = limb.kind === 'leg' ? reach : reach * (limb.kind === 'claw' ? 0.6 : 0.46);
        out.push(
          turned(
            straight(g / 2, 0, arm, thick, thick, limb.kind === 'leg' ? thick * 0.9 : thick * 1.6),
            turn,
            to,
            limb.dropDeg * RAD,
          ),
        );
        if (limb.kind === 'pincer')
          for (const finger of pincer(g, arm, reach, thick)) out.push(turned(finger, turn, to, limb.dropDeg * RAD));
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

type Fin = { fromAt: number; toAt: number; heightMm: number; thicknessMm: number };

/** A fin along the body: `edge` says how far from the axis its root stands, `lay` sets its height and thickness in space. */
function blade(
  { fromAt, toAt, heightMm, thicknessMm }: Fin,
  sweepMm: number,
  bodyMm: number,
  g: number,
  edge: (x: number) => number,
  lay: (x: number, high: number, thick: number) => Vec3,
): Mesh[] {
  const [from, to] = [fromAt, toAt].sort((a, b) => a - b).map((at) => at * bodyMm) as [number, number];
  if (to - from < 0.5) return [];
  const upright = sweep(
    rounded(many(24, g)).map((share) => {
      const x = from + share * (to - from);
      const root = edge(x);
      const rise = Math.max(0.05, heightMm * Math.sin(Math.PI * share) ** 0.7);
      const sunk = Math.min(root, 2);
      return along(
        [x, 0, root + (rise - sunk) / 2],
        (thicknessMm / 2) * Math.max(0.3, Math.sin(Math.PI * share)),
        (rise + sunk) / 2,
        many(24, g),
      );
    }),
  );
  return [moved(upright, ([x, y, z]) => lay(x + sweepMm * Math.max(0, (z - edge(x)) / heightMm), z, y))];
}

/** All fins of a bait: on the back, under the belly, to both sides. */
export function fins(spec: ShapeSpec, sectionAt: (x: number) => Section, g: number): Mesh[] {
  const { bodyMm } = spec;
  const back = spec.fin
    ? blade(
        spec.fin,
        0,
        bodyMm,
        g,
        (x) => sectionAt(x).top,
        (x, high, thick) => [x, thick, high],
      )
    : [];
  const more = spec.fins.flatMap(({ place, sweepMm, upMm, ...one }) => {
    if (place === 'back')
      return blade(
        one,
        sweepMm,
        bodyMm,
        g,
        (x) => sectionAt(x).top,
        (x, high, thick) => [x, thick, high],
      );
    if (place === 'belly')
      return blade(
        one,
        sweepMm,
        bodyMm,
        g,
        (x) => sectionAt(x).bottom,
        (x, high, thick) => [x, -thick, -high],
      );
    const flank = (x: number) => halfAt(sectionAt(x), upMm);
    return [1, -1].flatMap((side) =>
      blade(one, sweepMm, bodyMm, g, flank, (x, high, thick) => [x, side * high, upMm - side * thick]),
    );
  });
  return [...back, ...more];
}
