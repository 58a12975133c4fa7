import { type PointerEvent, useRef } from 'react';
import type { SiliconePlan } from '../../core/mold/silicone.ts';
import { gridPlaces, inside, type Place, type Thinnest, WEAK_WALL_MM } from '../../core/mold/standing.ts';
import { BaitShape } from './BaitShape.tsx';
import { Dim } from './Dim.tsx';
import { Fitted } from './Fitted.tsx';
import { useTaste } from './taste.tsx';

export interface DrawnMaster {
  shape: string;
  /** Whose outline it is. */
  bait?: string | undefined;
  /** Its sizes as it stands; on end its length is the height. */
  onEnd?: boolean | undefined;
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

/** How the box lies on the paper, px. */
interface Paper {
  left: number;
  /** Behind the box, where words stand. */
  words: number;
  /** Of the box from the side. */
  sideTop: number;
  floor: number;
  px(mm: number): number;
  scale: number;
}

function paperFor(plan: SiliconePlan, widthPx: number, heightPx: number): Paper & { right: number } {
  const right = widthPx < ROOMY_PX ? NARROW_RIGHT_PX : 140;
  const scale = Math.min(
    (widthPx - LEFT_PX - right) / plan.boxLengthMm,
    (heightPx - 76) / (plan.boxWidthMm + plan.boxHeightMm),
  );
  const px = (mm: number) => mm * scale;
  const sideTop = px(plan.boxWidthMm) + 58;
  const words = LEFT_PX + px(plan.boxLengthMm) + 10;
  return { left: LEFT_PX, right, words, sideTop, floor: sideTop + px(plan.boxHeightMm), px, scale };
}

function Drawn(props: Props & { widthPx: number }) {
  const { plan, master, count, widthPx, heightPx = 370, onMove, thinnest } = props;
  const { text } = useTaste();
  const paper = paperFor(plan, widthPx, heightPx);
  const { px, left, right, floor } = paper;
  const places = props.places ?? gridPlaces(plan, master, count);
  const over = Math.max(0, (FIGURE_PX - px(plan.boxWidthMm)) / 2);
  const under = Math.max(0, (FIGURE_PX - px(plan.boxHeightMm)) / 2 - 16);
  const size = [px(plan.boxLengthMm) + left + right, over + floor + 16 + under];
  const label = `Box ${text(plan.boxLengthMm, 'length')} long, ${text(plan.boxWidthMm, 'length')} wide, ${text(plan.boxHeightMm, 'length')} high, with ${count} masters in ${plan.columns} columns`;
  return (
    <svg
      width={size[0]}
      height={size[1]}
      viewBox={`0 ${-over} ${size[0]} ${size[1]}`}
      className="max-w-full"
      role={onMove ? 'group' : 'img'}
      aria-label={label}
    >
      <FromAbove paper={paper} plan={plan} master={master} places={places} onMove={onMove} />
      {thinnest && <ThinnestMark paper={paper} plan={plan} thinnest={thinnest} />}
      <FromTheSide {...props} paper={paper} places={places} />
    </svg>
  );
}

interface AboveProps {
  paper: Paper;
  plan: SiliconePlan;
  master: DrawnMaster;
  places: Place[];
  onMove: Props['onMove'];
}

/** Where each master stands, to be dragged or moved by the arrow keys. */
function FromAbove({ paper: { px, left, words, scale }, plan, master, places, onMove }: AboveProps) {
  const { text } = useTaste();
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
  const drop = () => {
    drag.current = null;
  };
  const [wide, deep] = [px(plan.boxLengthMm), px(plan.boxWidthMm)];
  return (
    <>
      <rect x={left} y={2} width={wide} height={deep} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={3} />
      {places.map(({ xMm, yMm }, index) => {
        const shape = master.onEnd ? (
          <ellipse
            cx={left + px(xMm + master.lengthMm / 2)}
            cy={2 + px(yMm + master.widthMm / 2)}
            rx={px(master.lengthMm) / 2}
            ry={px(master.widthMm) / 2}
            fill="var(--bait)"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
        ) : (
          <BaitShape
            shape={master.shape}
            bait={master.bait}
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
            onPointerUp={drop}
            onPointerCancel={drop}
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
      <Dim x1={left - 20} y1={2} x2={left - 20} y2={2 + deep} label={text(plan.boxWidthMm, 'length')} />
      <Dim x1={left} y1={deep + 32} x2={left + wide} y2={deep + 32} label={text(plan.boxLengthMm, 'length')} />
      <text x={words} y={16} fontSize={12} fill="var(--soft)">
        from above
      </text>
    </>
  );
}

function ThinnestMark({
  paper: { px, left, words },
  plan,
  thinnest,
}: {
  paper: Paper;
  plan: SiliconePlan;
  thinnest: Thinnest;
}) {
  const { text } = useTaste();
  const colour = thinnest.mm < WEAK_WALL_MM - 1e-6 ? 'var(--heat)' : 'var(--rest)';
  return (
    <g>
      <line
        x1={left + px(thinnest.from.xMm)}
        y1={2 + px(thinnest.from.yMm)}
        x2={left + px(thinnest.to.xMm)}
        y2={2 + px(thinnest.to.yMm)}
        stroke={colour}
        strokeWidth={4}
      />
      <text x={words} y={px(plan.boxWidthMm) - 6} fontSize={12} fontWeight={700} fill={colour}>
        <tspan x={words} dy={-14}>
          thinnest
        </tspan>
        <tspan x={words} dy={14}>
          {text(Math.max(0, thinnest.mm), 'length')}
        </tspan>
      </text>
    </g>
  );
}

/** How high it is filled, and how the masters lie in it. */
function FromTheSide({
  paper: { px, left, words, sideTop, floor },
  plan,
  master,
  places,
  twoPiece = false,
  missingMm = 0,
}: Props & { paper: Paper; places: Place[] }) {
  const { text } = useTaste();
  const right = left + px(plan.boxLengthMm);
  const top = floor - px(plan.boxHeightMm - missingMm);
  const half = floor - px(plan.boxHeightMm) / 2;
  const colour = missingMm ? 'var(--heat)' : 'var(--rest)';
  return (
    <>
      <rect x={left} y={top} width={right - left} height={floor - top} fill="var(--liquid)" />
      {[...new Map(places.map((one) => [one.xMm.toFixed(1), one])).values()].map(({ xMm }) =>
        master.onEnd ? (
          // Nose up: the picture is turned a quarter.
          <g
            key={xMm}
            transform={`translate(${left + px(xMm + master.lengthMm)} ${floor - px(master.heightMm)}) rotate(90)`}
          >
            <BaitShape
              shape={master.shape}
              bait={master.bait}
              view="side"
              lengthPx={px(master.heightMm)}
              widthPx={px(master.lengthMm)}
              fill="var(--bait)"
            />
          </g>
        ) : (
          <BaitShape
            key={xMm}
            shape={master.shape}
            bait={master.bait}
            view="side"
            x={left + px(xMm)}
            y={floor - px(master.heightMm) - (twoPiece ? px((plan.boxHeightMm - master.heightMm) / 2) : 0)}
            lengthPx={px(master.lengthMm)}
            widthPx={px(master.heightMm)}
            fill="var(--bait)"
          />
        ),
      )}
      {twoPiece && (
        <>
          <line x1={left} x2={right} y1={half} y2={half} stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="7 5" />
          <text x={words} y={half + 4} fontSize={12} fill="var(--ink)">
            parting line
          </text>
        </>
      )}
      <path
        d={`M${left} ${sideTop - 8} V${floor} H${right} V${sideTop - 8}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
      />
      <line x1={left} x2={right} y1={top} y2={top} stroke={colour} strokeWidth={3} />
      <text x={words} y={top + 4} fontSize={12} fontWeight={700} fill={colour}>
        {missingMm ? 'stands here' : 'fill to here'}
      </text>
      <Dim x1={left - 20} y1={sideTop} x2={left - 20} y2={floor} label={text(plan.boxHeightMm, 'length')} />
    </>
  );
}
