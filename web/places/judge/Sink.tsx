import { usual } from '../../../core/defaults.ts';
import { tried } from '../../../core/failure.ts';
import { STUFF_G_PER_ML } from '../../../core/mold/inserts.ts';
import { durationText } from '../../../core/units/show.ts';
import { check } from '../../../core/validate.ts';
import { type Held, inWater, saltedGPerMl } from '../../../core/water/inWater.ts';
import { salt, saltSchema } from '../../../core/water/sink.ts';
import { MmField } from '../../parts/MmField.tsx';
import { sinkParts, useTaste } from '../../parts/taste.tsx';
import type { JudgeProps as Props } from './judging.tsx';

/** How it sinks, what salt would change, and how it hangs at rest. */
export function Sink({ spec, judged, assumed, onAssume }: Props) {
  const taste = useTaste();
  const { text } = taste;
  const { measured, planAreaMm2 } = judged;
  if (!measured?.volumeMl || !planAreaMm2 || !measured.centroidMm)
    return <p className="soft">Waiting for the volume.</p>;
  const { volumeMl, centroidMm } = measured;
  const water = usual(assumed.sea ? 'seaGPerMl' : 'waterGPerMl');
  const hook = assumed.hook;
  const held: Held[] = (spec?.inserts ?? []).map(({ massG, volumeMl: ml, at, upMm }) => ({
    massG,
    volumeMl: ml,
    atMm: [at * (spec?.bodyMm ?? 0), 0, upMm],
    inside: true,
  }));
  if (assumed.withHook && assumed.hookMassG > 0) {
    held.push({
      massG: assumed.hookMassG,
      volumeMl: assumed.hookMassG / STUFF_G_PER_ML.steel,
      atMm: [hook.eyeXMm + hook.shankMm * 0.65, 0, hook.shankZMm + hook.gapMm * 0.3],
      inside: false,
    });
  }
  const { sinks, hangs, asked } = inWater({
    wholeMl: volumeMl,
    plasticGPerMl: saltedGPerMl(assumed.saltGPerCup),
    held,
    centroidMm,
    planAreaMm2,
    waterGPerMl: water,
  });
  const wanted = tried(() => salt(check(saltSchema, { ...asked, target: { mmPerS: assumed.wantedMmPerS } })));
  const shown = sinkParts(sinks.mmPerS, taste);
  const perMetre = sinks.mmPerS > 0 ? 1000 / sinks.mmPerS : null;
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-end gap-3">
        <p className="big whitespace-nowrap" data-testid="sink">
          {shown.figure}
          <span className="text-lg"> {shown.unit}/s</span>
        </p>
        <p className="label-small pb-0.5">
          {{ floats: 'floats up', neutral: 'hangs', sinks: 'sinks' }[sinks.buoyancy]}
          {perMetre && sinks.buoyancy === 'sinks' && `, a metre in ${durationText(perMetre)}`}
          <br />
          {sinks.densityGPerMl.toFixed(3)} g/mL in all, lying flat
        </p>
      </div>
      {hangs && <p className="font-bold">{hangs.sentence}</p>}
      {hangs && <TrimDrawing noseUpDeg={hangs.noseUpDeg} />}
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
        label="Wanted sink, a second"
        value={assumed.wantedMmPerS}
        least={-300}
        most={600}
        step={5}
        onChange={(wantedMmPerS) => onAssume({ wantedMmPerS })}
      />
      <p className={wanted.value ? 'font-bold' : 'warn font-bold'}>
        {wanted.value
          ? `That takes ${text(wanted.value.gramsPerCup, 'mass')} of salt to a cup.`
          : taste.say(wanted.refused)}
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
