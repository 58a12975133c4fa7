import { usual } from '../defaults.ts';

/** What a master is made of. */
export const MASTER_KINDS = ['clay', 'wood', 'print', 'cast', 'own-bait', 'natural'] as const;
export type MasterKind = (typeof MASTER_KINDS)[number];

/** Usual densities to weigh a master against, g/mL: trade data for fired clay, softwood, PLA and resin; the sheet of the actual stuff wins. */
export const MASTER_G_PER_ML: Record<MasterKind, number> = {
  clay: 1.75,
  wood: 0.6,
  print: 1.24,
  cast: 1.1,
  'own-bait': usual('plastisolGPerMl'),
  natural: 1.05,
};
