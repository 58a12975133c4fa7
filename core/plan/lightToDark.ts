import { wcagLuminance } from 'culori';

/**
 * Light colours first, so that what stays in injectors and glasses does not show in the next.
 * Source: relative luminance, WCAG 2.1.
 */
export const lightToDark = <T extends { hex: string }>(cups: T[]): T[] =>
  [...cups].sort((a, b) => wcagLuminance(b.hex) - wcagLuminance(a.hex));
