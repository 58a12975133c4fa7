/** 0 to n − 1: places on a scale or in a heap, which have no identity but their number. */
export const range = (n: number): number[] => Array.from({ length: Math.max(0, n) }, (_, i) => i);
