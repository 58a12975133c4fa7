import { useQuery } from '@tanstack/react-query';
import { TRIALS_NEEDED } from '../../../core/water/fitKick.ts';
import { ADDED_MASS, STROUHAL } from '../../../core/water/kick.ts';
import { queries } from '../../api/queries.ts';

/** The two loose constants of the kick model: this workshop's own, once there are trials enough. */
export function useKick() {
  const fit = useQuery(queries.kickFit).data?.fit ?? null;
  const own = fit && fit.n >= TRIALS_NEEDED ? fit : null;
  return {
    own,
    trials: fit?.n ?? 0,
    constants: {
      strouhal: own?.strouhal ?? STROUHAL,
      addedMassCoefficient: own?.addedMassCoefficient ?? ADDED_MASS,
    },
  };
}
