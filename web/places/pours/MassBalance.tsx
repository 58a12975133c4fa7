import { useState } from 'react';
import { Link } from 'react-router';
import type { Pour } from '../../../contract/pours.ts';
import { countGrades } from '../../../core/yield/grades.ts';
import { Fitted } from '../../parts/Fitted.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { CloseForm } from './CloseForm.tsx';

interface Part {
  name: string;
  g: number;
  fill: string;
}

/** What its words take, px. */
const widthOf = ({ name }: Part) => Math.max(80, name.length * 8.4 + 8);

/** Each part as long as its share; what is too narrow for its words is told below. */
function Cut({ parts, cookedG, widthPx }: { parts: Part[]; cookedG: number; widthPx: number }) {
  const { text } = useTaste();
  const widths = parts.map((part) => (part.g / cookedG) * widthPx);
  const told = parts.filter((part, i) => (widths[i] as number) <= widthOf(part));
  return (
    <>
      <svg
        width={widthPx}
        height={90}
        className="block"
        role="img"
        aria-label={parts.map((part) => `${part.name} ${text(part.g, 'mass')}`).join(', ')}
      >
        {parts.map((part, i) => {
          const x = widths.slice(0, i).reduce((sum, w) => sum + w, 0);
          return (
            <g key={part.name}>
              <rect
                x={x + 1}
                y={2}
                width={Math.max(1, (widths[i] as number) - 3)}
                height={44}
                fill={part.fill}
                stroke="var(--ink)"
                strokeWidth={1.5}
                strokeDasharray={part.name === 'unaccounted' ? '4 4' : undefined}
              />
              {!told.includes(part) && (
                <>
                  <text x={x + 2} y={67} fontSize={16} fontWeight={700} fill="var(--ink)">
                    {text(part.g, 'mass')}
                  </text>
                  <text x={x + 2} y={85} fontSize={13} fill="var(--soft)">
                    {part.name}
                  </text>
                </>
              )}
            </g>
          );
        })}
      </svg>
      <p className="label-small">{told.map((part) => `${part.name} ${text(part.g, 'mass')}`).join(', ')}</p>
    </>
  );
}

/** What became of the grams, as one cup cut into its parts. */
export function MassBalance({ pour }: { pour: Pour }) {
  const { text } = useTaste();
  const [again, setAgain] = useState(false);
  if (!pour.balance) return null;
  const { cookedG, goodG, rejectG, returnedG, residueG, degassedG, unaccountedG, yieldFraction } = pour.balance;
  const unknown = [
    residueG === null && 'What stayed on glass and felt',
    degassedG === null && (residueG === null ? 'what degassing took' : 'What degassing took'),
  ].filter(Boolean);
  const marks = pour.shots.flatMap((shot) => shot.marks);
  const { sell, own } = countGrades(marks);
  const parts = [
    {
      name:
        pour.cups.length > 1
          ? 'its share of the baits'
          : own > 0
            ? `${sell} to sell, ${own} own water`
            : `${sell} baits to sell`,
      g: goodG,
      fill: pour.hex,
    },
    { name: 'rejects', g: rejectG, fill: 'var(--warn)' },
    { name: 'to remelt', g: returnedG, fill: 'var(--edge)' },
    { name: 'left on glass and felt', g: residueG ?? 0, fill: 'var(--rule)' },
    { name: 'lost in degassing', g: degassedG ?? 0, fill: 'var(--soft)' },
    { name: 'unaccounted', g: unaccountedG, fill: 'transparent' },
  ].filter((part) => part.g > 0);
  return (
    <section>
      <div className="flex gap-x-10 gap-y-2 items-baseline mb-2 flex-wrap">
        <p>
          <span className="big mr-2">{(yieldFraction * 100).toFixed(1)} %</span>{' '}
          <span className="soft">of {text(cookedG, 'mass')} became baits that are kept</span>
        </p>
        <p>
          <span className="figure text-xl">{text(unaccountedG, 'mass')}</span>{' '}
          <span className="soft">nobody can account for</span>
        </p>
        <Link to="/rack" className="link">
          on the rack
        </Link>
        <button type="button" className="link no-print" aria-expanded={again} onClick={() => setAgain(!again)}>
          weigh again
        </button>
      </div>
      <Fitted mostPx={1240}>{(widthPx) => <Cut parts={parts} cookedG={cookedG} widthPx={widthPx} />}</Fitted>
      {unknown.length > 0 && (
        <p className="soft">
          {unknown.join(' and ')} {unknown.length > 1 ? 'were' : 'was'} not weighed: in what nobody can account for.
        </p>
      )}
      {again && <CloseForm pour={pour} open onDone={() => setAgain(false)} />}
    </section>
  );
}
