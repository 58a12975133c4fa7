import type { Highs } from 'highs';
import { Annealing } from './productionAnneal.ts';
import { type Packed, packedOf } from './productionPack.ts';
import { type Aim, pouredIn, programOf, startOf } from './productionProgram.ts';
import { Standing } from './productionStanding.ts';
import type { Poured, Work } from './productionWork.ts';

/** Lateness that is no difference. */
export const SAME = 1e-6;

/** A plan, and what is packed of it when. */
export interface Scored {
  standing: Standing;
  packed: Packed;
}

export const scored = (work: Work, standing: Standing): Scored => ({
  standing,
  packed: packedOf(work, standing.by, (day) => standing.pourMin(day)),
});

/** Less late first, then fewer colours begun. */
export const better = (a: Scored, b: Scored) =>
  a.packed.lateBaitDays < b.packed.lateBaitDays - SAME ||
  (a.packed.lateBaitDays <= b.packed.lateBaitDays + SAME && a.standing.changeovers < b.standing.changeovers);

/** Baits of each product that were packed up to each day. */
function packedBy({ products, days, lines }: Work, packed: Packed): number[][] {
  const sums = products.map(() => days.map(() => 0));
  packed.days.forEach((rows, day) => {
    for (const { line, baits } of rows) {
      const row = sums[lines[line]?.product as number] as number[];
      row[day] = (row[day] as number) + baits;
    }
  });
  for (const row of sums)
    for (let day = 1; day < row.length; day++) row[day] = (row[day] as number) + (row[day - 1] as number);
  return sums;
}

/** The clock beside a search, and who may stop it. */
export interface Beside {
  nowMs(): number;
  stopped?(): boolean;
}

interface Ended {
  /** The least that is possible, as far as that is proved. */
  bound: number | null;
  /** Nothing better is left to be found. */
  whole: boolean;
}

/** Steps between two looks at the clock. */
const STEPS_A_LOOK = 50;
/** How long one run of steps takes, ms: at least, and for each bait-day that the first plan is late. */
const [RUN_MS, LATER_MS] = [3500, 4];

/** Looks for better plans with the solver, from one that stands. */
export class Searcher {
  best: Scored;
  private runs = 0;

  constructor(
    private readonly highs: Highs,
    private readonly work: Work,
    private readonly beside: Beside,
    private readonly begun: Scored,
    private readonly found: (one: Scored) => void,
  ) {
    this.best = begun;
  }

  private get over(): boolean {
    return this.beside.stopped?.() ?? false;
  }

  /** Lets the solver look until the time is over; what it finds on its way is packed and compared here. */
  look(aim: Aim, untilMs: number): Ended {
    const { highs, work } = this;
    const program = programOf(highs, work, aim);
    const { model, columns } = program;
    try {
      const { callbackType, modelStatus } = highs.constants;
      const seconds = Math.max(0.05, (untilMs - this.beside.nowMs()) / 1000);
      model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 1e-4 });
      model.setSolution({ colValue: startOf(program, work, this.best.standing, packedBy(work, this.best.packed)) });
      let bound: number | null = null;
      model.run({
        [callbackType.mipImprovingSolution]: ({ data }) => {
          if (data.mip_solution) this.take(pouredIn(columns, data.mip_solution));
        },
        [callbackType.mipInterrupt]: (event) => {
          bound = event.data.mip_dual_bound ?? bound;
          if (this.over) event.interrupt();
        },
        [callbackType.mipLogging]: ({ data }) => {
          bound = data.mip_dual_bound ?? bound;
        },
      });
      const whole = model.getModelStatus() === modelStatus.optimal;
      if (whole) {
        this.take(pouredIn(columns, model.getSolution().colValue));
        bound = model.getObjectiveValue();
      }
      return { bound: bound !== null && Number.isFinite(bound) ? bound : null, whole };
    } finally {
      model.dispose();
    }
  }

  private take(poured: Poured): void {
    const standing = new Standing(this.work, poured);
    const one = scored(this.work, standing);
    if (!standing.kept || !better(one, this.best)) return;
    this.best = one;
    this.found(one);
  }

  /**
   * Small steps for a while: large plans are too much at once for the solver. One run gets lucky or does not, so that several
   * short ones, each begun anew, are better than a long one; the later a plan, the longer one of them takes.
   */
  steps(untilMs: number): void {
    while (!this.over && this.beside.nowMs() < untilMs) {
      const leftMs = untilMs - this.beside.nowMs();
      const runMs = RUN_MS + LATER_MS * this.begun.packed.lateBaitDays;
      this.run(this.beside.nowMs() + leftMs / Math.max(1, Math.round(leftMs / runMs)));
    }
  }

  private run(untilMs: number): void {
    this.runs += 1;
    // Every other one goes on from the best.
    const from = this.runs % 2 === 0 ? this.best : this.begun;
    const annealing = new Annealing(this.work, from.standing.poured(), this.runs);
    const fromMs = this.beside.nowMs();
    let [least, share] = [annealing.weighs, 0];
    let at: Poured | null = null;
    for (let n = 0; ; n++) {
      if (n % STEPS_A_LOOK === 0) {
        const nowMs = this.beside.nowMs();
        if (at) this.take(at);
        at = null;
        if (this.over || nowMs >= untilMs) return;
        share = (nowMs - fromMs) / (untilMs - fromMs);
      }
      const weighs = annealing.step(share);
      if (weighs === null || weighs >= least - SAME) continue;
      least = weighs;
      at = annealing.poured();
    }
  }
}
