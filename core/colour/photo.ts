import { Failure } from '../failure.ts';
import { bands, linearOf, luminance, type Rgb } from './light.ts';

/** Of a picture: so near to its brightest that it may be cut off, and so little apart that nothing can be told, linear. */
const [BURNT, ALIKE] = [0.985, 0.05];

export interface Plates {
  /** The white paper beside the step, and the black ground, as the picture has them: linear. */
  white: Rgb;
  black: Rgb;
}

/**
 * What a picture's colour is as reflectance: the white paper is 1 and the black ground 0, band by band, so that the lamp's hue and
 * brightness and the haze of the lens fall out.
 * @throws Failure `out-of-range` for a picture that tells nothing: burnt out, or taps on the wrong places.
 * Source: two-point flat-field correction.
 */
export function reflectanceIn(seen: Rgb, { white, black }: Plates): Rgb {
  if (Math.max(...white) > BURNT)
    throw new Failure(
      'out-of-range',
      'The white paper is burnt out in this picture: take it a little darker.',
      'white',
    );
  if (luminance(white) - luminance(black) < ALIKE)
    throw new Failure(
      'out-of-range',
      'The paper is hardly lighter than the black ground: tap the white paper first, then the black.',
      'white',
    );
  return bands((i) => Math.min(1, Math.max(0, (seen[i] - black[i]) / (white[i] - black[i]))));
}

/** The middle of a patch of bytes, r g b a, as linear light: the odd speck of glare or flake does not count. */
export function patchOf(bytes: Uint8ClampedArray): Rgb {
  return bands((i) => {
    const values: number[] = [];
    for (let at = i; at < bytes.length; at += 4) values.push(bytes[at] as number);
    values.sort((a, b) => a - b);
    const middle = values[Math.floor(values.length / 2)] ?? 0;
    const hex = middle.toString(16).padStart(2, '0');
    return linearOf(`#${hex}${hex}${hex}`)[0];
  });
}
