import type { Blend } from '../../../contract/blend.ts';
import { useTaste } from '../../parts/taste.tsx';

const percent = (share: number) => `${Math.max(1, Math.round(100 * share))} %`;

/** On what a foretold hardness rests. */
function grounds(n: number, leftOut: number): string {
  if (n === 0) return 'by the labels alone: no reading speaks of them yet';
  return `by ${n} of your own readings${leftOut > 0 ? `, ${leftOut} of other cups left out` : ''}`;
}

/** What the parts of a cup are together: how hard, how tired, and what nobody knows of it. */
export function BlendSaid({
  blend: { heats, hardness, remeltFraction, unknownFraction, saltUnknownFraction },
  wanted,
  leftOut = 0,
  costMinor = null,
}: {
  blend: Blend;
  wanted: { value: number } | null;
  leftOut?: number;
  costMinor?: number | null;
}) {
  const { money, workshop } = useTaste();
  return (
    <p className="mt-1">
      {hardness ? (
        <>
          Shore {hardness.scale}{' '}
          <b className="figure text-xl">
            {hardness.value.toFixed(1)} ± {hardness.sd.toFixed(1)}
          </b>
          {wanted && `, wanted ${wanted.value}`} <span className="soft">{grounds(hardness.n, leftOut)}</span>
        </>
      ) : (
        <span className="soft">How hard it will be is not known.</span>
      )}
      {costMinor !== null && <span className="soft"> · {money(costMinor)}</span>}
      {remeltFraction > 0 && (
        <>
          {' '}
          {percent(remeltFraction)} remelt; cooked <b className="figure">{heats}</b> {heats === 1 ? 'time' : 'times'}{' '}
          once this cup is.
        </>
      )}
      {heats > workshop.remeltHeats && (
        <b className="warn"> More than {workshop.remeltHeats} heats: it yellows and hardens.</b>
      )}
      {unknownFraction > 0 && (
        <b className="warn"> Of {percent(unknownFraction)} nobody knows how often it was cooked.</b>
      )}
      {saltUnknownFraction > 0 && (
        <b className="warn">
          {' '}
          How much salt is in it is not known{wanted ? ', so it cannot promise its hardness' : ''}: say so to whoever
          ordered it.
        </b>
      )}
    </p>
  );
}
