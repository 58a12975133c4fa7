import { useCallback, useState } from 'react';
import { type Mold, SPARK_SEEN, type SparkRun, sparkBody } from '../../../contract/molds.ts';
import { tried } from '../../../core/failure.ts';
import { type SparkPlan, sparkLog, sparkPlan, USUAL_SPARK } from '../../../core/mold/spark.ts';
import { durationText } from '../../../core/units/show.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { NumberField, QuantityField, Refusal } from '../../parts/Fields.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

const SEEN_WORDS: Record<SparkRun['seen'], string> = {
  clean: 'even and grey',
  pits: 'pits',
  arc: 'arc: bright spot, carbon',
};

/** Detail that no cutter reaches, sparked: electrodes, depths to stop at, and what each run did. */
export function SparkLog({ mold }: { mold: Mold }) {
  const taste = useTaste();
  const builtMm = mold.build?.depthMm;
  const [depthMm, setDepth] = useState<number | null>(builtMm ?? USUAL_SPARK.depthMm);
  const [rough, setRough] = useState<Pass>({
    ...USUAL_SPARK.rough,
    gapMm: mold.build?.wish.sparkRoughGapMm ?? USUAL_SPARK.rough.gapMm,
  });
  const [fine, setFine] = useState<Pass>({
    ...USUAL_SPARK.fine,
    gapMm: mold.build?.wish.sparkGapMm ?? USUAL_SPARK.fine.gapMm,
  });
  const { value: passes, refused } = planned(depthMm, rough, fine);
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
            isDefault={builtMm === undefined && depthMm === USUAL_SPARK.depthMm}
          />
          <NumberField
            label="Roughing, A"
            value={rough.amps}
            onChange={(amps) => setRough({ ...rough, amps })}
            isDefault={rough.amps === USUAL_SPARK.rough.amps}
          />
          <QuantityField
            label="its gap"
            dimension="length"
            fine
            value={rough.gapMm}
            onChange={(gapMm) => setRough({ ...rough, gapMm })}
            isDefault={rough.gapMm === USUAL_SPARK.rough.gapMm}
          />
          <NumberField
            label="Finishing, A"
            value={fine.amps}
            onChange={(amps) => setFine({ ...fine, amps })}
            isDefault={fine.amps === USUAL_SPARK.fine.amps}
          />
          <QuantityField
            label="its gap"
            dimension="length"
            fine
            value={fine.gapMm}
            onChange={(gapMm) => setFine({ ...fine, gapMm })}
            isDefault={fine.gapMm === USUAL_SPARK.fine.gapMm}
          />
        </div>
        {refused ? (
          <p className="heat font-bold">{taste.say(refused)}</p>
        ) : (
          <ul className="ruled max-w-2xl">
            {passes?.map((pass) => (
              <li key={pass.pass} className="py-1">
                <b className="capitalize">{pass.pass}</b> at {pass.amps} A: electrode{' '}
                <b className="figure">{taste.fine(pass.undersizeMm)}</b> smaller all round, fed{' '}
                <b className="figure">{taste.fine(pass.feedMm)}</b> deep; stop and look at{' '}
                {pass.looksAtMm.map((at) => taste.fine(at)).join(' and ')}.
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
function planned(depthMm: number | null, rough: Pass, fine: Pass): ReturnType<typeof tried<SparkPlan[]>> {
  if (!depthMm || !rough.gapMm || !rough.amps || !fine.gapMm || !fine.amps)
    return { refused: 'Depth, currents and gaps, please.' };
  const [first, last] = [
    { gapMm: rough.gapMm, amps: rough.amps },
    { gapMm: fine.gapMm, amps: fine.amps },
  ];
  return tried(() => sparkPlan(depthMm, first, last));
}

interface Run {
  electrode: string;
  pass: SparkRun['pass'];
  amps: number | null;
  toMm: number | null;
  minutes: number | null;
  efficiency: number | null;
  seen: SparkRun['seen'];
}

function Runs({ mold }: { mold: Mold }) {
  const { text } = useTaste();
  const last = mold.care.sparks.at(-1);
  const [begun] = useState<Run>({
    electrode: last?.electrode ?? 'E1',
    pass: 'roughing',
    amps: 18,
    toMm: null,
    minutes: null,
    efficiency: null,
    seen: 'clean',
  });
  const bodyOf = useCallback(
    (run: Run) => ({
      ...run,
      fromMm: mold.care.sparks.findLast((one) => one.electrode === run.electrode)?.toMm ?? 0,
    }),
    [mold.care.sparks],
  );
  const sheet = useSheet<Run>({ schema: sparkBody, keep: `mold/${mold.id}/spark`, seen: begun, body: bodyOf });
  const { fromMm } = bodyOf(sheet.values);
  const add = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}/sparks`, body: bodyOf(sheet.values) }),
    () => {
      sheet.set('toMm', null);
      sheet.set('minutes', null);
      sheet.done();
    },
  );
  const back = useUndo();
  return (
    <>
      <Sheet
        of={sheet}
        by={add}
        onSend={() => add.mutate()}
        className="grid grid-cols-2 sm:grid-cols-4 gap-3 items-start max-w-2xl"
      >
        <TextIn at="electrode" />
        <ChoiceIn
          at="pass"
          options={[
            { value: 'roughing', label: 'roughing' },
            { value: 'finishing', label: 'finishing' },
          ]}
        />
        <FigureIn at="amps" starts />
        <FigureIn at="toMm" label={`From ${text(fromMm, 'length')} down to`} />
        <FigureIn at="minutes" />
        <FigureIn at="efficiency" hint="as the machine shows" />
        <ChoiceIn at="seen" options={SPARK_SEEN.map((value) => ({ value, label: SEEN_WORDS[value] }))} />
        <div className="col-span-full">
          <Send className="">Log the run</Send>
        </div>
      </Sheet>
      <Refusal error={back.error} />
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
                  {text(run.fromMm, 'length')} to {text(run.toMm, 'length')}
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
