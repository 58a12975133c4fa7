import { addDays } from 'date-fns/addDays';
import { format } from 'date-fns/format';
import type { PlanAsked } from '../../contract/plan.ts';
import type { Workshop } from '../../contract/workshop.ts';
import { usual } from '../../core/defaults.ts';
import { cupWindow } from '../../core/heat/window.ts';
import { usableMl } from '../../core/plan/glasses.ts';
import { handsS } from '../../core/plan/hours.ts';
import { meltsOf, pushedAtOnce } from '../../core/plan/layers.ts';
import { ovenMinOf } from '../../core/plan/ovenTime.ts';
import { listBins, type takingRemelt } from '../bins/store.ts';
import type { Db } from '../db/open.ts';
import { type Held, heldOf } from '../materials/store.ts';
import { ovenOf } from '../pours/bursts.ts';
import type { openCups } from '../pours/parts.ts';
import { gramsByRecipe } from '../recipes/store.ts';
import { curing } from '../stock/lying.ts';
import type { Drawing } from './drawing.ts';

type Asked = PlanAsked['asked'];
type Colour = Asked['colours'][number];

/** Plastisol of all kinds together: which of them goes into a cup is said when it is laid out. */
const PLASTIC = 'plastic';

/** What is known of the workshop, asked once for all of it. */
export interface Beside {
  shop: Workshop;
  remelt: ReturnType<typeof takingRemelt>;
  /** Of each mold, a shot, s. */
  hands: Map<string, number>;
  open: ReturnType<typeof openCups>;
}

/** What a glass of each colour takes of oven, pump, injectors and store. */
export function colourMeans(
  db: Db,
  { colours, molds, layers, melts, drawnBy }: Drawing,
  { shop, remelt, hands, open }: Beside,
): { of: Map<string, Partial<Colour>>; taken: Map<string, number> } {
  const { roomC, glassMl, degassing, platePlaces, keepWarm } = shop;
  const bench = { roomC, platePlaces, keepWarm, ...ovenOf(db) };
  const most = usableMl(glassMl);
  const recipeIds = [...new Set([...[...melts.values()].flat(), ...open].map(({ recipeId }) => recipeId))];
  const recipes = gramsByRecipe(db, recipeIds);
  const takesOf = (colourId: string) => {
    const grams = new Map<string, number>();
    const add = (id: string, g: number) => grams.set(id, (grams.get(id) ?? 0) + g);
    for (const { recipeId, ratio } of melts.get(colourId) ?? []) {
      add(PLASTIC, ratio * usual('plastisolGPerMl'));
      for (const { materialId, gPerMl } of recipes.get(recipeId) ?? []) add(materialId, ratio * gPerMl);
    }
    return [...grams].map(([materialId, gPerMl]) => ({ materialId, gPerMl }));
  };
  const of = new Map(
    colours.map(({ id }): [string, Partial<Colour>] => {
      const mine = layers.get(id) ?? [];
      const cups = Math.max(1, meltsOf(mine).length);
      const ovenMin = Math.max(
        0,
        ...(drawnBy.get(id) ?? []).flatMap(({ moldId, ml }) => {
          const mold = molds.find((one) => one.id === moldId);
          if (!mold) return [];
          return ovenMinOf(
            {
              massG: most * usual('plastisolGPerMl'),
              lowC: cupWindow([mold], []).lowC,
              shots: Math.floor(most / ml),
              shotS: hands.get(moldId) ?? handsS(mold.cavities),
              cups,
            },
            bench,
          );
        }),
      );
      return [
        id,
        {
          pushed: pushedAtOnce(mine),
          ovenMin,
          pumpMin: degassing === 'vacuum' ? usual('degasS') / 60 : 0,
          takesRemelt: remelt.colourwayIds.has(id),
          takes: takesOf(id),
        },
      ];
    }),
  );
  return { of, taken: takenBy(open, recipes) };
}

/** What cups at the bench will have taken out of the store once they are closed, g by material. */
function takenBy(open: Beside['open'], recipes: ReturnType<typeof gramsByRecipe>): Map<string, number> {
  const grams = new Map<string, number>();
  const add = (id: string, g: number) => grams.set(id, (grams.get(id) ?? 0) + g);
  for (const { recipeId, ml, freshMl } of open) {
    add(PLASTIC, freshMl * usual('plastisolGPerMl'));
    for (const { materialId, gPerMl } of recipes.get(recipeId) ?? []) add(materialId, ml * gPerMl);
  }
  return grams;
}

/** What the store holds of what these colours take, as one material where it is plastic; and when more can be there. */
export function materialsFor(db: Db, now: Date, colours: Colour[], taken: Map<string, number>): PlanAsked['materials'] {
  const ids = [...new Set(colours.flatMap(({ takes = [] }) => takes.map(({ materialId }) => materialId)))];
  const held = heldOf(db, ids);
  const day = (leadDays: number | null) => format(addDays(now, leadDays ?? usual('leadDays')), 'yyyy-MM-dd');
  const told = ({ id, name, kind, g, leadDays, pricePerKgMinor }: Held): PlanAsked['materials'][number] => ({
    id,
    name,
    kind,
    g: Math.max(0, g - (taken.get(id) ?? 0)),
    leadDays,
    comesOn: day(leadDays),
    pricePerKgMinor,
  });
  const plastics = held.filter(({ kind }) => kind === 'plastisol');
  const most = (of: 'leadDays' | 'pricePerKgMinor') => {
    const said = plastics.flatMap((one) => (one[of] === null ? [] : [one[of] as number]));
    return said.length > 0 ? Math.max(...said) : null;
  };
  const plastic = plastics[0] && {
    ...plastics[0],
    id: PLASTIC,
    name: 'plastic',
    g: plastics.reduce((sum, { g }) => sum + g, 0),
    leadDays: most('leadDays'),
    pricePerKgMinor: most('pricePerKgMinor'),
  };
  return [...(plastic ? [plastic] : []), ...held.filter(({ kind }) => kind !== 'plastisol')].map(told);
}

/** What could be melted again in place of new plastic, by what this workshop did so far. */
export function remeltFor(db: Db, share: number): PlanAsked['remelt'] {
  const g = listBins(db).reduce((sum, { grams, awayAt }) => sum + (awayAt === null ? Math.max(0, grams) : 0), 0);
  return { materialId: PLASTIC, g, share };
}

/**
 * What each day has of oven, pump and boards: on these lies already what still cures then.
 * @param begun baits of the cups that stand at the bench: they lie there tonight.
 */
export function dayMeans(
  db: Db,
  now: Date,
  days: Asked['days'],
  begun: number,
  { boardBaits, degassing }: Workshop,
): Asked['days'] {
  const cures = boardBaits === null ? [] : curing(db, now.toISOString());
  return days.map((one, n) => ({
    ...one,
    ovenMin: one.lengthMin ?? one.handsMin,
    ...(degassing === 'vacuum' ? { pumpMin: one.lengthMin ?? one.handsMin } : {}),
    ...(boardBaits === null
      ? {}
      : {
          boardBaits: Math.max(
            0,
            boardBaits -
              (n === 0 ? begun : 0) -
              cures.reduce((sum, { baits, curedAt }) => sum + (curedOn(curedAt) > one.day ? baits : 0), 0),
          ),
        }),
  }));
}

const curedOn = (at: string) => format(new Date(at), 'yyyy-MM-dd');
