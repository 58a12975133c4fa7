import { memo, type RefObject, useEffect, useRef, useState } from 'react';
import { axisOf } from '../../../core/shape/axis.ts';
import { outlineOf, type Section } from '../../../core/shape/outline.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import type { DrawnHook } from '../../../core/water/assumed.ts';
import { paint } from '../../parts/solid/paint.ts';
import { useTheme } from '../../parts/theme.ts';
import type { Pictured } from '../../workers/shadow.ts';
import { StationHandles, WristHandles } from './Handles.tsx';
import { HookDrawn } from './HookDrawn.tsx';
import { acrossPx, type Geometry, geometryOf, LEFT } from './outlineGeometry.ts';
import { Ruler } from './Ruler.tsx';

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

/** Side and top view over one ruler: stations are dragged, or moved by the arrow keys. */
export const Outline = memo(function Outline(props: Props) {
  const { spec, side, top, onChange, onSettle, station, onStation, widthPx, lengthMm, hook } = props;
  // The paper keeps still under the hand: were it drawn to a new scale at each move, the tallest place would run away.
  const [held, setHeld] = useState<Geometry | null>(null);
  const geometry = held ?? geometryOf(spec, widthPx, lengthMm);
  const { scale, sideY, topY, heightPx } = geometry;
  const canvas = useShadowsOn(geometry, widthPx, side, top);
  const x = (mm: number) => acrossPx(geometry, mm);
  const axis = axisOf(spec);
  const handles = {
    spec,
    geometry,
    onChange,
    onSettle,
    onHold: (on: boolean) => setHeld(on ? geometry : null),
  };
  return (
    <div className="relative shrink-0" style={{ height: heightPx }}>
      <canvas ref={canvas} className="absolute inset-0" style={{ width: widthPx, height: heightPx }} aria-hidden />
      <svg width={widthPx} height={heightPx} className="absolute inset-0 select-none touch-none">
        <title>Side and top view with the stations</title>
        <text x={6} y={sideY - geometry.highMm * scale + 2} fontSize={11} fill="var(--soft)">
          side
        </text>
        <text x={6} y={topY - geometry.halfMm * scale + 10} fontSize={11} fill="var(--soft)">
          top
        </text>
        <Lines spec={spec} geometry={geometry} />
        <Ruler geometry={geometry} />
        {spec.inserts.map((insert, i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: inserts have no name but their place in the list
            key={i}
            cx={x(axis.place(insert.at * spec.bodyMm, insert.upMm)[0])}
            cy={sideY - axis.place(insert.at * spec.bodyMm, insert.upMm)[1] * scale}
            r={Math.max(3, Math.cbrt(insert.volumeMl * 1000 * 0.24) * scale)}
            fill="var(--ink)"
            opacity={0.75}
          />
        ))}
        {hook && <HookDrawn hook={hook} x={x} y={(mm) => sideY - mm * scale} scale={scale} />}
        <StationHandles {...handles} station={station} onStation={onStation} />
        <WristHandles {...handles} />
      </svg>
    </div>
  );
});

/** Paints what the solid covers under the lines. */
function useShadowsOn(
  { scale, beforeMm, sideY, topY, heightPx }: Geometry,
  widthPx: number,
  side: Pictured | null,
  top: Pictured | null,
): RefObject<HTMLCanvasElement | null> {
  const theme = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    void theme;
    if (!canvas.current) return;
    const placed = [
      { shadow: side, middle: sideY, up: 1 },
      { shadow: top, middle: topY, up: -1 },
    ].flatMap(({ shadow, middle, up }) =>
      shadow
        ? [{ shadow, left: LEFT + (shadow.leftMm + beforeMm) * scale, top: middle - up * shadow.topMm * scale, scale }]
        : [],
    );
    paint(canvas.current, widthPx, heightPx, '--bait', placed);
  }, [side, top, widthPx, heightPx, scale, beforeMm, sideY, topY, theme]);
  return canvas;
}

