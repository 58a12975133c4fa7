// Fifty targets made of one to four colourants, matched in whole drops, beside chance with as many looks at a melt.
import { deltaE, labOf } from '../core/colour/lab.ts';
import { layerOver, meltOf } from '../core/colour/light.ts';
import { match, matchSchema } from '../core/colour/match.ts';
import { chanceOf, made, madeUpStore, PLAIN, someOf, WHITE } from '../core/colour/testing.ts';
import { check } from '../core/validate.ts';

const MOST_DROPS = 40;
const next = chanceOf(20261);
const store = madeUpStore(next);
const several = () => 1 + Math.floor(4 * next());

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;
const rows = Array.from({ length: 50 }, (_, i) => {
  const { batchMl, thicknessMm } = made(i);
  const atRandom = () => meltOf(PLAIN, someOf(store, several(), batchMl, MOST_DROPS, next));
  const target = layerOver(atRandom(), thicknessMm, WHITE);
  const input = check(matchSchema, { target, batchMl, thicknessMm, background: WHITE, base: PLAIN, colourants: store });
  const start = performance.now();
  const found = match(input);
  const ms = performance.now() - start;
  const wanted = labOf(target);
  let chance = Number.POSITIVE_INFINITY;
  const from = performance.now();
  for (let look = 0; look < found.evaluations; look++) {
    const seen = layerOver(atRandom(), thicknessMm, WHITE);
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
