import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { hexOf, type Rgb } from '../../../core/colour/light.ts';
import { patchOf, reflectanceIn } from '../../../core/colour/photo.ts';
import { type Told, tried } from '../../../core/failure.ts';
import { HEIC_SAID, isHeic, PICTURE_HEAD, PICTURE_LIMIT } from '../../../core/picture.ts';
import { useTaste } from '../taste.tsx';

/** Larger pictures are drawn smaller before they are read: a patch is a patch. */
const MOST_PX = 1400;
/** A tap reads so many points to each side. */
const PATCH = 5;

/** What every picture is read against. */
const PLATES = ['the white paper', 'something black'];

/** The picture upright as it was taken, or what to do where it cannot be opened. */
async function opened(file: File): Promise<{ picture?: ImageBitmap; problem?: string }> {
  if (file.size > PICTURE_LIMIT) return { problem: 'A photo may have up to 64 MB; send a smaller one.' };
  const head = new Uint8Array(await file.slice(0, PICTURE_HEAD).arrayBuffer());
  if (isHeic(head)) return { problem: HEIC_SAID };
  try {
    return { picture: await createImageBitmap(file, { imageOrientation: 'from-image' }) };
  } catch {
    return { problem: 'This is no picture that can be opened here; take a JPEG or PNG.' };
  }
}

interface Props {
  /** What is tapped after the paper and the black. */
  places: string[];
  /** Those places as colours, as the paper has them white and the black black. */
  onRead(hexes: string[]): void;
}

/** A picture that is tapped: the lamp's hue and brightness fall out by the paper and the black beside what is wanted. */
export function TapPhoto({ places, onRead }: Props) {
  const wanted = [...PLATES, ...places];
  const { say } = useTaste();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [picture, setPicture] = useState<ImageBitmap | null>(null);
  const [taps, setTaps] = useState<{ x: number; y: number; seen: Rgb }[]>([]);
  const [problem, setProblem] = useState<Told | null>(null);
  useEffect(() => {
    const to = canvas.current;
    if (!picture || !to) return;
    const scale = Math.min(1, MOST_PX / Math.max(picture.width, picture.height));
    [to.width, to.height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
    to.getContext('2d', { willReadFrequently: true })?.drawImage(picture, 0, 0, to.width, to.height);
  }, [picture]);
  const take = async (file: File | undefined) => {
    if (!file) return;
    const { picture: found, problem: why } = await opened(file);
    setPicture(found ?? null);
    setProblem(why ?? null);
    setTaps([]);
  };
  const tap = (event: PointerEvent<HTMLCanvasElement>) => {
    const of = event.currentTarget;
    const box = of.getBoundingClientRect();
    const x = Math.round(((event.clientX - box.left) / box.width) * of.width);
    const y = Math.round(((event.clientY - box.top) / box.height) * of.height);
    const patch = of.getContext('2d')?.getImageData(x - PATCH, y - PATCH, 2 * PATCH + 1, 2 * PATCH + 1);
    if (!patch || taps.length === wanted.length) return;
    const next = [...taps, { x: x / of.width, y: y / of.height, seen: patchOf(patch.data) }];
    setTaps(next);
    if (next.length < wanted.length) return;
    const [white, black, ...others] = next.map((one) => one.seen) as [Rgb, Rgb, ...Rgb[]];
    const read = tried(() => others.map((seen) => hexOf(reflectanceIn(seen, { white, black }))));
    setProblem(read.refused ?? null);
    if (read.value) onRead(read.value);
  };
  return (
    <section className="flex flex-col gap-2 max-w-3xl">
      <label className="btn btn-line self-start">
        {picture ? 'Another picture' : 'Read it off a picture'}
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </label>
      {picture && (
        <>
          <p aria-live="polite">
            {taps.length < wanted.length ? (
              <>
                Tap <b>{wanted[taps.length]}</b>
              </>
            ) : (
              'All are read.'
            )}
            {taps.length > 0 && (
              <button type="button" className="link ml-4" onClick={() => setTaps(taps.slice(0, -1))}>
                take the last tap back
              </button>
            )}
          </p>
          <div className="relative border border-[var(--edge)]">
            <canvas ref={canvas} onPointerUp={tap} className="block w-full h-auto cursor-crosshair touch-none" />
            {taps.map((at, i) => (
              <span
                key={wanted[i]}
                className="absolute -translate-x-1/2 -translate-y-1/2 w-7 h-7 rounded-full border-2 border-white bg-black/60 text-white text-center figure pointer-events-none"
                style={{ left: `${100 * at.x}%`, top: `${100 * at.y}%` }}
              >
                {i + 1}
              </span>
            ))}
          </div>
        </>
      )}
      {problem && <p className="warn font-bold">{typeof problem === 'string' ? problem : say(problem)}</p>}
    </section>
  );
}
