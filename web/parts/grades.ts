import { GRADES, type Grade, REASONS, type Reason } from '../../core/yield/grades.ts';

export const GRADE_WORDS: Record<Grade, string> = { sell: 'to sell', own: 'own water', remelt: 'remelt' };

/** Why a bait is not to sell; what an older program wrote stands as it is. */
export const reasonWords = (reason: string): string => REASONS[reason as Reason] ?? reason;

/** How many of each grade there are, those that are none left out: "18 to sell, 2 own water". */
export const gradesText = (counts: Record<Grade, number>): string =>
  GRADES.filter((grade) => grade === 'sell' || counts[grade] > 0)
    .map((grade) => `${counts[grade]} ${GRADE_WORDS[grade]}`)
    .join(', ');
