import { useState } from 'react';
import type { ScaleStep } from '../../../contract/instruments.ts';
import { usual } from '../../../core/defaults.ts';
import { TRUST_WORDS } from '../../../core/instruments/trust.ts';
import type { Seen } from '../../../core/instruments/witness.ts';
import { type Speaking, useAim, useNotAStep } from '../../api/instruments.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { Guarded } from '../../parts/Guarded.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { StandInHands } from './StandInHands.tsx';
import type { AtHand } from './useAtHand.ts';
import type { AtTheCup } from './useAtTheCup.ts';

/** The instruments at this cup: what they say, whether that can be believed, and what the scale saw. */
export function AtHandPanel({ at, hand }: { at: AtTheCup; hand: AtHand }) {
  const { pour } = at;
  const { thermometer, scale, here } = hand;
  const aim = useAim();
  if (hand.all.length === 0) return null;
  return (
    <section className="sheet p-3.5 flex flex-col gap-2 shrink-0" aria-label="Instruments">
      <div className="flex gap-4 flex-wrap items-start">
        {[thermometer, scale].map(
          (one) =>
            one && (
              <div key={one.id} className="flex-1 min-w-40 flex flex-col gap-1">
                <span className="bench-text soft">{one.name}</span>
                {here(one) ? (
                  <Says one={one} />
                ) : (
                  <button
                    type="button"
                    className="btn btn-line bench-target self-start"
                    disabled={aim.isPending}
                    onClick={() => aim.mutate({ id: one.id, pourId: pour.id })}
                  >
                    {one.kind === 'scale' ? 'Cup on it' : 'Point it here'}
                  </button>
                )}
              </div>
            ),
        )}
        {hand.reading && (
          <Guarded means="take the reading" className="btn btn-line bench-target" onAct={hand.read}>
            Take it
          </Guarded>
        )}
      </div>
      <Refusal error={aim.error} />
      <StandInHands at={at} hand={hand} />
    </section>
  );
}

/** What the scale saw and nobody has said yet, before all else. */
export function ScaleSaw({ hand }: { hand: AtHand }) {
  return (
    <section className="sheet p-3.5 flex flex-col gap-2 shrink-0" aria-label="The scale saw">
      {hand.steps.map((step) => (
        <StepSeen key={step.id} step={step} hand={hand} />
      ))}
    </section>
  );
}

function Says({ one }: { one: Speaking }) {
  const taste = useTaste();
  const { now } = one;
  const dimension = one.kind === 'scale' ? 'mass' : 'temperature';
  if (!now || now.value === null) return <b className="bench-text">says nothing yet</b>;
  return (
    <>
      <b
        className={`figure text-3xl leading-none ${now.trust === 'fine' ? '' : 'line-through opacity-60'}`}
        aria-live="off"
      >
        {now.trust === 'wild' ? '???' : taste.text(now.value, dimension)}
      </b>
      {now.trust !== 'fine' && (
        <span className="bench-text warn font-bold" role="status">
          {TRUST_WORDS[now.trust]}
        </span>
      )}
    </>
  );
}

const amountText = (amount: number, unit: string) =>
  `${amount} ${unit === 'drop' ? (amount === 1 ? 'drop' : 'drops') : unit}`;

/** One step of the scale: what it seems to be, to be said so, put right, or thrown away. */
function StepSeen({ step, hand }: { step: ScaleStep & { seen: Seen }; hand: AtHand }) {
  const taste = useTaste();
  const { seen } = step;
  const not = useNotAStep();
  const first = seen.what === 'dose' ? hand.goesIn.findIndex((one) => one.materialId === seen.materialId) : 0;
  const [which, setWhich] = useState(Math.max(0, first));
  const [change, setChange] = useState(0);
  const grams = `${step.deltaG > 0 ? '+' : '−'}${taste.text(Math.abs(step.deltaG), 'mass')}`;
  const material = hand.goesIn[which];
  const each = material?.unit === 'drop' ? 1 : 0.125;
  const counted = material ? Math.max(each, Math.round(step.deltaG / material.gEach / each) * each + change * each) : 0;
  // What the scale itself is off by, in whole drops.
  const give = material?.unit === 'drop' ? Math.ceil((2 * usual('scaleSdG')) / material.gEach) : 0;
  const target = 'btn btn-line h-16 min-h-16 px-4';
  return (
    <div className="flex flex-col gap-2" role="status">
      <p className="bench-text">
        The scale saw <b className="figure text-2xl">{grams}</b>
        {step.deltaG > 0 && material && (
          <>
            : <b>{amountText(counted, material.unit)}</b>
            {give > 0 && <span className="soft"> ± {give}</span>} {material.name}?
          </>
        )}
        {seen.what === 'shot' && (
          <>
            : a shot of <b>{seen.name}</b>?
          </>
        )}
        {(seen.what === 'in' || seen.what === 'out') && ': nothing that was laid out weighs that'}
      </p>
      <div className="flex gap-2 flex-wrap">
        {step.deltaG > 0 && material && (
          <>
            <Guarded
              means={`seen ${step.id} ${which} ${counted}`}
              className="btn btn-accent h-16 min-h-16 px-5"
              onAct={() => hand.dosed(step, material.materialId, counted, material.unit)}
            >
              Right
            </Guarded>
            <button type="button" className={target} aria-label="Less" onClick={() => setChange(change - 1)}>
              −
            </button>
            <button type="button" className={target} aria-label="More" onClick={() => setChange(change + 1)}>
              +
            </button>
            {hand.goesIn.length > 1 && (
              <button
                type="button"
                className={target}
                onClick={() => {
                  setChange(0);
                  setWhich((which + 1) % hand.goesIn.length);
                }}
              >
                Another
              </button>
            )}
          </>
        )}
        {seen.what === 'shot' && (
          <Guarded
            means={`seen ${step.id}`}
            className="btn btn-accent h-16 min-h-16 px-5"
            onAct={() => hand.drawn(step, seen.moldId)}
          >
            Right
          </Guarded>
        )}
        <button
          type="button"
          className="btn btn-ghost border border-[var(--edge)] h-16 min-h-16 px-4"
          onClick={() => {
            hand.hide(step.id);
            if (hand.scale) not.mutate({ id: hand.scale.id, stepId: step.id });
          }}
        >
          None of it
        </button>
      </div>
    </div>
  );
}
