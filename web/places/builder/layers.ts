import { isPiece } from '../../../core/mold/pieces.ts';
import type { Layer } from '../../parts/solid/Solid.tsx';
import type { DrawnMold } from '../../workers/molder.ts';

/** Halves apart along their pull, four pieces sideways too, what comes out of them between. */
export function layersOf(
  mold: DrawnMold | null,
  open: number,
  { seeThrough, sawn, caught }: { seeThrough: boolean; sawn: boolean; caught: Float32Array | null },
): Layer[] {
  if (!mold) return [];
  const high = mold.halfMm[0] + mold.halfMm[1];
  const [, wide] = mold.blockMm;
  const boxes = mold.parts.some((part) => part.name.endsWith('box'));
  const shown = sawn ? mold.sawn : mold;
  let beside = 0;
  const layers: Layer[] = shown.parts.map((part) => {
    const upper = part.name.startsWith('upper');
    // Steel and graphite lie beside the mold.
    const aside = !isPiece(part.name);
    if (part.name.endsWith('electrode')) beside += 1;
    const apart = part.name.endsWith('left') ? -1 : part.name.endsWith('right') ? 1 : 0;
    const offset: [number, number, number] = boxes
      ? [0, upper ? 0 : wide * 1.25, 0]
      : aside
        ? [
            0,
            part.name.endsWith('electrode') ? wide * (0.4 + 0.9 * beside) : -wide * (part.name === 'dowel' ? 1.1 : 0.8),
            0,
          ]
        : [0, apart * open * 0.5 * wide, upper ? open * 1.6 * high : 0];
    return { ...part, colour: aside ? '--rest' : upper ? '--edge' : '--liquid', ghost: seeThrough && !aside, offset };
  });
  return boxes
    ? layers
    : [
        ...layers,
        {
          ...shown.casting,
          colour: '--bait',
          offset: [0, 0, open * 0.6 * high],
          shares: sawn ? null : caught,
        },
      ];
}
