import { unitSize } from '../../../core/units/show.ts';
import { niceStep } from '../../parts/Cylinder.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { acrossPx, type Geometry } from './outlineGeometry.ts';

/** The one ruler that both views lie along, in the maker's unit. */
export function Ruler({ geometry }: { geometry: Geometry }) {
  const { taste, text } = useTaste();
  const { lengthMm, beforeMm, rulerY: y } = geometry;
  // From what reaches furthest ahead, which need not be the nose.
  const x = (mm: number) => acrossPx(geometry, mm - beforeMm);
  const unitMm = unitSize('length', taste);
  const step = niceStep(lengthMm / unitMm);
  return (
    <g aria-hidden>
      <line x1={x(0)} x2={x(lengthMm)} y1={y} y2={y} stroke="var(--ink)" strokeWidth={1.5} />
      {Array.from({ length: Math.floor((lengthMm / unitMm / step) * 5 + 1e-6) + 1 }, (_, i) => {
        const at = x(((i * step) / 5) * unitMm);
        const whole = i % 5 === 0;
        return (
          <g key={at}>
            <line x1={at} x2={at} y1={y} y2={y + (whole ? 9 : 5)} stroke="var(--ink)" strokeWidth={whole ? 1.5 : 0.8} />
            {whole && (
              <text x={at} y={y + 20} fontSize={10.5} textAnchor="middle" fill="var(--ink)">
                {Math.round((i / 5) * step * 100) / 100}
              </text>
            )}
          </g>
        );
      })}
      <text x={x(lengthMm)} y={y - 5} fontSize={11} fontWeight={700} textAnchor="end" fill="var(--ink)">
        {text(lengthMm, 'length')}
      </text>
    </g>
  );
}
