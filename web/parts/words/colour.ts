import type { Lacking } from '../../../core/colour/lab.ts';

/** Less than this of what is in a bin is not spoken of. */
const TOLD_FROM = 0.005;

/** Of how much nobody knows the colour; null where that is next to nothing. */
export const unknownText = ({ unknownFraction }: { unknownFraction: number }): string | null =>
  unknownFraction > TOLD_FROM ? `of ${Math.round(100 * unknownFraction)} % nobody knows the colour` : null;

/** How a difference is seen. Source: common reading of CIEDE2000. */
export const seenAs = (off: number): string =>
  off < 1
    ? 'not told apart'
    : off < 2
      ? 'just told apart side by side'
      : off < 5
        ? 'near, and told apart'
        : 'another colour';

export const LACKING: Record<Lacking, string> = {
  red: 'redder',
  pink: 'pinker',
  violet: 'more violet',
  blue: 'bluer',
  green: 'greener',
  yellow: 'yellower',
  orange: 'more orange',
  light: 'lighter',
  dark: 'darker',
};
