import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { hexOf, linearOf, type Rgb } from '../../../core/colour/light.ts';
import type { Chords } from '../../../core/shape/chords.ts';
import { Field } from '../../parts/Fields.tsx';
import { NoShape, useShapes } from '../../parts/plastic/Foreseen.tsx';
import { useChords } from '../../parts/plastic/useChords.ts';

const PLAIN = '#d9d6cd';
/** Half as wide as the brush, of the picture's length. */
const BRUSH = 0.035;
const BANDS = ['back', 'side', 'belly'] as const;
type Band = (typeof BANDS)[number];

/** What was painted on the upper, the middle and the lower third of a bait, mixed as light; null where nothing was. */
function bandsIn(image: ImageData, { columns, rows, thickMm }: Chords): Record<Band, string | null> {
  const sums = BANDS.map(() => ({ n: 0, all: [0, 0, 0] as Rgb }));
  for (let x = 0; x < columns; x++) {
    let [top, bottom] = [-1, -1];
    for (let y = 0; y < rows; y++)
      if ((thickMm[y * columns + x] as number) > 0) {
        if (top < 0) top = y;
        bottom = y;
      }
    for (let y = top; top >= 0 && y <= bottom; y++) {
      const at = 4 * (y * columns + x);
      const hex = `#${[0, 1, 2].map((i) => (image.data[at + i] as number).toString(16).padStart(2, '0')).join('')}`;
      if (hex === PLAIN || (thickMm[y * columns + x] as number) === 0) continue;
      const into = sums[Math.min(2, Math.floor((3 * (y - top)) / (bottom - top + 1)))];
      if (!into) continue;
      const [r, g, b] = linearOf(hex);
      into.n += 1;
      into.all = [into.all[0] + r, into.all[1] + g, into.all[2] + b];
    }
  }
  const told = sums.map(({ n, all }) => (n === 0 ? null : hexOf([all[0] / n, all[1] / n, all[2] / n])));
  return { back: told[0] ?? null, side: told[1] ?? null, belly: told[2] ?? null };
}

/** A wish that is painted on the bait: what its back, its side and its belly are to look like, each matched with one tap. */
export function DrawnWish({ onTake }: { onTake(hex: string): void }) {
  const { meshId } = useShapes();
  const { data: chords } = useChords(meshId, 'small');
  const canvas = useRef<HTMLCanvasElement>(null);
  const [brush, setBrush] = useState('#3f7d56');
  const [told, setTold] = useState<Record<Band, string | null>>({ back: null, side: null, belly: null });
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !chords) return;
    const { columns, rows, thickMm } = chords;
    context.clearRect(0, 0, columns, rows);
    context.fillStyle = PLAIN;
    for (let at = 0; at < thickMm.length; at++)
      if ((thickMm[at] as number) > 0) context.fillRect(at % columns, Math.floor(at / columns), 1, 1);
  }, [chords]);
  if (meshId === null) return <NoShape>No bait has a shape here yet to paint on.</NoShape>;
  if (!chords) return null;
  const paint = (event: PointerEvent<HTMLCanvasElement>) => {
    if (event.buttons === 0 && event.type === 'pointermove') return;
    const context = event.currentTarget.getContext('2d', { willReadFrequently: true });
    const box = event.currentTarget.getBoundingClientRect();
    if (!context) return;
    // Only on the bait: what stands already is painted over, nothing beside it.
    context.globalCompositeOperation = 'source-atop';
    context.fillStyle = brush;
    context.beginPath();
    context.arc(
      ((event.clientX - box.left) / box.width) * chords.columns,
      ((event.clientY - box.top) / box.height) * chords.rows,
      BRUSH * chords.columns,
      0,
      2 * Math.PI,
    );
    context.fill();
    setTold(bandsIn(context.getImageData(0, 0, chords.columns, chords.rows), chords));
  };
  return (
    <div className="flex flex-col gap-3 max-w-3xl">
      <div className="flex flex-wrap gap-4 items-end">
        <Field label="Brush" className="w-24">
          {(ids) => (
            <input
              {...ids}
              type="color"
              value={brush}
              onChange={(event) => setBrush(event.target.value)}
              className="w-24 h-10 cursor-pointer"
            />
          )}
        </Field>
        <p className="soft pb-2">Paint the bait as it is wished for.</p>
      </div>
      <canvas
        ref={canvas}
        width={chords.columns}
        height={chords.rows}
        className="w-full border border-[var(--edge)] bg-white touch-none cursor-crosshair"
        aria-label="The bait, to be painted"
        onPointerDown={paint}
        onPointerMove={paint}
      />
      <div className="flex flex-wrap gap-3">
        {BANDS.map((band) => {
          const hex = told[band];
          return hex === null ? (
            <span key={band} className="soft">
              {band}: not painted
            </span>
          ) : (
            <button key={band} type="button" className="btn btn-line" onClick={() => onTake(hex)}>
              <span className="w-5 h-5 border border-[var(--edge)]" style={{ background: hex }} />
              match its {band}
            </button>
          );
        })}
      </div>
    </div>
  );
}
