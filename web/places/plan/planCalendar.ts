import type { PlanAsked } from '../../../contract/plan.ts';
import type { ProductionPlan } from '../../../core/plan/production.ts';
import { handOver } from '../../parts/files.ts';
import { namedIn, ordersOf } from './words.ts';

type Day = [number, number, number];
const dayOf = (iso: string): Day => iso.split('-').map(Number) as Day;
const after = (iso: string): Day => {
  const next = new Date(Date.parse(iso) + 86_400_000).toISOString().slice(0, 10);
  return dayOf(next);
};

export interface CalendarDay {
  uid: string;
  title: string;
  description: string;
  start: Day;
  end: Day;
}

/** Pours, what is cured when, and when each order can be sent, as whole days. */
export function calendarDays(plan: ProductionPlan, asked: PlanAsked): CalendarDay[] {
  const named = namedIn(asked);
  const whole = (uid: string, iso: string, title: string, description = ''): CalendarDay => ({
    uid,
    title,
    description,
    start: dayOf(iso),
    end: after(iso),
  });
  const evenings = plan.days
    .filter(({ cups }) => cups.length > 0)
    .map(({ day, cups }) =>
      whole(
        `pour-${day}`,
        day,
        `Pour ${cups.map(({ colourId }) => named.colour(colourId).name).join(', ')}`,
        cups
          .flatMap((cup) =>
            cup.molds.map(
              ({ moldId, shots }) => `${named.colour(cup.colourId).name}: ${shots} shots in ${named.mold(moldId)}`,
            ),
          )
          .join('\n'),
      ),
    );
  const packing = plan.days
    .filter(({ packed }) => packed.length > 0)
    .map(({ day, packed }) =>
      whole(
        `pack-${day}`,
        day,
        `Cured, to pack: ${[...new Set(packed.map(({ lineId }) => named.line(lineId)?.code ?? ''))].join(', ')}`,
        packed.map(({ lineId, baits }) => `${named.line(lineId)?.code}: ${baits} baits`).join('\n'),
      ),
    );
  const sent = ordersOf(plan, asked).flatMap(({ code, customer, packedOn, dueOn }) =>
    packedOn ? [whole(`send-${code}`, packedOn, `Send ${code} to ${customer}`, `due ${dueOn}`)] : [],
  );
  return [...evenings, ...packing, ...sent];
}

export async function saveCalendar(plan: ProductionPlan, asked: PlanAsked): Promise<void> {
  const { createEvents } = await import('ics');
  const { error, value } = createEvents(
    calendarDays(plan, asked).map((event) => ({ ...event, uid: `${event.uid}@workshop.invalid`, productId: 'blunko' })),
  );
  if (error || !value) throw error ?? new Error('The calendar could not be written.');
  handOver(value, 'text/calendar;charset=utf-8', 'evenings.ics');
}
