import './refusals.ts';
import { expose } from 'comlink';
import { type Matched, type MatchInput, match } from '../../core/colour/match.ts';

const matcher = {
  match: (wish: MatchInput): Matched => match(wish, () => performance.now()),
};

export type Matcher = typeof matcher;
expose(matcher);
