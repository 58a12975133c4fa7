import { useQuery } from '@tanstack/react-query';
import type { BaitOutline, Shape } from '../../contract/workshop.ts';
import { queries } from '../api/queries.ts';

// Outlines in a box of length 1 and width 1, head to the left. Ours, drawn from the parts a bait has.
const ABOVE: Record<Shape, string> = {
  paddle:
    'M0 .5 C.04 .26 .16 .08 .36 .04 C.56 .02 .7 .28 .82 .4 C.87 .42 .9 .18 .96 .06 Q1 .5 .96 .94 C.9 .82 .87 .58 .82 .6 C.7 .72 .56 .98 .36 .96 C.16 .92 .04 .74 0 .5Z',
  ribbon:
    'M0 .5 C.03 .18 .1 .1 .22 .12 L.52 .2 C.66 .24 .72 .05 .8 .12 C.88 .2 .9 .5 1 .3 C.96 .8 .86 .72 .8 .6 C.74 .52 .66 .78 .52 .8 L.22 .88 C.1 .9 .03 .82 0 .5Z',
  claws:
    'M0 .5 C.02 .3 .1 .26 .2 .3 L.44 .3 C.5 .3 .5 .16 .6 .06 C.74 -.02 .9 .02 1 .14 C.88 .2 .78 .3 .66 .38 L.66 .62 C.78 .7 .88 .8 1 .86 C.9 .98 .74 1.02 .6 .94 C.5 .84 .5 .7 .44 .7 L.2 .7 C.1 .74 .02 .7 0 .5Z',
  tube: 'M0 .5 C0 .2 .06 .1 .14 .1 L.6 .1 L1 .02 L.72 .24 L1 .3 L.74 .44 L1 .56 L.74 .62 L1 .78 L.72 .76 L1 .98 L.6 .9 L.14 .9 C.06 .9 0 .8 0 .5Z',
  shrimp:
    'M0 .5 C.02 .2 .12 .06 .28 .06 C.46 .08 .5 .2 .62 .24 C.74 .28 .8 .34 .86 .3 L1 .06 L.96 .5 L1 .94 L.86 .7 C.8 .66 .74 .72 .62 .76 C.5 .8 .46 .92 .28 .94 C.12 .94 .02 .8 0 .5Z',
  stick:
    'M0 .5 C.02 .14 .1 .06 .22 .06 L.86 .2 C.94 .24 1 .36 1 .5 C1 .64 .94 .76 .86 .8 L.22 .94 C.1 .94 .02 .86 0 .5Z',
};

// From the side: the back is up, the belly lies flat on the board.
const SIDE: Record<Shape, string> = {
  paddle: 'M0 1 C.06 .4 .2 .02 .4 0 C.58 .02 .7 .52 .8 .78 C.86 .86 .88 .5 .94 .3 L1 .34 L1 1Z',
  ribbon: 'M0 1 C.04 .3 .1 .02 .24 0 L.5 .14 C.66 .3 .74 .72 .8 .8 L1 .84 L1 1Z',
  claws: 'M0 1 C.02 .5 .1 .2 .26 .16 L.46 .1 C.54 0 .7 -.04 .84 .2 C.92 .4 .98 .7 1 1Z',
  tube: 'M0 1 C0 .3 .06 .02 .16 0 L.62 0 L1 .22 L1 1Z',
  shrimp: 'M0 1 C.02 .4 .1 .06 .28 0 C.5 .02 .7 .34 .84 .6 L1 .4 L1 1Z',
  stick: 'M0 1 C.02 .3 .08 .02 .22 0 L.84 .2 C.96 .3 1 .6 1 1Z',
};

interface Props {
  shape: Shape | string;
  /** Whose own outline is drawn, once it has one; else that of its kind. */
  bait?: string | undefined;
  x?: number;
  y?: number;
  lengthPx: number;
  widthPx: number;
  view?: 'above' | 'side';
  fill?: string;
  eye?: boolean;
}

/** A bait's outline to the given size, inside an SVG. */
export function BaitShape({
  shape,
  bait,
  x = 0,
  y = 0,
  lengthPx,
  widthPx,
  view = 'above',
  fill = 'var(--bait, #7d9a55)',
  eye = true,
}: Props) {
  const own = useQuery({ ...queries.outlines, enabled: bait !== undefined }).data?.items.find(
    (row) => row.baitId === bait,
  );
  if (own) return <Own own={own} at={[x, y]} lengthPx={lengthPx} widthPx={widthPx} view={view} fill={fill} />;
  const paths = view === 'above' ? ABOVE : SIDE;
  const path = paths[shape as Shape] ?? paths.stick;
  const r = Math.min(lengthPx * 0.02, widthPx * 0.12);
  return (
    <g transform={`translate(${x} ${y})`}>
      <g transform={`scale(${lengthPx} ${widthPx})`}>
        <path
          d={path}
          fill={fill}
          stroke="var(--ink)"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
          strokeLinejoin="round"
        />
      </g>
      {eye && r > 0.8 && (
        <circle
          cx={lengthPx * 0.09}
          cy={widthPx * (view === 'above' ? 0.42 : 0.62)}
          r={r}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth={0.8}
        />
      )}
    </g>
  );
}

/** A bait drawn shorter than this is a sign, not a drawing to scale. */
const SMALL_PX = 40;
const FULLER = 0.42;

interface OwnProps {
  own: BaitOutline;
  at: [x: number, y: number];
  lengthPx: number;
  widthPx: number;
  view: 'above' | 'side';
  fill: string;
}

/** As its mesh is, as large as the room lets it be. */
function Own({ own, at: [x, y], lengthPx, widthPx, view, fill }: OwnProps) {
  const real = view === 'above' ? own.wide : own.tall;
  // As small as a sign it is drawn fuller than it is, so that its colour is seen.
  const small = lengthPx < SMALL_PX;
  const share = small ? Math.max(real, FULLER) : real;
  const long = Math.min(lengthPx, widthPx / share);
  const tall = long * share;
  return (
    <g transform={`translate(${x + (lengthPx - long) / 2} ${y + (widthPx - tall) / 2}) scale(${long} ${tall})`}>
      <path
        d={view === 'above' ? own.above : own.side}
        fill={fill}
        fillRule="evenodd"
        stroke="var(--ink)"
        strokeWidth={small ? 0.7 : 1.3}
        vectorEffect="non-scaling-stroke"
        strokeLinejoin="round"
      />
    </g>
  );
}
