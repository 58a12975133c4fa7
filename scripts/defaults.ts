// Each default has one home: no other file of the program may write its figure again, nor give its field another one.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { DEFAULTS } from '../core/defaults.ts';

const HOME = 'core/defaults.ts';
/** Examples of calculators are examples, and a physical constant may equal a default. */
const FREE = [HOME, 'core/registry/'];

/** Figures that stand for nothing else in this program. */
const TELLING = new Set(
  (['plastisolGPerMl', 'saltGPerMl', 'seaGPerMl', 'leadGPerMl', 'scorchC', 'glassMl'] as const).map(
    (name) => DEFAULTS[name].value as number,
  ),
);
/** Fields whose usual value is a default: none of them is given a bare figure. */
const FIELDS = new Set([
  'plastisolDensityGPerMl',
  'saltDensityGPerMl',
  'waterDensityGPerMl',
  'feedFraction',
  'deadMl',
  'cupFilmMl',
  'wallMm',
  'coverMm',
  'wasteFraction',
  'dropsPerMl',
  'scorchC',
  'demoldC',
  'ratedC',
  'roomC',
  'glassMl',
  'openS',
  'minutesPer6mm',
  'outerWPerM2K',
  'fillS',
  'fillSPerCavity',
  'setUpMin',
  'densityAGPerMl',
  'densityBGPerMl',
  'walkingMPerS',
  'packCount',
  'returnFraction',
]);

const files = ['core', 'contract', 'server', 'web'].flatMap((floor) =>
  readdirSync(floor, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$|testing|\.d\.ts$/.test(file))
    .map((file) => join(floor, file)),
);

/** The bare figure a field is given: `f: 5`, `f ?? 5`, `f: v.optional(…, 5)`. None is no figure. */
function bareFigure(node: ts.Node | undefined): boolean {
  if (!node) return false;
  if (ts.isNumericLiteral(node)) return Number(node.text) !== 0;
  if (ts.isBinaryExpression(node))
    return node.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken && bareFigure(node.right);
  if (ts.isCallExpression(node) && /optional/.test(node.expression.getText())) return bareFigure(node.arguments[1]);
  return false;
}

/** Second homes in one file, as file:line and what is wrong. */
export function secondHomes(path: string, text: string): string[] {
  const found: string[] = [];
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const say = (node: ts.Node, what: string) =>
    found.push(`${path}:${file.getLineAndCharacterOfPosition(node.getStart()).line + 1} ${what}; read it from ${HOME}`);
  const visit = (node: ts.Node): void => {
    if (ts.isNumericLiteral(node) && TELLING.has(Number(node.text))) say(node, `writes the default ${node.text}`);
    if (ts.isPropertyAssignment(node) && FIELDS.has(node.name.getText()) && bareFigure(node.initializer))
      say(node, `gives ${node.name.getText()} a figure of its own`);
    if (ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken) {
      const name = node.left.getText().split(/[.?]/).at(-1) ?? '';
      if (FIELDS.has(name) && ts.isNumericLiteral(node.right)) say(node, `gives ${name} a figure of its own`);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

export const allSecondHomes = () =>
  files
    .filter((path) => !FREE.some((free) => path.startsWith(free)))
    .flatMap((path) => secondHomes(path, readFileSync(path, 'utf8')));

export const filesRead = files.length;
