import { minus, type Vec3 } from '../../../core/shape/mesh.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import type { MoldWay } from '../../../core/shape/suits.ts';

type Tail = ShapeSpec['tail'];
type Field = 'lengthMm' | 'acrossMm' | 'thicknessMm' | 'angleDeg';

export const TAIL_WORDS: Record<Tail['kind'], string> = {
  paddle: 'Paddle, across the stream',
  boot: 'Boot, leaning back',
  ribbon: 'Ribbon, waving',
  curl: 'Curl',
  straight: 'Straight',
  twin: 'Split, two tails',
  beaver: 'Beaver, flat',
};

/** Which figures a kind of tail has, and what a maker calls them. */
export const TAIL_FIELDS: Record<Tail['kind'], [field: Field, label: string][]> = {
  paddle: [
    ['acrossMm', 'Paddle across'],
    ['thicknessMm', 'Paddle thick'],
    ['angleDeg', 'Leans back, °'],
  ],
  boot: [
    ['acrossMm', 'Boot wide'],
    ['lengthMm', 'Boot high'],
    ['thicknessMm', 'Boot thick'],
    ['angleDeg', 'Leans back, °'],
  ],
  ribbon: [
    ['lengthMm', 'Tail length'],
    ['acrossMm', 'Tail high'],
    ['thicknessMm', 'Tail thick'],
    ['angleDeg', 'Waves by, °'],
  ],
  curl: [
    ['lengthMm', 'Tail length'],
    ['acrossMm', 'Tail high'],
    ['thicknessMm', 'Tail thick'],
    ['angleDeg', 'Turns through, °'],
  ],
  straight: [
    ['lengthMm', 'Tail length'],
    ['acrossMm', 'Root high'],
    ['thicknessMm', 'Tip thick'],
  ],
  twin: [
    ['lengthMm', 'Tail length'],
    ['acrossMm', 'Root thick'],
    ['thicknessMm', 'Tip thick'],
    ['angleDeg', 'Spread each, °'],
  ],
  beaver: [
    ['lengthMm', 'Tail length'],
    ['acrossMm', 'Tail wide'],
    ['thicknessMm', 'Tail thick'],
  ],
};

export const TAIL_USUAL: Record<Tail['kind'], Omit<Tail, 'kind'>> = {
  paddle: { lengthMm: 12, acrossMm: 14, thicknessMm: 4, angleDeg: 10 },
  boot: { lengthMm: 18, acrossMm: 11, thicknessMm: 4, angleDeg: 35 },
  ribbon: { lengthMm: 50, acrossMm: 8, thicknessMm: 1.8, angleDeg: 24 },
  curl: { lengthMm: 44, acrossMm: 9, thicknessMm: 1.7, angleDeg: 190 },
  straight: { lengthMm: 24, acrossMm: 6, thicknessMm: 3, angleDeg: 0 },
  twin: { lengthMm: 30, acrossMm: 4, thicknessMm: 2.4, angleDeg: 14 },
  beaver: { lengthMm: 22, acrossMm: 16, thicknessMm: 3, angleDeg: 0 },
};

export const MOLD_WAY_WORDS: Record<MoldWay, string> = {
  'open-face': 'Silicone, open face',
  wrap: 'Silicone, wrap',
  'two-piece': 'Silicone, two-piece',
  printed: 'Printed halves',
  machined: 'Machined halves',
  dip: 'Dipped over a rod',
};

const SHORT: Record<string, string> = {
  bodyMm: 'body',
  noseMm: 'nose rounding',
  flatBelly: 'flat belly',
  thicknessMm: 'thickness',
  heightMm: 'height',
  lengthMm: 'length',
  acrossMm: 'across',
  angleDeg: 'angle',
  topMm: 'back',
  bottomMm: 'belly',
  widthMm: 'width',
  depthMm: 'depth',
  diameterMm: 'diameter',
  fromAt: 'from',
  toAt: 'to',
  upMm: 'up',
  cutFlatMm: 'cut flat',
  bellySlot: 'belly slot',
  topSlot: 'top slot',
  massG: 'mass',
  volumeMl: 'volume',
};
const said = (key: string) => SHORT[key] ?? key.replace(/^\d+$/, (n) => String(Number(n) + 1));

export interface Difference {
  what: string;
  from: string;
  to: string;
}

/** Every figure that differs between two specs, by its name. */
export function differences(before: unknown, after: unknown, path: string[] = []): Difference[] {
  if (Object.is(before, after)) return [];
  const isThing = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;
  if (isThing(before) && isThing(after)) {
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) =>
      differences(before[key], after[key], [...path, key]),
    );
  }
  const shown = (value: unknown) =>
    value === null || value === undefined
      ? 'none'
      : isThing(value)
        ? 'there'
        : typeof value === 'number'
          ? String(Math.round(value * 100) / 100)
          : String(value);
  return [{ what: path.map(said).join(' '), from: shown(before), to: shown(after) }];
}

/** Which end of the bait is lifted by a tilt away from `up`. */
export function leanWord(direction: Vec3, up: Vec3): string {
  const lean = minus(direction, up);
  const most = lean.map(Math.abs).indexOf(Math.max(...lean.map((part, k) => (up[k] === 0 ? Math.abs(part) : 0))));
  const ends = [
    ['nose', 'tail'],
    ['left side', 'right side'],
    ['belly', 'back'],
  ][most] as [string, string];
  return `${(lean[most] as number) < 0 ? ends[0] : ends[1]} higher`;
}
