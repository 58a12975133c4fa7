import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Material } from '../../../contract/materials.ts';
import type { Ladder, WaterTest } from '../../../contract/water.ts';
import { Failure } from '../../../core/failure.ts';
import { cavities } from '../../../core/plan/cavities.ts';
import { outlineOf } from '../../../core/shape/outline.ts';
import { type ShapeSpec, tailOf } from '../../../core/shape/spec.ts';
import { moldWays } from '../../../core/shape/suits.ts';
import { BALLS_MM } from '../../../core/shape/toolReach.ts';
import { durationText } from '../../../core/units/show.ts';
import { hookFit } from '../../../core/water/hook.ts';
import { beam, kick, onset } from '../../../core/water/kick.ts';
import { salt, sink } from '../../../core/water/sink.ts';
import { trim } from '../../../core/water/trim.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Why } from '../../parts/Why.tsx';
import type { Judged } from '../../workers/judge.ts';
import { MmField } from './MmField.tsx';
import type { DrawnHook } from './Outline.tsx';
import { SHOWN_WORDS, type Shown } from './show.ts';
import { MOLD_WAY_WORDS } from './words.ts';

const LineChart = lazy(() => import('../../parts/Chart.tsx').then((module) => ({ default: module.LineChart })));

/** What the judging assumes besides the shape: all of it can be changed beside it. */
export interface Assumed {
  scale: '00' | 'A';
  hardness: number;
  saltGPerCup: number;
  sea: boolean;
  hookMassG: number;
  hook: Omit<DrawnHook, 'pointShare'>;
  withHook: boolean;
  wantedMmPerS: number;
  ballMm: number;
  baitsWanted: number;
  waitMin: number;
}

export const ASSUMED: Assumed = {
  scale: '00',
  hardness: 34,
  saltGPerCup: 0,
  sea: true,
  hookMassG: 2.1,
  hook: { eyeXMm: 2, shankZMm: 0, shankMm: 44, gapMm: 12, eyeMm: 3.2, wireMm: 1.1 },
  withHook: false,
  wantedMmPerS: 60,
  ballMm: 3,
  baitsWanted: 40,
  waitMin: 5,
};

const PLASTIC = 1.02;
const SALT = 2.165;
const POINT_SHARE = 0.4;
const G_PER_CUP = 236.5882365 * PLASTIC;

const densityOf = (saltGPerCup: number) => {
  const w = saltGPerCup / (saltGPerCup + G_PER_CUP);
  return 1 / ((1 - w) / PLASTIC + w / SALT);
};

/** A refusal in words where a figure would stand. */
function tried<T>(compute: () => T): { value: T; refused?: undefined } | { value?: undefined; refused: string } {
  try {
    return { value: compute() };
  } catch (error) {
    if (error instanceof Failure) return { refused: error.message };
    throw error;
  }
}

interface Props {
  spec: ShapeSpec | null;
  judged: Judged;
  done: number;
  problem: string | null;
  assumed: Assumed;
  onAssume(part: Partial<Assumed>): void;
  shown: Shown;
  onShow(shown: Shown): void;
  tests: WaterTest[];
  materials: Material[];
}

const TABS = ['Swim', 'Sink', 'Hook', 'Mold', 'Evening'] as const;

