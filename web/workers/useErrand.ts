import { type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Told } from '../../core/failure.ts';
import { Errand, type Hand, type Hearing, type Manner } from './errand.ts';

/** A module worker that speaks comlink, as a hand. */
export function handOf<Api, Wish, Answer, Part = never>(
  make: () => Worker,
  ask: (api: Remote<Api>, wish: Wish, tell: (part: Part) => void) => Promise<Answer>,
): Hand<Wish, Answer, Part> & { api: Remote<Api> } {
  const worker = make();
  const api = wrap<Api>(worker);
  return {
    api,
    ask: (wish, tell) => ask(api, wish, tell),
    died: (hear) => {
      worker.addEventListener('error', (event) => hear(event.message || 'it could not be loaded'));
      worker.addEventListener('messageerror', () => hear('its answer could not be read'));
    },
    end: () => worker.terminate(),
  };
}

/**
 * An errand for as long as a component is mounted; nothing is asked while the wish is null. `hire` and `hear` are read
 * anew at each use, so they may close over what the component knows now.
 */
export function useErrand<Wish, Answer, Part = never>(
  wish: Wish | null,
  hire: () => Hand<Wish, Answer, Part>,
  hear: Hearing<Wish, Answer, Part>,
  { newer, longestMs }: Manner,
): { current: Errand<Wish, Answer, Part> | null } {
  const errand = useRef<Errand<Wish, Answer, Part> | null>(null);
  const latest = useRef({ hire, hear });
  latest.current = { hire, hear };
  useEffect(() => {
    const made = new Errand<Wish, Answer, Part>(
      () => latest.current.hire(),
      {
        begins: (of) => latest.current.hear.begins?.(of),
        part: (of, part) => latest.current.hear.part?.(of, part),
        answer: (of, answer) => latest.current.hear.answer(of, answer),
        problem: (of, why) => latest.current.hear.problem(of, why),
      },
      longestMs === undefined ? { newer } : { newer, longestMs },
    );
    errand.current = made;
    return () => {
      made.end();
      errand.current = null;
    };
  }, [newer, longestMs]);
  useEffect(() => {
    if (wish !== null) errand.current?.wish(wish);
    else errand.current?.stop();
  }, [wish]);
  return errand;
}

/** The answer to the wish as it is now, worked out beside the page: never one to a wish before it. */
export function useAnswer<Wish, Answer>(
  wish: Wish | null,
  hire: () => Hand<Wish, Answer, never>,
): { answer: Answer | null; problem: Told | null } {
  const [state, setState] = useState<{ of: Wish; answer: Answer | null; problem: Told | null } | null>(null);
  useErrand(
    wish,
    hire,
    {
      answer: (of, answer) => setState({ of, answer, problem: null }),
      problem: (of, problem) => setState({ of, answer: null, problem }),
    },
    { newer: 'ends' },
  );
  return state !== null && state.of === wish ? state : { answer: null, problem: null };
}
