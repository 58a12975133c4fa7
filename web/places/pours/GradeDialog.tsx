import { useState } from 'react';
import type { PourMold } from '../../../contract/pours.ts';
import { type Grade, type Graded, type Reason, reasonsFor, TRIMMED } from '../../../core/yield/grades.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { reasonWords } from '../../parts/grades.ts';

interface Props {
  at: { cavity: number; mold: PourMold } | null;
  onClose(): void;
  onMark(grade: Graded['grade'], reason?: Reason): void;
}

/** What becomes of one bait: sold, kept for own water or melted again, and why. */
export function GradeDialog({ at, onClose, onMark }: Props) {
  return (
    <Dialog open={at !== null} onClose={onClose} label="What becomes of it">
      {at && <Grades key={`${at.mold.moldId} ${at.cavity}`} at={at} onClose={onClose} onMark={onMark} />}
    </Dialog>
  );
}

const NOT_SOLD: [Exclude<Grade, 'sell'>, string][] = [
  ['remelt', 'Remelt'],
  ['own', 'Own water'],
];

function Grades({ at: { cavity, mold }, onClose, onMark }: Props & { at: NonNullable<Props['at']> }) {
  const [grade, setGrade] = useState<Exclude<Grade, 'sell'>>('remelt');
  const [all, setAll] = useState(false);
  const reasons = reasonsFor(mold);
  const target = 'btn btn-line h-[68px] text-lg leading-tight';
  return (
    <div className="flex flex-col gap-3 w-[600px] max-w-full">
      <h2 className="text-2xl">
        Cavity {cavity}, {mold.name}
      </h2>
      <div className="grid grid-cols-[2fr_1fr] gap-2 sm:gap-3">
        <button type="button" className="btn btn-secondary h-20 text-2xl" onClick={() => onMark('sell')}>
          ✓ To sell
        </button>
        <button type="button" className={`${target} !h-20`} onClick={() => onMark('sell', TRIMMED)}>
          To sell, flash trimmed
        </button>
      </div>
      <fieldset className="grid grid-cols-2 gap-2 sm:gap-3" aria-label="Not to sell">
        {NOT_SOLD.map(([id, words]) => (
          <button
            key={id}
            type="button"
            aria-pressed={grade === id}
            className={`btn bench-target text-lg ${grade === id ? 'btn-primary' : 'btn-line'}`}
            onClick={() => setGrade(id)}
          >
            {words}, because:
          </button>
        ))}
      </fieldset>
      <div className="grid grid-cols-2 sm:grid-cols-3 gap-2 sm:gap-3">
        {(all ? reasons.all : reasons.all.slice(0, reasons.usual)).map((reason) => (
          <button key={reason} type="button" className={target} onClick={() => onMark(grade, reason)}>
            {reasonWords(reason)}
          </button>
        ))}
        {!all && (
          <button type="button" className={`${target} btn-ghost`} onClick={() => setAll(true)}>
            another reason…
          </button>
        )}
      </div>
      <div className="flex gap-3">
        <button
          type="button"
          className="btn btn-ghost border border-[var(--edge)] bench-target flex-1"
          onClick={() => onMark('unmarked')}
        >
          Not looked at yet
        </button>
        <button
          type="button"
          className="btn btn-ghost border border-[var(--edge)] bench-target flex-1"
          onClick={onClose}
        >
          Close
        </button>
      </div>
    </div>
  );
}
