import type { MoldRow } from '../../contract/molds.ts';
import { BaitShape } from './BaitShape.tsx';

/** A mold as a block with its cavities, seen from above. */
export function MoldBlock({
  mold,
  widthPx = 190,
}: {
  mold: Pick<MoldRow, 'cavities' | 'columns' | 'shape' | 'kind' | 'name'> & { baitId?: string };
  widthPx?: number;
}) {
  const columns = Math.min(mold.columns, mold.cavities);
  const rows = Math.ceil(mold.cavities / columns);
  const cellW = (widthPx - 12) / rows;
  const cellH = Math.min(24, 84 / columns);
  const metal = mold.kind === 'aluminium' || mold.kind === 'cast';
  return (
    <svg
      width={widthPx}
      height={columns * cellH + 14}
      role="img"
      aria-label={`${mold.name}: ${mold.cavities} cavities`}
    >
      <rect
        x={1.5}
        y={1.5}
        width={widthPx - 3}
        height={columns * cellH + 11}
        rx={metal ? 1 : 7}
        fill={metal ? 'var(--rule)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth={2.5}
      />
      {Array.from({ length: mold.cavities }, (_, index) => {
        const x = 6 + Math.floor(index / columns) * cellW + 3;
        const y = 7 + (index % columns) * cellH + 2;
        return (
          <BaitShape
            key={`${x} ${y}`}
            shape={mold.shape}
            bait={mold.baitId}
            x={x}
            y={y}
            lengthPx={cellW - 6}
            widthPx={cellH - 4}
            fill="var(--paper)"
            eye={false}
          />
        );
      })}
    </svg>
  );
}
