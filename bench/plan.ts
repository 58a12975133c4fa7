// Planning a busy fortnight of 200 lines, 40 colours and 30 molds: what stands when, beside the plain solver on the same model.
import { loadSolver } from '../core/highs.ts';
import { type ProductionPlan, productionSchema } from '../core/plan/production.ts';
import { produced } from '../core/plan/productionPlan.ts';
import { programOf } from '../core/plan/productionProgram.ts';
import { workOf } from '../core/plan/productionWork.ts';
import { Seeded } from '../core/seeded.ts';
import { check } from '../core/validate.ts';

const [LINES, COLOURS, MOLDS, DAYS, BAITS] = [200, 40, 30, 14, 12];
const LOADS = { busy: 6, 'more than the hands can do': 8 };

function fortnight(mostBags: number) {
  const random = new Seeded(1);
  const pick = (n: number) => Math.floor(random.next() * n);
  const range = (n: number) => Array.from({ length: n }, (_, i) => i);
  const days = range(DAYS).map((i) => ({
    day: new Date(Date.UTC(2026, 2, 2 + i)).toISOString().slice(0, 10),
    handsMin: i % 7 === 6 ? 0 : 360,
    glasses: 12,
  }));
  return check(productionSchema, {
    days,
    baits: range(BAITS).map((i) => ({ id: `b${i}`, packS: 5 })),
    molds: range(MOLDS).map((i) => ({
      id: `m${i}`,
      baitId: `b${i % BAITS}`,
      cavities: 4 + 2 * ((i % BAITS) % 3),
      handsS: 90 + 10 * ((i % BAITS) % 4),
      waitS: 120 + 30 * ((i % BAITS) % 5),
      shotMl: 40 + 5 * (i % BAITS),
    })),
    colours: range(COLOURS).map((i) => ({ id: `c${i}`, lightness: i / COLOURS })),
    lines: range(LINES).map((i) => ({
      id: `l${i}`,
      baitId: `b${pick(BAITS)}`,
      colourId: `c${pick(COLOURS)}`,
      baits: 8 * (1 + pick(mostBags)),
      due: (days[2 + pick(DAYS - 2)] as { day: string }).day,
    })),
    glassMl: 900,
    residueMl: 20,
    timeLimitMs: 30_000,
  });
}

const said = ({ lateBaitDays, boundBaitDays, changeovers, glasses, by }: ProductionPlan) =>
  `${lateBaitDays} bait-days late (bound ${boundBaitDays === null ? 'not known' : boundBaitDays.toFixed(0)}), ${changeovers} colours begun, ${glasses} glasses, by the ${by}`;

for (const [name, bags] of Object.entries(LOADS)) {
  const asked = fortnight(bags);
  console.log(`${name}: ${LINES} lines, ${COLOURS} colours, ${MOLDS} molds, ${DAYS} days`);
  const start = performance.now();
  const sinceS = () => (performance.now() - start) / 1000;
  let at3: ProductionPlan | null = null;
  let first = true;
  const plan = await produced(asked, {
    nowMs: () => performance.now(),
    better: (one) => {
      if (first) console.log(`  first, ${sinceS().toFixed(2)} s: ${said(one)}`);
      first = false;
      if (sinceS() <= 3) at3 = one;
    },
  });
  if (at3) console.log(`  at 3 s: ${said(at3)}`);
  console.log(`  at ${sinceS().toFixed(0)} s: ${said(plan)}`);
  const highs = await loadSolver();
  const { model } = programOf(highs, workOf(asked), { least: 'late' });
  try {
    const began = performance.now();
    model.options.set({ output_flag: false, time_limit: 30, mip_rel_gap: 0.05 });
    model.run();
    const status = model.getModelStatus() === highs.constants.modelStatus.optimal ? 'within 5 %' : 'stopped';
    console.log(
      `  plain HiGHS on the same model, ${((performance.now() - began) / 1000).toFixed(0)} s, ${status}: ${model.getObjectiveValue().toFixed(0)} bait-days late`,
    );
  } finally {
    model.dispose();
  }
}
