import type { Pictured } from '../../workers/shadow.ts';

export interface Placed {
  shadow: Pictured;
  /** Where its upper left corner comes to lie, px, and how large it is drawn, px a mm. */
  left: number;
  top: number;
  scale: number;
}

/** Paints shadows in one colour of the theme. */
export function paint(canvas: HTMLCanvasElement, widthPx: number, heightPx: number, colour: string, placed: Placed[]) {
  const context = canvas.getContext('2d');
  if (!context) return;
  const ratio = Math.min(devicePixelRatio, 2);
  const [wide, tall] = [Math.round(widthPx * ratio), Math.round(heightPx * ratio)];
  if (canvas.width !== wide) canvas.width = wide;
  if (canvas.height !== tall) canvas.height = tall;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.globalCompositeOperation = 'source-over';
  context.clearRect(0, 0, widthPx, heightPx);
  for (const { shadow, left, top, scale } of placed) {
    const { columns, rows, cellMm, picture } = shadow;
    context.drawImage(picture, left, top, columns * cellMm * scale, rows * cellMm * scale);
  }
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = getComputedStyle(document.documentElement).getPropertyValue(colour).trim();
  context.fillRect(0, 0, widthPx, heightPx);
}
