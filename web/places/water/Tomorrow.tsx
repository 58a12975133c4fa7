import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Master } from '../../../contract/masters.ts';
import type { WaterTest } from '../../../contract/water.ts';
import { usual } from '../../../core/defaults.ts';
import { tried } from '../../../core/failure.ts';
import { tomorrow } from '../../../core/water/tomorrow.ts';
import { queries } from '../../api/queries.ts';
import { useTaste } from '../../parts/taste.tsx';

const STEP_C = 1;

/** A bait that was tried young and warm: how it will swim cured, in the water that is fished. */
export function Tomorrow({ master, tests }: { master: Master; tests: WaterTest[] }) {
  const taste = useTaste();
  const { text, say } = taste;
  const slopes = useQuery(queries.firming).data;
  const baits = useQuery(queries.baits).data?.items ?? [];
  // Where it was fished last is where it is fished.
  const fished = tests.find((test) => test.place === 'lake' && test.waterC !== null)?.waterC ?? null;
  const [chosenC, setChosen] = useState<number | null>(null);
  const waterC = chosenC ?? fished ?? usual('fishingC');
  const test = tests.find(
    (one) => one.ageH !== null && one.waterC !== null && one.speeds.length > 0 && one.ageH < usual('cureH'),
  );
  if (!test || !slopes || test.ageH === null || test.waterC === null) return null;
  const bait = baits.find((one) => one.id === master.baitId);
  const read = test.scale === '00' ? test.hardness : null;
  const wanted = bait?.wantedScale === '00' ? bait.wantedHardness : null;
  const hardness = read ?? wanted;
  const now = { hours: test.ageH, c: test.waterC };
  const cured = { hours: usual('cureH'), c: waterC };
  const found =
    hardness === null ? null : tried(() => tomorrow({ hardness, hardnessC: usual('roomC'), now, cured, slopes }));
  const kicking = test.speeds.find(({ kicks, mPerS }) => kicks === 'yes' && mPerS !== null);
  const percent = (times: number) => `${Math.round((times - 1) * 100)} %`;
  const out = found?.value;
  return (
    <section aria-label="Tomorrow’s swim" className="flex flex-col gap-2">
      <h2 className="text-xl">Tomorrow’s swim</h2>
      <p>
        Tried {test.ageH < 1 ? `${Math.round(test.ageH * 60)} min` : `${Math.round(test.ageH)} h`} old in water at{' '}
        {text(test.waterC, 'temperature')}. Cured, in water at{' '}
        <b className="figure text-lg">{text(waterC, 'temperature')}</b>
        {chosenC === null && fished === null && <span className="default-mark"> default</span>}:
      </p>
      <div className="flex gap-2">
        <button type="button" className="btn btn-sm btn-line" onClick={() => setChosen(waterC - STEP_C)}>
          colder
        </button>
        <button type="button" className="btn btn-sm btn-line" onClick={() => setChosen(waterC + STEP_C)}>
          warmer
        </button>
      </div>
      {out ? (
        <>
          <p className="text-lg font-bold">
            It kicks from a stream {percent(out.faster)} faster, {percent(out.fasterLow)} to {percent(out.fasterHigh)}
            {kicking?.mPerS &&
              `: what kicked at ${text(kicking.mPerS, 'speed')} needs ${text(kicking.mPerS * out.faster, 'speed')}`}
            .
          </p>
          <p className="soft text-sm">
            Shore 00 {out.hardnessNow.toFixed(0)} as it was tried, {out.hardnessThen.toFixed(0)} then, from{' '}
            {hardness?.toFixed(0)} cured{read === null && ' as it is wanted'}.{' '}
            {slopes.n > 0 ? (
              `By ${slopes.n} pairs of readings here.`
            ) : (
              <>
                {slopes.perDegree.value} points a degree and {slopes.perLogHour.value} a tenfold of hours are{' '}
                <span className="default-mark">defaults</span>: read one cup at two ages, or warm and cold.
              </>
            )}{' '}
            An estimate: try it again tomorrow.
          </p>
        </>
      ) : (
        <p className="warn">
          {found?.refused
            ? say(found.refused)
            : 'Not known: read its hardness, or write down what the bait is wanted at.'}
        </p>
      )}
    </section>
  );
}
