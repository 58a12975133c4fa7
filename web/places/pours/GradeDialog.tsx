import { useState } from 'react';
import type { PourLayer, PourMold, Shot } from '../../../contract/pours.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { type Grade, type Graded, type Reason, reasonsFor, TRIMMED } from '../../../core/yield/grades.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { reasonWords } from '../../parts/grades.ts';

interface Props {
  at: { cavity: number; mold: PourMold; shot: Shot } | null;
  /** Of what is made; a single one is never lifted out. */
  layers: PourLayer[];
  onClose(): void;
  onMark(grade: Graded['grade'], reason?: Reason): void;
  /** A layer was lifted out of this cavity and is poured again. */
  onRedo(layer: number): void;
}

/** What becomes of one bait: sold, kept for own water or melted again, and why. */
export function GradeDialog({ at, layers, onClose, onMark, onRedo }: Props) {
  return (
    <Dialog open={at !== null} onClose={onClose} label="What becomes of it">
      {at && (
        <div className="flex flex-col gap-3 w-[600px] max-w-full">
          <h2 className="text-2xl">
            Cavity {at.cavity}, {at.mold.name}
          </h2>
          {layers.length > 1 && <Redo at={at} layers={layers} onRedo={onRedo} />}
          {layers.every((_, layer) => at.shot.parts.some((part) => part.layer === layer)) ? (
            <Grades key={`${at.mold.moldId} ${at.cavity}`} at={at} onMark={onMark} />
          ) : (
            <p className="text-lg">Its grade is for when all layers are in.</p>
          )}
          <button type="button" className="btn btn-ghost border border-[var(--edge)] bench-target" onClick={onClose}>
            Close
          </button>
        </div>
      )}
    </Dialog>
  );
}

const NOT_SOLD: [Exclude<Grade, 'sell'>, string][] = [
  ['remelt', 'Remelt'],
  ['own', 'Own water'],
];

type Pointed = NonNullable<Props['at']>;

/** A spoiled layer is lifted out and poured again: that is lost plastic, not a bad bait. */
function Redo({ at: { shot, cavity }, layers, onRedo }: Pick<Props, 'layers' | 'onRedo'> & { at: Pointed }) {
  const again = (layer: number) => shot.redone.filter((one) => one.cavity === cavity && one.layer === layer).length;
  return (
    <fieldset className="flex flex-wrap gap-2 sm:gap-3" aria-label="Lifted out and poured again">
      {layers.map((layer, index) =>
        shot.parts.some((part) => part.layer === index) ? (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: a layer is its place in the list
            key={index}
            type="button"
            className="btn btn-line h-[68px] text-lg leading-tight flex-1 min-w-40"
            onClick={() => onRedo(index)}
          >
            {PLACES[layer.place]} again{again(index) > 0 && ` (${again(index)} so far)`}
          </button>
        ) : null,
      )}
    </fieldset>
  );
}

function Grades({ at: { mold }, onMark }: Pick<Props, 'onMark'> & { at: Pointed }) {
  const [grade, setGrade] = useState<Exclude<Grade, 'sell'>>('remelt');
  const [all, setAll] = useState(false);
  const reasons = reasonsFor(mold);
  const target = 'btn btn-line h-[68px] text-lg leading-tight';
  return (
    <div className="flex flex-col gap-3">
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
      <button
        type="button"
        className="btn btn-ghost border border-[var(--edge)] bench-target"
        onClick={() => onMark('unmarked')}
      >
        Not looked at yet
      </button>
    </div>
  );
}
