import type { PointerEvent } from 'react';

interface HandleProps {
  label: string;
  cx: number;
  cy: number;
  chosen: boolean;
  square?: boolean;
  value: number;
  shown: string;
  onGrab(): void;
  onMove(px: number, py: number): void;
  /** mm toward the tail, and mm up. */
  onNudge(dx: number, dy: number): void;
  onSettle(): void;
  /** A finger or the pointer is on it, or has let go. */
  onHold(held: boolean): void;
}

/** Something that is dragged, or moved by the arrow keys. */
export function Handle({
  label,
  cx,
  cy,
  chosen,
  square,
  value,
  shown,
  onGrab,
  onMove,
  onNudge,
  onSettle,
  onHold,
}: HandleProps) {
  const drag = (event: PointerEvent<SVGGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (box && event.currentTarget.hasPointerCapture(event.pointerId))
      onMove(event.clientX - box.left, event.clientY - box.top);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={value}
      aria-valuetext={shown}
      className="cursor-move"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        onSettle();
        onHold(true);
        onGrab();
      }}
      onPointerMove={drag}
      onPointerUp={onSettle}
      onLostPointerCapture={() => onHold(false)}
      onFocus={onGrab}
      onBlur={onSettle}
      onKeyDown={(event) => {
        const by = event.shiftKey ? 1 : 0.1;
        const moves: Record<string, [number, number]> = {
          ArrowUp: [0, by],
          ArrowDown: [0, -by],
          ArrowLeft: [-5 * by, 0],
          ArrowRight: [5 * by, 0],
        };
        const move = moves[event.key];
        if (!move) return;
        event.preventDefault();
        onNudge(...move);
      }}
    >
      <circle cx={cx} cy={cy} r={14} fill="transparent" />
      {square ? (
        <rect x={cx - 5} y={cy - 5} width={10} height={10} fill="var(--sheet)" stroke="var(--heat)" strokeWidth={2.5} />
      ) : (
        <circle
          cx={cx}
          cy={cy}
          r={chosen ? 6.5 : 5}
          fill={chosen ? 'var(--rest)' : 'var(--sheet)'}
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
    </g>
  );
}
