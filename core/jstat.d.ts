declare module 'jstat' {
  const jstat: {
    /** Inverse of a square matrix. */
    inv(matrix: number[][]): number[][];
    gammaln(x: number): number;
    beta: { inv(p: number, alpha: number, beta: number): number };
    normal: {
      cdf(x: number, mean: number, sd: number): number;
      inv(p: number, mean: number, sd: number): number;
    };
    studentt: { inv(p: number, degrees: number): number };
    chisquare: { cdf(x: number, degrees: number): number };
    /** Chance of k of n, each with the chance p. */
    binomial: { pdf(k: number, n: number, p: number): number };
  };
  export default jstat;
}
