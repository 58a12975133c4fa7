import type { PlanAsked } from '../../../contract/plan.ts';
import type { Lack, PlannedDay, ProductionPlan } from '../../../core/plan/production.ts';

/** Ids of a plan as a maker calls them. */
export interface Named {
  bait(id: string): string;
  mold(id: string): string;
  colour(id: string): { name: string; hex: string };
  line(id: string): PlanAsked['lines'][number] | undefined;
}

export function namedIn({ baits, colours, molds, lines }: PlanAsked): Named {
  const of = <T extends { id: string }>(rows: T[]) => new Map(rows.map((row) => [row.id, row]));
  const [byBait, byColour, byMold, byLine] = [of(baits), of(colours), of(molds), of(lines)];
  return {
    bait: (id) => byBait.get(id)?.name ?? '',
    mold: (id) => byMold.get(id)?.name ?? '',
    colour: (id) => byColour.get(id) ?? { name: '', hex: '#888888' },
    line: (id) => byLine.get(id),
  };
}

const FULL_WORDS: Record<PlannedDay['full'][number], string> = {
  hands: 'all hands are taken',
  glasses: 'all glasses are taken',
  molds: 'the molds give no more',
  oven: 'the oven is busy all evening',
  vacuum: 'the vacuum is busy all evening',
  boards: 'the boards are full',
  materials: 'the store holds no more',
};

/** What is all used up on an evening: "all hands are taken; the molds give no more". */
export const fullText = (full: PlannedDay['full']) => full.map((one) => FULL_WORDS[one]).join('; ');

/** An order as the plan leaves it: packed on the last day of its lines, or short. */
export interface PlannedOrder {
  orderId: string;
  code: string;
  customer: string;
  dueOn: string;
  packedOn: string | null;
  lateDays: number | null;
  shortBaits: number;
  why: Lack | null;
}

/** The orders of a plan, as they are due. */
export function ordersOf({ lines }: ProductionPlan, asked: PlanAsked): PlannedOrder[] {
  const planned = new Map(lines.map((line) => [line.lineId, line]));
  const orders = new Map<string, PlannedOrder>();
  for (const { id, orderId, code, customer, dueOn, baits } of asked.lines) {
    const line = planned.get(id) ?? { packedOn: null, lateDays: null, shortBaits: baits, why: 'no-mold' as const };
    // A wish for the rack stands for itself.
    const key = orderId || id;
    const before = orders.get(key);
    const whole = line.packedOn !== null && before?.packedOn !== null;
    const latest =
      [before?.packedOn, line.packedOn]
        .flatMap((day) => (day ? [day] : []))
        .sort()
        .at(-1) ?? null;
    orders.set(key, {
      orderId,
      code,
      customer,
      dueOn,
      packedOn: whole ? latest : null,
      lateDays: whole ? Math.max(before?.lateDays ?? 0, line.lateDays ?? 0) : null,
      shortBaits: (before?.shortBaits ?? 0) + line.shortBaits,
      why: before?.why ?? line.why,
    });
  }
  return [...orders.values()].sort((a, b) => (a.dueOn < b.dueOn ? -1 : Number(a.dueOn > b.dueOn)));
}

/** Whether the hands decide when all is done: then another mold shortens waits, and no evening. */
export const handsDecide = ({ days }: ProductionPlan): boolean => {
  const poured = days.filter(({ cups }) => cups.length > 0);
  const full = poured.filter(({ full: by }) => by.includes('hands'));
  return poured.length > 1 && full.length >= poured.length - 1 && !full.some(({ full: by }) => by.includes('molds'));
};
