import type { Simulated } from '../../../core/plan/session.ts';
import type { Bar, Did } from '../../../core/plan/sessionState.ts';
import { durationText } from '../../../core/units/show.ts';
import { useWidth } from '../../parts/Fitted.tsx';
import { range } from '../../parts/range.ts';

const [LABEL_PX, ROW_PX, AXIS_PX, WORD_PX] = [168, 30, 26, 8.2];
const WORDS: Record<Did, string> = {
  start: 'in',
  burst: 'oven',
  stir: 'stir',
  degas: 'vacuum',
  reheat: 'reheat',
  clean: 'clean',
  fill: 'fill',
  wait: 'firms',
  cool: 'cools',
  open: 'open',
};
const HOT = new Set<Did>(['burst', 'reheat', 'fill']);

/** Ids to what a maker calls them, and the colour of each cup. */
export interface Named {
  cup(id: string): { name: string; hex: string };
  mold(id: string): string;
}

const laneName = (resource: string, { cup, mold }: Named): string => {
  if (resource.startsWith('cup ')) return cup(resource.slice(4)).name;
  if (resource.startsWith('mold ')) return mold(resource.slice(5));
  return { person: 'your hands', oven: 'oven', vacuum: 'vacuum' }[resource] ?? resource;
};
const RANK = ['person', 'oven', 'vacuum', 'cup ', 'injector', 'mold '];
const rankOf = (resource: string) => RANK.findIndex((start) => resource.startsWith(start));

function fillOf(bar: Bar, named: Named): string {
  if (bar.resource.startsWith('cup ') || bar.did === 'fill')
    return bar.cup ? named.cup(bar.cup.split(' + ')[0] as string).hex : 'var(--heat)';
  if (HOT.has(bar.did)) return 'var(--heat)';
  return bar.did === 'cool' || bar.did === 'wait' ? 'color-mix(in srgb, var(--rest) 35%, transparent)' : 'var(--ink)';
}

/** What each bar is called beside it: inside where it fits. */
function BarDrawn({ bar, x, y, widthPx, named }: { bar: Bar; x: number; y: number; widthPx: number; named: Named }) {
  const cool = bar.did === 'cool' || bar.did === 'wait';
  const word = WORDS[bar.did];
  const onColour = bar.resource.startsWith('cup ') || bar.did === 'fill';
  return (
    <g>
      <rect
        x={x}
        y={y + 5}
        width={Math.max(1.5, widthPx - 1)}
        height={ROW_PX - 10}
        fill={fillOf(bar, named)}
        stroke={onColour ? 'var(--ink)' : 'none'}
        strokeWidth={onColour ? 1.2 : 0}
      />
      {widthPx > word.length * WORD_PX + 6 && (
        <text
          x={x + 4}
          y={y + ROW_PX / 2 + 4}
          fontSize={12}
          fontWeight={700}
          fill={cool ? 'var(--ink)' : onColour ? '#101418' : 'var(--paper)'}
          stroke={onColour ? '#ffffffcc' : 'none'}
          strokeWidth={onColour ? 3 : 0}
          paintOrder="stroke"
        >
          {word}
        </text>
      )}
    </g>
  );
}

/** An evening as lanes on one scale of minutes: hands, oven, vacuum, each cup, injector and mold. */
export function EveningLanes({ of, named }: { of: Simulated; named: Named }) {
  const [ref, width] = useWidth(1100, 0);
  const lanes = [...new Set(of.timeline.map(({ resource }) => resource))].sort((a, b) => rankOf(a) - rankOf(b));
  const labelPx = width < 560 ? 96 : LABEL_PX;
  const minutes = Math.ceil(of.totalS / 60);
  const step = minutes <= 20 ? 2 : minutes <= 60 ? 5 : minutes <= 150 ? 15 : 30;
  const x = (s: number) => labelPx + ((width - labelPx - 12) * s) / Math.max(1, of.totalS);
  const heightPx = AXIS_PX + lanes.length * ROW_PX;
  return (
    <div ref={ref} className="w-full overflow-hidden">
      <svg
        width={width}
        height={heightPx}
        style={{ fontFamily: 'var(--font-text)' }}
        role="img"
        aria-label={`The evening in lanes: ${lanes.map((lane) => laneName(lane, named)).join(', ')}; ${durationText(of.totalS)} in all`}
      >
        {range(Math.floor(minutes / step) + 1).map((i) => (
          <g key={i}>
            <line x1={x(i * step * 60)} x2={x(i * step * 60)} y1={AXIS_PX - 8} y2={heightPx} stroke="var(--rule)" />
            {x(i * step * 60) < width - 30 && (
              <text x={x(i * step * 60) + 3} y={14} fontSize={12} fill="var(--soft)" className="figure">
                {i * step}
                {i === 0 ? ' min' : ''}
              </text>
            )}
          </g>
        ))}
        {lanes.map((lane, at) => {
          const y = AXIS_PX + at * ROW_PX;
          return (
            <g key={lane}>
              <line x1={0} x2={width} y1={y} y2={y} stroke="var(--rule)" />
              <text
                x={0}
                y={y + ROW_PX / 2 + 4}
                fontSize={14}
                style={{ fontFamily: 'var(--font-text)' }}
                fontWeight={lane === of.bottleneck ? 800 : 500}
                fill={lane === of.bottleneck ? 'var(--warn)' : 'var(--ink)'}
              >
                {shortened(laneName(lane, named), labelPx)}
                <title>{laneName(lane, named)}</title>
              </text>
              {of.timeline
                .filter(({ resource }) => resource === lane)
                .map((bar) => (
                  <BarDrawn
                    key={`${bar.from} ${bar.did}`}
                    bar={bar}
                    x={x(bar.from)}
                    y={y}
                    widthPx={x(bar.to) - x(bar.from)}
                    named={named}
                  />
                ))}
            </g>
          );
        })}
      </svg>
    </div>
  );
}

const shortened = (name: string, px: number) => {
  const most = Math.floor(px / WORD_PX) - 1;
  return name.length > most ? `${name.slice(0, most - 1)}…` : name;
};
