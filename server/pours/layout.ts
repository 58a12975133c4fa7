import type * as v from 'valibot';
import type { BlendWish } from '../../contract/blend.ts';
import type { Layer, MoldLevels } from '../../contract/colourways.ts';
import type { MoldRow } from '../../contract/molds.ts';
import type { pourBody } from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import { type Drawn, type PourPlan, planCup } from '../../core/plan/cup.ts';
import { drawnOf, intoGlasses } from '../../core/plan/glasses.ts';
import { layersOfShot, meltsOf } from '../../core/plan/layers.ts';
import type { Waits } from '../../core/process/waits.ts';
import { latestLayers } from '../colourways/store.ts';
import type { Db } from '../db/open.ts';
import { first, insert, nextNumber } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addLedger } from '../ledgers/store.ts';
import { levelsOf } from '../molds/levels.ts';
import { usableMolds } from '../molds/store.ts';
import { itemsOf, latestRevision } from '../recipes/store.ts';
import { ownUnits, workshop } from '../workshop/store.ts';
import { keyOf, wantedOfMold } from './blends.ts';
import { eveningFor, orderByLight } from './evenings.ts';
import { writeParts } from './parts.ts';

/** What was found out before anything is written. */
export interface Beforehand {
  /** Waits by mold, in their order. */
  opens: (Waits | undefined)[];
  /** Blends by how hard a bait is to be. */
  blends: Map<string, BlendWish>;
}

type NewPour = v.InferOutput<typeof pourBody>;
type Chosen = Drawn & { mold: MoldRow & Partial<MoldLevels>; opens: Waits | undefined };

function chosenMolds(db: Db, body: NewPour, opens: (Waits | undefined)[], layers: Layer[]): Chosen[] {
  const usable = usableMolds(db).filter(({ id }) => body.molds.some(({ moldId }) => moldId === id));
  const levels = levelsOf(db, usable, layers);
  return body.molds.map(({ moldId, shots }, index) => {
    const mold = usable.find((row) => row.id === moldId);
    if (!mold) throw new Failure('invalid-input', 'That mold is not here, or it is retired.', `molds.${index}.moldId`);
    return { mold: { ...mold, ...levels.get(mold.id) }, shots, opens: opens[index] };
  });
}

type Wanted = NewPour['orderLines'][number] & { baitId: string };

/** The lines that these cups are for, each of a bait and in the colour that they make. */
function wantedLines(db: Db, body: NewPour, baitIds: Set<string>): Wanted[] {
  return body.orderLines.map((line, index) => {
    const row = first<{ colourwayId: string; baitId: string }>(
      db,
      'SELECT colourway_id, bait_id FROM order_line WHERE id = ?',
      [line.orderLineId],
    );
    if (!row) throw new Failure('invalid-input', 'That order line is not here.', `orderLines.${index}.orderLineId`);
    if (row.colourwayId !== body.colourwayId || !baitIds.has(row.baitId)) {
      throw new Failure(
        'invalid-input',
        'That order line wants another colour or bait than this cup makes.',
        `orderLines.${index}.orderLineId`,
      );
    }
    return { ...line, baitId: row.baitId };
  });
}

/** Deals what is wanted to the cups that make it: each as many as its shots give, the last of them the rest. */
function dealLines(lines: Wanted[], groups: Chosen[][]): Map<number, NewPour['orderLines']> {
  const dealt = new Map<number, NewPour['orderLines']>();
  const room = groups.map((group) => {
    const baits = new Map<string, number>();
    for (const { mold, shots } of group) baits.set(mold.baitId, (baits.get(mold.baitId) ?? 0) + shots * mold.cavities);
    return baits;
  });
  for (const { orderLineId, baitId, baits } of lines) {
    const makers = groups.flatMap((_, index) => (room[index]?.has(baitId) ? [index] : []));
    let left = baits;
    makers.forEach((index, at) => {
      const here = room[index] as Map<string, number>;
      const gives = at === makers.length - 1 ? left : Math.min(left, Math.max(0, here.get(baitId) ?? 0));
      if (gives <= 0) return;
      here.set(baitId, (here.get(baitId) ?? 0) - gives);
      left -= gives;
      dealt.set(index, [...(dealt.get(index) ?? []), { orderLineId, baits: gives }]);
    });
  }
  return dealt;
}

