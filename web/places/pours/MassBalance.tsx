import { useState } from 'react';
import { Link } from 'react-router';
import type { Pour } from '../../../contract/pours.ts';
import { countGrades } from '../../../core/yield/grades.ts';
import { useTaste } from '../../parts/taste.tsx';
import { CloseForm } from './CloseForm.tsx';

/** What its words take, in the picture's own units. */
const widthOf = ({ name }: { name: string }) => Math.max(70, name.length * 6.8 + 8);

/** What became of the grams, as one cup cut into its parts. */
export function MassBalance({ pour }: { pour: Pour }) {
  const { text } = useTaste();
  const [again, setAgain] = useState(false);
  if (!pour.balance) return null;
  const { cookedG, goodG, rejectG, returnedG, residueG, unaccountedG, yieldFraction } = pour.balance;
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
      ink: true,
    },
    { name: 'rejects', g: rejectG, fill: 'var(--warn)' },
    { name: 'to remelt', g: returnedG, fill: 'var(--edge)' },
    { name: 'left on the cup', g: residueG, fill: 'var(--rule)' },
    { name: 'unaccounted', g: unaccountedG, fill: 'transparent' },
  ].filter((part) => part.g > 0);
  let at = 0;
  const width = 900;
  return (
    <section>
      <div className="flex gap-10 items-baseline mb-2 flex-wrap">
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
      <svg
        width="100%"
        viewBox={`0 0 ${width} 74`}
        role="img"
        aria-label={parts.map((part) => `${part.name} ${text(part.g, 'mass')}`).join(', ')}
      >
        {parts.map((part) => {
          const x = (at / cookedG) * width;
          const w = (part.g / cookedG) * width;
          at += part.g;
          return (
            <g key={part.name}>
              <rect
                x={x}
                y={2}
                width={Math.max(1, w - 2)}
                height={34}
                fill={part.fill}
                stroke="var(--ink)"
                strokeWidth={1.5}
                strokeDasharray={part.name === 'unaccounted' ? '4 4' : undefined}
              />
              {w > widthOf(part) && (
                <>
                  <text x={x + 2} y={54} fontSize={13} fontWeight={700} fill="var(--ink)">
                    {text(part.g, 'mass')}
                  </text>
                  <text x={x + 2} y={70} fontSize={11} fill="var(--soft)">
                    {part.name}
                  </text>
                </>
              )}
            </g>
          );
        })}
      </svg>
      <p className="label-small">
        {parts
          .filter((part) => (part.g / cookedG) * width <= widthOf(part))
          .map((part) => `${part.name} ${text(part.g, 'mass')}`)
          .join(', ')}
      </p>
      {again && <CloseForm pour={pour} open onDone={() => setAgain(false)} />}
    </section>
  );
}
