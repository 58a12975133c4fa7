import { Failure } from '../failure.ts';

export interface SparkPass {
  /** Overcut all round, mm a side: from the machine's own table for this current. */
  gapMm: number;
  amps: number;
}

export interface SparkPlan {
  pass: 'roughing' | 'finishing';
  amps: number;
  /** What the electrode is smaller by all round, mm. */
  undersizeMm: number;
  /** How deep its face is fed, mm: the gap burns the rest. */
  feedMm: number;
  /** Depths at which to stop, lift and look, mm. */
  looksAtMm: number[];
}

/** What a plan begins with: a usual current each for roughing and finishing, and their gaps. The machine's own table wins. */
export const USUAL_SPARK = { depthMm: 8, rough: { gapMm: 0.2, amps: 18 }, fine: { gapMm: 0.05, amps: 3 } } as const;

/** What roughing leaves for finishing, mm a side: a starting value. */
export const SPARK_LEAVE_MM = 0.1;

/** Look soon after the first contact, and once more this far before depth, mm. */
const FIRST_LOOK_MM = 0.3;
const LAST_LOOK_MM = 0.5;

/**
 * The passes of a spark-eroded cavity. Roughing stops short of the final size by what finishing takes off.
 * @param depthMm of the cavity's half. @param leaveMm what roughing leaves for finishing, a side.
 * @throws Failure `invalid-input` when a gap is wider than the depth, or finishing's gap no smaller than roughing's.
 * Source: die-sinking practice; gap and current come from the machine's own table, high current is fast and eats detail.
 */
export function sparkPlan(
  depthMm: number,
  roughing: SparkPass,
  finishing: SparkPass,
  leaveMm = SPARK_LEAVE_MM,
): SparkPlan[] {
  if (!(finishing.gapMm < roughing.gapMm))
    throw new Failure('invalid-input', 'Finishing burns a smaller gap than roughing: less current.', 'finishing.gapMm');
  if (!(roughing.gapMm + leaveMm < depthMm))
    throw new Failure('invalid-input', 'The gap is as deep as the cavity; take less current.', 'roughing.gapMm');
  const pass = (name: SparkPlan['pass'], { gapMm, amps }: SparkPass, leave: number): SparkPlan => {
    const feedMm = depthMm - leave - gapMm;
    const last = feedMm - LAST_LOOK_MM;
    return {
      pass: name,
      amps,
      undersizeMm: gapMm + leave,
      feedMm,
      looksAtMm: [FIRST_LOOK_MM, last].filter(
        (at, i, all) => at > 0 && at < feedMm && (i === 0 || at > (all[0] as number)),
      ),
    };
  };
  return [pass('roughing', roughing, leaveMm), pass('finishing', finishing, 0)];
}

export interface SparkRow {
  electrode: string;
  pass: 'roughing' | 'finishing';
  amps: number;
  fromMm: number;
  toMm: number;
  minutes: number;
  efficiency: number | null;
  seen: 'clean' | 'pits' | 'arc';
}

/**
 * How fast each run went (mm/min), the rate per pass over all of them, and what the log asks for now.
 * @returns `leftMin`: what is left to `depthMm` at the last pass's own rate; null when nothing was run.
 */
export function sparkLog(log: SparkRow[], depthMm: number) {
  const runs = log.map((run) => ({ ...run, mmPerMin: (run.toMm - run.fromMm) / run.minutes }));
  const rate = (pass: SparkRow['pass']) => {
    const of = log.filter((run) => run.pass === pass);
    const minutes = of.reduce((sum, run) => sum + run.minutes, 0);
    return minutes > 0 ? of.reduce((sum, run) => sum + run.toMm - run.fromMm, 0) / minutes : null;
  };
  const last = log.at(-1);
  const lastRate = last ? rate(last.pass) : null;
  return {
    runs,
    roughingMmPerMin: rate('roughing'),
    finishingMmPerMin: rate('finishing'),
    leftMin: last && lastRate ? Math.max(0, depthMm - last.toMm) / lastRate : null,
    advice:
      last?.seen === 'arc'
        ? 'It arced: stop, lift, dress the carbon off the electrode, flush, and go on with less current or longer pauses.'
        : last?.seen === 'pits'
          ? 'Pits: it arcs now and then. Flush better, lift more often, less current before it goes deeper.'
          : last && last.efficiency !== null && last.efficiency < 0.3
            ? 'Few pulses cut: little contact yet, or the gap is clogged. It rises as more of the face meets the metal.'
            : last
              ? 'Clean so far: look again before depth.'
              : 'Nothing run yet: look soon after the first contact.',
  };
}
