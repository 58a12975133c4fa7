import { useState } from 'react';
import { type Mold, SPARK_SEEN, type SparkRun } from '../../../contract/molds.ts';
import { Failure } from '../../../core/failure.ts';
import { type SparkPlan, sparkLog, sparkPlan } from '../../../core/mold/spark.ts';
import { durationText } from '../../../core/units/show.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useTakeBack } from './Weighings.tsx';
import { hundredths } from './words.ts';

const SEEN_WORDS: Record<SparkRun['seen'], string> = {
  clean: 'even and grey',
  pits: 'pits',
  arc: 'arc: bright spot, carbon',
};

/** Detail that no cutter reaches, sparked: electrodes, depths to stop at, and what each run did. */
export function SparkLog({ mold }: { mold: Mold }) {
  const taste = useTaste();
  const [depthMm, setDepth] = useState<number | null>(8);
  const [rough, setRough] = useState<{ gapMm: number | null; amps: number | null }>({ gapMm: 0.2, amps: 18 });
  const [fine, setFine] = useState<{ gapMm: number | null; amps: number | null }>({ gapMm: 0.05, amps: 3 });
  const planned = tried(depthMm, rough, fine);
  const log = sparkLog(mold.care.sparks, depthMm ?? 0);
  return (
    <details open={mold.care.sparks.length > 0}>
      <summary className="cursor-pointer font-bold text-lg">Spark erosion</summary>
      <div className="flex flex-col gap-3 mt-2">
        <div className="grid grid-cols-2 sm:grid-cols-5 gap-3 max-w-2xl">
          <QuantityField
            label="Half, deep"
            dimension="length"
            value={depthMm}
            onChange={setDepth}
            isDefault={depthMm === 8}
          />
          <NumberField
            label="Roughing, A"
            value={rough.amps}
            onChange={(amps) => setRough({ ...rough, amps })}
            isDefault={rough.amps === 18}
          />
          <NumberField
            label="its gap, mm"
            value={rough.gapMm}
            onChange={(gapMm) => setRough({ ...rough, gapMm })}
            isDefault={rough.gapMm === 0.2}
          />
          <NumberField
            label="Finishing, A"
            value={fine.amps}
            onChange={(amps) => setFine({ ...fine, amps })}
            isDefault={fine.amps === 3}
          />
          <NumberField
            label="its gap, mm"
            value={fine.gapMm}
            onChange={(gapMm) => setFine({ ...fine, gapMm })}
            isDefault={fine.gapMm === 0.05}
          />
        </div>
        {typeof planned === 'string' ? (
          <p className="heat font-bold">{planned}</p>
        ) : (
          <ul className="ruled max-w-2xl">
            {planned.map((pass) => (
              <li key={pass.pass} className="py-1">
                <b className="capitalize">{pass.pass}</b> at {pass.amps} A: electrode{' '}
                <b className="figure">{hundredths(pass.undersizeMm, taste)}</b> smaller all round, fed{' '}
                <b className="figure">{hundredths(pass.feedMm, taste)}</b> deep; stop and look at{' '}
                {pass.looksAtMm.map((at) => hundredths(at, taste)).join(' and ')}.
              </li>
            ))}
          </ul>
        )}
        <p className="soft">
          One electrode a half, both set from the same two holes, so that the halves meet. High current is fast and eats
          detail; an arc is a bright standing spot and leaves a pit with carbon in it. Gates and vents are cut apart.
        </p>
        <p className="font-bold">
          {log.advice}
          {log.leftMin !== null &&
            log.leftMin > 0 &&
            ` About ${durationText(log.leftMin * 60)} left to depth at this rate.`}
        </p>
        <Runs mold={mold} />
        <Caution about={['machine']} />
      </div>
    </details>
  );
}

