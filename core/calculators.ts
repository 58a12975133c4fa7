import { Failure } from './failure.ts';
import { colourCalculators } from './registry/colours.ts';
import { costCalculators } from './registry/costs.ts';
import type { Calculator } from './registry/define.ts';
import { heatCalculators } from './registry/heat.ts';
import { moldCalculators } from './registry/molds.ts';
import { planCalculators } from './registry/plans.ts';
import { plasticCalculators } from './registry/plastic.ts';
import { shapeCalculators } from './registry/shapes.ts';
import { waterCalculators } from './registry/water.ts';
import { yieldCalculators } from './registry/yields.ts';
import type { Beside } from './shape/calculators.ts';

export type { Calculator };

/** Every calculator, in the order of the work. */
export const calculators: Calculator[] = [
  ...shapeCalculators,
  ...waterCalculators,
  ...moldCalculators,
  ...heatCalculators,
  ...plasticCalculators,
  ...colourCalculators,
  ...yieldCalculators,
  ...planCalculators,
  ...costCalculators,
];

const byName = new Map(calculators.map((calculator) => [calculator.name, calculator]));

/** @throws Failure `unknown-calculator`. */
export function mustFindCalculator(name: string): Calculator {
  const calculator = byName.get(name);
  if (!calculator) throw new Failure('unknown-calculator', `There is no calculator "${name}".`);
  return calculator;
}

/** Whether every number in a result is finite. */
function allFinite(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (value === null || typeof value !== 'object') return true;
  return Object.values(value).every(allFinite);
}

/**
 * Runs a calculator by name on unchecked input.
 * @throws Failure `unknown-calculator`, `invalid-input`, `too-large` or the calculator's own.
 */
export async function calculate(name: string, input: unknown, beside?: Beside): Promise<unknown> {
  const output = await mustFindCalculator(name).run(input, beside);
  if (!allFinite(output)) throw new Failure('too-large', 'These numbers are too large to work with; check the units.');
  return output;
}
