// npm run endure [-- part …] [--minutes N]: what the workshop endures, counted. Ends by itself; fails where anything was lost.
import { parseArgs } from 'node:util';
import { isClean } from './counts.ts';
import { PARTS } from './parts.ts';

const { values, positionals } = parseArgs({
  options: { minutes: { type: 'string', default: '5' } },
  allowPositionals: true,
});
const unknown = positionals.find((name) => !(name in PARTS));
const minutes = Number(values.minutes);
if (unknown || !(minutes > 0)) {
  console.error(
    unknown
      ? `There is no part called ${unknown}; there are ${Object.keys(PARTS).join(', ')}.`
      : '--minutes takes a number above 0.',
  );
  process.exit(2);
}
let clean = true;
for (const [name, { part, full }] of Object.entries(PARTS)) {
  if (positionals.length > 0 && !positionals.includes(name)) continue;
  const counts = await part({ rounds: full, until: Date.now() + minutes * 60_000 });
  const ok = isClean(counts);
  clean &&= ok;
  const said = Object.entries(counts).map(([what, n]) => `${n} ${what}`);
  console.log(`${name.padEnd(12)} ${said.join(', ')}${ok ? '' : '   ← not clean'}`);
}
process.exit(clean ? 0 : 1);
