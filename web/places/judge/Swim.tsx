import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Ladder, WaterTest } from '../../../contract/water.ts';
import { usual } from '../../../core/defaults.ts';
import { tried } from '../../../core/failure.ts';
import { tailOf } from '../../../core/shape/spec.ts';
import { inUnit } from '../../../core/units/show.ts';
import type { Assumed } from '../../../core/water/assumed.ts';
import { TRIALS_NEEDED } from '../../../core/water/fitKick.ts';
import { saltedGPerMl } from '../../../core/water/inWater.ts';
import { beam, kick, onset } from '../../../core/water/kick.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { kicksText } from '../../parts/kicksText.ts';
import { MmField } from '../../parts/MmField.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Why } from '../../parts/Why.tsx';
import type { JudgeProps as Props } from './judging.tsx';
import { useKick } from './useKick.ts';

const LineChart = lazy(() => import('../../parts/Chart.tsx').then((module) => ({ default: module.LineChart })));

/** From which speed the tail kicks, and what would help most. */
export function Swim({ spec, assumed, onAssume, tests }: Props) {
  const { text, say } = useTaste();
  const { own, constants, trials } = useKick();
  const tail = spec ? tailOf(spec) : null;
  const water = usual(assumed.sea ? 'seaGPerMl' : 'waterGPerMl');
  const input = tail && {
    tail: 'end-paddle',
    scale: assumed.scale,
    hardness: assumed.hardness,
    ...tail,
    ...constants,
    plastisolDensityGPerMl: saltedGPerMl(assumed.saltGPerCup),
    waterDensityGPerMl: water,
  };
  const found = input ? tried(() => kick(input)) : null;
  const sweep = input
    ? Array.from({ length: 13 }, (_, i) => input.wristThicknessMm * (0.6 + i * 0.0667)).map((mm) => ({
        mm,
        onset: tried(
          () =>
            onset(beam({ ...input, wristThicknessMm: mm }), constants.addedMassCoefficient, constants.strouhal)
              .onsetMPerS,
        ).value,
      }))
    : [];
  return (
    <div className="flex flex-col gap-2">
      <MmField
        label={`Hardness, Shore ${assumed.scale}`}
        value={assumed.hardness}
        least={assumed.scale === 'A' ? 20 : 5}
        most={assumed.scale === 'A' ? 80 : 60}
        step={1}
        plain
        onChange={(hardness) => onAssume({ hardness })}
      />
      {!tail && (
        <p className="font-bold">
          {spec
            ? 'This tail has no model that can be trusted: the water tests are the teacher.'
            : 'A brought mesh says nothing of wrist and paddle: the water tests are the teacher.'}
        </p>
      )}
      {found?.refused && <p className="warn font-bold">{say(found.refused)}</p>}
      {found?.value && input && (
        <>
          <div>
            <p className="big whitespace-nowrap" data-testid="onset">
              {text(found.value.onsetMPerS, 'speed')}
            </p>
            <p className="label-small pt-1">
              kicks from here, at {found.value.naturalHz.toFixed(1)} a second
              <br />
              <span className={own ? 'rest font-bold' : 'default-mark'}>
                {own
                  ? `fitted from ${own.n} trials of yours, ± ${Math.round(own.onsetUncertainty * 100)} %`
                  : `estimate from default constants${trials > 0 ? `; ${trials} of ${TRIALS_NEEDED} trials in` : ''}`}
              </span>
            </p>
          </div>
          <ol className="ruled text-sm">
            {found.value.levers.slice(0, 4).map((lever) => (
              <li key={lever.change} className="py-0.5 flex justify-between gap-2">
                <span>{leverText(lever.change, input, text)}</span>
                <span className="figure whitespace-nowrap">→ {text(lever.onsetMPerS, 'speed')}</span>
              </li>
            ))}
          </ol>
          <Sweep sweep={sweep} wristMm={input.wristThicknessMm} />
          <Why
            reason={{
              inputs: [
                ['stiffness of the plastic', `${found.value.modulusMpa.toFixed(3)} MPa`],
                ['wrist stiffness', `${found.value.stiffnessNPerM.toFixed(2)} N/m`],
                ['moved water, share', constants.addedMassCoefficient.toFixed(2)],
                ['Strouhal number', constants.strouhal.toFixed(2)],
              ],
              formula:
                'Wrist as a beam, paddle and the water it moves as the mass beyond it; onset = frequency × paddle ÷ Strouhal number.',
              grounds: [
                own
                  ? `Both constants are fitted from ${own.n} trials of this workshop.`
                  : 'Both constants are defaults until three trials are in.',
                'Only for a paddle at the end of a wrist. What it does in water counts.',
              ],
              change: 'A tail ladder of five stubs fits both in one evening.',
            }}
          />
        </>
      )}
      <TestLines tests={tests} />
      {tail && <LadderButton tail={tail} assumed={assumed} />}
    </div>
  );
}

