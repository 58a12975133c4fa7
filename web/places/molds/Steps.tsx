import { useState } from 'react';
import { type Mold, moldEventBody } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { DEMOLD, STEPS, type Step } from '../../../core/process/making.ts';
import { durationText } from '../../../core/units/show.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

/** What this kind of mold asks for, in the order in which it goes wrong: the next step large, those done behind one tap. */
export function Steps({ mold }: { mold: Mold }) {
  const event = useWrite<Mold, { kind: string; step: string; sure?: boolean }>((body) => ({
    path: `/molds/${mold.id}/events`,
    body,
  }));
  // Ticked at once; the record's own word counts again as soon as the answer is here.
  const [onItsWay, setOnItsWay] = useState<{ step: string; done: boolean } | null>(null);
  const done = (id: string) =>
    onItsWay?.step === id ? onItsWay.done : mold.events.findLast((row) => row.step === id)?.kind === 'step';
  const tick = (step: string, checked: boolean) => {
    setOnItsWay({ step, done: checked });
    event.mutate({ kind: checked ? 'step' : 'step-undone', step }, { onSettled: () => setOnItsWay(null) });
  };
  const opened = mold.events.findLast((row) => row.step === DEMOLD);
  const early = opened?.kind === 'step' && opened.detail ? Number(opened.detail.earlyS) : null;
  const steps = STEPS[mold.kind] ?? [];
  const next = steps.find((step) => !done(step.id));
  const ticked = steps.filter((step) => done(step.id));
  return (
    <section>
      <h2 className="mb-2">Steps of this mold</h2>
      <ol className="grid max-w-2xl">
        {steps
          .filter((step) => !done(step.id))
          .map((step) => (
            <li key={step.id} className={`px-2 py-1 ${step === next ? 'sheet py-2' : ''}`}>
              <StepTick step={step} number={steps.indexOf(step) + 1} done={false} large={step === next} onTick={tick} />
              {step === next && step.id === 'first' && <FirstPour mold={mold} />}
              {step === next && step.caution && (
                <div className="mt-2 ml-12">
                  <Caution about={step.caution} />
                </div>
              )}
            </li>
          ))}
      </ol>
      {ticked.length > 0 && (
        <details className="max-w-2xl mt-2">
          <summary className="rest font-bold cursor-pointer">
            {ticked.length} {ticked.length === 1 ? 'step' : 'steps'} done
          </summary>
          {ticked.map((step) => (
            <div key={step.id} className="px-2 py-1">
              <StepTick step={step} number={steps.indexOf(step) + 1} done onTick={tick} />
            </div>
          ))}
        </details>
      )}
      <Refusal error={event.error} onSure={() => event.variables && event.mutate({ ...event.variables, sure: true })} />
      {early !== null && (
        <p className="warn font-bold">It was opened {durationText(early)} before its clock said so.</p>
      )}
    </section>
  );
}

/** What the plain first pour takes, as planned: one shot, no yield. */
function FirstPour({ mold }: { mold: Mold }) {
  const [begun] = useState({
    kind: 'first-pour',
    grams: Math.round(usual('plastisolGPerMl') * (mold.cavities * mold.cavityMl + mold.sprueMl + mold.runnerMl)),
  });
  const sheet = useSheet({ schema: moldEventBody, keep: `mold/${mold.id}/first-pour`, seen: begun });
  const pour = useWrite<Mold>(() => ({ path: `/molds/${mold.id}/events`, body: sheet.values }), sheet.done);
  return (
    <Sheet of={sheet} by={pour} onSend={() => pour.mutate()} className="flex gap-3 items-start mt-2 ml-12">
      <FigureIn at="grams" className="w-32" starts hint="as planned, until weighed" />
      <div className="mt-[1.45rem]">
        <Send className="">Poured plain: out of the store, not in the yield</Send>
      </div>
    </Sheet>
  );
}

interface StepTickProps {
  step: Step;
  number: number;
  done: boolean;
  large?: boolean;
  onTick(step: string, done: boolean): void;
}

function StepTick({ step, number, done, large, onTick }: StepTickProps) {
  return (
    <label className="flex gap-4 items-start cursor-pointer">
      <input
        type="checkbox"
        className="checkbox mt-0.5"
        checked={done}
        onChange={(change) => onTick(step.id, change.target.checked)}
      />
      <span className={`flex-1 ${done ? 'soft' : large ? 'text-lg' : ''}`}>
        {number}. {step.text}
      </span>
    </label>
  );
}
