/** A puck poured thin to thick, so that a washed-out tail shows beside a deep body. */
export function Puck({ hex, sizePx, name }: { hex: string; sizePx: number; name: string }) {
  const r = sizePx / 2;
  return (
    <svg width={sizePx} height={sizePx} role="img" aria-label={`Puck of ${name}`} className="shrink-0">
      <circle cx={r} cy={r} r={r - 2} fill={hex} stroke="var(--ink)" strokeWidth={2.5} />
      <path
        d={`M${r * 0.36} ${r * 1.1} A ${r * 0.66} ${r * 0.66} 0 0 1 ${r * 1.1} ${r * 0.36}`}
        fill="none"
        stroke="#fff"
        strokeOpacity={0.55}
        strokeWidth={Math.max(2, sizePx * 0.05)}
        strokeLinecap="round"
      />
    </svg>
  );
}
