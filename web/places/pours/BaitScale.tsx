import type { PourMold, Shot } from '../../../contract/pours.ts';
import { percentText } from '../../../core/units/show.ts';
import { useAim } from '../../api/instruments.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { Guarded } from '../../parts/Guarded.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { AtHand } from './useAtHand.ts';

/** Demolded baits laid on the scale one by one: each is weighed, and one too light for its cavity is pointed out. */
export function BaitScale({ shot, mold, hand, pourId }: { shot: Shot; mold: PourMold; hand: AtHand; pourId: string }) {
  const taste = useTaste();
  const { scale } = hand;
  const aim = useAim();
  if (!scale) return null;
  const on = scale.shotId === shot.id;
  const weighed = new Set(shot.weighed.map(({ cavity }) => cavity));
  const next = Array.from({ length: mold.cavities }, (_, i) => i + 1).find((cavity) => !weighed.has(cavity));
  const step = hand.baits.find((one) => one.shotId === shot.id);
  const light = shot.weighed.filter(({ missing }) => missing !== null);
  return (
    <>
      <button
        type="button"
        className="btn btn-line bench-target"
        aria-pressed={on}
        disabled={aim.isPending}
        onClick={() => aim.mutate({ id: scale.id, pourId, shotId: on ? null : shot.id })}
      >
        {on ? 'Scale back to the cup' : 'Weigh each bait'}
      </button>
      {on && step && next !== undefined && (
        <Guarded
          means={`bait ${step.id} ${next}`}
          className="btn btn-accent bench-target"
          onAct={() => hand.weighedBait(step, shot.id, next)}
        >
          {taste.text(step.deltaG, 'mass')}: cavity {next}
        </Guarded>
      )}
      {shot.weighed.length > 0 && (
        <span className="bench-text soft self-center">
          <span className="figure">{shot.weighed.length}</span> of {mold.cavities} weighed
        </span>
      )}
      <Refusal error={aim.error} />
      {light.map(({ cavity, grams, usualG, of, missing }) => (
        <p key={cavity} className="bench-text warn font-bold w-full" role="status">
          Cavity {cavity}: {taste.text(grams, 'mass')} is {percentText(missing as number)} light of{' '}
          {taste.text(usualG, 'mass')}
          {of === 0 && <span className="default-mark"> by its volume</span>}: a hollow or a bubble inside.
        </p>
      ))}
    </>
  );
}
