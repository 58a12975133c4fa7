import { useState } from 'react';
import { useStandIn } from '../../api/instruments.ts';
import { Refusal } from '../../parts/Fields.tsx';
import type { AtHand } from './useAtHand.ts';
import type { AtTheCup } from './useAtTheCup.ts';

/** What drops and spoons weigh in truth in a stand-in's world, over what is written down: so that a count can be off. */
const SOME_DROPS = 5;

/** Hands for a scale that is not there: only where a stand-in speaks for it, and never a short cut into the record. */
export function StandInHands({ at, hand }: { at: AtTheCup; hand: AtHand }) {
  const [open, setOpen] = useState(false);
  const { scale, here, goesIn } = hand;
  const hands = useStandIn();
  if (scale?.how !== 'stand-in' || !here(scale)) return null;
  const next = goesIn.find(({ left }) => left > 0) ?? goesIn[0];
  const gPerMl = at.pour.plan.cookG / at.pour.cookMl;
  const lay = (grams: number) => hands.mutate({ id: scale.id, addG: Math.round(grams * 100) / 100 });
  const one = 'btn btn-ghost border border-dashed border-[var(--edge)] h-16 min-h-16 px-3 font-normal';
  return (
    <div className="flex gap-2 flex-wrap items-center">
      <button type="button" className={one} aria-expanded={open} onClick={() => setOpen(!open)}>
        Stand-in’s hands
      </button>
      {open && (
        <>
          {next && (
            <button type="button" className={one} onClick={() => lay(SOME_DROPS * next.gEach)}>
              {next.unit === 'drop' ? `${SOME_DROPS} drops` : `${SOME_DROPS} ${next.unit}`} of {next.name}
            </button>
          )}
          {at.cup.molds.map((mold) => {
            const shotMl = at.lead.plan.molds.find(({ moldId }) => moldId === mold.moldId)?.shotMl ?? 0;
            return (
              <button key={mold.moldId} type="button" className={one} onClick={() => lay(-shotMl * gPerMl)}>
                draw for {mold.name}
              </button>
            );
          })}
          {scale.shotId &&
            [1, 0.9].map((part) => {
              const mold = at.cup.molds.find(({ moldId }) =>
                at.cup.shots.some((shot) => shot.id === scale.shotId && shot.moldId === moldId),
              );
              const grams = (mold?.cavityLayersMl.reduce((sum, ml) => sum + ml, 0) ?? 0) * gPerMl * part;
              return (
                <button key={part} type="button" className={one} onClick={() => lay(grams)}>
                  lay a {part < 1 ? 'light ' : ''}bait on it
                </button>
              );
            })}
        </>
      )}
      <Refusal error={hands.error} />
    </div>
  );
}
