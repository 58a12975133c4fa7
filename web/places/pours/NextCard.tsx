import type { Next } from '../../../core/process/cupNow.ts';
import { durationText } from '../../../core/units/show.ts';
import { Guarded } from '../../parts/Guarded.tsx';
import { useTaste } from '../../parts/taste.tsx';

const ACT_WORDS = {
  heat: 'Type it',
  dose: 'Dose',
  degas: 'Done',
  shot: 'Drawn',
  hold: 'Held',
  top: 'Topped up',
  look: 'Rest good',
  close: 'Weigh',
} as const;

/** The one next thing, in a whole sentence, and the one target that does it; it names the mold it is about. */
export function NextCard({
  next,
  means,
  takes,
  more,
  onAct,
}: {
  next: Next;
  means: string;
  /** What the thermometer says, where that is taken; null: it is typed. */
  takes: number | null;
  /** What it costs, where that is known. */
  more?: string | null;
  onAct(): void;
}) {
  const taste = useTaste();
  return (
    <section
      className={`shrink-0 flex flex-col sm:flex-row sm:items-center gap-2 sm:gap-6 px-4 sm:px-6 py-3 sm:py-4 sm:min-h-[124px] ${next.do === 'wait' ? 'bg-[var(--sheet)]' : 'bg-[var(--heat)] text-[#1a0d06]'}`}
      aria-label="Next"
    >
      <div className="flex-1 min-w-0" aria-live="polite">
        <div className="flex items-baseline gap-x-5 flex-wrap">
          <h1 className="text-2xl sm:text-4xl">{next.say}</h1>
          {'leftS' in next && (
            <span className="figure text-4xl sm:text-5xl leading-none" aria-live="off">
              {durationText(next.leftS)}
            </span>
          )}
        </div>
        <p className="sm:text-2xl sm:leading-tight font-bold mt-1">
          {next.why}
          {more && ` ${more}`}
        </p>
      </div>
      {next.do !== 'wait' && (
        <Guarded
          means={means}
          className="btn h-20 sm:h-24 w-full sm:w-64 text-3xl border-0 bg-[#1a0d06] text-white flex-col gap-1"
          onAct={onAct}
        >
          {takes !== null
            ? `Take ${taste.text(takes, 'temperature')}`
            : next.do === 'shot' && next.layered
              ? 'Filled'
              : ACT_WORDS[next.do]}
          {'mold' in next && (
            <span className="bench-text font-bold max-w-full truncate opacity-90">{next.mold.name}</span>
          )}
        </Guarded>
      )}
    </section>
  );
}
