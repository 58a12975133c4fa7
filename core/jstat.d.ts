declare module 'jstat' {
  const jstat: {
    /** Inverse of a square matrix. */
    inv(matrix: number[][]): number[][];
    gammaln(x: number): number;
    normal: { cdf(x: number, mean: number, sd: number): number };
    chisquare: { cdf(x: number, degrees: number): number };
  };
  export default jstat;
}
