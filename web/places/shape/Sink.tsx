import { usual } from '../../../core/defaults.ts';
import { durationText } from '../../../core/units/show.ts';
import { salt, sink } from '../../../core/water/sink.ts';
import { trim } from '../../../core/water/trim.ts';
import { useTaste } from '../../parts/taste.tsx';
import { densityOf, PLASTIC, type JudgeProps as Props, SALT, tried } from './judging.tsx';
import { MmField } from './MmField.tsx';

/** Steel in a hook or wire, g/mL. */
const STEEL = 7.85;

/** How it sinks, what salt would change, and how it hangs at rest. */
export function Sink({ spec, judged, assumed, onAssume }: Props) {
  const { text } = useTaste();
  const { measured, planAreaMm2 } = judged;
  if (!measured?.volumeMl || !planAreaMm2 || !measured.centroidMm)
    return <p className="soft">Waiting for the volume.</p>;
  const { volumeMl, centroidMm } = measured;
  const water = usual(assumed.sea ? 'seaGPerMl' : 'waterGPerMl');
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
      <p className="font-bold">{hang.sentence}</p>
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
      <p className={wanted.value ? 'font-bold' : 'warn font-bold'}>
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

export function HookSwitch({ assumed, onAssume }: Pick<Props, 'assumed' | 'onAssume'>) {
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
