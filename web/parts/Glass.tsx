/** A measuring glass at its level, its scale readable. */
export function Glass({
  hex,
  fill,
  glasses,
  label,
  widthPx = 92,
}: {
  hex: string;
  fill: number;
  glasses: number;
  label: string;
  widthPx?: number;
}) {
  const [w, h] = [widthPx, Math.round(widthPx * 1.3)];
  return (
    <svg width={w + 16} height={h + 8} role="img" aria-label={label} className="shrink-0">
      <rect x={4} y={4 + h * (1 - fill)} width={w - 4} height={h * fill} fill={hex} />
      <path d={`M2 2 V${h + 4} H${w + 2} V2`} fill="none" stroke="var(--ink)" strokeWidth={3} />
      {[1, 2, 3, 4, 5, 6, 7].map((mark) => (
        <g key={mark}>
          <line
            x1={3}
            x2={mark % 2 === 0 ? 25 : 15}
            y1={4 + (h * mark) / 8}
            y2={4 + (h * mark) / 8}
            stroke="var(--paper)"
            strokeOpacity={0.75}
            strokeWidth={4}
          />
          <line
            x1={3}
            x2={mark % 2 === 0 ? 24 : 14}
            y1={4 + (h * mark) / 8}
            y2={4 + (h * mark) / 8}
            stroke="var(--ink)"
            strokeWidth={mark === 4 ? 2.4 : 1.4}
          />
        </g>
      ))}
      {glasses > 1 && (
        <text x={w - 5} y={22} fontSize={16} fontWeight={700} textAnchor="end" fill="var(--ink)">
          × {glasses}
        </text>
      )}
    </svg>
  );
}
