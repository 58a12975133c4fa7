/** Relative slack within which a computed value counts as the whole number it meant to be (0.1 × 30 is 3). */
const WHOLE_SLACK = 1e-9;

function nearWhole(value: number): number | undefined {
  const whole = Math.round(value);
  return Math.abs(value - whole) <= WHOLE_SLACK * Math.max(1, Math.abs(whole)) ? whole : undefined;
}

/** Floor, except that a value within 1e-9 (relative) of a whole number is that number. */
export function floorNear(value: number): number {
  return nearWhole(value) ?? Math.floor(value);
}

/** Ceil, except that a value within 1e-9 (relative) of a whole number is that number. */
export function ceilNear(value: number): number {
  return nearWhole(value) ?? Math.ceil(value);
}

/** Nearest whole number, halves up. */
export function roundHalfUp(value: number): number {
  return floorNear(value + 0.5);
}

/** Money in minor units, halves away from zero. */
export function roundMoney(minor: number): number {
  return Math.sign(minor) * floorNear(Math.abs(minor) + 0.5);
}

/** Whether a ≤ b, forgiving rounding errors of 1e-9 (relative). */
export function atMost(a: number, b: number): boolean {
  return a <= b + 1e-9 * Math.max(1, Math.abs(b));
}
