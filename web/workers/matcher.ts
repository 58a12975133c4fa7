import './refusals.ts';
import { expose } from 'comlink';
import { type Matched, type MatchInput, match } from '../../core/colour/match.ts';
import { type KnowInput, type Known, know } from '../../core/plastisol/know.ts';

const matcher = {
  know: (input: KnowInput): Known => know(input),
  match: (wish: MatchInput): Matched => match(wish, () => performance.now()),
};

export type Matcher = typeof matcher;
expose(matcher);
