import * as v from 'valibot';
import { weighInBody } from '../../contract/blend.ts';
import { rowId, shore } from '../../contract/fields.ts';
import { baitWeighingBody } from '../../contract/instruments.ts';
import {
  closeBody,
  eveningPatch,
  hardnessBody,
  laidOutPatch,
  pourBody,
  pourQuery,
  regradeBody,
  weighBody,
} from '../../contract/pours.ts';
import {
  burstBody,
  heatBody,
  marksBody,
  morePartsBody,
  redoBody,
  shotBody,
  stirBody,
  tickBody,
} from '../../contract/taps.ts';
import { Failure } from '../../core/failure.ts';
import { clockStep } from '../clocks/store.ts';
import { insert } from '../db/rows.ts';
import { type Context, endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { blendsIn } from './blends.ts';
import { addBurst, ovenOf } from './bursts.ts';
import { closePour, weighAgain } from './close.ts';
import { changeEvening } from './evenings.ts';
import { firmingOf } from './firming.ts';
import { handsOf } from './hands.ts';
import { type Beforehand, layOutPour } from './layout.ts';
import { linkedCups } from './linked.ts';
import { weighIn } from './parts.ts';
import { plastics } from './plastics.ts';
import { getPour, listPours } from './read.ts';
import { regrade } from './regrade.ts';
import { addMarks, addParts, addRedo, addShot, addWeighing } from './shots.ts';
import { addStir, stirs } from './stirs.ts';
import { addTick } from './ticks.ts';
import { waitingFor } from './waiting.ts';
import { waitsIn } from './waits.ts';
import { addHeat, chooseBlend, discard, openPour } from './write.ts';

/** What a tap at the bench changes: the cup, and what Today tells of it; how many pours there are it does not. */
const tapped = ['pours', 'clocks', 'today'];
const bench = [...tapped, 'line'];

/** What is done to one cup; the answer is the cup as it stands after it. */
const onCup = <B extends v.GenericSchema>(
  path: string,
  body: B,
  touches: string[],
  act: (context: Context<v.InferOutput<B>>, id: string) => void,
) =>
  endpoint({
    method: 'POST',
    path: `/pours/:id/${path}`,
    body,
    touches,
    run: (context) => {
      const id = context.params.id as string;
      act(context as Context<v.InferOutput<B>>, id);
      return getPour(context.db, id);
    },
  });

export const pourEndpoints = [
  endpoint({ method: 'GET', path: '/pours', query: pourQuery, run: ({ db, query }) => listPours(db, query) }),
  endpoint({ method: 'GET', path: '/pours/:id', run: ({ db, params }) => getPour(db, params.id as string) }),
  endpoint({
    method: 'GET',
    path: '/pours/:id/waiting',
    run: ({ db, params, at }) => waitingFor(db, params.id as string, at),
  }),
  endpoint({
    method: 'GET',
    path: '/pours/:id/linked',
    run: ({ db, params }) => ({
      items: linkedCups(db, getPour(db, params.id as string).id).map(({ id, code }) => ({ id, code })),
      nextCursor: null,
    }),
  }),
  endpoint({
    method: 'POST',
    path: '/pours',
    body: pourBody,
    touches: [...bench, 'orders', 'recipes', 'molds'],
    prepare: async (body, { db, jobs, signal }): Promise<Beforehand> => ({
      opens: await waitsIn(db, jobs, body, signal),
      blends: await blendsIn(db, jobs, body, signal),
    }),
    run: ({ db, body, at, prepared }) => getPour(db, layOutPour(db, body, at, prepared as Beforehand)),
  }),
  endpoint({
    method: 'PATCH',
    path: '/pours/:id',
    body: laidOutPatch,
    versioned: true,
    touches: [...bench, 'orders'],
    run: ({ db, body, params, version, at }) => {
      const id = params.id as string;
      if ('discarded' in body) discard(db, id, version, body.discarded, at);
      else chooseBlend(db, id, version, body.blend);
      return getPour(db, id);
    },
  }),
  endpoint({
    method: 'GET',
    path: '/hands',
    query: v.strictObject({ makerId: v.optional(rowId) }),
    run: ({ db, query }) => ({ items: handsOf(db, query.makerId ?? null), nextCursor: null }),
  }),
  endpoint({ method: 'GET', path: '/firming', run: ({ db }) => firmingOf(db) }),
  endpoint({ method: 'GET', path: '/oven', run: ({ db }) => ovenOf(db) }),
  endpoint({
    method: 'GET',
    path: '/plastics',
    query: v.strictObject({ scale: v.optional(shore, '00') }),
    run: ({ db, query }) => plastics(db, query.scale),
  }),
  onCup('weighed', weighInBody, ['pours'], ({ db, body, at }, id) => weighIn(db, openPour(db, id).id, body, at)),
  onCup('heats', heatBody, tapped, ({ db, body, at, now }, id) => {
    addHeat(db, openPour(db, id), body, at);
    clockStep(db, 'burstOver', { type: 'pour', id }, now);
    // It is read after a stir.
    stirs(db, id, now);
  }),
  onCup('bursts', burstBody, tapped, ({ db, body, now }, id) => addBurst(db, openPour(db, id), body, now)),
  onCup('ticks', tickBody, ['pours'], ({ db, body, at }, id) => addTick(db, openPour(db, id), body, at)),
  onCup('stirs', stirBody, tapped, ({ db, body, now }, id) => addStir(db, openPour(db, id).id, body, now)),
  onCup('shots', shotBody, tapped, ({ db, body, now }, id) => addShot(db, openPour(db, id), body, now)),
  onCup('shots/:shotId/parts', morePartsBody, tapped, ({ db, body, params, now }, id) =>
    addParts(db, openPour(db, id), params.shotId as string, body.parts, now),
  ),
  onCup('shots/:shotId/redone', redoBody, tapped, ({ db, body, params, now }, id) =>
    addRedo(db, openPour(db, id), params.shotId as string, body, now),
  ),
  onCup('shots/:shotId/weighed', baitWeighingBody, tapped, ({ db, body, params, at }, id) =>
    addWeighing(db, openPour(db, id), params.shotId as string, body, at),
  ),
  onCup('shots/:shotId/marks', marksBody, [...tapped, 'molds'], ({ db, body, params, now }, id) =>
    addMarks(db, openPour(db, id), params.shotId as string, body.marks, now),
  ),
  onCup(
    'close',
    closeBody,
    [...bench, 'rack', 'orders', 'recipes', 'molds', 'materials', 'insight', 'bins'],
    ({ db, body, now }, id) => closePour(db, id, body, now),
  ),
  onCup(
    'weigh',
    weighBody,
    ['pours', 'rack', 'recipes', 'materials', 'today', 'insight', 'bins'],
    ({ db, body, at }, id) => weighAgain(db, id, body, at),
  ),
  onCup(
    'regraded',
    regradeBody,
    ['pours', 'rack', 'orders', 'today', 'line', 'molds', 'recipes', 'colourways', 'insight'],
    ({ db, body, at }, id) => regrade(db, id, body, at),
  ),
  onCup('hardness', hardnessBody, [...tapped, 'recipes', 'insight'], ({ db, body, now, at }, id) => {
    const pour = getPour(db, id);
    if (!pour.curedAt)
      throw new Failure('invalid-input', 'Nothing was poured from this cup, so there is nothing to read.');
    // Recorded even when early, since it was seen; it does not count, and the clock goes on.
    const early = now.toISOString() < pour.curedAt;
    insert(db, 'hardness_reading', {
      id: newId(body.id),
      pourId: id,
      scale: body.scale,
      value: body.value,
      c: body.c,
      early,
      at,
    });
    if (!early) clockStep(db, 'hardnessRead', { type: 'pour', id }, now);
  }),
  endpoint({
    method: 'PATCH',
    path: '/evenings/:id',
    body: eveningPatch,
    versioned: true,
    touches: ['pours', 'today'],
    run: ({ db, body, params, version }) => {
      const id = params.id as string;
      changeEvening(db, id, version, body);
      return { id };
    },
  }),
];
