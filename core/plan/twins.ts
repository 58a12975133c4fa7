/** Of the molds that make a bait those that are poured: the ones with most cavities, and all twins of them. */
export function twinsOf<T extends { cavities: number }>(makers: T[]): T[] {
  const most = Math.max(0, ...makers.map(({ cavities }) => cavities));
  return makers.filter(({ cavities }) => cavities === most);
}
