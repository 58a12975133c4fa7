import { saidOf } from '../../../core/process/evidence.ts';
import { TickTarget } from './ShotTicks.tsx';
import type { AtTheCup } from './useAtTheCup.ts';

/** What is said of the cup by taps: how salt went in, whether it was degassed. */
export function CupTicks({ at: { pour, folded, write, materials } }: { at: AtTheCup }) {
  const salt = pour.recipeItems.some(
    ({ materialId }) => materials.find((one) => one.id === materialId)?.kind === 'salt',
  );
  if (folded.doses.length === 0) return null;
  return (
    <div className="px-3.5 flex gap-2 flex-wrap">
      {salt && (
        <TickTarget
          what="salted"
          said={saidOf(folded.ticks, 'salted')?.said}
          onSay={(said) => write.said('salted', said)}
        />
      )}
      <TickTarget
        what="degassed"
        said={saidOf(folded.ticks, 'degassed')?.said}
        onSay={(said) => write.said('degassed', said)}
      />
    </div>
  );
}
