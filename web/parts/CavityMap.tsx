import type { Mark } from '../../contract/pours.ts';
import { BaitShape } from './BaitShape.tsx';
import { reasonWords } from './grades.ts';

const EDGES: Record<Mark['grade'], string> = {
  sell: 'var(--rest)',
  own: 'var(--rest)',
  remelt: 'var(--warn)',
  unmarked: 'var(--edge)',
};

/** What stands under a bait: its number until it was looked at, then what becomes of it. */
function wordOf(cavity: number, mark: Mark | undefined): string {
  if (!mark || mark.grade === 'unmarked') return String(cavity);
  if (mark.grade === 'sell') return mark.reason ? 'good, trimmed' : 'good';
  const why = reasonWords(mark.reason ?? 'other');
  return mark.grade === 'own' ? `own: ${why}` : why;
}

interface Props {
  cavities: number;
  columns: number;
  shape: string;
  /** Whose outline it is. */
  bait?: string;
  marks: Mark[];
  hex: string;
  onTap?: (cavity: number) => void;
  /** It just came to lie here: taps are not meant for it. */
  resting?: boolean;
  cellPx?: number;
}

/** A shot's cavities in the shape of the bait, laid out as in the mold; each says what becomes of it, and why. */
export function CavityMap({ cavities, columns, shape, bait, marks, hex, onTap, resting = false, cellPx = 84 }: Props) {
  const height = Math.max(64, Math.round(cellPx * 0.72));
  const thick = Math.min(height - 38, (cellPx - 20) * 0.36);
  return (
    <div className="flex flex-wrap gap-2" style={{ maxWidth: columns * (cellPx + 8) }}>
      {Array.from({ length: cavities }, (_, index) => {
        const cavity = index + 1;
        const mark = marks.find((row) => row.cavity === cavity);
        const grade = mark?.grade ?? 'unmarked';
        const word = wordOf(cavity, mark);
        const face = (
          <>
            <svg width={cellPx - 16} height={height - 34} aria-hidden="true">
              <BaitShape
                shape={shape}
                bait={bait}
                x={2}
                y={(height - 34 - thick) / 2}
                lengthPx={cellPx - 20}
                widthPx={thick}
                fill={grade === 'unmarked' ? 'transparent' : grade === 'remelt' ? 'var(--paper)' : hex}
                eye={false}
              />
              {grade === 'remelt' && (
                <path d={`M6 ${height - 40} L${cellPx - 24} 4`} stroke="var(--warn)" strokeWidth={4} />
              )}
            </svg>
            <span className="text-xs font-bold leading-none px-0.5 text-center">
              {grade === 'sell' && '✓ '}
              {word}
            </span>
          </>
        );
        const look = {
          width: cellPx,
          minHeight: height,
          borderColor: EDGES[grade],
          borderWidth: grade === 'unmarked' ? 1.5 : 3,
          borderStyle: grade === 'own' ? 'dashed' : 'solid',
        };
        const kind = 'rounded-lg flex flex-col items-center justify-center gap-1 bg-transparent';
        return onTap ? (
          <button
            key={cavity}
            type="button"
            className={kind}
            style={look}
            aria-label={`Cavity ${cavity}: ${grade === 'unmarked' ? 'not marked' : word}`}
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
