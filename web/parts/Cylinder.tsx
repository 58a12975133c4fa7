import { unitSize } from '../../core/units/show.ts';
import { useTaste } from './taste.tsx';

/** A step that gives 4 to 10 marks with numbers a person can read. */
export function niceStep(most: number): number {
  const rough = most / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const lead = rough / power;
  return (lead <= 1 ? 1 : lead <= 2 ? 2 : lead <= 5 ? 5 : 10) * power;
}

interface Props {
  /** What it is filled to, in mL. */
  ml: number;
  grams: number;
  title: string;
  note: string;
  widthPx?: number;
  heightPx?: number;
  fill?: string;
}

/** Room beside a cylinder for what it holds: two of them stand beside each other in a bench's column. */
const FIGURE_PX = 130;

/** A measuring cylinder filled to the line, the mass at the level as large as it matters. */
export function Cylinder({ ml, grams, title, note, widthPx = 112, heightPx = 330, fill = 'var(--liquid)' }: Props) {
  const { text, parts, taste } = useTaste();
  const perUnit = unitSize('volume', taste);
  const most = Math.max(ml / perUnit / 0.84, 0.001);
  const step = niceStep(most);
  const top = 12;
  const inner = heightPx - top - 4;
  const y = (amount: number) => top + inner * (1 - amount / most);
  const marks = Array.from({ length: Math.floor(most / (step / 5)) }, (_, index) => ({
    amount: ((index + 1) * step) / 5,
    major: (index + 1) % 5 === 0,
  }));
  const level = y(ml / perUnit);
  const mass = parts(grams, 'mass');
  return (
    <figure className="flex flex-col gap-2">
      <svg
        width={widthPx + FIGURE_PX}
        height={heightPx + 4}
        role="img"
        aria-label={`${title}: ${text(grams, 'mass')}, which is ${text(ml, 'volume')}`}
      >
        <rect x={3} y={level} width={widthPx - 6} height={heightPx - level - 2} fill={fill} />
        <path
          d={`M2 ${top - 8} V${heightPx} H${widthPx - 2} V${top - 8}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={3}
        />
        {marks.map(({ amount, major }) => (
          <g key={amount}>
            <line
              x1={3}
              x2={major ? 28 : 14}
              y1={y(amount)}
              y2={y(amount)}
              stroke="var(--ink)"
              strokeWidth={major ? 1.6 : 1}
              opacity={major ? 1 : 0.55}
            />
            {major && (
              <text x={31} y={y(amount) + 4} fontSize={11} fill="var(--ink)">
                {Number(amount.toPrecision(4))}
              </text>
            )}
          </g>
        ))}
        <line x1={-2} x2={widthPx + 6} y1={level} y2={level} stroke="var(--rest)" strokeWidth={3} />
        <text x={widthPx + 12} y={level + 12} fontSize={26} fontWeight={650} fill="var(--ink)" letterSpacing="-2">
          {mass.figure}
          <tspan fontSize={16}> {mass.unit}</tspan>
        </text>
        <text x={widthPx + 13} y={level + 34} fontSize={14} fill="var(--soft)">
          {text(ml, 'volume')}
        </text>
      </svg>
      <figcaption>
        <h3>{title}</h3>
        <p className="label-small max-w-56">{note}</p>
      </figcaption>
    </figure>
  );
}
