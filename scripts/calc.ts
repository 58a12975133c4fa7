// npm run -s calc -- NAME < input.json | NAME --file x.stl [--input JSON] [--out y.stl] | --lines
import { fstatSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { calculate } from '../core/calculators.ts';
import { Failure } from '../core/failure.ts';
import { buildFile, buildSchema } from '../core/mold/buildCalculator.ts';
import { repairedMesh, repairSchema, sculptSchema, specOf } from '../core/shape/calculators.ts';
import { FILE_LIMIT } from '../core/shape/read.ts';
import { EXPORT_FORMATS, type ExportFormat, writeMesh } from '../core/shape/write.ts';
import { check } from '../core/validate.ts';

/** A calculator's input is small; the limit is the server's. */
const LIMIT = 1_000_000;

const nowMs = () => performance.now();

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
    return { ok: true, output: await calculate(name, input, { nowMs }) };
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

function readFile(path: string): Uint8Array {
  try {
    if (statSync(path).size > FILE_LIMIT) throw new Failure('too-large', 'A mesh file may have up to 64 MB.', 'mesh');
    return readFileSync(path);
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw new Failure('invalid-input', `${path} cannot be read: ${(error as Error).message}`, 'mesh');
  }
}

/** What is piped in, if anything: a terminal, or a pipe that nobody writes to, must not hold up a call with a file. */
async function piped(): Promise<string> {
  const kind = fstatSync(0);
  if (kind.isFile()) return readFileSync(0, 'utf8');
  if (!kind.isFIFO() && !kind.isSocket()) return '';
  return new Promise((done) => {
    let text = '';
    const finish = () => {
      process.stdin.pause();
      done(text);
    };
    const silence = setTimeout(finish, 500);
    process.stdin.setEncoding('utf8');
    process.stdin.on('data', (chunk: string) => {
      clearTimeout(silence);
      text += chunk;
    });
    process.stdin.on('end', finish);
    process.stdin.on('error', finish);
  });
}

/** Writes the mesh that an answer is about: the mended one, or the sculpted one. */
async function writeOut(name: string, input: unknown, path: string, mesh?: Uint8Array): Promise<void> {
  const format = path.toLowerCase().split('.').pop() as ExportFormat;
  if (!EXPORT_FORMATS.includes(format))
    throw new Failure('invalid-input', 'The file to write ends in .stl, .obj or .3mf.', 'out');
  if (name === 'mesh.repair') {
    const made = repairedMesh(check(repairSchema, input), mesh ? { mesh } : undefined);
    writeFileSync(path, writeMesh(made.mesh, format));
  } else if (name === 'bait.sculpt') {
    const { loadModeller, sculpt } = await import('../core/shape/sculpt.ts');
    writeFileSync(path, writeMesh(sculpt(await loadModeller(), specOf(check(sculptSchema, input))), format));
  } else if (name === 'mold.build') {
    // A file for each part: bait.stl becomes bait-lower-half.stl and bait-upper-half.stl.
    const { parts } = await buildFile(check(buildSchema, input), mesh ? { mesh } : undefined);
    for (const part of parts)
      writeFileSync(
        path.replace(/(\.[^.]+)$/, `-${part.name.replace(' ', '-')}$1`),
        writeMesh(part.mesh, format, part.name),
      );
  } else throw new Failure('invalid-input', 'Only mesh.repair, bait.sculpt and mold.build write a mesh.', 'out');
}

interface Options {
  file?: string;
  input?: string;
  out?: string;
}

async function one(name: string, { file, input: given, out }: Options): Promise<Answer> {
  try {
    const mesh = file === undefined ? undefined : readFile(file);
    const text = given ?? (mesh ? await piped() : readFileSync(0, 'utf8'));
    const input = mesh && text.trim() === '' ? {} : parse(text);
    const output = await calculate(name, input, { nowMs, ...(mesh ? { mesh } : {}) });
    if (out !== undefined) await writeOut(name, input, out, mesh);
    return { ok: true, output };
  } catch (error) {
    return refusal(error);
  }
}

const usage =
  'Say which: npm run -s calc -- NAME < input.json, NAME --file x.stl [--input JSON] [--out y.stl], or --lines with one {"name","input"} a line.';

function argumentsGiven() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        lines: { type: 'boolean', default: false },
        file: { type: 'string' },
        input: { type: 'string' },
        out: { type: 'string' },
      },
    });
  } catch (error) {
    console.error(`${(error as Error).message}\n${usage}`);
    process.exit(2);
  }
}

const { values, positionals } = argumentsGiven();
const [name] = positionals;
if (values.lines) {
  for (const line of readFileSync(0, 'utf8').split('\n')) {
    if (line.trim() !== '') console.log(JSON.stringify(await answer(() => readLine(line))));
  }
} else if (name === undefined) {
  console.error(usage);
  process.exitCode = 2;
} else {
  const result = await one(name, values);
  console.log(JSON.stringify(result.ok ? result.output : { error: result.error }, null, 2));
  process.exitCode = result.ok ? 0 : 2;
}
