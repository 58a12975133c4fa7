import { REFUSALS, type RefusalCode } from '../core/failure.ts';
import { STATUS } from '../server/http/errors.ts';

/** docs/refusals.md, whole. */
export function refusalsPage(): string {
  const rows = (Object.entries(REFUSALS) as [RefusalCode, string][])
    .map(([code, says]) => `| \`${code}\` | ${STATUS[code] ?? 400} | ${says} |`)
    .join('\n');
  return `# Refusals

Made by \`npm run docs\` from \`core/failure.ts\` (what a code says) and \`server/http/errors.ts\` (its status); do not edit by hand.

A refusal is \`{"error":{"code","message","path"}}\`: the code is for programs and never changes its meaning, the message is a whole
sentence for a maker and says what to do, \`path\` names the field that is to blame, where one is. Nothing was written.

| Code | Status | What it says |
| --- | --- | --- |
${rows}
`;
}
