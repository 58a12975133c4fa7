import { useRef, useState } from 'react';
import { hardnessBody, type Pour } from '../../../contract/pours.ts';
import { durationText } from '../../../core/units/show.ts';
import { useMinute } from '../../api/now.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { timeText } from '../../parts/hours.ts';
import { ChoiceIn, FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

interface Reading {
  scale: '00' | 'A';
  value: number | null;
  c: number | null;
}

const SCALES = [
  { value: '00', label: '00' },
  { value: 'A', label: 'A' },
];

/** The reading after a day of cure, on a durometer's own scale beside what was wanted. */
export function Hardness({ pour }: { pour: Pour }) {
  const now = useMinute();
  const [begun] = useState({ scale: pour.wanted?.scale ?? '00', value: null, c: null as number | null });
  const sheet = useSheet<Reading>({ schema: hardnessBody, keep: `pour/${pour.id}/hardness`, seen: begun });
  const { scale } = sheet.values;
  // A second reading typed while the first is on its way stays in the field.
  const add = useWrite<Pour, Reading>(
    (reading) => ({ path: `/pours/${pour.id}/hardness`, body: reading }),
    (_, sent) => {
      if (latest.current.value !== sent.value) return;
      sheet.set('value', null);
      sheet.done();
    },
  );
  const latest = useRef(sheet.values);
  latest.current = sheet.values;
  const undo = useUndo();
  const leftS = pour.curedAt ? (Date.parse(pour.curedAt) - now) / 1000 : 0;
  const counted = pour.hardness.filter((reading) => !reading.early);
  const shown = counted.filter((reading) => reading.scale === (pour.wanted?.scale ?? scale));
  const mean = shown.length > 0 ? shown.reduce((sum, reading) => sum + reading.value, 0) / shown.length : null;
  const off = mean !== null && pour.wanted ? mean - pour.wanted.value : null;
  return (
    <section className="grid grid-cols-1 sm:grid-cols-[auto_minmax(0,1fr)] gap-10 items-center">
      <div>
        <h2>Hardness</h2>
        {leftS > 0 ? (
          <p>
            Cures until {dateText(pour.curedAt ?? '')} {timeText(pour.curedAt ?? '')},{' '}
            <b className="figure">{durationText(leftS)}</b> more. A reading before then is kept, but does not count.
          </p>
        ) : (
          counted.length === 0 && <p className="warn font-bold">Cured. Read it before it is packed.</p>
        )}
        <ShoreScale pour={pour} scale={pour.wanted?.scale ?? scale} shown={shown} mean={mean} />
        {off !== null && (
          <p>
            {Math.abs(off) < 1.5
              ? 'As wanted.'
              : off > 0
                ? `${off.toFixed(1)} points too firm.`
                : `${(-off).toFixed(1)} points too soft.`}{' '}
            <span className="soft">
              {counted.length} {counted.length === 1 ? 'reading' : 'readings'}
            </span>
          </p>
        )}
        {pour.hardness.map((reading) => (
          <p key={reading.id} className="label-small">
            <span className="figure">
              {reading.scale} {reading.value}
            </span>{' '}
            {dateText(reading.at)} {timeText(reading.at)}{' '}
            {reading.early && <b className="warn">read early, does not count </b>}
            <button type="button" className="link no-print" onClick={() => undo.mutate(reading.id)}>
              take back
            </button>
          </p>
        ))}
      </div>
      <Sheet
        of={sheet}
        by={add}
        onSend={() => add.mutate(sheet.values)}
        className="flex flex-wrap gap-3 items-start no-print"
      >
        <ChoiceIn at="scale" options={SCALES} className="w-24" />
        <FigureIn at="value" className="w-28" />
        <FigureIn at="c" hint="cold ones are firmer" className="w-32" />
        <div className="mt-5">
          <Send className="">Keep</Send>
        </div>
        <Refusal error={undo.error} />
      </Sheet>
    </section>
  );
}

interface ScaleProps {
  pour: Pour;
  scale: string;
  shown: Pour['hardness'];
  mean: number | null;
}

/** The durometer's scale, what was read on it and what was wanted. */
function ShoreScale({ pour, scale, shown, mean }: ScaleProps) {
  const x = (points: number) => 10 + points * 5.6;
  return (
    <svg
      viewBox="0 0 590 78"
      className="w-full max-w-[590px] h-auto min-h-14"
      role="img"
      aria-label={`Shore ${scale}: ${mean === null ? 'not read yet' : `read ${mean.toFixed(1)}`}${pour.wanted ? `, wanted ${pour.wanted.value}` : ''}`}
    >
      {Array.from({ length: 51 }, (_, i) => i * 2).map((points) => (
        <line
          key={points}
          x1={x(points)}
          x2={x(points)}
          y1={points % 10 === 0 ? 34 : 42}
          y2={50}
          stroke="var(--edge)"
          strokeWidth={points % 10 === 0 ? 2 : 1}
        />
      ))}
      {[0, 20, 40, 60, 80, 100].map((points) => (
        <text key={points} x={x(points)} y={66} fontSize={12} textAnchor="middle" fill="var(--soft)">
          {points}
        </text>
      ))}
      <line x1={10} x2={x(100)} y1={50} y2={50} stroke="var(--edge)" />
      {pour.wanted && (
        <g stroke="var(--rest)" strokeWidth={3}>
          <line x1={x(pour.wanted.value)} x2={x(pour.wanted.value)} y1={24} y2={52} />
          <text
            x={x(pour.wanted.value) - 5}
            y={20}
            fontSize={12}
            textAnchor="end"
            fill="var(--rest)"
            stroke="none"
            fontWeight={700}
          >
            wanted {pour.wanted.value}
          </text>
        </g>
      )}
      {shown.map((reading) => (
        <circle key={reading.id} cx={x(reading.value)} cy={43} r={5} fill="var(--heat)" />
      ))}
      {mean !== null && (
        <text x={x(mean) + 9} y={20} fontSize={14} fontWeight={700} fill="var(--heat)">
          {mean.toFixed(1)} on {scale}
        </text>
      )}
    </svg>
  );
}
