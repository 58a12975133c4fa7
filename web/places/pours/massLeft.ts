import { leftG } from '../../../core/plastisol/cup.ts';
import type { AtTheCup } from './useAtTheCup.ts';

/** What is left in the cup in hand, g: what its own record says, less what is on its way. */
export function massLeftG({ pour, lead, cup }: Pick<AtTheCup, 'pour' | 'lead' | 'cup'>): number {
  // Taps on their way count as whole shots of this cup: rather too little is cooked again than too much.
  const onTheirWay = cup.shots.filter(({ id }) => !lead.shots.some((shot) => shot.id === id));
  const shotMl = ({ moldId }: { moldId: string }) =>
    lead.plan.molds.find((mold) => mold.moldId === moldId)?.shotMl ?? 0;
  const drawnMl = pour.drawnMl + onTheirWay.reduce((sum, shot) => sum + shotMl(shot), 0);
  return leftG({ massG: pour.plan.cookG + pour.dosed.g, cookMl: pour.cookMl }, drawnMl);
}
