import { useTaste } from '../../parts/taste.tsx';
import { shown } from './Answer.tsx';

/** The figure of an answer that a maker asks for first. */
export const HEADLINE: Record<string, string> = {
  'units.convert': 'value',
  'clay.bake': 'minutes',
  'silicone.plan': 'totalMixMl',
  'silicone.topUp': 'mixMl',
  'batch.size': 'cookMl',
  'batch.fromCup': 'shots',
  'hardness.modulus': 'mpa',
  'hardness.blend': 'hardness',
  'yield.shots': 'shots',
  'yield.balance': 'yieldFraction',
  'yield.chart': 'pBar',
  'yield.compare': 'p',
  'dip.plan': 'dips',
  'mesh.measure': 'volumeMl',
  'mesh.thickness': 'thickestMm',
  'mesh.toolReach': 'greatestMm',
  'bait.kick': 'onsetMPerS',
  'bait.sink': 'mmPerS',
  'bait.salt': 'gramsPerCup',
  'bait.hook': 'pointOverBackMm',
  'mold.cavities': 'enoughCavities',
  'yield.survival': 'p',
  'heat.demold': 'seconds',
  'heat.window': 'highC',
};

/** What a bare number of an answer counts. */
const COUNTED: Record<string, string> = {
  shots: 'shots',
  dips: 'dips',
  mpa: 'MPa',
  hardness: 'Shore',
  p: 'chance of mere luck',
  onsetMPerS: 'm/s',
  mmPerS: 'mm/s',
  gramsPerCup: 'g to a cup',
  enoughCavities: 'cavities',
};

export function Headline({ name, output }: { name: string; output: Record<string, unknown> }) {
  const taste = useTaste();
  const key = HEADLINE[name];
  if (!key || output[key] === undefined) return null;
  return (
    <b className="figure text-[var(--rest)]">
      {shown(key, output[key], taste)} {COUNTED[key] ?? ''}
    </b>
  );
}