type Pass = { gapMm: number | null; amps: number | null };
function tried(depthMm: number | null, rough: Pass, fine: Pass): SparkPlan[] | string {
  if (!depthMm || !rough.gapMm || !rough.amps || !fine.gapMm || !fine.amps) return 'Depth, currents and gaps, please.';
  try {
    return sparkPlan(depthMm, { gapMm: rough.gapMm, amps: rough.amps }, { gapMm: fine.gapMm, amps: fine.amps });
  } catch (error) {
    if (error instanceof Failure) return error.message;
    throw error;
  }
}

function Runs({ mold }: { mold: Mold }) {
  const { text } = useTaste();
  const last = mold.care.sparks.at(-1);
  const [electrode, setElectrode] = useState(last?.electrode ?? 'E1');
  const [pass, setPass] = useState<SparkRun['pass']>('roughing');
  const [amps, setAmps] = useState<number | null>(18);
  const [toMm, setTo] = useState<number | null>(null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [percent, setPercent] = useState<number | null>(null);
  const [seen, setSeen] = useState<SparkRun['seen']>('clean');
  const fromMm = mold.care.sparks.findLast((run) => run.electrode === electrode)?.toMm ?? 0;
  const add = useWrite<Mold>(
    () => ({
      path: `/molds/${mold.id}/sparks`,
      body: { electrode, pass, amps, fromMm, toMm, minutes, efficiency: percent === null ? null : percent / 100, seen },
    }),
    () => {
      setTo(null);
      setMinutes(null);
    },
  );
  const back = useTakeBack(mold, 'sparks');
  const ready = electrode.trim() && amps && toMm && minutes;
  return (
    <>
      <form
        className="grid grid-cols-2 sm:grid-cols-4 gap-3 items-start max-w-2xl"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) add.mutate();
        }}
      >
        <TextField label="Electrode" value={electrode} onChange={setElectrode} />
        <SelectField
          label="Pass"
          value={pass}
          options={[
            { value: 'roughing', label: 'roughing' },
            { value: 'finishing', label: 'finishing' },
          ]}
          onChange={setPass}
        />
        <NumberField label="Current, A" value={amps} onChange={setAmps} />
        <QuantityField
          label={`From ${text(fromMm, 'length')} down to`}
          dimension="length"
          value={toMm}
          onChange={setTo}
        />
        <NumberField label="Minutes" value={minutes} onChange={setMinutes} />
        <NumberField label="Efficiency, %" value={percent} onChange={setPercent} hint="as the machine shows" />
        <SelectField
          label="Seen"
          value={seen}
          options={SPARK_SEEN.map((value) => ({ value, label: SEEN_WORDS[value] }))}
          onChange={setSeen}
        />
        <button type="submit" className="btn btn-primary mt-[1.45rem]" disabled={!ready || add.isPending}>
          Log the run
        </button>
      </form>
      <Refusal error={add.error ?? back.error} />
      {mold.care.sparks.length > 0 && (
        <table className="text-sm max-w-2xl">
          <thead>
            <tr className="text-left">
              {['Electrode', 'Pass', 'A', 'Depth', 'Minutes', 'mm/min', 'Efficiency', 'Seen', ''].map((head) => (
                <th key={head} className="pr-3">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {mold.care.sparks.map((run) => (
              <tr key={run.id} className="border-t border-[var(--rule)]">
                <td className="pr-3 py-1">{run.electrode}</td>
                <td className="pr-3">{run.pass}</td>
                <td className="pr-3 figure">{run.amps}</td>
                <td className="pr-3 figure">
                  {run.fromMm}–{run.toMm} mm
                </td>
                <td className="pr-3 figure">{run.minutes}</td>
                <td className="pr-3 figure">{((run.toMm - run.fromMm) / run.minutes).toFixed(3)}</td>
                <td className="pr-3 figure">
                  {run.efficiency === null ? '–' : `${Math.round(100 * run.efficiency)} %`}
                </td>
                <td className={`pr-3 ${run.seen === 'clean' ? '' : 'warn font-bold'}`}>{SEEN_WORDS[run.seen]}</td>
                <td>
                  <button type="button" className="link" onClick={() => back.mutate(run.id)}>
                    take back
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
