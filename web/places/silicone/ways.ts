export const POURS = {
  'open-face': { words: 'open face', kind: 'silicone-open', fill: 'open-pour' },
  wrap: { words: 'wrap', kind: 'silicone-wrap', fill: 'gravity' },
  'two-piece': { words: 'two-piece', kind: 'silicone-two-piece', fill: 'gravity' },
} as const;
