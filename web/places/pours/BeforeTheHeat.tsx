import { BEFORE_THE_HEAT, saidOf } from '../../../core/process/evidence.ts';
import { Guarded } from '../../parts/Guarded.tsx';
import type { AtTheCup } from './useAtTheCup.ts';

/** What has to be on before anything gets hot: said once an evening, and never asked again. */
export function BeforeTheHeat({ at: { folded, cup, write } }: { at: AtTheCup }) {
  if (saidOf(cup.ticks, 'dressed') || folded.heats.length > 0 || cup.shots.length > 0) return null;
  return (
    <section className="caution flex flex-col gap-2 p-3.5" aria-label="Before the heat">
      <h2>Before the heat</h2>
      <ul className="bench-text list-disc pl-5">
        {BEFORE_THE_HEAT.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <Guarded
        means="dressed"
        className="btn btn-line bench-target self-start"
        onAct={() => write.ofShot('dressed', 'yes')}
      >
        All of it is on
      </Guarded>
      <p className="soft text-sm">Said once an evening. The data sheet, local rules and trained advice win.</p>
    </section>
  );
}
