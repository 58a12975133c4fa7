import { usual } from '../../../core/defaults.ts';
import { tried } from '../../../core/failure.ts';
import { hold, holdSchema } from '../../../core/heat/microwave.ts';
import { durationText, percentText } from '../../../core/units/show.ts';
import { check } from '../../../core/validate.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useBenchRoom } from './benchRoom.ts';
import { massLeftG } from './massLeft.ts';
import type { AtTheCup } from './useAtTheCup.ts';

/** Between two shots: what keeps the cup as warm as it is, while molds are waited for. */
export function KeptWarm({ at }: { at: AtTheCup }) {
  const taste = useTaste();
  const oven = useBenchRoom().useOven();
  const { heat, next, lead } = at;
  if (!oven || heat?.state !== 'in' || next.do !== 'wait' || at.handsS === 0) return null;
  const found = tried(() =>
    hold(
      check(holdSchema, {
        massG: massLeftG(at),
        c: heat.nowC,
        ambientC: lead.evening.roomC ?? taste.workshop.roomC,
        tauS: heat.tauS,
        watts: oven.watts,
        efficiency: oven.efficiency,
        cpJPerGK: usual('plastisolCpJPerGK'),
      }),
    ),
  ).value;
  if (!found) return null;
  return (
    <p className="bench-text px-3.5" role="status">
      Kept at {taste.text(heat.nowC, 'temperature')} meanwhile: the oven at{' '}
      <b className="figure">{percentText(Math.round(found.level * 100) / 100)}</b>, or{' '}
      <b className="figure">{durationText(Math.max(1, Math.round(found.onS)))}</b> of each minute at full power. Stir
      before it is drawn.
    </p>
  );
}
