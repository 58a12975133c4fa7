import { useEffect, useRef } from 'react';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { Fitted } from '../../parts/Fitted.tsx';
import { ChoiceIn, FigureIn } from '../../parts/sheet/In.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useTheme } from '../../parts/theme.ts';
import type { Pictured } from '../../workers/shadow.ts';
import { paint } from '../shape/paint.ts';
import { useShadows } from '../shape/useSolid.ts';

export interface Dimensions {
  lengthMm: number | null;
  widthMm: number | null;
  heightMm: number | null;
  thickestMm: number | null;
}

export const EMPTY: Dimensions = { lengthMm: null, widthMm: null, heightMm: null, thickestMm: null };
export const complete = (d: Dimensions): d is { [K in keyof Dimensions]: number } =>
  Object.values(d).every((value) => value !== null);

export function DimensionFields() {
  return (
    <div className="grid grid-cols-2 gap-4">
      <FigureIn at="lengthMm" />
      <FigureIn at="widthMm" hint="side to side" />
      <FigureIn at="heightMm" hint="off the board" />
      <FigureIn at="thickestMm" hint="sets baking and cooling" />
    </div>
  );
}

export interface Volume {
  how: 'later' | 'weighed' | 'displaced';
  grams: number | null;
  densityGPerMl: number | null;
  ml: number | null;
}

/** A volume as an empty sheet has it, to be weighed against this density. */
export const toWeigh = (densityGPerMl: number): Volume => ({ how: 'weighed', grams: null, densityGPerMl, ml: null });

/** The volume as it is sent; undefined where none was taken yet. */
export function volumeBodyOf({ how, grams, densityGPerMl, ml }: Volume) {
  if (how === 'weighed') return grams === null ? undefined : { how, grams, densityGPerMl };
  if (how === 'displaced') return { how, ml };
  return undefined;
}

export const volumeMlOf = ({ how, grams, densityGPerMl, ml }: Volume): number | null => {
  if (how === 'weighed') return grams !== null && densityGPerMl ? grams / densityGPerMl : null;
  return how === 'displaced' ? ml : null;
};

interface VolumeProps {
  /** Where the sheet has them: `volume.` or nothing. */
  under: string;
  value: Volume;
  usualDensity: number;
  canWait: boolean;
}

export function VolumeFields({ under, value, usualDensity, canWait }: VolumeProps) {
  const { text } = useTaste();
  const ml = volumeMlOf(value);
  return (
    <div className="flex flex-col gap-3">
      <ChoiceIn
        at={`${under}how`}
        label="Volume"
        options={[
          { value: 'weighed', label: 'Weighed, and the material’s density' },
          { value: 'displaced', label: 'Water displaced' },
          ...(canWait ? [{ value: 'later', label: 'Later' }] : []),
        ]}
      />
      {value.how === 'weighed' && (
        <div className="grid grid-cols-2 gap-4">
          <FigureIn at={`${under}grams`} />
          <FigureIn
            at={`${under}densityGPerMl`}
            isDefault={value.densityGPerMl === usualDensity}
            hint="the packet’s figure wins"
          />
        </div>
      )}
      {value.how === 'displaced' && (
        <FigureIn
          at={`${under}ml`}
          hint="sink it whole on a pin in a measuring cylinder; grams of water spilled are mL"
        />
      )}
      <p className="figure text-2xl" aria-live="polite">
        {ml === null ? '—' : text(ml, 'volume')}
      </p>
    </div>
  );
}

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
