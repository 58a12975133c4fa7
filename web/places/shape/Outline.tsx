import { memo, type PointerEvent, useEffect, useRef } from 'react';
import { outlineOf } from '../../../core/shape/outline.ts';
import { type ShapeSpec, tailReachMm } from '../../../core/shape/spec.ts';
import { niceStep } from '../../parts/Cylinder.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useTheme } from '../../parts/theme.ts';
import type { Pictured } from '../../workers/shadow.ts';
import { paint } from './paint.ts';

export interface DrawnHook {
  eyeXMm: number;
  shankZMm: number;
  shankMm: number;
  gapMm: number;
  eyeMm: number;
  wireMm: number;
  pointShare: number;
}

interface Props {
  spec: ShapeSpec;
  /** What the solid covers from the side and from above; none until there is one. */
  side: Pictured | null;
  top: Pictured | null;
  onChange(spec: ShapeSpec, about: string | null): void;
  onSettle(): void;
  station: number;
  onStation(index: number): void;
  widthPx: number;
  /** As measured; null until there is a solid. */
  lengthMm: number | null;
  hook?: DrawnHook | null;
}

/** A little air before the nose and behind the tail. */
const ROOM_ALONG = 1.03;
const LEFT = 46;
const GAP = 44;

/** Side and top view over one ruler: stations are dragged, or moved by the arrow keys. */
export const Outline = memo(function Outline({
  spec,
  side,
  top,
  onChange,
  onSettle,
  station,
  onStation,
  widthPx,
  lengthMm: measuredMm,
  hook,
}: Props) {
  const { taste, text } = useTaste();
  const theme = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  const lengthMm = measuredMm ?? spec.bodyMm + spec.wrist.lengthMm + tailReachMm(spec);
  const tops = [...spec.stations.map((one) => one.topMm), spec.tail.acrossMm / 2, spec.wrist.heightMm / 2];
  const bottoms = [...spec.stations.map((one) => one.bottomMm), spec.tail.acrossMm / 2, spec.wrist.heightMm / 2];
  const halves = [...spec.stations.map((one) => one.widthMm / 2), spec.wrist.thicknessMm / 2];
  const reach = spec.limbs.map((one) => one.lengthMm * Math.sin((one.angleDeg * Math.PI) / 180));
  const curl = spec.tail.kind === 'curl' ? spec.tail.lengthMm * 0.55 : 0;
  const high = Math.max(...tops) + (spec.fin?.heightMm ?? 0);
  const low = Math.max(Math.max(...bottoms), curl);
  const half = Math.max(...halves, Math.max(...halves) + Math.max(0, ...reach));
  const scale = Math.min((widthPx - LEFT - 14) / (lengthMm * ROOM_ALONG), 210 / (high + low + 2 * half));
  const sideY = 22 + high * scale;
  const topY = sideY + low * scale + GAP + half * scale;
  const heightPx = topY + half * scale + 14;
  const x = (mm: number) => LEFT + mm * scale;

  useEffect(() => {
    void theme;
    if (!canvas.current) return;
    const placed = [
      { shadow: side, middle: sideY, up: 1 },
      { shadow: top, middle: topY, up: -1 },
    ].flatMap(({ shadow, middle, up }) =>
      shadow ? [{ shadow, left: LEFT + shadow.leftMm * scale, top: middle - up * shadow.topMm * scale, scale }] : [],
    );
    paint(canvas.current, widthPx, heightPx, '--bait', placed);
  }, [side, top, widthPx, heightPx, scale, sideY, topY, theme]);

  const { sectionAt, endMm } = outlineOf(spec);
  const line = (middle: number, of: (mm: number) => number) =>
    Array.from({ length: 121 }, (_, i) => {
      const mm = (endMm * i) / 120;
      return `${i === 0 ? 'M' : 'L'}${x(mm).toFixed(1)} ${(middle - of(mm) * scale).toFixed(1)}`;
    }).join('');

  const sorted = spec.stations;
  const bounded = (index: number, at: number) => {
    const before = sorted[index - 1]?.at ?? -1;
    const after = sorted[index + 1]?.at ?? 1;
    return Math.min(Math.min(0.985, after - 0.01), Math.max(before < 0 ? 0 : before + 0.01, at));
  };
  const put = (index: number, part: Partial<ShapeSpec['stations'][number]>, about: string) =>
    onChange({ ...spec, stations: sorted.map((row, i) => (i === index ? { ...row, ...part } : row)) }, about);
  const tenth = (mm: number, least: number) => Math.max(least, Math.round(mm * 10) / 10);

  const unitMm = taste.system === 'us' ? 25.4 : 1;
  const step = niceStep(lengthMm / unitMm);
  const rulerY = sideY + low * scale + GAP / 2 - 4;
  return (
    <div className="relative shrink-0" style={{ height: heightPx }}>
      <canvas ref={canvas} className="absolute inset-0" style={{ width: widthPx, height: heightPx }} aria-hidden />
      <svg width={widthPx} height={heightPx} className="absolute inset-0 select-none touch-none">
        <title>Side and top view with the stations</title>
        <text x={6} y={sideY - high * scale + 2} fontSize={11} fill="var(--soft)">
          side
        </text>
        <text x={6} y={topY - half * scale + 10} fontSize={11} fill="var(--soft)">
          top
        </text>
        <g stroke="var(--ink)" strokeWidth={1.4} fill="none">
          <path d={line(sideY, (mm) => sectionAt(mm).top)} />
          <path d={line(sideY, (mm) => -sectionAt(mm).bottom)} />
          <path d={line(topY, (mm) => sectionAt(mm).half)} />
          <path d={line(topY, (mm) => -sectionAt(mm).half)} />
          <line x1={x(-3)} x2={x(lengthMm + 1)} y1={sideY} y2={sideY} strokeDasharray="5 5" strokeWidth={0.8} />
          <line x1={x(-3)} x2={x(lengthMm + 1)} y1={topY} y2={topY} strokeDasharray="5 5" strokeWidth={0.8} />
        </g>
        <g aria-hidden>
          <line x1={x(0)} x2={x(lengthMm)} y1={rulerY} y2={rulerY} stroke="var(--ink)" strokeWidth={1.5} />
          {Array.from({ length: Math.floor((lengthMm / unitMm / step) * 5 + 1e-6) + 1 }, (_, i) => {
            const at = x(((i * step) / 5) * unitMm);
            const whole = i % 5 === 0;
            return (
              <g key={at}>
                <line
                  x1={at}
                  x2={at}
                  y1={rulerY}
                  y2={rulerY + (whole ? 9 : 5)}
                  stroke="var(--ink)"
                  strokeWidth={whole ? 1.5 : 0.8}
                />
                {whole && (
                  <text x={at} y={rulerY + 20} fontSize={10.5} textAnchor="middle" fill="var(--ink)">
                    {Math.round((i / 5) * step * 100) / 100}
                  </text>
                )}
              </g>
            );
          })}
          <text x={x(lengthMm)} y={rulerY - 5} fontSize={11} fontWeight={700} textAnchor="end" fill="var(--ink)">
            {text(lengthMm, 'length')}
          </text>
        </g>
        {spec.inserts.map((insert, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: inserts have no name but their place in the list
          <g key={i}>
            <circle
              cx={x(insert.at * spec.bodyMm)}
              cy={sideY - insert.upMm * scale}
              r={Math.max(3, Math.cbrt(insert.volumeMl * 1000 * 0.24) * scale)}
              fill="var(--ink)"
              opacity={0.75}
            />
          </g>
        ))}
        {hook && <HookDrawn hook={hook} x={x} y={(mm) => sideY - mm * scale} scale={scale} />}
        {sorted.map((one, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: stations are known by their order from nose to tail
          <g key={i}>
            <Handle
              label={`Station ${i + 1}, back`}
              cx={x(one.at * spec.bodyMm)}
              cy={sideY - one.topMm * scale}
              chosen={i === station}
              value={one.topMm}
              shown={text(one.topMm, 'length')}
              onGrab={() => onStation(i)}
              onMove={(px, py) =>
                put(
                  i,
                  { at: bounded(i, (px - LEFT) / scale / spec.bodyMm), topMm: tenth((sideY - py) / scale, 0.3) },
                  `station ${i} top`,
                )
              }
              onNudge={(dx, dy) =>
                put(
                  i,
                  { at: bounded(i, one.at + dx / spec.bodyMm), topMm: tenth(one.topMm + dy, 0.3) },
                  `nudge ${i} top`,
                )
              }
              onSettle={onSettle}
            />
            <Handle
              label={`Station ${i + 1}, belly`}
              cx={x(one.at * spec.bodyMm)}
              cy={sideY + one.bottomMm * scale}
              chosen={i === station}
              value={one.bottomMm}
              shown={text(one.bottomMm, 'length')}
              onGrab={() => onStation(i)}
              onMove={(px, py) =>
                put(
                  i,
                  { at: bounded(i, (px - LEFT) / scale / spec.bodyMm), bottomMm: tenth((py - sideY) / scale, 0.3) },
                  `station ${i} bottom`,
                )
              }
              onNudge={(dx, dy) =>
                put(
                  i,
                  { at: bounded(i, one.at + dx / spec.bodyMm), bottomMm: tenth(one.bottomMm - dy, 0.3) },
                  `nudge ${i} bottom`,
                )
              }
              onSettle={onSettle}
            />
            <Handle
              label={`Station ${i + 1}, width`}
              cx={x(one.at * spec.bodyMm)}
              cy={topY + (one.widthMm / 2) * scale}
              chosen={i === station}
              value={one.widthMm}
              shown={text(one.widthMm, 'length')}
              onGrab={() => onStation(i)}
              onMove={(px, py) =>
                put(
                  i,
                  { at: bounded(i, (px - LEFT) / scale / spec.bodyMm), widthMm: tenth((2 * (py - topY)) / scale, 0.6) },
                  `station ${i} width`,
                )
              }
              onNudge={(dx, dy) =>
                put(
                  i,
                  { at: bounded(i, one.at + dx / spec.bodyMm), widthMm: tenth(one.widthMm - 2 * dy, 0.6) },
                  `nudge ${i} width`,
                )
              }
              onSettle={onSettle}
            />
          </g>
        ))}
        <Handle
          label="Wrist, thickness side to side"
          square
          cx={x(spec.bodyMm + spec.wrist.lengthMm / 2)}
          cy={topY + (spec.wrist.thicknessMm / 2) * scale}
          chosen={false}
          value={spec.wrist.thicknessMm}
          shown={text(spec.wrist.thicknessMm, 'length')}
          onGrab={() => {}}
          onMove={(_, py) =>
            onChange(
              { ...spec, wrist: { ...spec.wrist, thicknessMm: Math.min(60, tenth((2 * (py - topY)) / scale, 0.6)) } },
              'wrist thick',
            )
          }
          onNudge={(_, dy) =>
            onChange(
              { ...spec, wrist: { ...spec.wrist, thicknessMm: tenth(spec.wrist.thicknessMm - 2 * dy, 0.6) } },
              'wrist thick',
            )
          }
          onSettle={onSettle}
        />
        <Handle
          label="Wrist, height"
          square
          cx={x(spec.bodyMm + spec.wrist.lengthMm / 2)}
          cy={sideY - (spec.wrist.heightMm / 2) * scale}
          chosen={false}
          value={spec.wrist.heightMm}
          shown={text(spec.wrist.heightMm, 'length')}
          onGrab={() => {}}
          onMove={(_, py) =>
            onChange(
              { ...spec, wrist: { ...spec.wrist, heightMm: Math.min(100, tenth((2 * (sideY - py)) / scale, 0.6)) } },
              'wrist high',
            )
          }
          onNudge={(_, dy) =>
            onChange(
              { ...spec, wrist: { ...spec.wrist, heightMm: tenth(spec.wrist.heightMm + 2 * dy, 0.6) } },
              'wrist high',
            )
          }
          onSettle={onSettle}
        />
      </svg>
    </div>
  );
});

