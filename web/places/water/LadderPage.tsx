import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { type Ladder, ladderPatch } from '../../../contract/water.ts';
import { usual } from '../../../core/defaults.ts';
import { USUAL_RUBBER } from '../../../core/mold/rubber.ts';
import { plan } from '../../../core/mold/silicone.ts';
import { type LadderStep, stubSpec } from '../../../core/water/ladder.ts';
import { queries } from '../../api/queries.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { PutAway, ThrowOut } from '../../parts/PutAway.tsx';
import { TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { FitRanges } from './FitRanges.tsx';
import { hzOf, TAPS_NEEDED } from './tap.ts';

/** A ladder at the tub: one step at a time, tapped in time with the tail. */
export function LadderPage() {
  const { id = '' } = useParams();
  const { data: ladder, error } = useQuery(queries.ladder(id));
  if (isGone(error, ladder)) return <Missing error={error} back="All ladders" backTo="/ladders" />;
  if (!ladder) return <Waiting />;
  return <AtTheTub key={ladder.id} ladder={ladder} />;
}

/** What it is called, and the way out of the lists. */
function LadderName({ ladder }: { ladder: Ladder }) {
  const sheet = useSheet({ schema: ladderPatch, keep: `ladder/${ladder.id}/name`, seen: { name: ladder.name } });
  const save = useWrite<Ladder>(
    () => ({ path: `/ladders/${ladder.id}`, method: 'PATCH', version: ladder.version, body: sheet.values }),
    sheet.done,
  );
  return (
    <section className="flex flex-col gap-3">
      <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="flex gap-3 items-start flex-wrap">
        <TextIn at="name" className="w-56" />
        <div className="mt-5">
          <Send className="" onlyChanged>
            Rename it
          </Send>
        </div>
      </Sheet>
      <PutAway kind="ladders" row={ladder}>
        {ladder.trials.length === 0 && <ThrownOut id={ladder.id} />}
      </PutAway>
    </section>
  );
}

function ThrownOut({ id }: { id: string }) {
  const navigate = useNavigate();
  return <ThrowOut kind="ladders" id={id} onGone={() => navigate('/ladders')} />;
}

function AtTheTub({ ladder }: { ladder: Ladder }) {
  const { text } = useTaste();
  const suggested = ladder.next[0]?.step ?? 0;
  const [step, setStep] = useState(suggested);
  const { fit } = ladder;
  return (
    <Page
      title={ladder.name}
      tab={ladder.name}
      under={`Five stubs in Shore ${ladder.scale} ${ladder.hardness}, drawn at ${text(ladder.walkingMPerS, 'speed')}.`}
      actions={
        <>
          <Link to="/ladders" className="btn btn-line">
            All ladders
          </Link>
          <a className="btn btn-line" href={`/api/ladders/${ladder.id}/file?format=stl`} download>
            STL of all five
          </a>
          <a className="btn btn-line" href={`/api/ladders/${ladder.id}/file?format=3mf`} download>
            3MF
          </a>
        </>
      }
    >
      <div className="grid grid-cols-1 xl:grid-cols-1 lg:grid-cols-[minmax(0,1fr)_350px] gap-10">
        <div className="flex flex-col gap-5">
          <ol className="grid grid-cols-2 sm:grid-cols-5 gap-2">
            {ladder.steps.map((one, index) => (
              <li key={`${one.wristThicknessMm} ${one.paddleThicknessMm}`}>
                <StepButton
                  step={one}
                  index={index}
                  chosen={index === step}
                  teaches={index === suggested && ladder.next.length > 0}
                  ladder={ladder}
                  onChoose={() => setStep(index)}
                />
              </li>
            ))}
          </ol>
          <Tub key={step} ladder={ladder} step={step} onDone={(next) => setStep(next)} />
        </div>
        <aside className="flex flex-col gap-5">
          <section>
            <h2 className="mb-2">What it teaches</h2>
            {fit ? (
              <div className="flex flex-col gap-3">
                <FitRanges fit={fit} />
                <p className="text-sm">
                  {fit.n} trials in all; onset speeds good to ± {Math.round(fit.onsetUncertainty * 100)} %.{' '}
                  {nextText(ladder)}
                </p>
              </div>
            ) : (
              <p>Nothing drawn yet. Begin with step {suggested + 1}: it is the one in doubt.</p>
            )}
          </section>
          <Block ladder={ladder} />
          <LadderName key={ladder.id} ladder={ladder} />
        </aside>
      </div>
    </Page>
  );
}

/** Which step to draw, or that little is left to learn. */
function nextText({ next }: Ladder): string {
  const [first] = next;
  if (!first) return 'All five are drawn.';
  const name = `Step ${first.step + 1}`;
  if (first.bits >= 0.02) return `${name} next: it teaches most (${first.bits.toFixed(2)} bits).`;
  return `${name} is left, and would teach little: it almost surely ${first.chanceItKicks > 0.5 ? 'kicks' : 'does not kick'}.`;
}

function StepButton({
  step,
  index,
  chosen,
  teaches,
  ladder,
  onChoose,
}: {
  step: LadderStep;
  index: number;
  chosen: boolean;
  teaches: boolean;
  ladder: Ladder;
  onChoose(): void;
}) {
  const { text } = useTaste();
  const trial = ladder.trials.filter((one) => one.step === index).at(-1);
  const scale = 3;
  const [thick, across, deep] = [
    step.wristThicknessMm * scale,
    step.paddleDiameterMm * scale,
    step.paddleThicknessMm * scale,
  ];
  const long = step.wristLengthMm * scale;
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className={`w-full p-2 flex flex-col items-center gap-1 rounded-md border-2 ${chosen ? 'border-[var(--ink)] bg-[var(--sheet)]' : 'border-[var(--rule)]'}`}
    >
      <span className="figure text-lg">{index + 1}</span>
      <svg
        width={112}
        height={70}
        viewBox="-6 -32 112 64"
        role="img"
        aria-label={`Wrist ${text(step.wristThicknessMm, 'length')}, paddle ${text(step.paddleDiameterMm, 'length')}, seen from above`}
      >
        <path
          d={`M0 -15 H26 C34 -15 34 ${-thick / 2} 40 ${-thick / 2} H${40 + long} V${-across / 2} h${deep} V${across / 2} h${-deep} V${thick / 2} H40 C34 ${thick / 2} 34 15 26 15 H0Z`}
          fill="var(--bait)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      </svg>
      <span className="figure text-sm">wrist {text(step.wristThicknessMm, 'length')}</span>
      <span className="text-xs soft">
        paddle {text(step.paddleDiameterMm, 'length')} × {text(step.paddleThicknessMm, 'length')}
      </span>
      <span className={`text-sm font-bold min-h-5 ${trial ? 'rest' : teaches ? 'warn' : 'soft'}`}>
        {trial
          ? [
              trial.hz !== null && `${trial.hz.toFixed(1)} a second`,
              trial.kicksAtMPerS !== null && 'kicks',
              trial.notAtMPerS !== null && 'does not',
            ]
              .filter(Boolean)
              .join(', ')
          : teaches
            ? 'draw this next'
            : 'not drawn'}
      </span>
    </button>
  );
}

