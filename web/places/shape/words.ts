import { kindOf, lastName } from '../../../core/fields.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import { isDimension } from '../../../core/units/dimension.ts';
import type { Taste } from '../../parts/taste.tsx';

type Tail = ShapeSpec['tail'];
type Field = 'lengthMm' | 'acrossMm' | 'thicknessMm' | 'angleDeg' | 'strands';

export const TAIL_WORDS: Record<Tail['kind'], string> = {
  paddle: 'Paddle, across the stream',
  boot: 'Boot, a leaning disc',
  heel: 'Boot with a heel',
  ribbon: 'Ribbon, waving',
  curl: 'Curl',
  straight: 'Straight',
  twin: 'Split, two tails',
  fork: 'Fork, two lobes',
  beaver: 'Beaver, flat',
  skirt: 'Skirt of strands',
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
  heel: [
    ['lengthMm', 'Heel to toe'],
    ['acrossMm', 'Sole wide'],
    ['thicknessMm', 'Sole thick'],
    ['angleDeg', 'Toe drawn back, °'],
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
  fork: [
    ['lengthMm', 'Lobes long'],
    ['acrossMm', 'Lobes high'],
    ['thicknessMm', 'Lobes thick'],
    ['angleDeg', 'Spread each, °'],
  ],
  beaver: [
    ['lengthMm', 'Tail length'],
    ['acrossMm', 'Tail wide'],
    ['thicknessMm', 'Tail thick'],
  ],
  skirt: [
    ['strands', 'Strands'],
    ['lengthMm', 'Strands long'],
    ['thicknessMm', 'Strands thick'],
    ['angleDeg', 'Spread, °'],
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
  turnDeg: 'turn',
  skinMm: 'wall',
  gapMm: 'gape',
  raiseMm: 'proud by',
  sizeMm: 'size',
  sweepMm: 'swept back',
  toMm: 'place',
  meshId: 'mesh',
  massG: 'mass',
  volumeMl: 'volume',
};
const said = (key: string) => SHORT[key] ?? key.replace(/^\d+$/, (n) => String(Number(n) + 1));

/** One figure or part of a shape that is not what it was. */
export interface Difference {
  path: string[];
  from: unknown;
  to: unknown;
}

const isThing = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

/** Everything that differs between two specs. */
export function differences(before: unknown, after: unknown, path: string[] = []): Difference[] {
  if (Object.is(before, after)) return [];
  if (isThing(before) && isThing(after)) {
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) =>
      differences(before[key], after[key], [...path, key]),
    );
  }
  return [{ path, from: before, to: after }];
}

function shown(value: unknown, path: string[], { text }: Pick<Taste, 'text'>): string {
  if (value === null || value === undefined) return 'none';
  if (isThing(value)) return 'there';
  if (typeof value !== 'number') return String(value);
  const name = lastName(path);
  const kind = kindOf(name);
  if (isDimension(kind)) return text(value, kind);
  return `${Math.round(value * 100) / 100}${name.endsWith('Deg') ? '°' : ''}`;
}

/** A difference as it is read, in the maker's units; one too small for its two figures is told by itself. */
export function inWords({ path, from, to }: Difference, taste: Pick<Taste, 'text'>) {
  const [before, after] = [shown(from, path, taste), shown(to, path, taste)];
  const by = typeof from === 'number' && typeof to === 'number' && before === after ? to - from : 0;
  return {
    what: path.map(said).join(' '),
    from: before,
    to: by === 0 ? after : `${after} ${by < 0 ? '−' : '+'} ${shown(Math.abs(by), path, taste)}`,
  };
}
