import type { Part } from '../../../contract/blend.ts';
import type { Taste } from '../../parts/taste.tsx';

/** A part as it goes onto the scale: "174 g Firm 58 (A3)". */
export const partText = (part: Part, taste: Taste): string =>
  `${taste.text(part.weighedG ?? part.plannedG, 'mass')} ${part.kind === 'remelt' ? `remelt, ${part.name}` : part.name}${part.lotCode ? ` (${part.lotCode})` : ''}`;
