import { readFileSync } from 'node:fs';
import { calculate } from '../core/calculators.ts';
import { Failure } from '../core/failure.ts';

/** A calculator's input is small; the limit is the server's. */
const LIMIT = 1_000_000;

type Answer = { ok: true; output: unknown } | { ok: false; error: { code: string; message: string; path?: string } };

const refusal = (error: unknown): Answer => {
  if (!(error instanceof Failure)) throw error;
  const { code, message, path } = error;
  return { ok: false, error: { code, message, ...(path ? { path } : {}) } };
};

function parse(text: string): unknown {
  if (text.length > LIMIT) throw new Failure('too-large', 'That is more than 1 MB.');
  try {
    return JSON.parse(text);
  } catch {
    throw new Failure('malformed-json', 'The input is not valid JSON.');
  }
}

async function answer(read: () => { name: unknown; input: unknown }): Promise<Answer> {
  try {
    const { name, input } = read();
    if (typeof name !== 'string')
      throw new Failure('invalid-input', 'name is missing; give the calculator’s name.', 'name');
    return { ok: true, output: await calculate(name, input) };
  } catch (error) {
    return refusal(error);
  }
}

function readLine(line: string) {
  const row = parse(line);
  if (row === null || typeof row !== 'object' || Array.isArray(row)) {
    throw new Failure('invalid-input', 'Each line is an object with name and input.');
  }
  const { name, input, ...rest } = row as Record<string, unknown>;
  const extra = Object.keys(rest)[0];
  if (extra !== undefined) throw new Failure('invalid-input', `${extra} is not a field here; leave it out.`, extra);
  return { name, input };
}

const [, , first] = process.argv;
if (first === undefined) {
  console.error('Say which: npm run -s calc -- NAME < input.json, or --lines with one {"name","input"} a line.');
  process.exit(2);
}

const stdin = readFileSync(0, 'utf8');
if (first === '--lines') {
  for (const line of stdin.split('\n')) {
    if (line.trim() !== '') console.log(JSON.stringify(await answer(() => readLine(line))));
  }
} else {
  const result = await answer(() => ({ name: first, input: parse(stdin) }));
  console.log(JSON.stringify(result.ok ? result.output : { error: result.error }, null, 2));
  process.exitCode = result.ok ? 0 : 2;
}
