import { useEffect, useRef } from 'react';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import type { Cutter } from '../../../core/shape/toolReach.ts';
import { Dim } from '../../parts/Dim.tsx';
import { paint } from '../../parts/solid/paint.ts';
import { useTheme } from '../../parts/theme.ts';
import type { DrawnMold } from '../../workers/molder.ts';
import { mm, setUpPlaces, setUpRows } from './setUp.ts';

interface Props {
  mold: DrawnMold;
  wish: MoldWish;
  /** Whose mold it is, as the sheet is headed. */
  of: string;
  cutter: Cutter | null;
}

const LEFT = 60;
const TOP = 20;

/** What a machine shop needs besides the files: drawing, places from one corner, sizes, tolerances. Printed, not shown. */
export function SetUpSheet({ mold, wish, of, cutter }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const [long, wide] = mold.blockMm;
  const scale = Math.min(560 / long, 420 / wide);
  const [w, h] = [LEFT + long * scale + 20, TOP + wide * scale + 50];
  // The drawing runs down the page, the block's axis across runs up from its lower left corner.
  const px = (x: number) => LEFT + x * scale;
  const py = (y: number) => TOP + (wide - y) * scale;
  useEffect(() => {
    void theme;
    if (!canvas.current) return;
    const { plan, layout } = mold;
    const nose = layout.noses[0];
    if (!nose) return;
    // The casting's own edges, from the block's corner: the runner begins at the block's edge.
    const leftMm = plan.leftMm + mold.cornerMm[0];
    const topMm = plan.topMm + mold.cornerMm[1];
    paint(canvas.current, w, h, '--bait', [{ shadow: plan, left: px(leftMm), top: py(topMm), scale }]);
  });
  return (
    <section className="hidden print:block text-black" aria-label="Set-up sheet">
      <h1 className="text-2xl font-bold">Set-up sheet: mold for {of}</h1>
      <p>All sizes in millimetres, places from the lower left corner of the lower half, seen from above.</p>
      <div className="relative my-3" style={{ width: w, height: h }}>
        <canvas ref={canvas} className="absolute inset-0" style={{ width: w, height: h }} aria-hidden />
        <svg width={w} height={h} className="absolute inset-0" role="img" aria-label="The lower half from above">
          <rect
            x={LEFT}
            y={TOP}
            width={long * scale}
            height={wide * scale}
            fill="none"
            stroke="black"
            strokeWidth={2}
          />
          {mold.layout.pins.map(({ x, y }) => (
            <circle
              key={`${x} ${y}`}
              cx={px(x)}
              cy={py(y)}
              r={(wish.pins.diameterMm / 2) * scale}
              fill="none"
              stroke="black"
              strokeWidth={1.5}
            />
          ))}
          {mold.layout.noses.map(({ x, y }, i) => (
            <text key={`${x} ${y}`} x={px(x)} y={py(y) - 4} fontSize={12} textAnchor="middle">
              {i + 1}
            </text>
          ))}
          <Dim
            x1={LEFT}
            y1={TOP + wide * scale + 30}
            x2={LEFT + long * scale}
            y2={TOP + wide * scale + 30}
            label={mm(long)}
          />
          <Dim x1={LEFT - 20} y1={TOP} x2={LEFT - 20} y2={TOP + wide * scale} label={mm(wide)} />
        </svg>
      </div>
      <table className="text-sm">
        <tbody>
          {[...setUpRows(mold, wish, cutter), ...setUpPlaces(mold)].map(([name, value]) => (
            <tr key={name}>
              <th className="text-left pr-4 align-top whitespace-nowrap">{name}</th>
              <td>{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-sm">
        The STL and 3MF of all parts go with this sheet. Machines: licensed or trained people; the shop’s own rules win.
      </p>
    </section>
  );
}