/** What the shape will do, beside it and always up to date. */
export function Judge(props: Props) {
  const [tab, setTab] = useState<(typeof TABS)[number]>('Swim');
  const { judged, assumed, materials, done, problem } = props;
  const { text, money } = useTaste();
  const ml = judged.measured?.volumeMl ?? null;
  const massG = ml === null ? null : ml * densityOf(assumed.saltGPerCup);
  const plastisol = materials.find((row) => row.kind === 'plastisol' && row.pricePerKgMinor !== null);
  return (
    <section className="flex flex-col gap-2 min-h-full" aria-label="What the shape will do">
      <div className="flex items-end gap-4">
        <Figure label="Volume" value={ml === null ? '…' : text(ml, 'volume')} />
        <Figure
          label={assumed.saltGPerCup > 0 ? 'With salt' : 'In plastic'}
          value={massG === null ? '…' : text(massG, 'mass')}
        />
        {massG !== null && plastisol?.pricePerKgMinor && (
          <Figure label="Plastic, each" value={money((massG * plastisol.pricePerKgMinor) / 1000)} />
        )}
      </div>
      <div className="flex items-end gap-4">
        <Figure label="Thickest" value={judged.thickness ? text(judged.thickness.thickestMm, 'length') : '…'} small />
        <Figure
          label="Thinnest wall"
          value={judged.thickness ? text(judged.thickness.thinnestMm, 'length') : '…'}
          small
        />
        <p className="label-small pb-0.5 flex-1 text-right" role="status">
          {problem ? (
            <span className="heat font-semibold">{problem}</span>
          ) : done < 1 ? (
            `judging, ${Math.round(done * 100)} %`
          ) : (
            'judged'
          )}
        </p>
      </div>
      <div className="flex gap-1 border-b-2 border-[var(--ink)]" role="tablist" aria-label="Judgement">
        {TABS.map((one) => (
          <button
            key={one}
            type="button"
            role="tab"
            aria-selected={tab === one}
            className={`px-2 py-1 text-sm font-bold ${tab === one ? 'bg-[var(--ink)] text-[var(--sheet)]' : ''}`}
            onClick={() => setTab(one)}
          >
            {one}
          </button>
        ))}
      </div>
      {tab === 'Swim' && <Swim {...props} />}
      {tab === 'Sink' && <Sink {...props} />}
      {tab === 'Hook' && <Hook {...props} />}
      {tab === 'Mold' && <Mold {...props} />}
      {tab === 'Evening' && <Evening {...props} />}
    </section>
  );
}

function Figure({ label, value, small }: { label: string; value: string; small?: boolean }) {
  return (
    <div>
      <p className="label-small">{label}</p>
      <p className={`figure whitespace-nowrap ${small ? 'text-base leading-tight' : 'text-xl leading-none'}`}>
        {value}
      </p>
    </div>
  );
}

const perS = (m: number) => `${m.toFixed(2)} m/s`;

