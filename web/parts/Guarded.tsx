import { type ReactNode, useEffect, useRef, useState } from 'react';

/** A glove's second tap comes within this; a target that means something else now does not take it, ms. */
const GUARD_MS = 900;

/** When something that lay over the bench was closed last: the second tap on what closed it is meant for nothing under it. */
let uncoveredMs = Number.NEGATIVE_INFINITY;
export const uncovered = (): void => {
  uncoveredMs = performance.now();
};

interface Props {
  /** What a tap would do now, in full: when that changes, the target rests for a moment. */
  means: string;
  onAct(): void;
  className?: string;
  label?: string;
  /** Says something by a single tap, and may lie under what is closed: it rests after that too. */
  shy?: boolean;
  children: ReactNode;
}

/** Whether what lies under a finger has meant this for long enough that no second tap of a glove lands on it. */
export function useRested(means: string): boolean {
  const [restedFor, setRestedFor] = useState(means);
  useEffect(() => {
    if (restedFor === means) return;
    const rest = setTimeout(() => setRestedFor(means), GUARD_MS);
    return () => clearTimeout(rest);
  }, [restedFor, means]);
  return restedFor === means;
}

/** What is opened over the bench: a second tap on what closed it opens nothing that lies under there. */
export function useOpened<T>(none: T): [T, (next: T) => void] {
  const [opened, setOpened] = useState(none);
  const closedMs = useRef(Number.NEGATIVE_INFINITY);
  const set = (next: T) => {
    if (next === none) closedMs.current = performance.now();
    else if (performance.now() - closedMs.current < GUARD_MS) return;
    setOpened(next);
  };
  return [opened, set];
}

/** A target that never changes its meaning under a finger: it rests after every tap, and whenever it comes to mean something else. */
export function Guarded({ means, onAct, className = '', label, shy = false, children }: Props) {
  const [armedFor, setArmedFor] = useState(means);
  const armed = armedFor === means;
  useEffect(() => {
    if (armed) return;
    const rest = setTimeout(() => setArmedFor(means), GUARD_MS);
    return () => clearTimeout(rest);
  }, [armed, means]);
  return (
    <button
      type="button"
      className={`${className} ${armed ? '' : 'opacity-60'}`}
      aria-disabled={!armed}
      aria-label={label}
      onClick={() => {
        if (!armed || (shy && performance.now() - uncoveredMs < GUARD_MS)) return;
        setArmedFor('');
        onAct();
      }}
    >
      {children}
    </button>
  );
}
