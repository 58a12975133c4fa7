import jstat from 'jstat';

export interface Told {
  /** How much of each unknown it tells of. */
  shares: number[];
  value: number;
  /** How far it may be off, standard deviation. */
  sd: number;
}

/**
 * Unknowns as far as readings tell of them, each drawn to what it is taken for where few speak of it.
 * @param guesses what each is taken for, with how far off that may be (standard deviation).
 * @returns each with its own standard deviation.
 * Source: ridge regression as a Bayes posterior, C = (XᵀX/σ² + I/τ²)⁻¹, h = C(Xᵀy/σ² + guess/τ²) (Hoerl & Kennard 1970).
 */
export function posterior(told: Told[], guesses: { value: number; sd: number }[]): { value: number; sd: number }[] {
  const sum = (of: (row: Told) => number) => told.reduce((total, row) => total + of(row) / row.sd ** 2, 0);
  const precision = guesses.map(({ sd }, i) =>
    guesses.map(
      (_, j) => sum(({ shares }) => (shares[i] as number) * (shares[j] as number)) + (i === j ? sd ** -2 : 0),
    ),
  );
  const right = guesses.map(
    ({ value, sd }, i) => sum((row) => (row.shares[i] as number) * row.value) + value / sd ** 2,
  );
  return jstat.inv(precision).map((row, i) => ({
    value: row.reduce((total, c, j) => total + c * (right[j] as number), 0),
    sd: Math.sqrt(row[i] as number),
  }));
}
