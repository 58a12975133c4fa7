import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type Mold, moldEventBody } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { topUp } from '../../../core/mold/silicone.ts';
import { gridPlaces } from '../../../core/mold/standing.ts';
import { DEMOLD, STEPS, type Step } from '../../../core/process/making.ts';
import { durationText } from '../../../core/units/show.ts';
import { useNow } from '../../api/now.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Cylinder } from '../../parts/Cylinder.tsx';
import { dateText } from '../../parts/dates.ts';
import { QuantityField, Refusal } from '../../parts/Fields.tsx';
import { timeText } from '../../parts/hours.ts';
import { Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { BoxDrawing } from './BoxDrawing.tsx';
import { Care } from './Care.tsx';
import { DipLog } from './DipLog.tsx';
import { Fitting } from './Fitting.tsx';
import { Heat } from './Heat.tsx';
import { Inserts } from './Inserts.tsx';
import { Leftover } from './Leftover.tsx';
import { Renew } from './Renew.tsx';
import { SparkLog } from './SparkLog.tsx';
import { Weighings } from './Weighings.tsx';
import { FILL_WORDS, MOLD_KIND_WORDS } from './words.ts';

const mixedAt = (mold: Mold) => mold.events.findLast((event) => event.kind === 'mixed')?.at;

export function MoldPage() {
  const { id = '' } = useParams();
  const { data: mold, error } = useQuery(queries.mold(id));
  const { text } = useTaste();
  if (error) return <Missing error={error} back="All molds" backTo="/molds" />;
  if (!mold) return <Waiting />;
  const mixed = mixedAt(mold);
  return (
    <Page
      title={mold.name}
      tab={mold.name}
      under={
        <>
          {MOLD_KIND_WORDS[mold.kind]}, {FILL_WORDS[mold.fill]}. {mold.cavities} × {text(mold.cavityMl, 'volume')}
          {mold.sprueMl > 0 && `, sprue ${text(mold.sprueMl, 'volume')}`}
          {mold.master && (
            <>
              {' '}
              of{' '}
              <Link to={`/masters/${mold.master.masterId}`} className="link">
                {mold.baitName} v{mold.master.revisionNumber}
              </Link>
            </>
          )}
          . {mold.shots} shots.
        </>
      }
      actions={
        <>
          <Renew mold={mold} />
          <Link to={`/pours/new?mold=${mold.id}`} className="btn btn-primary">
            Pour it
          </Link>
        </>
      }
    >
      {mold.plan && <Making mold={mold} mixed={mixed} />}
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-12">
        <div className="flex flex-col gap-8">
          <Care mold={mold} />
          {mold.fill === 'dip' ? <DipLog mold={mold} /> : <Heat mold={mold} />}
          {mold.kind === 'aluminium' && <SparkLog mold={mold} />}
          <Photos aboutType="mold" aboutId={mold.id} />
        </div>
        <div className="flex flex-col gap-8">
          <Weighings mold={mold} />
          <Inserts mold={mold} />
          <Fitting mold={mold} />
          <PoursFrom mold={mold} />
        </div>
      </div>
    </Page>
  );
}

function PoursFrom({ mold }: { mold: Mold }) {
  return (
    <section>
      <h2 className="mb-2">Pours from it</h2>
      {mold.pours.length === 0 && <p className="soft">None yet.</p>}
      <ul className="ruled">
        {mold.pours.map((pour) => (
          <li key={pour.id}>
            <Link to={`/pours/${pour.id}`} className="flex gap-3 py-2 items-center row-hover">
              <span className="w-4 h-4 rounded-full border border-[var(--ink)]" style={{ background: pour.hex }} />
              <span className="figure w-14">{pour.code}</span>
              <span className="flex-1 font-bold">{pour.recipeName}</span>
              <span className="figure text-sm">
                {pour.shots} shots, {pour.good} good{pour.bad > 0 && `, ${pour.bad} bad`}
              </span>
              <span className="soft text-sm w-24 text-right">{dateText(pour.at)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The rubber, from the plan to the demold, and what to do when it came up short. */
function Making({ mold, mixed }: { mold: Mold; mixed: string | undefined }) {
  const now = useNow();
  const { text } = useTaste();
  const [missingMm, setMissing] = useState<number | null>(null);
  const [short, setShort] = useState(false);
  const event = useWrite<Mold, Record<string, unknown>>((body) => ({ path: `/molds/${mold.id}/events`, body }));
  if (!mold.plan) return null;
  const { input, output } = mold.plan;
  const mixes = mold.events.filter((row) => row.kind === 'mixed').length;
  const halves = output.pours.length;
  // Which half is being poured: the one mixed last, or the first.
  const pour = output.pours[Math.min(Math.max(0, mixes - 1), halves - 1)];
  const first = input.masters[0];
  if (!pour || !first) return null;
  const released = mold.events.findLast((row) => row.step === 'release')?.kind === 'step';
  const sinceMin = mixed ? Math.max(0, (now - Date.parse(mixed)) / 60000) : 0;
  const demoldLeftS = output.demoldMin * 60 - sinceMin * 60;
  const top =
    missingMm && missingMm < output.boxHeightMm
      ? topUp({
          mix: input.mix,
          boxLengthMm: output.boxLengthMm,
          boxWidthMm: output.boxWidthMm,
          missingDepthMm: missingMm,
          wasteFraction: input.wasteFraction,
          minutesSinceMixed: sinceMin,
          potLifeMin: output.potLifeMin,
        })
      : null;
  const setting = mixed && demoldLeftS > 0;
  return (
    <section className="grid grid-cols-1 lg:grid-cols-[minmax(0,480px)_minmax(0,1fr)] gap-x-10 gap-y-5 items-start">
      <BoxDrawing
        plan={output}
        master={{ ...first, shape: mold.shape }}
        count={mold.cavities}
        places={mold.making?.places ?? gridPlaces(output, first, mold.cavities, input.gapMm)}
        twoPiece={input.pour === 'two-piece'}
        missingMm={short ? (missingMm ?? 0) : 0}
        widthPx={480}
      />
      <div className="flex flex-col gap-4">
        {!mixed && mold.making?.bed && <Bed mold={mold} bed={mold.making.bed} />}
        {!mixed && (
          <>
            <h2 className="text-2xl">
              {halves > 1 && 'First half: '}
              {text(pour.gramsA, 'mass')} of A, {text(pour.gramsB, 'mass')} of B
            </h2>
            <p className="soft">Tap when both parts are one colour: pot life and demold count from then.</p>
            <button
              type="button"
              className="btn btn-primary btn-lg self-start bench-target"
              onClick={() => event.mutate({ kind: 'mixed' })}
            >
              Mixed now: start the clocks
            </button>
          </>
        )}
        {mixed && mold.readyAt === null && (
          <p className="soft">
            Mixed {dateText(mixed)}, taken out since: it is a mold. What was planned stays here for the next one.
          </p>
        )}
        {mixed && mold.readyAt !== null && (
          <>
            <h2 className="text-2xl">
              {setting
                ? sinceMin < output.potLifeMin
                  ? 'Still workable'
                  : 'Setting'
                : mixes < halves
                  ? 'First half is set'
                  : 'Ready to demold'}
            </h2>
            <p className="big" style={{ color: sinceMin < output.potLifeMin ? 'var(--heat)' : 'var(--rest)' }}>
              {sinceMin < output.potLifeMin
                ? durationText((output.potLifeMin - sinceMin) * 60)
                : setting
                  ? durationText(demoldLeftS)
                  : 'now'}
            </p>
            <p className="soft">
              Mixed {dateText(mixed)} at {timeText(mixed)}; pot life {durationText(output.potLifeMin * 60)}, demold
              after {durationText(output.demoldMin * 60)}.
            </p>
          </>
        )}
        {mixed && !setting && mixes < halves && (
          <div className="sheet p-4 flex flex-col gap-3">
            <h3 className="text-xl">
              Second half: {text(pour.gramsA, 'mass')} of A, {text(pour.gramsB, 'mass')} of B
            </h3>
            {!released && (
              <p className="heat font-bold" role="alert">
                Release agent first, and tick that step: silicone bonds to silicone for good.
              </p>
            )}
            <button
              type="button"
              className="btn btn-primary btn-lg self-start bench-target"
              disabled={!released}
              onClick={() => event.mutate({ kind: 'mixed' })}
            >
              Second half mixed now
            </button>
          </div>
        )}
        {setting && !short && (
          <button type="button" className="btn btn-line btn-lg self-start" onClick={() => setShort(true)}>
            I came up short
          </button>
        )}
        {setting && sinceMin < output.potLifeMin && <Leftover like={input} />}
        {short && (
          <div className="sheet p-4 flex flex-col gap-3">
            <QuantityField
              label="How far below the line does it stand?"
              dimension="length"
              value={missingMm}
              onChange={setMissing}
              autoFocus
            />
            {top && (
              <>
                <p className="text-lg font-bold" style={{ color: top.bondsToFirst ? 'var(--rest)' : 'var(--heat)' }}>
                  {top.minutesLeft > 0
                    ? `There is time: ${durationText(top.minutesLeft * 60)} of pot life left.`
                    : top.bondsToFirst
                      ? `Pot life is past by ${durationText(-top.minutesLeft * 60)}, but it still bonds. Do it now.`
                      : 'Too late to bond: let it cure, scuff the top, and pour the rest as a layer of its own.'}
                </p>
                <div className="flex flex-wrap">
                  <Cylinder title="Part A" note="" ml={top.mlA} grams={top.gramsA} heightPx={150} widthPx={72} />
                  <Cylinder title="Part B" note="" ml={top.mlB} grams={top.gramsB} heightPx={150} widthPx={52} />
                </div>
                <button
                  type="button"
                  className="btn btn-primary self-start"
                  onClick={() =>
                    event.mutate({ kind: 'topped-up', missingDepthMm: missingMm }, { onSuccess: () => setShort(false) })
                  }
                >
                  Topped up
                </button>
              </>
            )}
          </div>
        )}
        {mold.events
          .filter((row) => row.kind === 'topped-up')
          .map((row) => (
            <p key={row.id} className="label-small">
              Topped up at {timeText(row.at)}: {text(Number(row.detail?.mixMl ?? 0), 'volume')}.
            </p>
          ))}
        <Refusal error={event.error} />
        <Steps mold={mold} />
      </div>
    </section>
  );
}

/** Resin first: worked, the masters straightened while it firms, and only then rubber. */
function Bed({ mold, bed }: { mold: Mold; bed: NonNullable<NonNullable<Mold['making']>['bed']> }) {
  const now = useNow();
  const { text } = useTaste();
  const event = useWrite<Mold>(() => ({ path: `/molds/${mold.id}/events`, body: { kind: 'bedded' } }));
  const at = mold.events.findLast((row) => row.kind === 'bedded')?.at;
  const sinceMin = at ? Math.max(0, (now - Date.parse(at)) / 60_000) : 0;
  const [say, leftMin] =
    sinceMin < bed.workMin
      ? ['Work it, set the masters', bed.workMin - sinceMin]
      : ['Keep them straight while it firms', bed.firmMin - sinceMin];
  return (
    <div className="sheet p-4 flex flex-col gap-2">
      <h2 className="text-2xl">
        Bed: {text(bed.gramsA, 'mass')} of A, {text(bed.gramsB, 'mass')} of B, {text(bed.depthMm, 'length')} deep
      </h2>
      {!at ? (
        <>
          <p className="soft">Masters sunk {text(bed.sinkMm, 'length')} into it. Tap when both parts are one colour.</p>
          <button
            type="button"
            className="btn btn-primary btn-lg self-start bench-target"
            disabled={event.isPending}
            onClick={() => event.mutate()}
          >
            Resin mixed now: start its clocks
          </button>
        </>
      ) : leftMin > 0 ? (
        <p>
          {say}: <b className="figure text-xl">{durationText(leftMin * 60)}</b>
        </p>
      ) : (
        <p className="font-bold rest">The bed is firm: seal its edge, then the rubber.</p>
      )}
      <Refusal error={event.error} />
      <Caution about={['resin']} />
    </div>
  );
}

function Steps({ mold }: { mold: Mold }) {
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
