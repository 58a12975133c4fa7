import type { Mold } from '../../../contract/molds.ts';
import { failing, shareOf } from '../../../core/yield/wear.ts';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { reasonWords } from '../../parts/grades.ts';

const CELL_H = 92;
const EDGE = 12;
/** Room for the whole map; a cell takes its share of it, within these. */
const WIDE = 540;
const CELL_W = [170, 270] as const;

type Health = Mold['health'][number];
const wordsOf = ({ reasons }: Health, most: number) =>
  reasons
    .slice(0, most)
    .map((row) => `${reasonWords(row.reason)} ${row.count}`)
    .join(', ');

/** The mold from above, each cavity with what it spoiled of what it made; the fuller the mark, the larger the share. */
export function CareMap({ mold }: { mold: Mold }) {
  const columns = Math.min(mold.columns, mold.cavities);
  const rows = Math.ceil(mold.cavities / columns);
  const cellW = Math.min(CELL_W[1], Math.max(CELL_W[0], WIDE / rows));
  const [width, height] = [rows * cellW + 2 * EDGE, columns * CELL_H + 2 * EDGE];
  const most = Math.max(0.1, ...mold.health.map(shareOf));
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className="max-w-full h-auto"
      role="img"
      aria-label={mold.health
        .map(
          (one) =>
            `Cavity ${one.cavity}: ${one.rejected} bad of ${one.made}${one.reasons.length > 0 ? `, ${wordsOf(one, 3)}` : ''}`,
        )
        .join('. ')}
    >
      <rect
        x={1.5}
        y={1.5}
        width={width - 3}
        height={height - 3}
        rx={6}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={3}
      />
      {mold.health.map((cavity, index) => {
        const x = EDGE + Math.floor(index / columns) * cellW;
        const y = EDGE + (index % columns) * CELL_H;
        const worst = failing(cavity, mold, mold.cavities);
        const long = cellW - 24;
        const thick = Math.min(30, long * 0.3);
        return (
          <g key={cavity.cavity}>
            {index % columns > 0 && <line x1={x + 6} x2={x + cellW - 6} y1={y} y2={y} stroke="var(--rule)" />}
            <BaitShape
              shape={mold.shape}
              bait={mold.baitId}
              x={x + 12}
              y={y + 8 + (30 - thick) / 2}
              lengthPx={long}
              widthPx={thick}
              fill={worst ? 'var(--paper)' : 'var(--bait)'}
              eye={false}
            />
            <rect
              x={x + 12}
              y={y + 45}
              width={long}
              height={7}
              fill="var(--paper)"
              stroke="var(--edge)"
              strokeWidth={1}
            />
            <rect
              x={x + 12}
              y={y + 45}
              width={(long * shareOf(cavity)) / most}
              height={7}
              fill={worst ? 'var(--warn)' : 'var(--edge)'}
            />
            <text x={x + 12} y={y + 68} fontSize={13} fontWeight={700} fill="var(--ink)">
              cavity {cavity.cavity}
            </text>
            <text
              textAnchor="end"
              x={x + 12 + long}
              y={y + 68}
              fontSize={13}
              className="figure"
              fill={worst ? 'var(--warn)' : 'var(--ink)'}
            >
              {cavity.made === 0 ? 'none yet' : `${cavity.rejected} of ${cavity.made}`}
            </text>
            <text x={x + 12} y={y + 83} fontSize={12} style={{ fontFamily: 'var(--font-text)' }} fill="var(--ink)">
              {wordsOf(cavity, cellW > 200 ? 2 : 1)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
