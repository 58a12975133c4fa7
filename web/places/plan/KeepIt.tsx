import { useMemo, useState } from 'react';
import type { PlanAsked } from '../../../contract/plan.ts';
import { LACK_WORDS } from '../../../core/plan/lackWords.ts';
import { dayText } from '../../parts/dates.ts';
import { FORWARD, hirePromise, type PromiseWish, pricesOf, useForwardWords } from '../../parts/promise.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useAnswer } from '../../workers/useErrand.ts';

/** For an order that comes late: the day that is kept nine times in ten, and the cheapest thing that would keep its own. */
export function KeepIt({ asked, orderId, dueOn }: { asked: PlanAsked; orderId: string; dueOn: string }) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <button type="button" className="btn btn-sm btn-line w-fit mt-1" onClick={() => setOpen(true)}>
        What would keep it?
      </button>
    );
  return <Kept asked={asked} orderId={orderId} dueOn={dueOn} />;
}

function Kept({ asked, orderId, dueOn }: { asked: PlanAsked; orderId: string; dueOn: string }) {
  const { say } = useTaste();
  const words = useForwardWords(asked);
  const wish = useMemo((): PromiseWish | null => {
    const planned = new Set(asked.asked.lines.map(({ id }) => id));
    const lineIds = asked.lines.filter((line) => line.orderId === orderId && planned.has(line.id)).map(({ id }) => id);
    if (lineIds.length === 0) return null;
    return { plan: asked.asked, lineIds, inTurn: true, remelt: asked.remelt, prices: pricesOf(asked), wantedOn: dueOn };
  }, [asked, orderId, dueOn]);
  const { answer, problem } = useAnswer(wish, hirePromise);
  if (wish === null) {
    const mine = new Set(asked.lines.filter((line) => line.orderId === orderId).map(({ id }) => id));
    const why = asked.unplanned.find(({ lineId }) => mine.has(lineId))?.why;
    return <p className="heat">{why ? say(why) : `Short: ${LACK_WORDS['no-mold']}.`}</p>;
  }
  if (problem) return <p className="heat">{say(problem)}</p>;
  if (!answer) return <p className="soft">The days ahead are being run …</p>;
  const { day, kept, cheapest, forward } = answer;
  const sooner = forward.filter(({ gainDays, day: then }) => (gainDays ?? 0) > 0 || (day === null && then !== null));
  return (
    <div aria-live="polite" className="flex flex-col gap-1">
      <p>
        {day === null ? (
          `In these ${kept.length} days it is packed in fewer than nine of ten cases.`
        ) : (
          <>
            Packed nine times in ten by <b>{dayText(day)}</b>.
          </>
        )}
      </p>
      {cheapest && (
        <p>
          {dayText(dueOn)} is kept with <b>{words(cheapest)}</b>.
        </p>
      )}
      {!cheapest && (day === null || day > dueOn) && (
        <p>
          Nothing known here keeps {dayText(dueOn)}
          {sooner.length > 0 &&
            `; sooner with ${sooner.map(({ by, day: then }) => `${FORWARD[by]} (${then ? dayText(then) : ''})`).join(', ')}`}
          .
        </p>
      )}
    </div>
  );
}
