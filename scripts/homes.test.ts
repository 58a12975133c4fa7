import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { DEFAULTS } from '../core/defaults.ts';
import { allSecondHomes, filesRead, secondHomes } from './defaults.ts';

test('which rows of a log count is asked of one place', () => {
  const asked = readdirSync('server', { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.ts$/.test(file) && !/\.test\.ts$/.test(file))
    .filter((file) =>
      /NOT EXISTS \(SELECT 1 FROM \S+ \w+ WHERE \w+\.reverses/.test(readFileSync(`server/${file}`, 'utf8')),
    );
  expect(asked).toEqual(['db/log.ts']);
});

/** Which room's SQL knows the rows of a log; the others ask that room. */
const LOG_HOMES: Record<string, string> = {
  dose: 'ledgers',
  heat: 'pours',
  shot: 'pours',
  cavity_mark: 'pours',
  balance: 'pours',
  hardness_reading: 'pours',
  mold_event: 'molds',
  mold_weighing: 'molds',
  dip_reading: 'molds',
  spark_run: 'molds',
  water_test: 'water',
  ladder_trial: 'water',
  stock_move: 'stock',
  bag: 'stock',
  bag_weighing: 'orders',
  complaint: 'stock',
  lot_move: 'materials',
  bin_move: 'bins',
  cup_part: 'pours',
  part_weighing: 'pours',
  bench_tick: 'pours',
  bait_weighing: 'pours',
  burst: 'pours',
  stir: 'pours',
};

/** Names of logs that a file of another room reads or writes by itself. */
const foreignLogs = (file: string, text: string) =>
  Object.entries(LOG_HOMES)
    .filter(([log, home]) => {
      const asked = new RegExp(`\\b(FROM|JOIN|INTO)\\s+${log}(_live)?\\b|insert\\(db, '${log}'`);
      return !file.startsWith(`${home}/`) && asked.test(text);
    })
    .map(([log]) => `${file}: ${log}`);

test('the rows of a log are known to its own room only', () => {
  const files = readdirSync('server', { recursive: true, encoding: 'utf8' }).filter(
    (file) => /\.ts$/.test(file) && !/\.test\.ts$/.test(file) && !/^(db|testing)\//.test(file),
  );
  expect(files.length).toBeGreaterThan(50);
  expect(files.flatMap((file) => foreignLogs(file, readFileSync(`server/${file}`, 'utf8')))).toEqual([]);
});

test.each([
  ['orders/store.ts', 'SELECT 1 FROM stock_move k', 1],
  ['today/store.ts', 'x JOIN shot_live s ON 1', 1],
  ['orders/store.ts', "insert(db, 'bag', {})", 1],
  ['stock/store.ts', 'SELECT 1 FROM stock_move k', 0],
  ['today/store.ts', 'SELECT 1 FROM shot_sum', 0],
] as const)('a log asked of %s: %s', (file, text, found) => {
  expect(foreignLogs(file, text)).toHaveLength(found);
});

test('no default is written twice', () => {
  expect(filesRead).toBeGreaterThan(250);
  expect(allSecondHomes()).toEqual([]);
});

test.each([
  ['a telling figure', 'const grams = 1.02 * ml;'],
  ['a field', 'const box = { wallMm: 12 };'],
  ['a schema', 'const box = v.strictObject({ roomC: v.optional(celsius, 23) });'],
  ['a fallback', 'const drops = material.dropsPerMl ?? 20;'],
  ['one in a screen', 'const at = <Field densityGPerMl={1.02} />;'],
])('%s is found', (_what, text) => {
  expect(secondHomes('x.tsx', text)).toHaveLength(1);
});

test.each([
  ['none of it', 'const mix = { wasteFraction: 0 };'],
  ['another figure', 'const grams = 1.03 * ml;'],
  ['the default itself', "const box = { wallMm: usual('siliconeWallMm') };"],
  ['one worked out', 'const mix = { wasteFraction: percent / 100 };'],
  ['a field without one', 'const box = { lengthMm: 12 };'],
])('%s is not', (_what, text) => {
  expect(secondHomes('x.tsx', text)).toEqual([]);
});

test('each says its unit, what it is and where it comes from', () => {
  for (const [key, { value, unit, name, source }] of Object.entries(DEFAULTS)) {
    expect(value, key).toBeGreaterThan(0);
    expect(
      [unit, name, source].every((text) => text.length > 0),
      key,
    ).toBe(true);
  }
});
