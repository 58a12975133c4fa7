import { wcagLuminance } from 'culori';

/** How light a colour is, 0 black to 1 white. Source: relative luminance, WCAG 2.1. */
export const lightnessOf = (hex: string): number => wcagLuminance(hex);

/**
 * Light colours first, so that what stays in injectors and glasses does not show in the next.
 * Source: relative luminance, WCAG 2.1.
 */
export const lightToDark = <T extends { hex: string }>(cups: T[]): T[] =>
  [...cups].sort((a, b) => lightnessOf(b.hex) - lightnessOf(a.hex));
