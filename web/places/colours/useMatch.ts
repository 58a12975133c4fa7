import type { Matched, MatchInput } from '../../../core/colour/match.ts';
import type { Told } from '../../../core/failure.ts';
import type { Matcher } from '../../workers/matcher.ts';
import { handOf, useAnswer } from '../../workers/useErrand.ts';

const hire = () =>
  handOf<Matcher, MatchInput, Matched>(
    () => new Worker(new URL('../../workers/matcher.ts', import.meta.url), { type: 'module' }),
    (api, wish) => api.match(wish),
  );

/** The nearest that is in store, worked out beside the page. */
export function useMatch(wish: MatchInput | null): { found: Matched | null; problem: Told | null } {
  const { answer, problem } = useAnswer(wish, hire);
  return { found: answer, problem };
}
