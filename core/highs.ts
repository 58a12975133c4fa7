import type { Highs } from 'highs';

let solver: Promise<Highs> | undefined;

// Loaded on first use: the solver is 3.5 MB of WebAssembly that most of the registry never needs.
export function loadSolver(): Promise<Highs> {
  solver ??= import('highs').then((module) => module.default());
  return solver;
}

export type Terms = [coefficient: number, variable: string][];

export const expression = (terms: Terms) =>
  terms.map(([k, name]) => `${k < 0 ? '-' : '+'} ${Math.abs(k)} ${name}`).join(' ');

export interface Program {
  /** The least of it is looked for. */
  objective: Terms;
  rows: string[];
  bounds: string[];
  /** Variables that are whole numbers. */
  whole?: string[];
}

/** The least of a linear program, mixed with whole numbers where some are; undefined where none is allowed. */
export function solve(highs: Highs, { objective, rows, bounds, whole = [] }: Program): Map<string, number> | undefined {
  const text = [
    'Minimize',
    ` obj: ${expression(objective)}`,
    'Subject To',
    ...rows,
    'Bounds',
    ...bounds,
    ...(whole.length > 0 ? ['General', ` ${whole.join(' ')}`] : []),
    'End',
  ].join('\n');
  const result = highs.solve(text, { primal_feasibility_tolerance: 1e-9, dual_feasibility_tolerance: 1e-9 });
  if (result.Status === 'Infeasible') return undefined;
  if (result.Status !== 'Optimal') throw new Error(`The solver ended with status ${result.Status}.`);
  return new Map(
    Object.entries(result.Columns).map(([name, column]) => [name, 'Primal' in column ? column.Primal : 0]),
  );
}
