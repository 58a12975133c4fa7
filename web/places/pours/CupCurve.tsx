import type { Heat, Shot } from '../../../contract/pours.ts';
import type { HeatLimit } from '../../../core/heat/window.ts';
import { useTaste } from '../../parts/taste.tsx';

interface Props {
  heats: Heat[];
  shots: Shot[];
  lowC: number;
  highC: number;
  method: string;
  limits: HeatLimit[];
  nowMs: number;
  /** What the cup is foreseen to be at a moment, °C. */
  foreseen?: ((ms: number) => number) | undefined;
  widthPx?: number;
  heightPx?: number;
  /** It takes what height there is. */
  fills?: boolean;
}

const [LEAST_C, MOST_C] = [140, 200];
/** How far a curve is foreseen, ms. */
const AHEAD_MS = 6 * 60_000;
const AHEAD_STEPS = 24;

/** The cup's readings on a thermometer's scale, its pour window as a band, each shot a tick under them. */
export function CupCurve({
  heats,
  shots,
  lowC,
  highC,
  method,
  limits,
  nowMs,
  foreseen,
  widthPx = 440,
  heightPx = 262,
  fills = false,
}: Props) {
  const { text, parts } = useTaste();
  const limit = limits[0];
  const left = 46;
  const floor = heightPx - 22;
  const y = (c: number) =>
    6 + (floor - 6) * (1 - (Math.min(MOST_C, Math.max(LEAST_C, c)) - LEAST_C) / (MOST_C - LEAST_C));
  const startMs = heats[0] ? Date.parse(heats[0].at) : nowMs;
  const spanMs = Math.max(10 * 60_000, (nowMs - startMs) * 1.08, foreseen ? nowMs - startMs + AHEAD_MS : 0);
  const x = (ms: number) => left + ((widthPx - left - 6) * Math.max(0, ms - startMs)) / spanMs;
  const points = heats.map((heat) => ({ heat, px: x(Date.parse(heat.at)), py: y(heat.c) }));
  const last = points.at(-1);
  return (
    <svg
      viewBox={`0 0 ${widthPx} ${heightPx}`}
      className={fills ? 'w-full h-full' : 'w-full h-auto'}
      preserveAspectRatio="xMinYMin meet"
      style={{ maxWidth: widthPx }}
      role="img"
      aria-label={`Cup readings: ${heats.map((heat) => text(heat.c, 'temperature')).join(', ') || 'none yet'}. Window ${text(lowC, 'temperature')} to ${text(highC, 'temperature')}.`}
    >
      <rect
        x={left}
        y={y(highC)}
        width={widthPx - left}
        height={Math.max(0, y(lowC) - y(highC))}
        fill="var(--rest)"
        opacity={0.2}
      />
      {/* Under the band: what is poured is in it, and runs through no word there. */}
      <text x={widthPx - 6} y={y(lowC) + 18} fontSize={16} fontWeight={700} textAnchor="end" fill="var(--rest)">
        {method}, {parts(lowC, 'temperature').figure} to {text(highC, 'temperature')}
      </text>
      {limit && <Bears limit={limit} left={left} widthPx={widthPx} py={y(limit.c)} />}
      <Axes x={x} y={y} left={left} floor={floor} widthPx={widthPx} startMs={startMs} spanMs={spanMs} />
      {points.slice(1).map((point, index) => {
        const before = points[index];
        return (
          before && (
            <line
              key={point.heat.id}
              x1={before.px}
              y1={before.py}
              x2={point.px}
              y2={point.py}
              stroke="var(--heat)"
              strokeWidth={3}
              strokeDasharray={point.heat.kind === 'reheat' ? '2 5' : undefined}
            />
          )
        );
      })}
      {points.map(({ heat, px, py }) => (
        <circle key={heat.id} cx={px} cy={py} r={5} fill="var(--heat)" />
      ))}
      {last && foreseen && (
        <Ahead
          x={x}
          y={y}
          fromMs={Date.parse(last.heat.at)}
          toMs={startMs + spanMs}
          nowMs={nowMs}
          floor={floor}
          at={foreseen}
        />
      )}
      {last && !foreseen && (
        <line
          x1={last.px}
          x2={x(nowMs)}
          y1={last.py}
          y2={last.py}
          stroke="var(--heat)"
          strokeWidth={1.5}
          strokeDasharray="1 5"
        />
      )}
      {shots.map((shot) => (
        <line
          key={shot.id}
          x1={x(Date.parse(shot.at))}
          x2={x(Date.parse(shot.at))}
          y1={floor - 9}
          y2={floor}
          stroke="var(--ink)"
          strokeWidth={3}
        />
      ))}
      <line x1={left} x2={widthPx} y1={floor} y2={floor} stroke="var(--edge)" strokeWidth={1.5} />
    </svg>
  );
}