function Swim({ spec, assumed, onAssume, tests }: Props) {
  const { text } = useTaste();
  const fit = useQuery(queries.kickFit).data;
  const tail = spec ? tailOf(spec) : null;
  const own = fit?.fit && fit.fit.n >= 3 ? fit.fit : null;
  const constants = own
    ? { strouhal: own.strouhal, addedMassCoefficient: own.addedMassCoefficient }
    : { strouhal: 0.2, addedMassCoefficient: 0.6 };
  const water = assumed.sea ? 1.025 : 1;
  const input = tail && {
    tail: 'end-paddle',
    scale: assumed.scale,
    hardness: assumed.hardness,
    ...tail,
    ...constants,
    plastisolDensityGPerMl: densityOf(assumed.saltGPerCup),
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
        label="Hardness, Shore 00"
        value={assumed.hardness}
        least={5}
        most={60}
        step={1}
        plain
        onChange={(hardness) => onAssume({ hardness })}
      />
      {!tail && (
        <p className="font-semibold">
          {spec
            ? 'This tail has no model that can be trusted: the water tests are the teacher.'
            : 'A brought mesh says nothing of wrist and paddle: the water tests are the teacher.'}
        </p>
      )}
      {found?.refused && <p className="warn font-semibold">{found.refused}</p>}
      {found?.value && input && (
        <>
          <div>
            <p className="big whitespace-nowrap" data-testid="onset">
              {perS(found.value.onsetMPerS)}
            </p>
            <p className="label-small pt-1">
              kicks from here, at {found.value.naturalHz.toFixed(1)} a second
              <br />
              <span className={own ? 'rest font-semibold' : 'default-mark'}>
                {own
                  ? `fitted from ${own.n} trials of yours, ± ${Math.round(own.onsetUncertainty * 100)} %`
                  : `estimate from default constants${fit?.fit ? `; ${fit.fit.n} of 3 trials in` : ''}`}
              </span>
            </p>
          </div>
          <ol className="ruled text-sm">
            {found.value.levers.slice(0, 4).map((lever) => (
              <li key={lever.change} className="py-0.5 flex justify-between gap-2">
                <span>{leverText(lever.change, input, text)}</span>
                <span className="figure whitespace-nowrap">→ {perS(lever.onsetMPerS)}</span>
              </li>
            ))}
          </ol>
          <Suspense fallback={<div style={{ height: 130 }} />}>
            <LineChart
              says={`Onset speed against wrist thickness, from ${perS(sweep[0]?.onset ?? 0)} to ${perS(sweep.at(-1)?.onset ?? 0)}`}
              unit=""
              heightPx={130}
              labels={sweep.map((row) => row.mm.toFixed(1))}
              series={[
                { label: 'kicks from, m/s', values: sweep.map((row) => row.onset ?? null), colour: '--rest' },
                {
                  label: 'this wrist',
                  values: sweep.map((row) =>
                    Math.abs(row.mm - input.wristThicknessMm) < 0.035 * input.wristThicknessMm
                      ? (row.onset ?? null)
                      : null,
                  ),
                  colour: '--heat',
                  points: true,
                },
              ]}
            />
          </Suspense>
          <p className="label-small text-center">wrist thickness, mm, against the speed it kicks from, m/s</p>
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
        walkingMPerS: 0.6,
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

export function kicksText(test: WaterTest): string {
  const heard = test.speeds
    .map((one) => `${one.pace} ${{ yes: 'kicks', weak: 'weakly', no: 'no' }[one.kicks]}`)
    .join(', ');
  return heard || (test.fish !== null ? `${test.fish} fish` : 'noted');
}

function TestLines({ tests: all }: { tests: WaterTest[] }) {
  const tests = all.filter((test) => test.speeds.length > 0);
  if (tests.length === 0) return <p className="soft text-sm">No water test of this revision yet.</p>;
  return (
    <ul className="text-sm">
      {tests.slice(0, 3).map((test) => (
        <li key={test.id}>
          <span className="font-semibold">In water:</span> {kicksText(test)}
        </li>
      ))}
    </ul>
  );
}

/** Steel in a hook or wire, g/mL. */
const STEEL = 7.85;

function Sink({ spec, judged, assumed, onAssume }: Props) {
  const { text } = useTaste();
  const { measured, planAreaMm2 } = judged;
  if (!measured?.volumeMl || !planAreaMm2 || !measured.centroidMm)
    return <p className="soft">Waiting for the volume.</p>;
  const { volumeMl, centroidMm } = measured;
  const water = assumed.sea ? 1.025 : 1;
  const hookG = assumed.withHook ? assumed.hookMassG : 0;
  const inserts = spec?.inserts ?? [];
  const insertG = inserts.reduce((sum, one) => sum + one.massG, 0);
  const insertMl = inserts.reduce((sum, one) => sum + one.volumeMl, 0);
  // What is set into the plastic takes its room: the bait's own volume is less by it.
  const plasticMl = Math.max(0.01, volumeMl - insertMl);
  const rate = sink({
    volumeMl: plasticMl,
    massG: plasticMl * densityOf(assumed.saltGPerCup),
    extraMassG: hookG + insertG,
    extraVolumeMl: hookG / STEEL + insertMl,
    planAreaMm2,
    waterDensityGPerMl: water,
    cd: 1.1,
  });
  const wanted = tried(() =>
    salt({
      target: { mmPerS: assumed.wantedMmPerS },
      volumeMl: plasticMl,
      extraMassG: hookG + insertG,
      extraVolumeMl: hookG / STEEL + insertMl,
      planAreaMm2,
      waterDensityGPerMl: water,
      cd: 1.1,
      plastisolDensityGPerMl: PLASTIC,
      saltDensityGPerMl: SALT,
      maxFraction: 0.4,
    }),
  );
  const hook = assumed.hook;
  const hang = trim({
    volumeMl,
    massG: volumeMl * densityOf(assumed.saltGPerCup),
    centroidMm,
    extras: [
      ...inserts
        .filter((one) => one.massG > 0)
        .map((one) => ({
          massG: one.massG,
          volumeMl: one.volumeMl,
          atMm: [one.at * (spec?.bodyMm ?? 0), 0, one.upMm] as [number, number, number],
          inside: true,
        })),
      ...(hookG > 0
        ? [
            {
              massG: hookG,
              volumeMl: hookG / STEEL,
              atMm: [hook.eyeXMm + hook.shankMm * 0.65, 0, hook.shankZMm + hook.gapMm * 0.3] as [
                number,
                number,
                number,
              ],
              inside: false,
            },
          ]
        : []),
    ],
  });
  const perMetre = rate.mmPerS > 0 ? 1000 / rate.mmPerS : null;
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-end gap-3">
        <p className="big whitespace-nowrap" data-testid="sink">
          {Math.abs(rate.mmPerS) < 0.5 ? '0' : Math.abs(rate.mmPerS).toFixed(0)}
          <span className="text-lg"> mm/s</span>
        </p>
        <p className="label-small pb-0.5">
          {{ floats: 'floats up', neutral: 'hangs', sinks: 'sinks' }[rate.buoyancy]}
          {perMetre && rate.buoyancy === 'sinks' && `, a metre in ${durationText(perMetre)}`}
          <br />
          {rate.densityGPerMl.toFixed(3)} g/mL in all, lying flat
        </p>
      </div>
      <p className="font-semibold">{hang.sentence}</p>
      <TrimDrawing noseUpDeg={hang.noseUpDeg} />
      <fieldset className="flex gap-1" aria-label="Water">
        {[
          { sea: true, label: 'Sea, 1.025' },
          { sea: false, label: 'Fresh' },
        ].map((one) => (
          <button
            key={one.label}
            type="button"
            className={`btn btn-xs ${assumed.sea === one.sea ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
            aria-pressed={assumed.sea === one.sea}
            onClick={() => onAssume({ sea: one.sea })}
          >
            {one.label}
          </button>
        ))}
      </fieldset>
      <MmField
        label="Salt, g to a cup"
        value={assumed.saltGPerCup}
        least={0}
        most={150}
        step={1}
        plain
        onChange={(saltGPerCup) => onAssume({ saltGPerCup })}
      />
      <HookSwitch assumed={assumed} onAssume={onAssume} />
      <MmField
        label="Wanted sink, mm/s"
        value={assumed.wantedMmPerS}
        least={-300}
        most={600}
        step={5}
        plain
        onChange={(wantedMmPerS) => onAssume({ wantedMmPerS })}
      />
      <p className={wanted.value ? 'font-semibold' : 'warn font-semibold'}>
        {wanted.value ? `That takes ${text(wanted.value.gramsPerCup, 'mass')} of salt to a cup.` : wanted.refused}
      </p>
      {wanted.value && Math.abs(wanted.value.gramsPerCup - assumed.saltGPerCup) > 0.5 && (
        <button
          type="button"
          className="btn btn-xs btn-line self-start"
          onClick={() => onAssume({ saltGPerCup: Math.round((wanted.value?.gramsPerCup ?? 0) * 10) / 10 })}
        >
          Judge it with that
        </button>
      )}
    </div>
  );
}

function HookSwitch({ assumed, onAssume }: Pick<Props, 'assumed' | 'onAssume'>) {
  return (
    <>
      <label className="flex gap-2 items-center text-sm cursor-pointer">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={assumed.withHook}
          onChange={(event) => onAssume({ withHook: event.target.checked })}
        />
        with the hook
      </label>
      {assumed.withHook && (
        <MmField
          label="Hook, g"
          value={assumed.hookMassG}
          least={0.05}
          most={60}
          plain
          onChange={(hookMassG) => onAssume({ hookMassG })}
        />
      )}
    </>
  );
}

/** The bait as it hangs, against the level. */
function TrimDrawing({ noseUpDeg }: { noseUpDeg: number }) {
  return (
    <svg
      width="100%"
      height={62}
      viewBox="-110 -31 220 62"
      role="img"
      aria-label={`Nose ${Math.round(noseUpDeg)}° above level`}
    >
      <line x1={-105} x2={105} y1={0} y2={0} stroke="var(--edge)" strokeDasharray="5 5" />
      <g
        transform={`rotate(${Math.max(-85, Math.min(85, noseUpDeg))}) scale(${Math.abs(noseUpDeg) > 30 ? 0.42 : 0.8})`}
      >
        <path
          d="M-90 0 C-80 -16 -50 -20 -10 -16 C30 -12 50 -6 64 -4 L72 -16 L78 -16 L78 16 L72 16 L64 4 C50 6 30 10 -10 14 C-50 18 -80 14 -90 0Z"
          fill="var(--bait)"
          stroke="var(--ink)"
          strokeWidth={2}
        />
        <circle cx={-74} cy={-4} r={3} fill="var(--sheet)" stroke="var(--ink)" />
      </g>
    </svg>
  );
}

function Hook({ spec, assumed, onAssume }: Props) {
  const { text } = useTaste();
  const { hook } = assumed;
  const put = (part: Partial<Assumed['hook']>) => onAssume({ hook: { ...hook, ...part }, withHook: true });
  if (!spec) return <p className="soft">A hook is fitted to a sculpted shape, whose slot and bore are known.</p>;
  const { sectionAt, endMm } = outlineOf(spec);
  const slot = spec.topSlot ?? spec.bellySlot;
  const found = hookFit({
    outline: Array.from({ length: 60 }, (_, i) => {
      const xMm = (endMm * i) / 59;
      const { top, bottom } = sectionAt(xMm);
      return { xMm, topMm: top, bottomMm: -bottom };
    }),
    ...hook,
    pointShare: POINT_SHARE,
    ...(spec.bore ? { boreMm: spec.bore.diameterMm } : {}),
    ...(slot ? { slotMm: Math.abs(slot.toAt - slot.fromAt) * spec.bodyMm + slot.widthMm } : {}),
  });
  const over = found.pointOverBackMm;
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex items-end gap-3 mb-1">
        <p className="big whitespace-nowrap" data-testid="point">
          {over === null ? '—' : text(Math.abs(over), 'length')}
        </p>
        <p className="label-small pb-0.5">
          {over === null
            ? 'the point lies beyond the body'
            : over > 0
              ? 'the point stands over the back'
              : 'under the back: the point is buried'}
        </p>
      </div>
      <MmField
        label="Shank, eye to bend"
        value={hook.shankMm}
        least={4}
        most={300}
        step={0.5}
        onChange={(shankMm) => put({ shankMm })}
      />
      <MmField
        label="Gap, shank to point"
        value={hook.gapMm}
        least={1}
        most={100}
        step={0.5}
        onChange={(gapMm) => put({ gapMm })}
      />
      <MmField label="Eye across" value={hook.eyeMm} least={0.5} most={30} onChange={(eyeMm) => put({ eyeMm })} />
      <MmField label="Wire" value={hook.wireMm} least={0.2} most={8} onChange={(wireMm) => put({ wireMm })} />
      <MmField
        label="Eye sits, from the nose"
        value={hook.eyeXMm}
        least={-20}
        most={300}
        step={0.5}
        onChange={(eyeXMm) => put({ eyeXMm })}
      />
      <MmField
        label="Shank over the axis"
        value={hook.shankZMm}
        least={-50}
        most={50}
        step={0.5}
        onChange={(shankZMm) => put({ shankZMm })}
      />
      <ul className="ruled text-sm mt-1">
        <Line
          label="Bend inside the body"
          value={found.bendInside ? 'yes' : 'no: it hangs out'}
          bad={!found.bendInside}
        />
        <Line label="Slot it needs" value={text(found.slotNeededMm, 'length')} />
        <Line
          label="Slot there is"
          value={
            found.slotSpareMm === null
              ? 'none'
              : found.slotSpareMm >= 0
                ? `${text(found.slotSpareMm, 'length')} to spare`
                : `${text(-found.slotSpareMm, 'length')} short`
          }
          bad={found.slotSpareMm !== null && found.slotSpareMm < 0}
        />
        <Line
          label="Eye through the bore"
          value={
            found.boreSpareMm === null
              ? 'no bore'
              : found.boreSpareMm >= 0
                ? `${text(found.boreSpareMm, 'length')} to spare`
                : `${text(-found.boreSpareMm, 'length')} too wide`
          }
          bad={found.boreSpareMm !== null && found.boreSpareMm < 0}
        />
      </ul>
      <HookSwitch assumed={assumed} onAssume={onAssume} />
      <p className="label-small">
        Point drawn back {POINT_SHARE * 100} % of the shank, a default: measure yours. Points cut: cover them.
      </p>
    </div>
  );
}

function Line({ label, value, bad }: { label: string; value: string; bad?: boolean }) {
  return (
    <li className="py-0.5 flex justify-between gap-2">
      <span>{label}</span>
      <span className={`figure text-right ${bad ? 'heat' : ''}`}>{value}</span>
    </li>
  );
}

const wayWord = (direction: number[]) => {
  const [x, y, z] = direction.map(Math.abs) as [number, number, number];
  return z >= x && z >= y ? 'up and down' : y >= x ? 'sideways' : 'along the length';
};

const SIGN = { yes: '●', care: '◐', no: '○' } as const;

function Mold({ spec, judged, assumed, onAssume, shown, onShow }: Props) {
  const { text } = useTaste();
  const { parting, thickness, traps, tilt, reach, measured } = judged;
  const others = traps?.filter((trap) => !trap.pour) ?? [];
  const ways =
    parting && thickness && measured
      ? moldWays({
          parting: { ...parting, areaMm2: measured.areaMm2 },
          thinnestMm: thickness.thinnestMm,
          thickestMm: thickness.thickestMm,
          leftoverMm: reach?.greatestMm ?? null,
          largestBallMm: reach?.largestBallMm ?? null,
          boreMm: spec?.bore?.diameterMm ?? null,
          round:
            spec !== null && spec.flatBelly === 0 && spec.ribs === null && spec.limbs.length === 0 && spec.fin === null,
        })
      : [];
  return (
    <div className="flex flex-col gap-2">
      <fieldset className="flex flex-wrap gap-1" aria-label="Colour the solid by">
        {(Object.keys(SHOWN_WORDS) as Shown[]).map((one) => (
          <button
            key={one}
            type="button"
            className={`btn btn-xs ${shown === one ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
            aria-pressed={shown === one}
            onClick={() => onShow(one)}
          >
            {SHOWN_WORDS[one]}
          </button>
        ))}
      </fieldset>
      <ul className="ruled text-sm">
        {ways.map((verdict) => (
          <li key={verdict.way} className="py-1 flex gap-2">
            <span aria-hidden className={verdict.suits === 'yes' ? 'rest' : verdict.suits === 'no' ? 'soft' : 'warn'}>
              {SIGN[verdict.suits]}
            </span>
            <span>
              <span className="font-bold">{MOLD_WAY_WORDS[verdict.way]}</span>{' '}
              <span className="sr-only">{{ yes: 'suits', care: 'with care', no: 'does not suit' }[verdict.suits]}</span>
              <span className={verdict.suits === 'no' ? 'soft' : ''}>{verdict.because}</span>
            </span>
          </li>
        ))}
      </ul>
      <ul className="ruled text-sm">
        <Line label="Best pull" value={parting ? wayWord(parting.direction) : '…'} />
        <Line
          label="Undercut"
          value={parting ? `${(parting.undercutFraction * 100).toFixed(1)} %` : '…'}
          bad={(parting?.undercutFraction ?? 0) > 0.03}
        />
        <Line
          label="Air, back up"
          value={
            traps
              ? others.length === 0
                ? 'one high point'
                : `${others.length} more high point${others.length === 1 ? '' : 's'}`
              : '…'
          }
          bad={others.length > 0}
        />
        <Line
          label="Tilt for least air"
          value={
            tilt
              ? tilt.tiltDeg < 1
                ? 'none needed'
                : `${tilt.tiltDeg.toFixed(0)}°: ${tilt.trappedMl < 0.005 ? 'none stays' : `${tilt.trappedMl.toFixed(2)} mL stays`}`
              : '…'
          }
        />
        <Line
          label={`A ${assumed.ballMm} mm ball leaves`}
          value={reach ? text(reach.greatestMm, 'length') : '…'}
          bad={(reach?.greatestMm ?? 0) > 0.1}
        />
        <Line
          label="Largest that reaches all"
          value={
            reach
              ? reach.largestBallMm === null
                ? 'none: ease the corners'
                : text(reach.largestBallMm, 'length')
              : '…'
          }
        />
      </ul>
      <label className="flex items-center gap-2 text-sm">
        <span className="flex-1">Ball cutter, mm</span>
        <select
          className="select select-sm w-24"
          value={assumed.ballMm}
          onChange={(event) => onAssume({ ballMm: Number(event.target.value) })}
        >
          {BALLS_MM.map((mm) => (
            <option key={mm} value={mm}>
              {mm}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

/** Rubber to a cavity of an open-face block, default until a planned mold says better: g. */
const RUBBER_PER_ML = 5;

function Evening({ judged, assumed, onAssume, materials }: Props) {
  const { money } = useTaste();
  const ml = judged.measured?.volumeMl;
  if (!ml) return <p className="soft">Waiting for the volume.</p>;
  const rubber = materials.find((row) => row.kind === 'silicone' && row.pricePerKgMinor !== null);
  const plastisol = materials.find((row) => row.kind === 'plastisol' && row.pricePerKgMinor !== null);
  const rubberPrice = rubber?.pricePerKgMinor ?? 3000;
  const { rows, enoughCavities } = cavities({
    baitsWanted: assumed.baitsWanted,
    mostCavities: 12,
    cavityMl: ml,
    sprueMl: 0,
    runnerMlPerCavity: 0,
    fillS: 30,
    fillSPerCavity: 10,
    waitS: assumed.waitMin * 60,
    openS: 60,
    setUpMin: 25,
    moldFixedMinor: Math.round(rubberPrice * 0.1),
    moldPerCavityMinor: Math.round((RUBBER_PER_ML * ml * 1.1 * rubberPrice) / 1000),
    plastisolPerKgMinor: plastisol?.pricePerKgMinor ?? 0,
    plastisolDensityGPerMl: PLASTIC,
    returnFraction: 0.8,
  });
  const enough = rows[enoughCavities - 1];
  return (
    <div className="flex flex-col gap-2">
      <MmField
        label="Baits wanted"
        value={assumed.baitsWanted}
        least={1}
        most={2000}
        step={1}
        plain
        onChange={(value) => onAssume({ baitsWanted: Math.round(value) })}
      />
      <MmField
        label="Wait in the mold, min"
        value={assumed.waitMin}
        least={0.5}
        most={60}
        step={0.5}
        plain
        onChange={(waitMin) => onAssume({ waitMin })}
      />
      {enough && (
        <p className="font-semibold">
          {enough.cavities} {enough.cavities === 1 ? 'cavity' : 'cavities'}: {durationText(enough.minutes * 60)} for
          about {money(enough.moldMinor)} of rubber. One more saves less than ten minutes.
        </p>
      )}
      <Suspense fallback={<div style={{ height: 150 }} />}>
        <LineChart
          says={`Evening from ${durationText((rows[0]?.minutes ?? 0) * 60)} with one cavity to ${durationText((rows.at(-1)?.minutes ?? 0) * 60)} with twelve`}
          unit=" min"
          heightPx={150}
          labels={rows.map((row) => String(row.cavities))}
          series={[{ label: 'evening', values: rows.map((row) => row.minutes), colour: '--ink', points: true }]}
        />
      </Suspense>
      <p className="label-small text-center">cavities in one mold, against minutes at the bench</p>
      <table className="text-sm w-full">
        <thead>
          <tr className="label-small text-left">
            <th>Cavities</th>
            <th>Shots</th>
            <th className="text-right">Evening</th>
            <th className="text-right">Rubber</th>
          </tr>
        </thead>
        <tbody className="figure">
          {rows
            .filter((row) => [1, 2, 3, 4, 6, 8, 12].includes(row.cavities))
            .map((row) => (
              <tr key={row.cavities} className={row.cavities === enoughCavities ? 'rest' : ''}>
                <td>{row.cavities}</td>
                <td>{row.shots}</td>
                <td className="text-right">{durationText(row.minutes * 60)}</td>
                <td className="text-right">{money(row.moldMinor)}</td>
              </tr>
            ))}
        </tbody>
      </table>
      <p className="label-small">
        <span className="default-mark">defaults</span> set-up 25 min, 30 s + 10 s a cavity to fill, a minute to open,{' '}
        {RUBBER_PER_ML} mL of rubber to each mL of bait.
      </p>
    </div>
  );
}
