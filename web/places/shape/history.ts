import { useCallback, useReducer } from 'react';

export interface History<T> {
  past: T[];
  now: T;
  future: T[];
  /** What the last change was about: changes of the same thing in a row are one step back. */
  about: string | null;
}

export type Change<T> =
  | { kind: 'set'; value: T; about: string | null }
  | { kind: 'undo' }
  | { kind: 'redo' }
  | { kind: 'settle' }
  | { kind: 'start'; value: T };

export const started = <T>(value: T): History<T> => ({ past: [], now: value, future: [], about: null });

/** Undo and redo without end. A drag is one step, however many places it went through. */
export function changed<T>(history: History<T>, change: Change<T>): History<T> {
  const { past, now, future, about } = history;
  switch (change.kind) {
    case 'set': {
      const same = change.about !== null && change.about === about;
      return { past: same ? past : [...past, now], now: change.value, future: [], about: change.about };
    }
    case 'undo': {
      const last = past.at(-1);
      return last === undefined
        ? history
        : { past: past.slice(0, -1), now: last, future: [now, ...future], about: null };
    }
    case 'redo': {
      const [next, ...rest] = future;
      return next === undefined ? history : { past: [...past, now], now: next, future: rest, about: null };
    }
    case 'settle':
      return { ...history, about: null };
    case 'start':
      return started(change.value);
  }
}

export function useHistory<T>(first: T) {
  const [history, change] = useReducer(changed<T>, first, started<T>);
  return {
    now: history.now,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    steps: history.past.length,
    set: useCallback((value: T, about: string | null) => change({ kind: 'set', value, about }), []),
    settle: useCallback(() => change({ kind: 'settle' }), []),
    undo: useCallback(() => change({ kind: 'undo' }), []),
    redo: useCallback(() => change({ kind: 'redo' }), []),
    start: useCallback((value: T) => change({ kind: 'start', value }), []),
  };
}
