import { type PointerEvent, useRef } from 'react';
import type { SiliconePlan } from '../../../core/mold/silicone.ts';
import { gridPlaces, inside, type Place, type Thinnest, WEAK_WALL_MM } from '../../../core/mold/standing.ts';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { Fitted } from '../../parts/Fitted.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Dim } from '../masters/Measures.tsx';

export interface DrawnMaster {
  shape: string;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

/** Room for dimensions before the box and for words behind it; under this width the words stand in two lines. */
const LEFT_PX = 54;
const ROOMY_PX = 400;
const NARROW_RIGHT_PX = 118;
/** What the figure of an upright dimension takes; a shorter one reaches over its ends. */
const FIGURE_PX = 72;

interface Props {
  plan: SiliconePlan;
  master: DrawnMaster;
  count: number;
  /** Masters lie half way up, in a bed to the parting line. */
  twoPiece?: boolean;
  /** How much is missing, drawn as the level the first mix reached. */
  missingMm?: number;
  widthPx?: number;
  heightPx?: number;
  /** Where each master stands; in even rows where it was not moved. */
  places?: Place[] | undefined;
  /** Lets masters be dragged, or moved by the arrow keys. */
  onMove?: (index: number, to: Place) => void;
  thinnest?: Thinnest;
}

/** The box to scale with its masters in it, from above and from the side; the length lies across the page. */
export function BoxDrawing({ widthPx = 600, ...props }: Props) {
  return <Fitted mostPx={widthPx}>{(width) => <Drawn {...props} widthPx={width} />}</Fitted>;
}

function Drawn({
  plan,
  master,
  count,
  twoPiece = false,
  missingMm = 0,
  widthPx,
  heightPx = 370,
  places: moved,
  onMove,
  thinnest,
}: Props & { widthPx: number }) {
  const { text } = useTaste();
  const [acrossMm, downMm] = [plan.boxLengthMm, plan.boxWidthMm];
  const right = widthPx < ROOMY_PX ? NARROW_RIGHT_PX : 140;
  const scale = Math.min((widthPx - LEFT_PX - right) / acrossMm, (heightPx - 76) / (downMm + plan.boxHeightMm));
  const px = (mm: number) => mm * scale;
  const left = LEFT_PX;
  const sideTop = px(downMm) + 58;
  const places = moved ?? gridPlaces(plan, master, count);
  const drag = useRef<{ index: number; x: number; y: number; from: Place } | null>(null);
  const move = (index: number, to: Place) => onMove?.(index, inside(to, plan, master));
  const dragged = (event: PointerEvent<SVGGElement>) => {
    const now = drag.current;
    if (!now) return;
    move(now.index, {
      xMm: now.from.xMm + (event.clientX - now.x) / scale,
      yMm: now.from.yMm + (event.clientY - now.y) / scale,
    });
  };
  const fillMm = plan.boxHeightMm - missingMm;
  const floor = sideTop + px(plan.boxHeightMm);
  const over = Math.max(0, (FIGURE_PX - px(downMm)) / 2);
  const under = Math.max(0, (FIGURE_PX - px(plan.boxHeightMm)) / 2 - 16);
  const label = `Box ${text(plan.boxLengthMm, 'length')} long, ${text(plan.boxWidthMm, 'length')} wide, ${text(plan.boxHeightMm, 'length')} high, with ${count} masters in ${plan.columns} columns`;
  return (
    <svg
      width={px(acrossMm) + left + right}
      height={over + floor + 16 + under}
      viewBox={`0 ${-over} ${px(acrossMm) + left + right} ${over + floor + 16 + under}`}
      className="max-w-full"
      role={onMove ? 'group' : 'img'}
      aria-label={label}
    >
      <rect
        x={left}
        y={2}
        width={px(acrossMm)}
        height={px(downMm)}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={3}
      />
      {places.map(({ xMm, yMm }, index) => {
        const shape = (
          <BaitShape
            shape={master.shape}
            x={left + px(xMm)}
            y={2 + px(yMm)}
            lengthPx={px(master.lengthMm)}
            widthPx={px(master.widthMm)}
            fill="var(--bait)"
          />
        );
        // biome-ignore lint/suspicious/noArrayIndexKey: the master keeps its number while it is dragged.
        if (!onMove) return <g key={index}>{shape}</g>;
        return (
          // biome-ignore lint/a11y/useSemanticElements: a button cannot stand in a drawing.
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: the master keeps its number while it is dragged.
            key={index}
            role="button"
            tabIndex={0}
            aria-label={`Master ${index + 1}, ${text(xMm, 'length')} along, ${text(yMm, 'length')} across: drag it, or use the arrow keys`}
            className="cursor-move outline-offset-4"
            style={{ touchAction: 'none' }}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              drag.current = { index, x: event.clientX, y: event.clientY, from: { xMm, yMm } };
            }}
            onPointerMove={dragged}
            onPointerUp={() => {
              drag.current = null;
            }}
            onPointerCancel={() => {
              drag.current = null;
            }}
            onKeyDown={(event) => {
              const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
              if (!by) return;
              event.preventDefault();
              move(index, { xMm: xMm + (by[0] ?? 0), yMm: yMm + (by[1] ?? 0) });
            }}
          >
            {shape}
          </g>
        );
      })}
      {thinnest && (
        <g>
          <line
            x1={left + px(thinnest.from.xMm)}
            y1={2 + px(thinnest.from.yMm)}
            x2={left + px(thinnest.to.xMm)}
            y2={2 + px(thinnest.to.yMm)}
            stroke={thinnest.mm < WEAK_WALL_MM - 1e-6 ? 'var(--heat)' : 'var(--rest)'}
            strokeWidth={4}
          />
          <text
            x={left + px(acrossMm) + 10}
            y={px(downMm) - 6}
            fontSize={12}
            fontWeight={700}
            fill={thinnest.mm < WEAK_WALL_MM - 1e-6 ? 'var(--heat)' : 'var(--rest)'}
          >
            <tspan x={left + px(acrossMm) + 10} dy={-14}>
              thinnest
            </tspan>
            <tspan x={left + px(acrossMm) + 10} dy={14}>
              {text(Math.max(0, thinnest.mm), 'length')}
            </tspan>
          </text>
        </g>
      )}
      <Dim x1={left - 20} y1={2} x2={left - 20} y2={2 + px(downMm)} label={text(downMm, 'length')} />
      <Dim
        x1={left}
        y1={px(downMm) + 32}
        x2={left + px(acrossMm)}
        y2={px(downMm) + 32}
        label={text(acrossMm, 'length')}
      />
      <text x={left + px(acrossMm) + 10} y={16} fontSize={12} fill="var(--soft)">
        from above
      </text>
      <rect x={left} y={floor - px(fillMm)} width={px(acrossMm)} height={px(fillMm)} fill="var(--liquid)" />
      {[...new Map(places.map((one) => [one.xMm.toFixed(1), one])).values()].map(({ xMm }) => (
        <BaitShape
          key={xMm}
          shape={master.shape}
          view="side"
          x={left + px(xMm)}
          y={floor - px(master.heightMm) - (twoPiece ? px((plan.boxHeightMm - master.heightMm) / 2) : 0)}
          lengthPx={px(master.lengthMm)}
          widthPx={px(master.heightMm)}
          fill="var(--bait)"
        />
      ))}
      {twoPiece && (
        <>
          <line
            x1={left}
            x2={left + px(acrossMm)}
            y1={floor - px(plan.boxHeightMm) / 2}
            y2={floor - px(plan.boxHeightMm) / 2}
            stroke="var(--ink)"
            strokeWidth={1.5}
            strokeDasharray="7 5"
          />
          <text x={left + px(acrossMm) + 10} y={floor - px(plan.boxHeightMm) / 2 + 4} fontSize={12} fill="var(--ink)">
            parting line
          </text>
        </>
      )}
      <path
        d={`M${left} ${sideTop - 8} V${floor} H${left + px(acrossMm)} V${sideTop - 8}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
      />
      <line
        x1={left}
        x2={left + px(acrossMm)}
        y1={floor - px(fillMm)}
        y2={floor - px(fillMm)}
        stroke={missingMm ? 'var(--heat)' : 'var(--rest)'}
        strokeWidth={3}
      />
      <text
        x={left + px(acrossMm) + 10}
        y={floor - px(fillMm) + 4}
        fontSize={12}
        fontWeight={700}
        fill={missingMm ? 'var(--heat)' : 'var(--rest)'}
      >
        {missingMm ? 'stands here' : 'fill to here'}
      </text>
      <Dim x1={left - 20} y1={sideTop} x2={left - 20} y2={floor} label={text(plan.boxHeightMm, 'length')} />
    </svg>
  );
}
