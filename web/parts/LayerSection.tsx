import { STACKED } from '../../core/colour/layered.ts';
import { usual } from '../../core/defaults.ts';
import { tried } from '../../core/failure.ts';
import { type Join, type LayerAmount, layerShares, levelsIn, PLACES, type Place } from '../../core/plan/layers.ts';
import { useTaste } from './taste.tsx';

interface Drawn extends LayerAmount {
  place: Place;
  hex: string;
  joins?: Join | null;
}

/** What of a circle lies under a level, which is −1 at its bottom and 1 at its top. */
const shareUnder = (level: number) => 0.5 + (level * Math.sqrt(1 - level * level) + Math.asin(level)) / Math.PI;

/** Height of the level under which a share of a circle lies, from −1 at its bottom to 1. */
function levelOf(share: number): number {
  let [low, high] = [-1, 1];
  for (let n = 0; n < 40; n++) {
    const middle = (low + high) / 2;
    if (shareUnder(middle) < share) low = middle;
    else high = middle;
  }
  return low;
}

/** A bait cut across, each layer as large as its share of it: what lies over what, and how thick. */
export function LayerSection({
  layers,
  cavityMl = usual('drawnBaitMl'),
  sizePx,
  name,
}: {
  layers: Drawn[];
  cavityMl?: number;
  sizePx: number;
  name: string;
}) {
  const r = sizePx / 2;
  // A round section stands for a shape that is not known here: a level of its height is a level of the circle's.
  const levels = Object.fromEntries(levelsIn(layers).map((to) => [to, shareUnder(2 * to - 1)]));
  const shares =
    tried(() => layerShares(layers, { cavityMl, levels })).value ?? layers.map(() => 1 / Math.max(1, layers.length));
  const parts = layers.map((layer, i) => ({ ...layer, share: shares[i] as number, key: `${layer.place} ${i}` }));
  const stacked = parts
    .filter((part) => STACKED.includes(part.place))
    .sort((a, b) => STACKED.indexOf(a.place) - STACKED.indexOf(b.place));
  const within = parts.filter((part) => !STACKED.includes(part.place));
  const whole = stacked.reduce((sum, part) => sum + part.share, 0) || 1;
  let filled = 0;
  const bands = stacked.map((part) => {
    const from = levelOf(filled / whole);
    filled += part.share;
    return { ...part, from, to: levelOf(filled / whole) };
  });
  const clip = `section-${name.replace(/\W/g, '')}-${sizePx}`;
  const y = (level: number) => r - level * (r - 2);
  return (
    <svg
      width={sizePx}
      height={sizePx}
      role="img"
      aria-label={`${name} cut across: ${parts.map((part) => `${PLACES[part.place]} ${Math.round(part.share * 100)} %`).join(', ')}`}
      className="shrink-0"
    >
      <clipPath id={clip}>
        <circle cx={r} cy={r} r={r - 2} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        {bands.map((band) => (
          <g key={band.key}>
            <rect x={0} width={sizePx} y={y(band.to)} height={y(band.from) - y(band.to)} fill={band.hex} />
            {band.from > -0.999 && (
              <line x1={0} x2={sizePx} y1={y(band.from)} y2={y(band.from)} stroke="var(--ink)" strokeOpacity={0.35} />
            )}
          </g>
        ))}
        {within.map((part, i) => (
          <Within key={part.key} part={part} r={r} nth={i} />
        ))}
      </g>
      <circle cx={r} cy={r} r={r - 2} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
    </svg>
  );
}

/** Which bait a section is drawn for, where that makes a difference: mL are another share of another bait. */
export function DrawnFor({ layers }: { layers: LayerAmount[] }) {
  const { text } = useTaste();
  const [inMl, upTo] = [layers.some((one) => one.measure === 'ml'), levelsIn(layers).length > 0];
  if (!inMl && !upTo) return null;
  return (
    <p className="soft">
      Cut across, drawn for a {upTo && 'round '}bait
      {inMl && (
        <>
          {' '}
          of {text(usual('drawnBaitMl'), 'volume')} <span className="default-mark">default</span>
        </>
      )}
      {upTo && '; how much a level is in a mold, its own shape says'}
    </p>
  );
}

/** What lies inside, or is set into the skin. */
function Within({ part, r, nth }: { part: Drawn & { share: number }; r: number; nth: number }) {
  const size = Math.sqrt(part.share) * (r - 2);
  if (part.place === 'core')
    return <circle cx={r} cy={r} r={size} fill={part.hex} stroke="var(--ink)" strokeOpacity={0.35} />;
  const spots = part.place === 'eyes' ? [-1, 1] : part.place === 'tail' ? [0] : [-1.4, 0, 1.4];
  const each = Math.max(2.5, size / Math.sqrt(spots.length));
  const at = part.place === 'tail' ? 0 : -0.62 + nth * 0.22;
  return spots.map((x) => (
    <circle
      key={x}
      cx={r + x * r * 0.46}
      cy={r + at * (r - 2)}
      r={each}
      fill={part.hex}
      stroke="var(--ink)"
      strokeOpacity={0.5}
    />
  ));
}
