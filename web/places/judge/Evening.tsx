import { lazy, Suspense, useMemo } from 'react';
import { cavities, cavitiesSchema } from '../../../core/plan/cavities.ts';
import { openingSchema, opensAfter } from '../../../core/process/opening.ts';
import { waitOf } from '../../../core/process/waits.ts';
import { durationText } from '../../../core/units/show.ts';
import { check } from '../../../core/validate.ts';
import { MmField } from '../../parts/MmField.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { JudgeProps as Props } from './judging.tsx';

const LineChart = lazy(() => import('../../parts/Chart.tsx').then((module) => ({ default: module.LineChart })));

/** Rubber to a cavity of an open-face block, default until a planned mold says better: g. */
const RUBBER_PER_ML = 5;

/** What one or more cavities make of an evening. */
export function Evening({ judged, assumed, onAssume, materials }: Props) {
  const { money, workshop } = useTaste();
  const ml = judged.measured?.volumeMl;
  const rubber = materials.find((row) => row.kind === 'silicone' && row.pricePerKgMinor !== null);
  const plastisol = materials.find((row) => row.kind === 'plastisol' && row.pricePerKgMinor !== null);
  const rubberPrice = rubber?.pricePerKgMinor ?? 3000;
  // As the mold that its rubber is counted for: an open face of silicone, in this room.
  const thicknessMm = judged.thickness?.thickestMm;
  const waits = useMemo(
    () =>
      opensAfter(
        check(openingSchema, {
          kind: 'silicone-open',
          fill: 'open-pour',
          thicknessMm,
          roomC: workshop.roomC,
          shots: 1,
        }),
      ),
    [thicknessMm, workshop.roomC],
  );
  if (!ml) return <p className="soft">Waiting for the volume.</p>;
  const waitMin = assumed.waitMin ?? Math.round(waitOf(waits, 0) / 6) / 10;
  const wish = check(cavitiesSchema, {
    baitsWanted: assumed.baitsWanted,
    cavityMl: ml,
    waitS: waitMin * 60,
    moldFixedMinor: Math.round(rubberPrice * 0.1),
    moldPerCavityMinor: Math.round((RUBBER_PER_ML * ml * 1.1 * rubberPrice) / 1000),
    plastisolPerKgMinor: plastisol?.pricePerKgMinor ?? 0,
  });
  const { rows, enoughCavities } = cavities(wish);
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
        value={waitMin}
        least={0.5}
        most={60}
        step={0.5}
        plain
        onChange={(waitMin) => onAssume({ waitMin })}
      />
      {enough && (
        <p className="font-bold">
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
        <span className="default-mark">defaults</span> set-up {wish.setUpMin} min, {wish.fillS} s +{' '}
        {wish.fillSPerCavity} s a cavity to fill, {durationText(wish.openS)} to open,{' '}
        {assumed.waitMin === null &&
          (waits.basis === 'heat'
            ? 'the wait computed for an open face of silicone, '
            : 'the usual wait of silicone, ')}
        {RUBBER_PER_ML} mL of rubber to each mL of bait.
      </p>
    </div>
  );
}
