import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { Tilt } from '../../../core/shape/airTraps.ts';
import { leanWord } from '../../parts/solid/lean.ts';
import { paint } from '../../parts/solid/paint.ts';
import { useShadows, withFile } from '../../parts/solid/useSolid.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useTheme } from '../../parts/theme.ts';

const NOSE_UP: [number, number, number] = [-1, 0, 0];
const CONE_DEG = 30;
const TALL = 230;

/** Where the pour hole and the vents of a closed block go, nose up, and how to prop it so that least air stays. */
export function HighPoints({ meshId, lengthMm }: { meshId: string; lengthMm: number }) {
  const { text } = useTaste();
  const { data: tilt, error } = useQuery({
    queryKey: ['high-points', meshId],
    queryFn: () => withFile(meshId, (judge, bytes) => judge.highPoints(bytes, NOSE_UP, CONE_DEG)),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (error) return <p className="heat">{error.message}</p>;
  if (!tilt) return <p className="soft">Looking for its high points …</p>;
  const vents = tilt.traps.filter((trap) => !trap.pour);
  return (
    <section className="flex gap-5 items-start">
      <Drawing meshId={meshId} tilt={tilt} lengthMm={lengthMm} />
      <div className="flex flex-col gap-1.5">
        <h3 className="text-lg">Pour hole and vents, nose up</h3>
        <p>
          Pour hole at the nose, green
          {tilt.tiltDeg < 1
            ? ', propped straight'
            : `, propped ${tilt.tiltDeg.toFixed(0)}° over, ${leanWord(tilt.direction, NOSE_UP)}`}
          .{' '}
          {tilt.trappedMl < 0.005
            ? 'No air stays.'
            : `Without vents ${text(tilt.trappedMl, 'volume')} of air stays${tilt.straightMl - tilt.trappedMl > 0.005 ? `, straight it would be ${text(tilt.straightMl, 'volume')}` : ''}.`}
        </p>
        {vents.length > 0 && (
          <p>
            Vents where it is red, from the nose:{' '}
            {vents
              .slice(0, 8)
              .map((trap) => text(trap.pointMm[0], 'length'))
              .join(', ')}
            {vents.length > 8 && `, and ${vents.length - 8} more`}.
          </p>
        )}
      </div>
    </section>
  );
}

/** The bait from the side, nose up: a green ring where it is poured, a red one at every other high point. */
function Drawing({ meshId, tilt, lengthMm }: { meshId: string; tilt: Tilt; lengthMm: number }) {
  const side = useShadows(meshId)?.side;
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const scale = TALL / (lengthMm + 8);
  const wide = side ? side.rows * side.cellMm * scale + 24 : 80;
  useEffect(() => {
    void theme;
    if (canvas.current && side)
      paint(canvas.current, TALL, wide, '--bait', [{ shadow: side, left: 4 * scale, top: 12, scale }]);
  });
  if (!side) return <div style={{ width: wide, height: TALL }} className="shrink-0" />;
  return (
    <div style={{ width: wide, height: TALL }} className="relative shrink-0">
      <div
        className="absolute origin-top-left"
        style={{ width: TALL, height: wide, left: wide, transform: 'rotate(90deg)' }}
      >
        <canvas ref={canvas} style={{ width: TALL, height: wide }} aria-hidden className="absolute inset-0" />
        <svg
          width={TALL}
          height={wide}
          className="absolute inset-0"
          role="img"
          aria-label="The bait nose up, with its pour hole and vents"
        >
          {tilt.traps.slice(0, 9).map((trap) => (
            <circle
              key={trap.pointMm.join()}
              cx={(trap.pointMm[0] - side.leftMm) * scale + 4 * scale}
              cy={(side.topMm - trap.pointMm[2]) * scale + 12}
              r={trap.pour ? 8 : 5}
              fill={trap.pour ? 'var(--rest)' : 'var(--heat)'}
              stroke="var(--paper)"
              strokeWidth={2}
            />
          ))}
        </svg>
      </div>
    </div>
  );
}
