import type { SiliconePlan } from '../../../core/mold/silicone.ts';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Dim } from '../masters/Measures.tsx';

export interface DrawnMaster {
  shape: string;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

interface Props {
  plan: SiliconePlan;
  master: DrawnMaster;
  count: number;
  wallMm: number;
  /** Masters lie half way up, in a bed to the parting line. */
  twoPiece?: boolean;
  /** How much is missing, drawn as the level the first mix reached. */
  missingMm?: number;
  widthPx?: number;
  heightPx?: number;
}

/** The box to scale with its masters in it, from above and from the side; the length lies across the page. */
export function BoxDrawing({
  plan,
  master,
  count,
  twoPiece = false,
  missingMm = 0,
  widthPx = 600,
  heightPx = 370,
}: Props) {
  const { text } = useTaste();
  const [acrossMm, downMm] = [plan.boxLengthMm, plan.boxWidthMm];
  const scale = Math.min((widthPx - 160) / acrossMm, (heightPx - 76) / (downMm + plan.boxHeightMm));
  const px = (mm: number) => mm * scale;
  const left = 54;
  const sideTop = px(downMm) + 58;
  const gapX =
    plan.rows > 1 ? (acrossMm - plan.rows * master.lengthMm) / (plan.rows + 1) : (acrossMm - master.lengthMm) / 2;
  const gapY = (downMm - plan.columns * master.widthMm) / (plan.columns + 1);
  const places = Array.from({ length: count }, (_, index) => ({
    xMm: gapX + Math.floor(index / plan.columns) * (master.lengthMm + gapX),
    yMm: gapY + (index % plan.columns) * (master.widthMm + gapY),
  }));
  const fillMm = plan.boxHeightMm - missingMm;
  const floor = sideTop + px(plan.boxHeightMm);
  const label = `Box ${text(plan.boxLengthMm, 'length')} long, ${text(plan.boxWidthMm, 'length')} wide, ${text(plan.boxHeightMm, 'length')} high, with ${count} masters in ${plan.columns} columns`;
  return (
    <svg width={px(acrossMm) + left + 140} height={floor + 16} className="max-w-full" role="img" aria-label={label}>
      <rect
        x={left}
        y={2}
        width={px(acrossMm)}
        height={px(downMm)}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={3}
      />
      {places.map(({ xMm, yMm }) => (
        <BaitShape
          key={`${xMm} ${yMm}`}
          shape={master.shape}
          x={left + px(xMm)}
          y={2 + px(yMm)}
          lengthPx={px(master.lengthMm)}
          widthPx={px(master.widthMm)}
          fill="var(--bait)"
        />
      ))}
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
      {places
        .filter((_, index) => index % plan.columns === 0)
        .map(({ xMm }) => (
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
        {missingMm ? 'it stands here' : 'fill to here'}
      </text>
      <Dim x1={left - 20} y1={sideTop} x2={left - 20} y2={floor} label={text(plan.boxHeightMm, 'length')} />
    </svg>
  );
}
