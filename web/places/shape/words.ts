import type { ShapeSpec } from '../../../core/shape/spec.ts';

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