interface HandleProps {
  label: string;
  cx: number;
  cy: number;
  chosen: boolean;
  square?: boolean;
  value: number;
  shown: string;
  onGrab(): void;
  onMove(px: number, py: number): void;
  /** mm toward the tail, and mm up. */
  onNudge(dx: number, dy: number): void;
  onSettle(): void;
}

function Handle({ label, cx, cy, chosen, square, value, shown, onGrab, onMove, onNudge, onSettle }: HandleProps) {
  const drag = (event: PointerEvent<SVGGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (box && event.currentTarget.hasPointerCapture(event.pointerId))
      onMove(event.clientX - box.left, event.clientY - box.top);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={value}
      aria-valuetext={shown}
      className="cursor-move"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        onSettle();
        onGrab();
      }}
      onPointerMove={drag}
      onPointerUp={onSettle}
      onFocus={onGrab}
      onBlur={onSettle}
      onKeyDown={(event) => {
        const by = event.shiftKey ? 1 : 0.1;
        const moves: Record<string, [number, number]> = {
          ArrowUp: [0, by],
          ArrowDown: [0, -by],
          ArrowLeft: [-5 * by, 0],
          ArrowRight: [5 * by, 0],
        };
        const move = moves[event.key];
        if (!move) return;
        event.preventDefault();
        onNudge(...move);
      }}
    >
      <circle cx={cx} cy={cy} r={14} fill="transparent" />
      {square ? (
        <rect x={cx - 5} y={cy - 5} width={10} height={10} fill="var(--sheet)" stroke="var(--heat)" strokeWidth={2.5} />
      ) : (
        <circle
          cx={cx}
          cy={cy}
          r={chosen ? 6.5 : 5}
          fill={chosen ? 'var(--rest)' : 'var(--sheet)'}
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
    </g>
  );
}