/** Taps slower than this apart belong to another draw, ms. */
const PAUSE_MS = 2500;

function Tub({ ladder, step, onDone }: { ladder: Ladder; step: number; onDone(next: number): void }) {
  const { text } = useTaste();
  const [taps, setTaps] = useState<number[]>([]);
  const [counted, setCounted] = useState('');
  const last = useRef(0);
  const save = useWrite<Ladder, { hz?: number; kicksAtMPerS?: number; notAtMPerS?: number }>(
    (said) => ({ path: `/ladders/${ladder.id}/trials`, body: { step, ...said } }),
    (after) => onDone(after.next[0]?.step ?? step),
  );
  const back = useUndo();
  const hz = hzOf(taps);
  const typed = Number(counted.replace(',', '.'));
  const walking = ladder.walkingMPerS;
  const tap = (at: number) => {
    setTaps((now) => (at - last.current > PAUSE_MS ? [at] : [...now, at]));
    last.current = at;
  };
  const before = ladder.trials.filter((one) => one.step === step);
  return (
    <section className="flex flex-col gap-3" aria-label={`Step ${step + 1} at the tub`}>
      <h2>
        Step {step + 1}: draw it at {text(walking, 'speed')}
      </h2>
      <div className="grid grid-cols-1 sm:grid-cols-[1.3fr_1fr] gap-4">
        <button
          type="button"
          className="bench-target rounded-md border-[3px] border-[var(--ink)] bg-[var(--sheet)] min-h-40 flex flex-col items-center justify-center gap-2 touch-manipulation"
          onPointerDown={(event) => tap(event.timeStamp)}
          onKeyDown={(event) => {
            if (event.key === ' ' && !event.repeat) tap(event.timeStamp);
          }}
        >
          <span className="text-xl font-bold">Tap with each kick to one side</span>
          <span className="figure text-4xl" aria-live="polite">
            {hz === null ? `${taps.length} taps` : `${hz.toFixed(1)} a second`}
          </span>
        </button>
        <div className="flex flex-col gap-2">
          <button
            type="button"
            className="btn btn-primary bench-target"
            disabled={hz === null || save.isPending}
            onClick={() => hz !== null && save.mutate({ hz, kicksAtMPerS: walking })}
          >
            {hz === null ? `Tap ${TAPS_NEEDED} kicks first` : `Keep ${hz.toFixed(1)} a second`}
          </button>
          <div className="flex gap-2">
            <input
              className="input figure-input w-28 h-16 text-lg"
              inputMode="decimal"
              aria-label="Kicks counted in ten seconds"
              placeholder="in 10 s"
              value={counted}
              onChange={(event) => setCounted(event.target.value)}
            />
            <button
              type="button"
              className="btn btn-line bench-target flex-1"
              disabled={!(typed > 0) || save.isPending}
              onClick={() => save.mutate({ hz: typed / 10, kicksAtMPerS: walking })}
            >
              Keep the count
            </button>
          </div>
          <div className="flex gap-2">
            <button
              type="button"
              className="btn btn-line bench-target flex-1"
              onClick={() => save.mutate({ kicksAtMPerS: walking })}
            >
              It kicks
            </button>
            <button
              type="button"
              className="btn btn-line bench-target flex-1"
              onClick={() => save.mutate({ notAtMPerS: walking })}
            >
              It does not
            </button>
          </div>
        </div>
      </div>
      <Refusal error={save.error ?? back.error} />
      {before.length > 0 && (
        <ul className="ruled text-sm">
          {before.map((trial) => (
            <li key={trial.id} className="py-1 flex gap-3">
              <span className="figure flex-1">
                {[
                  trial.hz !== null && `${trial.hz.toFixed(1)} kicks a second`,
                  trial.kicksAtMPerS !== null && `kicks at ${text(trial.kicksAtMPerS, 'speed')}`,
                  trial.notAtMPerS !== null && `does not at ${text(trial.notAtMPerS, 'speed')}`,
                ]
                  .filter(Boolean)
                  .join(', ')}
              </span>
              <button type="button" className="link" onClick={() => back.mutate(trial.id)}>
                Take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** Volume of a stub, mL: body, wrist and paddle as boxes and a disc; the block needs no better. */
function stubMl(step: LadderStep): number {
  const spec = stubSpec(step);
  const tall = (spec.stations[0]?.topMm ?? 5) * 2;
  const body = (Math.PI / 4) * 10 * tall * spec.bodyMm;
  const wrist = (Math.PI / 4) * step.wristThicknessMm * step.wristHeightMm * step.wristLengthMm;
  const paddle = (Math.PI / 4) * step.paddleDiameterMm ** 2 * step.paddleThicknessMm;
  return (body + wrist + paddle) / 1000;
}

/** One silicone block for all five, from the rubber on the shelf. */
function Block({ ladder }: { ladder: Ladder }) {
  const { text, workshop } = useTaste();
  const rubber = useQuery(queries.materials).data?.items.find(
    (row) => row.kind === 'silicone' && row.mix && row.potLifeMin,
  );
  const masters = ladder.steps.map((step) => ({
    volumeMl: stubMl(step),
    lengthMm: 26 + step.wristLengthMm + step.paddleThicknessMm,
    widthMm: Math.max(10, step.paddleDiameterMm),
    heightMm: Math.max(10, step.paddleDiameterMm, step.wristHeightMm + 3),
    count: 1,
  }));
  const input = {
    pour: 'open-face' as const,
    masters,
    wallMm: usual('siliconeWallMm'),
    gapMm: usual('siliconeGapMm'),
    coverMm: usual('siliconeCoverMm'),
    wasteFraction: usual('siliconeWasteFraction'),
    mix: { ...USUAL_RUBBER.mix, ...rubber?.mix },
    potLifeMin: rubber?.potLifeMin ?? USUAL_RUBBER.potLifeMin,
    demoldMin: rubber?.demoldMin ?? USUAL_RUBBER.demoldMin,
    ratedC: rubber?.ratedC ?? usual('ratedC'),
    roomC: workshop.roomC,
  };
  const block = plan(input);
  const keep = useWrite<object>(() => ({
    path: '/kept',
    body: { calculator: 'silicone.plan', title: `${ladder.name}, one block`, input },
  }));
  const pour = block.pours[0];
  return (
    <section className="flex flex-col gap-2">
      <h2>One block for all five</h2>
      <p className="figure">
        {text(block.boxLengthMm, 'length')} × {text(block.boxWidthMm, 'length')} × {text(block.boxHeightMm, 'length')}
      </p>
      <p>
        {rubber ? rubber.name : <span className="default-mark">10 : 1 by mass, a default</span>}: part A{' '}
        <span className="figure">{text(pour?.gramsA ?? 0, 'mass')}</span>, part B{' '}
        <span className="figure">{text(pour?.gramsB ?? 0, 'mass')}</span>. Print the five, seal and sand them, stand
        them on their bellies.
      </p>
      <button
        type="button"
        className="btn btn-sm btn-line self-start"
        disabled={keep.isSuccess}
        onClick={() => keep.mutate()}
      >
        {keep.isSuccess ? 'Kept under Tools' : 'Keep this block'}
      </button>
      <Caution about={['rubber']} />
    </section>
  );
}
