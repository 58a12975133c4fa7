/** Kinds of clocks that the work itself starts; beside them anybody may start one of their own. */
export type ProcessClock = 'pot-life' | 'demold' | 'open' | 'cure' | 'bake' | 'stir' | 'burst';

interface Rule {
  /** Clocks about the same thing that this step is the end of. */
  ends: readonly ProcessClock[];
  /** Clocks that run from this step on. */
  starts: readonly ProcessClock[];
}

/** Which step of the work starts which clock, and which step ends it. Whatever else runs about the thing goes on. */
export const CLOCKS_AT = {
  /** A clay master goes into the oven; a second time, because it was still soft. */
  baked: { ends: ['bake'], starts: ['bake'] },
  /** Resin for a bed: worked until it thickens, firm later. */
  bedded: { ends: [], starts: ['pot-life', 'demold'] },
  /** Rubber: both count from the moment its parts meet. */
  mixed: { ends: [], starts: ['pot-life', 'demold'] },
  /** The next mix into the same half: its own pot life beside the first one's, and it sets from the last. */
  mixedMore: { ends: ['demold'], starts: ['pot-life', 'demold'] },
  /** Rubber on a bed that holds, or mixed anew because the first went wrong: clocks of what was before are done with. */
  mixedAnew: { ends: ['pot-life', 'demold'], starts: ['pot-life', 'demold'] },
  poured: { ends: ['pot-life'], starts: [] },
  demolded: { ends: ['pot-life', 'demold'], starts: [] },
  /** The newest shot of a mold is the one that cools. */
  shot: { ends: ['open'], starts: ['open'] },
  shotTakenBack: { ends: ['open'], starts: [] },
  lookedAt: { ends: ['open'], starts: [] },
  /** The cup is weighed: nothing is left in a mold. */
  cupDone: { ends: ['open'], starts: [] },
  /** Stirred, read after a stir, or dosed: flake and salt begin to sink anew. */
  stirred: { ends: ['stir'], starts: ['stir'] },
  /** Nothing in it sinks, or the stir was none. */
  stirOver: { ends: ['stir'], starts: [] },
  /** The oven is started. */
  burstBegins: { ends: ['burst'], starts: ['burst'] },
  /** The cup is out of the oven: it was read, or the burst was none. */
  burstOver: { ends: ['burst'], starts: [] },
  /** It is weighed, or put away. */
  cupOver: { ends: ['stir', 'burst'], starts: [] },
  /** What was good cures, counted from its last shot. */
  cureBegins: { ends: [], starts: ['cure'] },
  /** Read after it cured; a reading before that ends nothing. */
  hardnessRead: { ends: ['cure'], starts: [] },
} as const satisfies Record<string, Rule>;

export type ClockStep = keyof typeof CLOCKS_AT;

/** The step of the work that a ticked line of a mold's list is, where it has to do with a clock. */
export const STEP_OF_LINE: Readonly<Record<string, ClockStep>> = {
  pour: 'poured',
  second: 'poured',
  demold: 'demolded',
};