interface OneCup {
  recipeId: string;
  drawn: Chosen[];
  leadId: string | null;
  eveningId: string;
  place: number;
  revisionId: string;
  wanted: Layer['wanted'];
  blends: Map<string, BlendWish>;
  /** What each layer takes, by mold: kept with the cup that leads. */
  layered: Map<string, Pick<PourPlan['molds'][number], 'layersMl' | 'cavityLayersMl' | 'layersMm' | 'stands'>>;
}

function layOutCup(db: Db, body: NewPour, cup: OneCup, at: string): string {
  const { id: recipeRevisionId, basisMl } = latestRevision(db, cup.recipeId);
  const lines = itemsOf(db, recipeRevisionId);
  const planned = planCup({ drawn: cup.drawn, recipe: { basisMl, lines }, measures: ownUnits(db) });
  const plan = { ...planned, molds: planned.molds.map((mold) => ({ ...mold, ...cup.layered.get(mold.moldId) })) };
  const id = newId();
  const code = `P${nextNumber(db, 'pour')}`;
  insert(db, 'pour', {
    id,
    code,
    recipeId: cup.recipeId,
    recipeRevisionId,
    colourwayId: body.colourwayId,
    colourwayRevisionId: cup.revisionId,
    leadId: cup.leadId,
    eveningId: cup.eveningId,
    place: cup.place,
    ledgerId: addLedger(db, code, plan.cookMl, at, true),
    makerId: body.makerId,
    cookMl: plan.cookMl,
    plan,
    wantedScale: cup.wanted?.scale ?? null,
    wantedHardness: cup.wanted?.value ?? null,
    laidOutAt: at,
    createdAt: at,
  });
  writeParts(db, id, body.blend ?? (cup.wanted ? cup.blends.get(keyOf(cup.wanted)) : undefined));
  return id;
}

/**
 * Lays out what these shots need: as many cups as their glasses hold, for a bait of several melts a cup of each; the
 * first of such a set leads its molds and the lines it is for. Gathered here, computed in the core.
 * @returns the first cup.
 */
export function layOutPour(
  db: Db,
  body: NewPour,
  at: string,
  { opens, blends }: Beforehand = { opens: [], blends: new Map() },
): string {
  const { revisionId, layers } = latestLayers(db, body.colourwayId);
  const chosen = chosenMolds(db, body, opens, layers);
  const lines = wantedLines(db, body, new Set(chosen.map(({ mold }) => mold.baitId)));
  const ofBait = wantedOfMold(db, chosen[0]?.mold.id);
  const { ofEach, groups } = intoGlasses(chosen, layers, workshop(db).glassMl);
  const layered = new Map(
    chosen.map(({ mold }) => [
      mold.id,
      { ...layersOfShot(mold, layers), ...(mold.stands ? { stands: mold.stands } : {}) },
    ]),
  );
  const dealt = dealLines(lines, groups);
  const evening = eveningFor(db, at);
  let place = evening.next;
  let firstId: string | undefined;
  groups.forEach((group, index) => {
    let leadId: string | null = null;
    for (const melt of meltsOf(layers)) {
      const own = melt.layers.map((layer) => layers[layer]?.wanted).find((wanted) => wanted);
      for (let n = 0; n < ofEach; n++) {
        const id = layOutCup(
          db,
          body,
          {
            recipeId: melt.recipeId,
            drawn: drawnOf(group, layers, melt.layers, ofEach),
            leadId,
            eveningId: evening.id,
            place,
            revisionId,
            layered,
            blends,
            wanted: body.wanted ?? own ?? ofBait,
          },
          at,
        );
        place += 1;
        leadId ??= id;
      }
    }
    firstId ??= leadId as string;
    group.forEach(({ mold, shots }, position) => {
      insert(db, 'pour_mold', { pourId: leadId, moldId: mold.id, position, shots });
    });
    for (const line of dealt.get(index) ?? []) insert(db, 'pour_order_line', { pourId: leadId, ...line });
  });
  orderByLight(db, evening.id);
  return firstId as string;
}
