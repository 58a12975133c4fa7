import type { DrawnHook } from '../../../core/water/assumed.ts';

/** A single hook to scale: eye, shank, bend and point. */
export function HookDrawn({
  hook,
  x,
  y,
  scale,
}: {
  hook: DrawnHook;
  x(mm: number): number;
  y(mm: number): number;
  scale: number;
}) {
  const { eyeXMm, shankZMm, shankMm, gapMm, eyeMm, wireMm, pointShare } = hook;
  const bend = eyeXMm + shankMm - gapMm / 2;
  const point = eyeXMm + shankMm - pointShare * shankMm;
  const r = (gapMm / 2) * scale;
  const path = `M${x(eyeXMm + eyeMm)} ${y(shankZMm)} L${x(bend)} ${y(shankZMm)} A${r} ${r} 0 0 0 ${x(bend)} ${y(shankZMm + gapMm)} L${x(point)} ${y(shankZMm + gapMm)}`;
  return (
    <g fill="none" stroke="var(--heat)" strokeWidth={Math.max(1.6, wireMm * scale)} strokeLinecap="round" aria-hidden>
      <path d={path} />
      <path
        d={`M${x(point)} ${y(shankZMm + gapMm)} l${2.4 * scale} ${1.6 * scale}`}
        strokeWidth={Math.max(1.2, wireMm * scale * 0.7)}
      />
      <circle
        cx={x(eyeXMm + eyeMm / 2)}
        cy={y(shankZMm)}
        r={(eyeMm / 2) * scale}
        strokeWidth={Math.max(1.4, wireMm * scale * 0.8)}
      />
    </g>
  );
}
