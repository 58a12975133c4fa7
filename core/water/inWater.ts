import { usual } from '../defaults.ts';
import { ML_PER_CUP } from '../units/convert.ts';
import { sink } from './sink.ts';
import { trim } from './trim.ts';

/** What is set into a bait or hangs on it. */
export interface Held {
  massG: number;
  volumeMl: number;
  /** From the nose, the middle and the belly's level, as in `trim`. */
  atMm: [number, number, number];
  /** Set into the plastic, which it takes the room of; otherwise beside it, as a hook's bend. */
  inside: boolean;
}

export interface Bait {
  /** Of its outside: plastic and what is set into it. */
  wholeMl: number;
  plasticGPerMl: number;
  held: Held[];
  /** Middle of its outside; null: not known, so nothing is said of how it hangs. */
  centroidMm: [number, number, number] | null;
  planAreaMm2: number;
  waterGPerMl: number;
}

/** A bait never holds less plastic than this, however much is set into it, mL. */
const LEAST_PLASTIC_ML = 0.01;

/** g/mL of plastisol with so much salt to a US cup of it. Source: volumes add, as in `salt`. */
export function saltedGPerMl(saltGPerCup: number): number {
  const plastic = usual('plastisolGPerMl');
  const share = saltGPerCup / (saltGPerCup + ML_PER_CUP * plastic);
  return 1 / ((1 - share) / plastic + share / usual('saltGPerMl'));
}

/**
 * A bait in the water: what it weighs, how fast it sinks lying flat, how it hangs at rest.
 * @returns plastic in mL and the whole in g; `sinks` as in `sink`; `hangs` as in `trim`, null without a known middle;
 * `asked` is what `salt` needs to be asked for another sink rate of the same bait.
 * Source: Archimedes; each part has its own density, and what is set in takes the plastic's room.
 */
export function inWater({ wholeMl, plasticGPerMl, held, centroidMm, planAreaMm2, waterGPerMl }: Bait) {
  const sum = (parts: Held[], of: 'massG' | 'volumeMl') => parts.reduce((total, part) => total + part[of], 0);
  const inside = held.filter((part) => part.inside);
  const plasticMl = Math.max(LEAST_PLASTIC_ML, wholeMl - sum(inside, 'volumeMl'));
  const extraMassG = sum(held, 'massG');
  const asked = {
    volumeMl: plasticMl,
    extraMassG,
    extraVolumeMl: sum(held, 'volumeMl'),
    planAreaMm2,
    waterDensityGPerMl: waterGPerMl,
    cd: usual('acrossCd'),
  };
  const hangs = centroidMm
    ? trim({
        volumeMl: wholeMl,
        massG: wholeMl * plasticGPerMl,
        centroidMm,
        extras: held.filter((part) => part.massG > 0),
      })
    : null;
  return {
    plasticMl,
    massG: plasticMl * plasticGPerMl + extraMassG,
    sinks: sink({ ...asked, massG: plasticMl * plasticGPerMl }),
    hangs,
    asked,
  };
}
