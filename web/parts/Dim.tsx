/** A dimension line with its figure, horizontal or upright. */
export function Dim({ x1, y1, x2, y2, label }: { x1: number; y1: number; x2: number; y2: number; label: string }) {
  const upright = x1 === x2;
  const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
  return (
    <g stroke="var(--soft)">
      <line x1={x1} y1={y1} x2={x2} y2={y2} strokeWidth={1.2} />
      <line
        x1={upright ? x1 - 5 : x1}
        x2={upright ? x1 + 5 : x1}
        y1={upright ? y1 : y1 - 5}
        y2={upright ? y1 : y1 + 5}
        strokeWidth={1.6}
      />
      <line
        x1={upright ? x2 - 5 : x2}
        x2={upright ? x2 + 5 : x2}
        y1={upright ? y2 : y2 - 5}
        y2={upright ? y2 : y2 + 5}
        strokeWidth={1.6}
      />
      <text
        x={upright ? x1 - 9 : mx}
        y={upright ? my : my - 7}
        fontSize={14}
        fontWeight={700}
        fill="var(--ink)"
        stroke="none"
        textAnchor="middle"
        transform={upright ? `rotate(-90 ${x1 - 9} ${my})` : undefined}
      >
        {label}
      </text>
    </g>
  );
}
