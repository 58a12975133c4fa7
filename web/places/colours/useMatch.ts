import { useState } from 'react';
import type { Matched, MatchInput } from '../../../core/colour/match.ts';
import type { Told } from '../../../core/failure.ts';
import type { Matcher } from '../../workers/matcher.ts';
import { handOf, useErrand } from '../../workers/useErrand.ts';

const hire = () =>
  handOf<Matcher, MatchInput, Matched>(
    () => new Worker(new URL('../../workers/matcher.ts', import.meta.url), { type: 'module' }),
    (api, wish) => api.match(wish),
  );

/** The nearest that is in store, worked out beside the page; what it shows is always of the wish that it names. */
export function useMatch(wish: MatchInput | null): { found: Matched | null; problem: Told | null } {
  const [state, setState] = useState<{ of: MatchInput; found: Matched | null; problem: Told | null } | null>(null);
  useErrand(
    wish,
    hire,
    {
      answer: (of, found) => setState({ of, found, problem: null }),
      problem: (of, problem) => setState({ of, found: null, problem }),
    },
    { newer: 'ends' },
  );
  return state !== null && state.of === wish ? state : { found: null, problem: null };
}
