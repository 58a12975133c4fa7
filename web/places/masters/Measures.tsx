import { useEffect, useRef } from 'react';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { QuantityField, SelectField } from '../../parts/Fields.tsx';
import { Fitted } from '../../parts/Fitted.tsx';
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

export function DimensionFields({ value, onChange }: { value: Dimensions; onChange(value: Dimensions): void }) {
  const set = (key: keyof Dimensions) => (mm: number | null) => onChange({ ...value, [key]: mm });
  return (
    <div className="grid grid-cols-2 gap-4">
      <QuantityField label="Length" dimension="length" value={value.lengthMm} onChange={set('lengthMm')} />
      <QuantityField
        label="Width"
        dimension="length"
        value={value.widthMm}
        onChange={set('widthMm')}
        hint="side to side"
      />
      <QuantityField
        label="Height"
        dimension="length"
        value={value.heightMm}
        onChange={set('heightMm')}
        hint="off the board"
      />
      <QuantityField
        label="Thickest section"
        dimension="length"
        value={value.thickestMm}
        onChange={set('thickestMm')}
        hint="sets baking and cooling"
      />
    </div>
  );
}

export interface Volume {
  how: 'later' | 'weighed' | 'displaced';
  grams: number | null;
  densityGPerMl: number | null;
  ml: number | null;
}

/** The volume as the server takes it, or undefined while it is not whole. */
export function volumeBodyOf(volume: Volume) {
  if (volume.how === 'weighed' && volume.grams && volume.densityGPerMl)
    return { how: 'weighed' as const, grams: volume.grams, densityGPerMl: volume.densityGPerMl };
  if (volume.how === 'displaced' && volume.ml) return { how: 'displaced' as const, ml: volume.ml };
  return undefined;
}

export const volumeMlOf = (volume: Volume): number | null => {
  const body = volumeBodyOf(volume);
  if (!body) return null;
  return body.how === 'weighed' ? body.grams / body.densityGPerMl : body.ml;
};

export function VolumeFields({
  value,
  onChange,
  usualDensity,
  canWait,
}: {
  value: Volume;
  onChange(value: Volume): void;
  usualDensity: number;
  canWait: boolean;
}) {
  const { text } = useTaste();
  const ml = volumeMlOf(value);
  const options = [
    { value: 'weighed' as const, label: 'Weighed, and the material’s density' },
    { value: 'displaced' as const, label: 'Water displaced' },
    ...(canWait ? [{ value: 'later' as const, label: 'Later' }] : []),
  ];
  return (
    <div className="flex flex-col gap-3">
      <SelectField label="Volume" value={value.how} options={options} onChange={(how) => onChange({ ...value, how })} />
      {value.how === 'weighed' && (
        <div className="grid grid-cols-2 gap-4">
          <QuantityField
            label="Mass, without foil or wire"
            dimension="mass"
            value={value.grams}
            onChange={(grams) => onChange({ ...value, grams })}
          />
          <label className="flex flex-col gap-1 label-small font-bold">
            <span>
              Density, g/mL {value.densityGPerMl === usualDensity && <span className="default-mark">default</span>}
            </span>
            <input
              className="input figure-input w-full"
              inputMode="decimal"
              defaultValue={value.densityGPerMl ?? usualDensity}
              key={usualDensity}
              onChange={(event) =>
                onChange({ ...value, densityGPerMl: Number(event.target.value.replace(',', '.')) || null })
              }
            />
            <span className="font-normal">the packet’s figure wins</span>
          </label>
        </div>
      )}
      {value.how === 'displaced' && (
        <QuantityField
          label="Water it pushed up"
          dimension="volume"
          value={value.ml}
          onChange={(next) => onChange({ ...value, ml: next })}
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
