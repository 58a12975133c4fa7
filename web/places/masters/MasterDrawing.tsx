import { useEffect, useRef } from 'react';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { Dim } from '../../parts/Dim.tsx';
import { Fitted } from '../../parts/Fitted.tsx';
import { paint } from '../../parts/solid/paint.ts';
import { useShadows } from '../../parts/solid/useSolid.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useTheme } from '../../parts/theme.ts';
import type { Pictured } from '../../workers/shadow.ts';

/** Top and side view with the dimensions on them. */
export function MasterDrawing(props: Omit<DrawingProps, 'widthPx'>) {
  return <Fitted mostPx={670}>{(widthPx) => <DrawnMaster {...props} widthPx={widthPx} />}</Fitted>;
}

interface DrawingProps {
  shape: string;
  /** Where there is a shape, it is drawn as it is. */
  meshId?: string | null;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  thickestMm: number;
  widthPx: number;
}

function DrawnMaster({ shape, lengthMm, widthMm, heightMm, thickestMm, meshId = null, widthPx }: DrawingProps) {
  const { text } = useTaste();
  const scale = Math.min((widthPx - 120) / lengthMm, 300 / (widthMm + heightMm));
  const [l, w, h] = [lengthMm * scale, widthMm * scale, heightMm * scale];
  const x = 70;
  const top = 34;
  const side = top + w + 56;
  const [wide, tall] = [l + 120, side + h + 50];
  const theme = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  const shadows = useShadows(meshId);
  useEffect(() => {
    void theme;
    if (!canvas.current || !shadows) return;
    // A shadow has a cell of nothing round it.
    const at = (shadow: Pictured, y: number) => {
      const edge = shadow.cellMm * scale;
      return { shadow, left: x - edge, top: y - edge, scale };
    };
    paint(canvas.current, wide, tall, '--bait', [at(shadows.top, top), at(shadows.side, side)]);
  }, [shadows, scale, side, wide, tall, theme]);
  return (
    <div className="relative">
      {meshId && (
        <canvas
          ref={canvas}
          className="absolute inset-0 max-w-full"
          style={{ width: wide, height: tall }}
          aria-hidden
        />
      )}
      <svg
        width={wide}
        height={tall}
        className="relative max-w-full"
        role="img"
        aria-label={`From above ${text(lengthMm, 'length')} by ${text(widthMm, 'length')}; from the side ${text(heightMm, 'length')} high`}
      >
        <text x={x} y={16} fontSize={12} fill="var(--soft)">
          from above
        </text>
        {!meshId && <BaitShape shape={shape} x={x} y={top} lengthPx={l} widthPx={w} fill="var(--liquid)" />}
        <Dim x1={x - 18} y1={top} x2={x - 18} y2={top + w} label={text(widthMm, 'length')} />
        <Dim x1={x} y1={top + w + 22} x2={x + l} y2={top + w + 22} label={text(lengthMm, 'length')} />
        <text x={x + l + 12} y={side + 12} fontSize={12} fill="var(--soft)">
          side
        </text>
        {!meshId && (
          <BaitShape shape={shape} x={x} y={side} lengthPx={l} widthPx={h} view="side" fill="var(--liquid)" />
        )}
        <line x1={x - 10} x2={x + l + 10} y1={side + h} y2={side + h} stroke="var(--ink)" strokeWidth={2} />
        <Dim x1={x - 18} y1={side} x2={x - 18} y2={side + h} label={text(heightMm, 'length')} />
        <text x={x} y={side + h + 22} fontSize={13} fill="var(--soft)">
          thickest {text(thickestMm, 'length')}
        </text>
      </svg>
    </div>
  );
}
