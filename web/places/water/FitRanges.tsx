import type { KickFit } from '../../../contract/water.ts';
import { ADDED_MASS, STROUHAL } from '../../../core/water/kick.ts';

/** The two loose constants of the kick model, as trials leave them. */
export function FitRanges({ fit }: { fit: NonNullable<KickFit['fit']> }) {
  const { strouhal, strouhalRange, addedMassCoefficient, addedMassRange } = fit;
  return (
    <>
      <Range label="Strouhal number" value={strouhal} range={strouhalRange} usual={STROUHAL} most={0.5} />
      <Range
        label="Moved water, share"
        value={addedMassCoefficient}
        range={addedMassRange}
        usual={ADDED_MASS}
        most={1.6}
      />
    </>
  );
}

/** A constant on its scale: the value, the range that holds it four times in five, and where it began. */
function Range({
  label,
  value,
  range,
  usual,
  most,
}: {
  label: string;
  value: number;
  range: readonly number[];
  usual: number;
  most: number;
}) {
  const [low = value, high = value] = range;
  const x = (n: number) => 20 + (Math.min(n, most) / most) * 420;
  const steps = most > 1 ? 4 : 5;
  return (
    <figure aria-label={`${label} ${value.toFixed(2)}, between ${low.toFixed(2)} and ${high.toFixed(2)}`}>
      <figcaption>
        <span className="label-small block">{label}</span>
        <span className="figure text-xl">{value.toFixed(2)}</span>{' '}
        <span className="soft text-sm">
          {low.toFixed(2)} to {high.toFixed(2)} four times in five
        </span>
      </figcaption>
      <svg className="w-full max-w-[460px]" viewBox="0 0 460 46" aria-hidden>
        <line x1={20} x2={440} y1={24} y2={24} stroke="var(--ink)" strokeWidth={1.5} />
        {Array.from({ length: steps + 1 }, (_, i) => (i * most) / steps).map((n) => (
          <g key={n}>
            <line x1={x(n)} x2={x(n)} y1={24} y2={31} stroke="var(--ink)" />
            <text x={x(n)} y={44} fontSize={12} textAnchor="middle" fill="var(--ink)">
              {n.toFixed(1)}
            </text>
          </g>
        ))}
        <rect
          x={x(low)}
          width={Math.max(3, x(high) - x(low))}
          y={12}
          height={12}
          fill="var(--liquid)"
          stroke="var(--rest)"
        />
        <line x1={x(usual)} x2={x(usual)} y1={4} y2={30} stroke="var(--warn)" strokeWidth={2} strokeDasharray="3 3" />
        <line x1={x(value)} x2={x(value)} y1={3} y2={30} stroke="var(--rest)" strokeWidth={3.5} />
      </svg>
    </figure>
  );
}
