import type { ShapeSpec } from './spec.ts';

/** Half-widths of the body at one place, mm. */
export interface Section {
  top: number;
  bottom: number;
  half: number;
}

/** Half-width so far over the axis: the section is drawn of two half-ellipses. */
export const halfAt = ({ top, bottom, half }: Section, upMm: number): number =>
  half * Math.sqrt(Math.max(0.05, 1 - Math.min(0.95, (upMm / (upMm >= 0 ? top : bottom)) ** 2)));

/**
 * A curve through points that overshoots none of them.
 * Source: Fritsch & Carlson 1980, monotone piecewise cubic interpolation.
 */
export function monotone(xs: number[], ys: number[]): (x: number) => number {
  const n = xs.length;
  const slopes = xs.slice(1).map((x, i) => ((ys[i + 1] as number) - (ys[i] as number)) / (x - (xs[i] as number)));
  const tangents = xs.map((_, i) => {
    if (i === 0) return slopes[0] as number;
    if (i === n - 1) return slopes[n - 2] as number;
    const [a, b] = [slopes[i - 1] as number, slopes[i] as number];
    if (a * b <= 0) return 0;
    const [h, k] = [(xs[i] as number) - (xs[i - 1] as number), (xs[i + 1] as number) - (xs[i] as number)];
    return (3 * (h + k)) / ((2 * k + h) / a + (k + 2 * h) / b);
  });
  return (x) => {
    if (x <= (xs[0] as number)) return ys[0] as number;
    if (x >= (xs[n - 1] as number)) return ys[n - 1] as number;
    let i = 0;
    while (x > (xs[i + 1] as number)) i++;
    const h = (xs[i + 1] as number) - (xs[i] as number);
    const t = (x - (xs[i] as number)) / h;
    const [y0, y1] = [ys[i] as number, ys[i + 1] as number];
    const [m0, m1] = [(tangents[i] as number) * h, (tangents[i + 1] as number) * h];
    return y0 * (1 + 2 * t) * (1 - t) ** 2 + m0 * t * (1 - t) ** 2 + y1 * t * t * (3 - 2 * t) - m1 * t * t * (1 - t);
  };
}

/** Places nearer than this are one, as a share of the body. */
const SAME = 1e-3;

/** The body's section at any place from nose (0) to the end of the wrist, ribs and nose rounding included. */
export function outlineOf(spec: ShapeSpec): { sectionAt(xMm: number): Section; endMm: number } {
  const { bodyMm, wrist, ribs } = spec;
  const endMm = bodyMm + wrist.lengthMm;
  const sorted = [...spec.stations]
    .sort((a, b) => a.at - b.at)
    .filter((station, i, all) => i === 0 || station.at - (all[i - 1] as typeof station).at > SAME)
    .filter((station, i) => i === 0 || station.at < 1 - SAME);
  const first = sorted[0] as (typeof sorted)[number];
  const rows = [
    ...(first.at > SAME ? [{ x: 0, top: first.topMm, bottom: first.bottomMm, half: first.widthMm / 2 }] : []),
    ...sorted.map((one) => ({ x: one.at * bodyMm, top: one.topMm, bottom: one.bottomMm, half: one.widthMm / 2 })),
    // The wrist is straight, so that its figures are those that the tail swings on.
    ...[bodyMm, endMm].map((x) => ({
      x,
      top: wrist.heightMm / 2,
      bottom: wrist.heightMm / 2,
      half: wrist.thicknessMm / 2,
    })),
  ];
  const xs = rows.map((row) => row.x);
  const curve = (of: (row: (typeof rows)[number]) => number) => monotone(xs, rows.map(of));
  const [top, bottom, half] = [curve((r) => r.top), curve((r) => r.bottom), curve((r) => r.half)];
  const groove = (x: number): number => {
    if (!ribs) return 0;
    const [from, to] = [Math.min(ribs.fromAt, ribs.toAt) * bodyMm, Math.max(ribs.fromAt, ribs.toAt) * bodyMm];
    if (x < from || x > to) return 0;
    const pitch = (to - from) / ribs.count;
    if (!(pitch > 0)) return 0;
    // A groove in the middle of each pitch; as wide as wished, but never wider than the pitch.
    const off = Math.abs(((x - from) % pitch) - pitch / 2);
    const wide = Math.min(ribs.widthMm, pitch) / 2;
    return off < wide ? (ribs.depthMm * (1 + Math.cos((Math.PI * off) / wide))) / 2 : 0;
  };
  const nose = Math.min(spec.noseMm, bodyMm * 0.9);
  return {
    endMm,
    sectionAt: (x) => {
      const round = nose > 0 && x < nose ? Math.sqrt(Math.max(0, 1 - (1 - x / nose) ** 2)) : 1;
      const depth = groove(x);
      const cut = (value: number) => Math.max(value * 0.3, value - depth) * Math.max(round, 0.02);
      return { top: cut(top(x)), bottom: cut(bottom(x)), half: cut(half(x)) };
    },
  };
}
