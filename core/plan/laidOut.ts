import { usual } from '../defaults.ts';
import { tried } from '../failure.ts';
import { type CookSchool, microwave } from '../heat/microwave.ts';
import { cupWindow, type Fill, type HeatLimit, type MoldKind } from '../heat/window.ts';
import { type Waits, waitOf } from '../process/waits.ts';
import type { Degassing } from '../process/ways.ts';
import { check } from '../validate.ts';
import { fillingS } from './hours.ts';
import { goes, type Join } from './layers.ts';
import { lightnessOf } from './lightToDark.ts';
import { type SessionPlan, sessionSchema } from './session.ts';

/** A cup of an evening as it was laid out, with what was done of it so far. */
export interface LaidOutCup {
  id: string;
  leadId: string | null;
  hex: string;
  massG: number;
  heats: { c: number }[];
  limits: HeatLimit[];
}

/** What a cup leads: its molds, and the layers that go into them out of which cups. */
export interface LaidOutLead {
  id: string;
  layers: { joins: Join | null }[];
  cups: { id: string; layers: number[] }[];
  molds: {
    moldId: string;
    kind: MoldKind;
    fill: Fill;
    cavities: number;
    /** How many are still to be drawn. */
    shots: number;
    opens: Waits;
    /** A shot is in it that nobody has looked at; it opens in so long, s. */
    fullForS?: number | undefined;
  }[];
}

/** What stands at the bench. */
export interface Bench {
  roomC: number;
  watts: number;
  efficiency: number;
  school: CookSchool;
  degassing: Degassing;
  injectors: number;
  platePlaces: number;
  keepWarm: boolean;
  /** Hands' time as it is learnt here, by mold, s. */
  hands?: Map<string, { fillS: number; openS: number }>;
}

/** Oven seconds that bring a cup from here to there; a step of its clock where it is all but there. */
export function burstsOf(
  massG: number,
  fromC: number,
  toC: number,
  { watts, efficiency, school }: Pick<Bench, 'watts' | 'efficiency' | 'school'>,
): number[] {
  if (fromC >= toC) return [5];
  const cpJPerGK = usual('plastisolCpJPerGK');
  const plan = tried(() => microwave({ massG, fromC, toC, watts, efficiency, cpJPerGK, school }));
  return plan.value?.bursts.map(({ seconds }) => seconds) ?? [5];
}

/**
 * What is still to be done of an evening as it was laid out, for `session.simulate`; null where nothing is.
 * Cups that nobody draws from any more are left out.
 */
export function laidOutSession(cups: LaidOutCup[], leads: LaidOutLead[], bench: Bench): SessionPlan | null {
  const cookC = usual('cookC');
  const hands = (moldId: string, cavities: number) =>
    bench.hands?.get(moldId) ?? { fillS: fillingS(cavities), openS: usual('openBetweenS') };
  const limitsOf = (ids: string[]) => cups.filter(({ id }) => ids.includes(id)).flatMap(({ limits }) => limits);
  const shots = leads.flatMap((lead) => {
    const all = goes(lead.layers);
    return lead.molds
      .filter((mold) => mold.shots > 0)
      .map((mold) => ({
        moldId: mold.moldId,
        count: mold.shots,
        goes: all.map((together, at) => {
          const cupIds = lead.cups
            .filter((cup) => cup.layers.some((layer) => together.includes(layer)))
            .map(({ id }) => id);
          const { lowC, highC } = cupWindow([mold], limitsOf(cupIds));
          const fillS = hands(mold.moldId, mold.cavities).fillS;
          const nextJoins = lead.layers[all[at + 1]?.[0] ?? -1]?.joins;
          return {
            cupIds,
            fillS,
            drawS: mold.fill === 'injection' ? Math.min(fillS, usual('drawS')) : fillS,
            lowC,
            // A flake that bears less than the mold needs does not stop the evening: it is said at the cup.
            highC: Math.max(lowC, highC),
            injected: mold.fill === 'injection',
            // A layer goes on one that is cold and firm; into a hot mold at once.
            waitS: nextJoins === 'melted' ? waitOf(mold.opens, 0) : 0,
          };
        }),
      }));
  });
  const drawn = new Set(shots.flatMap((row) => row.goes.flatMap(({ cupIds }) => cupIds)));
  if (shots.length === 0) return null;
  const molds = new Map(leads.flatMap((lead) => lead.molds.map((mold) => [mold.moldId, mold] as const)));
  return check(sessionSchema, {
    cups: cups
      .filter(({ id }) => drawn.has(id))
      .map(({ id, hex, massG, heats }) => {
        const lowC = Math.min(
          ...shots.flatMap((row) => row.goes.filter(({ cupIds }) => cupIds.includes(id)).map((go) => go.lowC)),
        );
        const reheatS = burstsOf(massG, Math.min(lowC, cookC - 1), cookC, bench).reduce((sum, s) => sum + s, 0);
        const cooked = heats.length > 0;
        const bursts = cooked ? [reheatS] : burstsOf(massG, bench.roomC, cookC, bench);
        const rests = bench.degassing === 'rest' && !cooked ? [usual('restS')] : [];
        return {
          id,
          bursts: [...bursts, ...rests],
          reheatS,
          cookedC: cookC,
          degasS: bench.degassing === 'vacuum' ? usual('degasS') : 0,
          lightness: lightnessOf(hex),
        };
      }),
    molds: [...molds.values()]
      .filter(({ moldId }) => shots.some((row) => row.moldId === moldId))
      .map(({ moldId, cavities, opens, fullForS }) => ({
        id: moldId,
        openS: hands(moldId, cavities).openS,
        demoldS: opens.waitS.slice(0, 200),
        ...(fullForS === undefined ? {} : { fullForS }),
      })),
    shots,
    injectors: Math.max(bench.injectors, ...shots.flatMap((row) => row.goes.map(({ cupIds }) => cupIds.length))),
    plates: bench.platePlaces,
    keepWarm: bench.keepWarm,
    inOrder: true,
    roomC: bench.roomC,
  });
}
