import { useState } from 'react';
import type { Mold } from '../../../contract/molds.ts';
import { BONDS_POT_LIVES } from '../../../core/mold/inMixes.ts';
import { gridPlaces } from '../../../core/mold/standing.ts';
import { isReleased, type RubberNow, rubberNow } from '../../../core/process/setting.ts';
import { durationText } from '../../../core/units/show.ts';
import { useNow } from '../../api/now.ts';
import { useWrite } from '../../api/write.ts';
import { BoxDrawing } from '../../parts/BoxDrawing.tsx';
import { dateText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { timeText } from '../../parts/hours.ts';
import { useTaste } from '../../parts/taste.tsx';
import { Bed } from './Bed.tsx';
import { Leftover } from './Leftover.tsx';
import { Short } from './Short.tsx';
import { Steps } from './Steps.tsx';

type MoldPlan = NonNullable<Mold['plan']>;
type Pour = MoldPlan['output']['pours'][number];

/** The rubber, from the plan to the demold, and what to do when it came up short. */
export function Making({ mold, plan: { input, output } }: { mold: Mold; plan: MoldPlan }) {
  const now = useNow();
  const { text } = useTaste();
  const [missingMm, setMissing] = useState<number | null>(null);
  const [short, setShort] = useState(false);
  const event = useWrite<Mold, Record<string, unknown>>((body) => ({ path: `/molds/${mold.id}/events`, body }));
  const mixedNow = () => event.mutate({ kind: 'mixed' });
  const halves = output.pours.length;
  const mixes = output.pours.map((one) => one.mixes);
  const rubber = rubberNow({ ...output, mixes }, mold.events, mold.readyAt === null, now);
  const { stage } = rubber;
  const pour = output.pours[rubber.half];
  const first = input.masters[0];
  if (!pour || !first) return null;
  const liquid = stage === 'workable' || stage === 'setting';
  return (
    <section className="grid grid-cols-1 lg:grid-cols-[minmax(0,480px)_minmax(0,1fr)] gap-x-10 gap-y-5 items-start">
      <BoxDrawing
        plan={output}
        master={{ ...first, shape: mold.shape, bait: mold.baitId, onEnd: mold.making?.onEnd }}
        count={mold.cavities}
        places={mold.making?.places ?? gridPlaces(output, first, mold.cavities, input.gapMm)}
        twoPiece={input.pour === 'two-piece'}
        missingMm={short ? (missingMm ?? 0) : 0}
        widthPx={480}
      />
      <div className="flex flex-col gap-4">
        {stage === 'to-mix' ? (
          <>
            {mold.making?.bed && <Bed mold={mold} bed={mold.making.bed} />}
            <ToMix pour={pour} halves={halves} onMixed={mixedNow} />
          </>
        ) : (
          <Clocks rubber={rubber} plan={output} />
        )}
        {stage !== 'to-mix' && stage !== 'taken-out' && rubber.mixesMade < rubber.mixes && (
          <NextMix pour={pour} rubber={rubber} potLifeMin={output.potLifeMin} onMixed={mixedNow} />
        )}
        {stage === 'next-half' && (
          <NextHalf
            pour={output.pours[rubber.half + 1] ?? pour}
            isReleased={isReleased(mold.events)}
            onMixed={mixedNow}
          />
        )}
        {liquid && !short && (
          <button type="button" className="btn btn-line btn-lg self-start" onClick={() => setShort(true)}>
            I came up short
          </button>
        )}
        {stage === 'workable' && <Leftover like={input} />}
        {short && (
          <Short
            plan={{ input, output }}
            sinceMin={rubber.sinceMin}
            missingMm={missingMm}
            onMissing={setMissing}
            onToppedUp={() =>
              event.mutate({ kind: 'topped-up', missingDepthMm: missingMm }, { onSuccess: () => setShort(false) })
            }
          />
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

function ToMix({ pour, halves, onMixed }: { pour: Pour; halves: number; onMixed(): void }) {
  const { text } = useTaste();
  return (
    <>
      <h2 className="text-2xl">
        {halves > 1 && 'First half: '}
        {pour.mixes > 1 && `mix 1 of ${pour.mixes}: `}
        {text(pour.gramsA / pour.mixes, 'mass')} of A, {text(pour.gramsB / pour.mixes, 'mass')} of B
      </h2>
      <p className="soft">Tap when both parts are one colour: pot life and demold count from then.</p>
      <button type="button" className="btn btn-primary btn-lg self-start bench-target" onClick={onMixed}>
        Mixed now: start the clocks
      </button>
    </>
  );
}

const STAGE_WORDS: Partial<Record<RubberNow['stage'], string>> = {
  workable: 'Still workable',
  setting: 'Setting',
  'next-half': 'First half is set',
  ready: 'Ready to demold',
};

function Clocks({ rubber, plan }: { rubber: RubberNow; plan: MoldPlan['output'] }) {
  const { stage, mixedAt, leftMin } = rubber;
  if (mixedAt === null) return null;
  if (stage === 'taken-out')
    return (
      <p className="soft">
        Mixed {dateText(mixedAt)}, taken out since: it is a mold. What was planned stays here for the next one.
      </p>
    );
  return (
    <>
      <h2 className="text-2xl">{STAGE_WORDS[stage]}</h2>
      <p className="big" style={{ color: stage === 'workable' ? 'var(--heat)' : 'var(--rest)' }}>
        {leftMin > 0 ? durationText(leftMin * 60) : 'now'}
      </p>
      <p className="soft">
        Mixed {dateText(mixedAt)} at {timeText(mixedAt)}; pot life {durationText(plan.potLifeMin * 60)}, demold after{' '}
        {durationText(plan.demoldMin * 60)}.
      </p>
    </>
  );
}

interface NextMixProps {
  pour: Pour;
  rubber: RubberNow;
  potLifeMin: number;
  onMixed(): void;
}

/** The rest of the same half: while the mix before still flows the two become one. */
function NextMix({ pour, rubber, potLifeMin, onMixed }: NextMixProps) {
  const { text } = useTaste();
  const { mixesMade, mixes, sinceMin } = rubber;
  const bondsMin = BONDS_POT_LIVES * potLifeMin;
  return (
    <div className="sheet p-4 flex flex-col gap-3">
      <h3 className="text-xl">
        Mix {mixesMade + 1} of {mixes}: {text(pour.gramsA / mixes, 'mass')} of A, {text(pour.gramsB / mixes, 'mass')} of
        B
      </h3>
      <p
        className={sinceMin < potLifeMin ? 'soft' : 'heat font-bold'}
        role={sinceMin < potLifeMin ? undefined : 'alert'}
      >
        {sinceMin < potLifeMin
          ? `The one before flows for ${durationText((potLifeMin - sinceMin) * 60)} more: pour this one in before, and the two become one.`
          : sinceMin < bondsMin
            ? `The one before has thickened. Poured in within ${durationText((bondsMin - sinceMin) * 60)} it still bonds, with a line between.`
            : 'The one before has set: what is poured on now may not hold to it. Wipe it with the maker’s primer, or begin anew.'}
      </p>
      <button type="button" className="btn btn-primary btn-lg self-start bench-target" onClick={onMixed}>
        Mix {mixesMade + 1} is one colour now
      </button>
    </div>
  );
}

function NextHalf({ pour, isReleased, onMixed }: { pour: Pour; isReleased: boolean; onMixed(): void }) {
  const { text } = useTaste();
  return (
    <div className="sheet p-4 flex flex-col gap-3">
      <h3 className="text-xl">
        Second half: {pour.mixes > 1 && `mix 1 of ${pour.mixes}: `}
        {text(pour.gramsA / pour.mixes, 'mass')} of A, {text(pour.gramsB / pour.mixes, 'mass')} of B
      </h3>
      {!isReleased && (
        <p className="heat font-bold" role="alert">
          Release agent first, and tick that step: silicone bonds to silicone for good.
        </p>
      )}
      <button
        type="button"
        className="btn btn-primary btn-lg self-start bench-target"
        disabled={!isReleased}
        onClick={onMixed}
      >
        Second half mixed now
      </button>
    </div>
  );
}
