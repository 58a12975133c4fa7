import { range } from './range.ts';

interface Props {
  value: number;
  most: number;
  label: string;
  widthPx?: number;
  colour?: string;
}

/** Progress as a marked scale: each mark is one, so it can be counted. */
export function Graduated({ value, most, label, widthPx = 160, colour = 'var(--rest)' }: Props) {
  const marks = Math.min(most, 40);
  const filled = most === 0 ? 0 : (value / most) * widthPx;
  return (
    <svg width={widthPx + 2} height={18} role="img" aria-label={label}>
      <rect x={1} y={8} width={Math.min(widthPx, filled)} height={9} fill={colour} />
      <line x1={1} x2={widthPx + 1} y1={17} y2={17} stroke="var(--edge)" />
      {range(marks + 1).map((i) => (
        <line
          key={i}
          x1={1 + (i / marks) * widthPx}
          x2={1 + (i / marks) * widthPx}
          y1={i % 5 === 0 ? 3 : 8}
          y2={17}
          stroke="var(--edge)"
        />
      ))}
    </svg>
  );
}
