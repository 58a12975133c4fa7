import type { Lacking } from '../../../core/colour/lab.ts';

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
