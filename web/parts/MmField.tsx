import { useId, useState } from 'react';
import { Failure } from '../../core/failure.ts';
import { useTaste } from './taste.tsx';

interface Props {
  label: string;
  /** mm, or a bare number when `plain`. */
  value: number;
  onChange(value: number): void;
  onSettle?(): void;
  least: number;
  most: number;
  /** One press of an arrow key. */
  step?: number;
  plain?: boolean;
  /** A gap or a clearance: two places more than a length has. */
  fine?: boolean;
}

const tidy = (value: number) => Math.round(value * 1000) / 1000;

/** One figure of a shape: typed in any unit, or nudged by the arrow keys. Out of bounds says the bound. */
export function MmField({ label, value, onChange, onSettle, least, most, step = 0.1, plain, fine }: Props) {
  const id = useId();
  const taste = useTaste();
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const bound = (mm: number) => (plain ? String(mm) : fine ? taste.fine(mm) : taste.text(mm, 'length'));
  const shown = plain ? String(tidy(value)) : bound(value);
  const take = (next: number) => {
    if (next < least - 1e-9) setProblem(`at least ${bound(least)}`);
    else if (next > most + 1e-9) setProblem(`at most ${bound(most)}`);
    else {
      setProblem(null);
      onChange(tidy(next));
      return true;
    }
    return false;
  };
  const change = (text: string) => {
    setDraft(text);
    if (text.trim() === '') return;
    try {
      const next = plain ? Number(text.replace(',', '.')) : taste.parse(text, 'length');
      if (Number.isNaN(next)) setProblem('a number');
      else take(next);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setProblem('not a length');
    }
  };
  return (
    <div className="grid grid-cols-[1fr_92px] items-center gap-x-2">
      <label htmlFor={id} className="text-sm leading-tight">
        {label}
      </label>
      <input
        id={id}
        className="input input-sm figure-input w-full text-right px-2"
        inputMode="decimal"
        autoComplete="off"
        aria-invalid={problem !== null}
        aria-describedby={`${id}-problem`}
        value={draft ?? shown}
        onChange={(event) => change(event.target.value)}
        onKeyDown={(event) => {
          if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
            // What was typed gives way to what is undone; what could not be taken is undone by itself.
            if (problem !== null) {
              event.preventDefault();
              event.stopPropagation();
            }
            setDraft(null);
            setProblem(null);
            return;
          }
          const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
          if (way === 0) return;
          event.preventDefault();
          setDraft(null);
          take(Math.min(most, Math.max(least, value + way * step * (event.shiftKey ? 10 : 1))));
        }}
        onBlur={() => {
          setDraft(null);
          setProblem(null);
          onSettle?.();
        }}
      />
      <span id={`${id}-problem`} className="col-span-2 text-xs heat font-bold text-right" role="status">
        {problem}
      </span>
    </div>
  );
}