/** What the figures alone say: the outline from the side and from above, the middle of each, and dashed what lies inside. */
function Lines({ spec, geometry }: { spec: ShapeSpec; geometry: Geometry }) {
  const { scale, sideY, topY, lengthMm, beforeMm } = geometry;
  const x = (mm: number) => acrossPx(geometry, mm);
  const { sectionAt, endMm } = outlineOf(spec);
  const axis = axisOf(spec);
  const fromSide = (along: number, over: number) => {
    const [to, up] = axis.place(along, over);
    return `${x(to).toFixed(1)} ${(sideY - up * scale).toFixed(1)}`;
  };
  const fromAbove = (along: number, aside: number) =>
    `${x(axis.at(along).xMm).toFixed(1)} ${(topY - aside * scale).toFixed(1)}`;
  const line = (at: (along: number, off: number) => string, of: (mm: number) => number, from = 0, to = endMm) =>
    Array.from({ length: 121 }, (_, i) => {
      const mm = from + ((to - from) * i) / 120;
      return `${i === 0 ? 'M' : 'L'}${at(mm, of(mm))}`;
    }).join('');
  return (
    <g stroke="var(--ink)" strokeWidth={1.4} fill="none">
      <path d={line(fromSide, (mm) => sectionAt(mm).top)} />
      <path d={line(fromSide, (mm) => -sectionAt(mm).bottom)} />
      <path d={line(fromAbove, (mm) => sectionAt(mm).half)} />
      <path d={line(fromAbove, (mm) => -sectionAt(mm).half)} />
      <path d={line(fromSide, () => 0, -3, endMm + 3)} strokeDasharray="5 5" strokeWidth={0.8} />
      <line x1={x(-3)} x2={x(lengthMm - beforeMm + 1)} y1={topY} y2={topY} strokeDasharray="5 5" strokeWidth={0.8} />
      <g strokeDasharray="3 2" strokeWidth={1.2} data-inside>
        {insides(spec, sectionAt).map(({ name, from, to, over, under, half }) => (
          <g key={name}>
            <path d={`${line(fromSide, over, from, to)}${line(fromSide, under, to, from).replace('M', 'L')}Z`} />
            <path
              d={`${line(fromAbove, half, from, to)}${line(fromAbove, (mm) => -half(mm), to, from).replace('M', 'L')}Z`}
            />
          </g>
        ))}
      </g>
    </g>
  );
}

interface Inside {
  name: string;
  from: number;
  to: number;
  over(mm: number): number;
  under(mm: number): number;
  half(mm: number): number;
}

/** Bore, slots and hollow: what the outside does not show. */
function insides(spec: ShapeSpec, sectionAt: (mm: number) => Section): Inside[] {
  const along = ({ fromAt, toAt }: { fromAt: number; toAt: number }) =>
    [Math.min(fromAt, toAt) * spec.bodyMm, Math.max(fromAt, toAt) * spec.bodyMm] as const;
  const { bore, bellySlot, topSlot, hollow } = spec;
  const out: Inside[] = [];
  if (bore) {
    const [from, to] = along(bore);
    const r = bore.diameterMm / 2;
    out.push({ name: 'bore', from, to, over: () => bore.upMm + r, under: () => bore.upMm - r, half: () => r });
  }
  for (const [name, slot, belly] of [
    ['belly slot', bellySlot, true],
    ['top slot', topSlot, false],
  ] as const) {
    if (!slot) continue;
    const [from, to] = along(slot);
    // As deep as it is cut in its middle.
    const { top, bottom } = sectionAt((from + to) / 2);
    const floor = belly ? slot.depthMm - bottom : top - slot.depthMm;
    out.push({
      name,
      from,
      to,
      over: (mm) => (belly ? floor : sectionAt(mm).top),
      under: (mm) => (belly ? -sectionAt(mm).bottom : floor),
      half: () => slot.widthMm / 2,
    });
  }
  if (hollow) {
    const [from, to] = along(hollow);
    const inner = (size: number) => Math.max(0, size - hollow.skinMm);
    out.push({
      name: 'hollow',
      from,
      to,
      over: (mm) => inner(sectionAt(mm).top),
      under: (mm) => -inner(sectionAt(mm).bottom),
      half: (mm) => inner(sectionAt(mm).half),
    });
  }
  return out;
}
