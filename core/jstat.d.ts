declare module 'jstat' {
  const jstat: { gammaln(x: number): number };
  export default jstat;
}
