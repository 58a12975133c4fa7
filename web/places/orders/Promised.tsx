import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { type PlanAsked, typedLine, type WithLine } from '../../../contract/plan.ts';
import { usual } from '../../../core/defaults.ts';
import { percentText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { dayText } from '../../parts/dates.ts';
import {
  FORWARD,
  hirePromise,
  type PromiseAnswer,
  type PromiseWish,
  pricesOf,
  useForwardWords,
} from '../../parts/promise.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useAnswer } from '../../workers/useErrand.ts';

/** Typing rests for so long before the days are run again, ms. */
const RESTS_MS = 400;

function useAtRest<T>(value: T): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), RESTS_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return rested;
}

interface Props {
  lines: { baitId: string; colourwayId: string; packs: number | null; perPack: number | null }[];
  dueOn: string;
  onTake(day: string): void;
}

/** While an order is typed: the day that is kept nine times in ten, and how sure the one that stands there is. */
export function Promised({ lines, dueOn, onTake }: Props) {
  const { say } = useTaste();
  const typed = JSON.stringify(
    lines.every(({ packs, perPack, baitId, colourwayId }) => packs && perPack && baitId && colourwayId)
      ? lines.map(({ baitId, colourwayId, packs, perPack }) => ({ baitId, colourwayId, packs, perPack }))
      : [],
  );
  const rested = useAtRest(typed);
  const asked = useMemo(() => JSON.parse(rested) as WithLine[], [rested]);
  const { data } = useQuery({ ...queries.planWith(asked), enabled: asked.length > 0 });
  const unplanned = (data?.unplanned ?? []).filter(({ lineId }) => lineId.startsWith('new '));
  const key = JSON.stringify(data?.asked);
  const wish = useMemo((): PromiseWish | null => {
    if (!key || asked.length === 0) return null;
    const plan = JSON.parse(key) as PromiseWish['plan'];
    const lineIds = asked.map((_, index) => typedLine(index)).filter((id) => plan.lines.some((line) => line.id === id));
    if (lineIds.length !== asked.length) return null;
    return {
      plan,
      lineIds,
      remelt: data?.remelt,
      prices: pricesOf(data),
      ...(dueOn === '' ? {} : { wantedOn: dueOn }),
    };
  }, [key, asked, data, dueOn]);
  const { answer, problem } = useAnswer(wish, hirePromise);
  const wait = !answer || typed !== rested;
  return (
    // As high as the longest answer: what stands under it, the button above all, does not move when one comes.
    <section
      className="sheet p-4 flex flex-col gap-1.5 min-h-[22rem] sm:min-h-[13.5rem]"
      aria-label="What can be promised"
      aria-live="polite"
    >
      {asked.length === 0 ? (
        <p className="soft">Which day can be promised is said once each line has its packs.</p>
      ) : unplanned.length > 0 ? (
        <p className="heat font-bold">
          No date can be promised:{' '}
          {unplanned[0]?.why ? say(unplanned[0].why) : 'no mold here makes one of these baits.'}
        </p>
      ) : problem ? (
        <p className="heat font-bold">{say(problem)}</p>
      ) : wait ? (
        <p className="text-lg">The days ahead are being run …</p>
      ) : (
        <Said of={answer} asked={data} dueOn={dueOn} onTake={onTake} />
      )}
    </section>
  );
}

type SaidProps = { of: PromiseAnswer; asked: PlanAsked | undefined } & Pick<Props, 'dueOn' | 'onTake'>;

function Said({ of: { day, kept, forward, cheapest }, asked, dueOn, onTake }: SaidProps) {
  const what = useForwardWords(asked);
  const share = kept.findLast((one) => one.day <= dueOn)?.share ?? 0;
  const beyond = dueOn > (kept.at(-1)?.day ?? '');
  const gains = forward.filter(({ gainDays, day: sooner }) => (gainDays ?? 0) > 0 || (day === null && sooner !== null));
  return (
    <>
      <p className="text-xl">
        {day === null ? (
          <b className="heat">Within {kept.length} days it is packed in fewer than nine of ten cases.</b>
        ) : (
          <>
            Packed nine times in ten by <b>{dayText(day)}</b>.
          </>
        )}{' '}
        {day !== null && day !== dueOn && (
          <button type="button" className="btn btn-sm btn-line" onClick={() => onTake(day)}>
            Promise {dayText(day)}
          </button>
        )}
      </p>
      <p className={!beyond && share < usual('confidence') ? 'warn font-bold' : ''}>
        {dueOn === ''
          ? 'No day is promised yet.'
          : beyond
            ? `${dayText(dueOn)} is farther than is run.`
            : `${dayText(dueOn)} is kept in ${Math.round(share * 100)} of 100.`}
      </p>
      {cheapest && (
        <p className="text-lg">
          {dayText(dueOn)} is kept nine times in ten with {what(cheapest)}.
        </p>
      )}
      {gains.length > 0 && (
        <p>
          Sooner with{' '}
          {gains
            .map(({ by, gainDays, day: sooner }) =>
              gainDays === null
                ? `${FORWARD[by]} (${sooner ? dayText(sooner) : ''})`
                : `${FORWARD[by]} (${gainDays} ${gainDays === 1 ? 'day' : 'days'})`,
            )
            .join(', ')}
          .
        </p>
      )}
      <p className="soft text-sm">
        Each day ahead run {usual('runsAhead')} times: {percentText(usual('lostEvenings'))} of the evenings are lost{' '}
        <span className="default-mark">default</span>, a mold breaks once in {Math.round(1 / usual('breaksAShot'))}{' '}
        shots <span className="default-mark">default</span>, rejects fall as your record has them; what was promised
        before is kept first.
      </p>
    </>
  );
}
