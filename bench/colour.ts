// Fifty targets made of one to four colourants, matched in whole drops, beside chance with as many looks at a melt.
import { deltaE, labOf } from '../core/colour/lab.ts';
import { bands, type Dosed, layerOver, meltOf, type Optics, type Rgb } from '../core/colour/light.ts';
import { match, matchSchema } from '../core/colour/match.ts';
import { check } from '../core/validate.ts';

const PLAIN: Optics = { k: [0.002, 0.002, 0.004], s: [0.001, 0.001, 0.001] };
const WHITE: Rgb = [1, 1, 1];
const MOST_ML_PER_L = 25;

let state = 20261;
const next = () => {
  state = (Math.imul(state, 1103515245) + 12345) >>> 0;
  return state / 2 ** 32;
};
const some = (most: number): Rgb => bands(() => 0.002 + most * next() ** 2);
const store = Array.from({ length: 14 }, (_, i) => ({
  id: `c${i}`,
  k: some(0.2),
  s: some(0.02),
  dropsPerMl: 18 + 8 * next(),
}));

/** One to four of them at random, in whole drops. */
function atRandom(batchMl: number, most: number): Dosed[] {
  const left = [...store];
  return Array.from({ length: 1 + Math.floor(4 * next()) }, () => {
    const [one] = left.splice(Math.floor(next() * left.length), 1) as [(typeof store)[number]];
    const drop = 1000 / (batchMl * one.dropsPerMl);
    return { k: one.k, s: one.s, mlPerL: Math.ceil((most * next()) / drop) * drop };
  });
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;
const rows = Array.from({ length: 50 }, (_, i) => {
  const batchMl = [118, 237, 400][i % 3] as number;
  const thicknessMm = [3, 8, 12][i % 3] as number;
  const target = layerOver(meltOf(PLAIN, atRandom(batchMl, 8)), thicknessMm, WHITE);
  const input = check(matchSchema, { target, batchMl, thicknessMm, background: WHITE, base: PLAIN, colourants: store });
  const start = performance.now();
  const found = match(input);
  const ms = performance.now() - start;
  const wanted = labOf(target);
  let chance = Number.POSITIVE_INFINITY;
  const from = performance.now();
  for (let look = 0; look < found.evaluations; look++) {
    const seen = layerOver(meltOf(PLAIN, atRandom(batchMl, MOST_ML_PER_L)), thicknessMm, WHITE);
    chance = Math.min(chance, deltaE(labOf(seen), wanted));
  }
  return { ms, off: found.deltaE00, chance, chanceMs: performance.now() - from, looks: found.evaluations };
});
const of = (key: keyof (typeof rows)[number]) => rows.map((row) => row[key]);
const told = (what: string, values: number[], digits: number) =>
  console.log(
    `  ${what.padEnd(34)} median ${median(values).toFixed(digits)}   worst ${Math.max(...values).toFixed(digits)}`,
  );
told('matched, ΔE00', of('off'), 2);
told('chance, as many looks, ΔE00', of('chance'), 2);
told('matched, ms', of('ms'), 0);
told('chance, ms', of('chanceMs'), 0);
console.log(
  `  within ΔE00 1: ${rows.filter((row) => row.off < 1).length} of 50; by chance ${rows.filter((row) => row.chance < 1).length}`,
);
const sum = (key: 'off' | 'chance') => rows.reduce((total, row) => total + row[key], 0);
console.log(`  chance is ${(sum('chance') / sum('off')).toFixed(1)} × as far off`);