/** What flake in the cup bears. */
function Bears({ limit, left, widthPx, py }: { limit: HeatLimit; left: number; widthPx: number; py: number }) {
  const { text } = useTaste();
  return (
    <>
      <line x1={left} x2={widthPx} y1={py} y2={py} stroke="var(--warn)" strokeWidth={2} strokeDasharray="3 4" />
      <text x={widthPx - 6} y={py - 5} fontSize={16} fontWeight={700} textAnchor="end" fill="var(--warn)">
        {limit.name} turns above {text(limit.c, 'temperature')}
      </text>
    </>
  );
}

interface AheadProps {
  x(ms: number): number;
  y(c: number): number;
  fromMs: number;
  toMs: number;
  nowMs: number;
  floor: number;
  at(ms: number): number;
}

/** How the cup goes on cooling, and where on that it is now. */
function Ahead({ x, y, fromMs, toMs, nowMs, floor, at }: AheadProps) {
  const points = Array.from({ length: AHEAD_STEPS + 1 }, (_, i) => fromMs + ((toMs - fromMs) * i) / AHEAD_STEPS);
  return (
    <>
      <polyline
        points={points
          .filter((ms) => at(ms) >= LEAST_C)
          .map((ms) => `${x(ms)},${y(at(ms))}`)
          .join(' ')}
        fill="none"
        stroke="var(--heat)"
        strokeWidth={2}
        strokeDasharray="6 5"
      />
      <line x1={x(nowMs)} x2={x(nowMs)} y1={6} y2={floor} stroke="var(--ink)" strokeDasharray="2 4" />
    </>
  );
}

/** What “10 min” takes, and a figure beside it. */
const LAST_PX = 90;

interface AxesProps {
  x(ms: number): number;
  y(c: number): number;
  left: number;
  floor: number;
  widthPx: number;
  startMs: number;
  spanMs: number;
}

/** Degrees up the side, minutes along the floor. */
function Axes({ x, y, left, floor, widthPx, startMs, spanMs }: AxesProps) {
  const { parts } = useTaste();
  const minutes = Math.round(spanMs / 60_000);
  const step = minutes <= 15 ? 2 : minutes <= 30 ? 5 : minutes <= 75 ? 15 : minutes <= 300 ? 60 : 240;
  const every = Array.from({ length: Math.floor(spanMs / 60_000 / step) + 1 }, (_, i) => i * step);
  const at = (minute: number) => x(startMs + minute * 60_000);
  // The last one says what they are, and takes the room of the one before it.
  const last = every.at(-1) as number;
  const shown = every.filter((minute) => minute === last || at(last) - at(minute) > LAST_PX);
  return (
    <>
      {[140, 150, 160, 170, 180, 190, 200].map((c) => (
        <g key={c}>
          <line x1={left} x2={left + 12} y1={y(c)} y2={y(c)} stroke="var(--edge)" strokeWidth={1.5} />
          {c < 200 && <line x1={left} x2={left + 6} y1={y(c + 5)} y2={y(c + 5)} stroke="var(--edge)" />}
          {c < 200 && (
            <text x={left - 7} y={y(c) + 5} fontSize={16} textAnchor="end" fill="var(--soft)">
              {parts(c, 'temperature').figure}
            </text>
          )}
        </g>
      ))}
      <line x1={left} x2={left} y1={6} y2={floor} stroke="var(--edge)" strokeWidth={1.5} />
      {shown.map((minute) => (
        <text
          key={minute}
          x={at(minute)}
          y={floor + 17}
          fontSize={16}
          fill="var(--soft)"
          textAnchor={at(minute) > widthPx - 40 ? 'end' : 'middle'}
        >
          {minute === last ? `${minute} min` : minute}
        </text>
      ))}
    </>
  );
}
