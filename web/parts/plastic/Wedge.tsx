import { useMemo } from 'react';
import type { Melt } from '../../../core/colour/foresee.ts';
import { GROUND_IDS, GROUNDS, lightOver } from '../../../core/colour/grounds.ts';
import { usual } from '../../../core/defaults.ts';
import { depthText } from '../../../core/units/show.ts';
import { useTaste } from '../taste.tsx';
import { Painted } from './Painted.tsx';
import { paintWedge, WEDGE_MM } from './paint.ts';

const [COLUMNS, ROWS] = [560, 34];
/** Marks of the ruler under it, mm. */
const MARKS = Array.from({ length: WEDGE_MM[1] }, (_, i) => i + 1);
const TOLD = new Set([1, 2, 3, 5, 8, 10, 15]);
const [LEFT, RIGHT] = WEDGE_MM;
const shareOf = (mm: number) => (100 * (mm - LEFT)) / (RIGHT - LEFT);

/** The melt as a wedge over each ground, with a ruler of thickness under it. */
export function Wedge({ melt }: { melt: Melt }) {
  const { text, taste } = useTaste();
  const painted = useMemo(
    () =>
      GROUND_IDS.map((id) => ({
        id,
        paint: () => paintWedge(melt, { linear: [...GROUNDS[id].linear], light: lightOver(id) }, COLUMNS, ROWS),
      })),
    [melt],
  );
  return (
    <figure className="max-w-3xl">
      {painted.map(({ id, paint }) => (
        <div key={id} className="flex items-center gap-3 mb-1">
          <span className="w-24 shrink-0 text-sm text-right">
            over {GROUNDS[id].title}
            {id === 'water' && <span className="block label-small">{depthText(usual('seenDepthM'), taste)} down</span>}
          </span>
          <div className="flex-1 min-w-0 border border-[var(--edge)]">
            <Painted
              columns={COLUMNS}
              rows={ROWS}
              paint={paint}
              label={`From ${text(LEFT, 'length')} to ${text(RIGHT, 'length')} thick over ${GROUNDS[id].title}`}
            />
          </div>
        </div>
      ))}
      <div className="flex gap-3">
        <span className="w-24 shrink-0 label-small text-right">thick</span>
        <svg className="flex-1 min-w-0" height={26} aria-hidden="true">
          {MARKS.map((mm) => (
            <g key={mm}>
              <line
                x1={`${shareOf(mm)}%`}
                x2={`${shareOf(mm)}%`}
                y1={0}
                y2={TOLD.has(mm) ? 9 : 5}
                stroke="var(--ink)"
              />
              {TOLD.has(mm) && (
                <text
                  x={`${shareOf(mm)}%`}
                  y={23}
                  fontSize={13}
                  fill="var(--ink)"
                  className="figure"
                  textAnchor={mm === LEFT ? 'start' : mm === RIGHT ? 'end' : 'middle'}
                >
                  {mm === RIGHT
                    ? text(mm, 'length')
                    : text(mm, 'length')
                        .replace(/[^\d.,/ ]+$/, '')
                        .trim()}
                </text>
              )}
            </g>
          ))}
        </svg>
      </div>
    </figure>
  );
}