/** A single hook to scale: eye, shank, bend and point. */
function HookDrawn({
  hook,
  x,
  y,
  scale,
}: {
  hook: DrawnHook;
  x(mm: number): number;
  y(mm: number): number;
  scale: number;
}) {
  const { eyeXMm, shankZMm, shankMm, gapMm, eyeMm, wireMm, pointShare } = hook;
  const bend = eyeXMm + shankMm - gapMm / 2;
  const point = eyeXMm + shankMm - pointShare * shankMm;
  const r = (gapMm / 2) * scale;
  const path = `M${x(eyeXMm + eyeMm)} ${y(shankZMm)} L${x(bend)} ${y(shankZMm)} A${r} ${r} 0 0 0 ${x(bend)} ${y(shankZMm + gapMm)} L${x(point)} ${y(shankZMm + gapMm)}`;
  return (
    <g fill="none" stroke="var(--heat)" strokeWidth={Math.max(1.6, wireMm * scale)} strokeLinecap="round" aria-hidden>
      <path d={path} />
      <path
        d={`M${x(point)} ${y(shankZMm + gapMm)} l${2.4 * scale} ${1.6 * scale}`}
        strokeWidth={Math.max(1.2, wireMm * scale * 0.7)}
      />
      <circle
        cx={x(eyeXMm + eyeMm / 2)}
        cy={y(shankZMm)}
        r={(eyeMm / 2) * scale}
        strokeWidth={Math.max(1.4, wireMm * scale * 0.8)}
      />
    </g>
  );
}
