export type School = 'vacuum' | 'thin-stream';

/** Starting values, min and mL/min: the pump's and the hand's own times replace them. */
export const BUBBLE_TIMES = { mixMin: 3, pumpMin: 2, restMin: 0.5, pourMlPerMin: 250, streamMlPerMin: 70 } as const;

export interface BubbleWish {
  school: School;
  mixMl: number;
  potLifeMin: number;
  /** From the first stir to one colour. */
  mixMin?: number;
  /** Until it has risen and collapsed by itself. */
  pumpMin?: number;
}

export interface BubbleTimes {
  /** The least the vacuum cup holds, mL; null without vacuum. */
  cupMl: number | null;
  degasMin: number;
  pourMin: number;
  /** Pot life that is left when all is poured; negative: it sets in the cup. */
  leftMin: number;
  say: string;
}

const minutes = (min: number) => `${min < 10 ? min.toFixed(1) : Math.round(min)} min`;

/**
 * What getting the bubbles out costs of the pot life: vacuum until it collapses by itself and a rest, then poured; or no
 * vacuum and a thin stream. @returns times in min. Source: cup four times the mix for the rise; rates are starting values.
 */
export function bubbleTimes({ school, mixMl, potLifeMin, mixMin, pumpMin }: BubbleWish): BubbleTimes {
  const stirred = mixMin ?? BUBBLE_TIMES.mixMin;
  const vacuum = school === 'vacuum';
  const degasMin = vacuum ? (pumpMin ?? BUBBLE_TIMES.pumpMin) + BUBBLE_TIMES.restMin : 0;
  const pourMin = mixMl / (vacuum ? BUBBLE_TIMES.pourMlPerMin : BUBBLE_TIMES.streamMlPerMin);
  const leftMin = potLifeMin - stirred - degasMin - pourMin;
  const spent = vacuum
    ? `${minutes(stirred)} of stirring, ${minutes(degasMin)} under vacuum and ${minutes(pourMin)} of pouring`
    : `${minutes(stirred)} of stirring and ${minutes(pourMin)} of thin stream`;
  return {
    cupMl: vacuum ? 4 * mixMl : null,
    degasMin,
    pourMin,
    leftMin,
    say:
      leftMin < 0
        ? `${spent} are ${minutes(-leftMin)} more than its pot life: ${vacuum ? 'mix it in parts, or cool the room' : 'mix it in parts, or take a slower rubber'}.`
        : leftMin < 0.2 * potLifeMin
          ? `${spent} leave only ${minutes(leftMin)}: have everything ready.`
          : `${spent} leave ${minutes(leftMin)} of pot life.`,
  };
}