/** The speed it kicks from, over thinner and thicker wrists. */
function Sweep({ sweep, wristMm }: { sweep: { mm: number; onset: number | undefined }[]; wristMm: number }) {
  const { text, parts, unit, taste } = useTaste();
  // A chart is drawn in the maker's own unit of speed.
  const inMine = (mPerS: number | undefined) => (mPerS === undefined ? null : inUnit(mPerS, 'speed', taste));
  return (
    <>
      <Suspense fallback={<div style={{ height: 130 }} />}>
        <LineChart
          says={`Onset speed against wrist thickness, from ${text(sweep[0]?.onset ?? 0, 'speed')} to ${text(sweep.at(-1)?.onset ?? 0, 'speed')}`}
          unit=""
          heightPx={130}
          labels={sweep.map((row) => parts(row.mm, 'length').figure)}
          series={[
            {
              label: `kicks from, ${unit('speed')}`,
              values: sweep.map((row) => inMine(row.onset)),
              colour: '--rest',
            },
            {
              label: 'this wrist',
              values: sweep.map((row) => (Math.abs(row.mm - wristMm) < 0.035 * wristMm ? inMine(row.onset) : null)),
              colour: '--heat',
              points: true,
            },
          ]}
        />
      </Suspense>
      <p className="label-small text-center">
        wrist thickness, {unit('length')}, against the speed it kicks from, {unit('speed')}
      </p>
    </>
  );
}

/** Five stubs about this very tail, in one tap. */
function LadderButton({ tail, assumed }: { tail: NonNullable<ReturnType<typeof tailOf>>; assumed: Assumed }) {
  const navigate = useNavigate();
  const count = useQuery(queries.ladders).data?.items.length ?? 0;
  const { wristThicknessMm: _, ...rest } = tail;
  const make = useWrite<Ladder>(
    () => ({
      path: '/ladders',
      body: {
        name: `Ladder ${count + 1}`,
        scale: assumed.scale,
        hardness: assumed.hardness,
        ...rest,
        walkingMPerS: usual('walkingMPerS'),
      },
    }),
    (ladder) => navigate(`/ladders/${ladder.id}`),
  );
  return (
    <div className="flex flex-col gap-1">
      <button
        type="button"
        className="btn btn-sm btn-line self-start"
        disabled={make.isPending}
        onClick={() => make.mutate()}
      >
        Make a tail ladder of this tail
      </button>
      <Refusal error={make.error} />
      {count > 0 && (
        <Link to="/ladders" className="link text-sm">
          {count === 1 ? 'The ladder there is' : `The ${count} ladders there are`}
        </Link>
      )}
    </div>
  );
}

type KickInput = Parameters<typeof kick>[0];

/** A lever in the maker's own figures. */
function leverText(change: string, input: KickInput, text: (value: number, dimension: 'length') => string): string {
  const tenth = (mm: number) => text(mm * 0.1, 'length');
  if (change.startsWith('wrist 10 % thinner')) return `wrist ${tenth(input.wristThicknessMm)} thinner`;
  if (change.startsWith('wrist 10 % longer')) return `wrist ${tenth(input.wristLengthMm)} longer`;
  if (change.startsWith('paddle 10 % wider')) return `paddle ${tenth(input.paddleDiameterMm)} wider`;
  if (change.startsWith('paddle 10 % thicker')) return `paddle ${tenth(input.paddleThicknessMm)} thicker`;
  return change;
}

function TestLines({ tests: all }: { tests: WaterTest[] }) {
  const tests = all.filter((test) => test.speeds.length > 0);
  if (tests.length === 0) return <p className="soft text-sm">No water test of this revision yet.</p>;
  return (
    <ul className="text-sm">
      {tests.slice(0, 3).map((test) => (
        <li key={test.id}>
          <span className="font-bold">In water:</span> {kicksText(test)}
        </li>
      ))}
    </ul>
  );
}
