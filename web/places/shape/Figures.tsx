import type { useJudged } from '../../parts/solid/useSolid.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { Shown } from '../judge/show.ts';
import { type Difference, inWords } from './words.ts';

export function Legend({ shown }: { shown: Shown }) {
  const { text } = useTaste();
  if (shown === 'air')
    return (
      <p className="text-sm">
        <span className="heat font-bold">●</span> air stays: vent here <span className="rest font-bold ml-3">●</span>{' '}
        pour here
      </p>
    );
  const ends = {
    thickness: ['thin', 'thick'],
    undercut: ['caught', 'free'],
    reach: [`${text(0.5, 'length')} left`, 'reached'],
  }[shown as 'thickness' | 'undercut' | 'reach'];
  return (
    <p className="text-sm flex items-center gap-2">
      <span>{ends[0]}</span>
      <span
        className="inline-block h-3 w-40 bg-linear-to-r from-[var(--heat)] via-[var(--sheet)] to-[var(--rest)]"
        aria-hidden
      />
      <span>{ends[1]}</span>
      {shown === 'reach' && <span className="soft">plain: the other half</span>}
    </p>
  );
}

/** The same figures in words, for who does not see the drawing. */
export function FigureTable({
  judged,
  changes,
}: {
  judged: ReturnType<typeof useJudged>['judged'];
  changes: Difference[];
}) {
  const taste = useTaste();
  const { text } = taste;
  const { measured, thickness, parting, traps, tilt, reach } = judged;
  const rows: [string, string][] = [
    ...(measured
      ? ([
          ['Volume', measured.volumeMl === null ? 'none: not closed' : text(measured.volumeMl, 'volume')],
          ['Length, width, height', measured.sizeMm.map((mm) => text(mm, 'length')).join(', ')],
          ['Surface', taste.area(measured.areaMm2)],
          ['Triangles', String(measured.triangles)],
        ] as [string, string][])
      : []),
    ...(thickness
      ? ([
          [
            'Thickest section',
            `${text(thickness.thickestMm, 'length')}, ${text(thickness.thickestAtMm[0], 'length')} from the nose`,
          ],
          ['Thinnest wall', text(thickness.thinnestMm, 'length')],
          ...thickness.thin.map((one, i) => [
            `Thin place ${i + 1}`,
            `${text(one.thicknessMm, 'length')}, ${text(one.pointMm[0], 'length')} from the nose`,
          ]),
        ] as [string, string][])
      : []),
    ...(parting
      ? ([['Undercut', `${(parting.undercutFraction * 100).toFixed(1)} % of the surface`]] as [string, string][])
      : []),
    ...(traps ?? []).map((trap, i): [string, string] => [
      trap.pour ? 'Pour here' : `Air trap ${i}`,
      `${text(trap.pointMm[0], 'length')} from the nose, ${text(trap.prominenceMm, 'length')} high`,
    ]),
    ...(tilt ? ([['Best tilt', `${tilt.tiltDeg.toFixed(0)}°`]] as [string, string][]) : []),
    ...(reach
      ? ([[`A ball of ${text(reach.ballMm, 'length')} leaves`, text(reach.greatestMm, 'length')]] as [string, string][])
      : []),
  ];
  return (
    <details className="text-sm">
      <summary className="cursor-pointer link">All figures as a table</summary>
      <table className="mt-1">
        <tbody>
          {rows.map(([name, value]) => (
            <tr key={name}>
              <th className="text-left font-normal soft pr-4">{name}</th>
              <td className="figure">{value}</td>
            </tr>
          ))}
          {changes
            .map((change) => inWords(change, taste))
            .map((change) => (
              <tr key={change.what}>
                <th className="text-left font-normal soft pr-4">changed: {change.what}</th>
                <td className="figure">
                  {change.from} → {change.to}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
    </details>
  );
}
