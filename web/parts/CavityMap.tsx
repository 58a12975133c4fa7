import type { Fault, Mark } from '../../contract/pours.ts';
import { BaitShape } from './BaitShape.tsx';

export const FAULT_WORDS: Record<Fault, string> = {
  bubble: 'bubble',
  short: 'short fill',
  hollow: 'hollow nose',
  flash: 'flash',
  dent: 'dents',
  bent: 'bent',
  tear: 'torn',
  colour: 'colour off',
  other: 'other',
};

interface Props {
  cavities: number;
  columns: number;
  shape: string;
  marks: Mark[];
  hex: string;
  onTap?: (cavity: number) => void;
  /** It just came to lie here: taps are not meant for it. */
  resting?: boolean;
  cellPx?: number;
}

/** A shot's cavities in the shape of the bait, laid out as in the mold; each says good, or what is wrong with it. */
export function CavityMap({ cavities, columns, shape, marks, hex, onTap, resting = false, cellPx = 84 }: Props) {
  const height = Math.max(64, Math.round(cellPx * 0.72));
  const thick = Math.min(height - 38, (cellPx - 20) * 0.36);
  return (
    <div className="flex flex-wrap gap-2" style={{ maxWidth: columns * (cellPx + 8) }}>
      {Array.from({ length: cavities }, (_, index) => {
        const cavity = index + 1;
        const mark = marks.find((row) => row.cavity === cavity);
        const result = mark?.result ?? 'unmarked';
        const word =
          result === 'good' ? 'good' : result === 'bad' ? FAULT_WORDS[mark?.reason ?? 'other'] : String(cavity);
        const edge = result === 'good' ? 'var(--rest)' : result === 'bad' ? 'var(--warn)' : 'var(--edge)';
        const face = (
          <>
            <svg width={cellPx - 16} height={height - 34} aria-hidden="true">
              <BaitShape
                shape={shape}
                x={2}
                y={(height - 34 - thick) / 2}
                lengthPx={cellPx - 20}
                widthPx={thick}
                fill={result === 'unmarked' ? 'transparent' : result === 'bad' ? 'var(--paper)' : hex}
                eye={false}
              />
              {result === 'bad' && (
                <path d={`M6 ${height - 40} L${cellPx - 24} 4`} stroke="var(--warn)" strokeWidth={4} />
              )}
            </svg>
            <span className="text-xs font-bold leading-none">
              {result === 'good' && '✓ '}
              {word}
            </span>
          </>
        );
        const look = {
          width: cellPx,
          minHeight: height,
          borderColor: edge,
          borderWidth: result === 'unmarked' ? 1.5 : 3,
        };
        const kind = 'rounded-lg flex flex-col items-center justify-center gap-1 bg-transparent border-solid';
        return onTap ? (
          <button
            key={cavity}
            type="button"
            className={kind}
            style={look}
            aria-label={`Cavity ${cavity}: ${result === 'unmarked' ? 'not marked' : word}`}
            aria-disabled={resting}
            onClick={() => !resting && onTap(cavity)}
          >
            {face}
          </button>
        ) : (
          <div key={cavity} className={kind} style={look}>
            {face}
          </div>
        );
      })}
    </div>
  );
}
