import * as v from 'valibot';
import { weighInBody } from '../../contract/blend.ts';
import { shore } from '../../contract/fields.ts';
import {
  closeBody,
  eveningPatch,
  hardnessBody,
  heatBody,
  laidOutPatch,
  marksBody,
  morePartsBody,
  pourBody,
  pourQuery,
  redoBody,
  regradeBody,
  shotBody,
  weighBody,
} from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import { clockStep } from '../clocks/store.ts';
import { insert } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { blendsIn } from './blends.ts';
import { closePour, weighAgain } from './close.ts';
import { changeEvening } from './evenings.ts';
import { type Beforehand, layOutPour } from './layout.ts';
import { linkedCups } from './linked.ts';
import { weighIn } from './parts.ts';
import { plastics } from './plastics.ts';
import { getPour, listPours } from './read.ts';
import { regrade } from './regrade.ts';
import { addMarks, addParts, addRedo, addShot } from './shots.ts';
import { waitsIn } from './waits.ts';
import { addHeat, chooseBlend, discard, openPour } from './write.ts';

/** What a tap at the bench changes: the cup, and what Today tells of it; how many pours there are it does not. */
const tapped = ['pours', 'clocks', 'today'];
const bench = [...tapped, 'line'];

export const pourEndpoints = [
  endpoint({ method: 'GET', path: '/pours', query: pourQuery, run: ({ db, query }) => listPours(db, query) }),
  endpoint({ method: 'GET', path: '/pours/:id', run: ({ db, params }) => getPour(db, params.id as string) }),
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
    path: '/plastics',
    query: v.strictObject({ scale: v.optional(shore, '00') }),
    run: ({ db, query }) => plastics(db, query.scale),
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/weighed',
    body: weighInBody,
    touches: ['pours'],
    run: ({ db, body, params, at }) => {
      const { id } = openPour(db, params.id as string);
      weighIn(db, id, body, at);
      return getPour(db, id);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/heats',
    body: heatBody,
    touches: ['pours', 'today'],
    run: ({ db, body, params, at }) => {
      addHeat(db, openPour(db, params.id as string), body, at);
      return getPour(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/shots',
    body: shotBody,
    touches: tapped,
    run: ({ db, body, params, now }) => {
      addShot(db, openPour(db, params.id as string), body, now);
      return getPour(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/shots/:shotId/parts',
    body: morePartsBody,
    touches: tapped,
    run: ({ db, body, params, now }) => {
      addParts(db, openPour(db, params.id as string), params.shotId as string, body.parts, now);
      return getPour(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/shots/:shotId/redone',
    body: redoBody,
    touches: tapped,
    run: ({ db, body, params, now }) => {
      addRedo(db, openPour(db, params.id as string), params.shotId as string, body, now);
      return getPour(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/shots/:shotId/marks',
    body: marksBody,
    touches: [...tapped, 'molds'],
    run: ({ db, body, params, now }) => {
      addMarks(db, openPour(db, params.id as string), params.shotId as string, body.marks, now);
      return getPour(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/close',
    body: closeBody,
    touches: [...bench, 'rack', 'orders', 'recipes', 'molds', 'materials', 'insight', 'bins'],
    run: ({ db, body, params, now }) => {
      closePour(db, params.id as string, body, now);
      return getPour(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/weigh',
    body: weighBody,
    touches: ['pours', 'rack', 'recipes', 'materials', 'today', 'insight', 'bins'],
    run: ({ db, body, params, at }) => {
      weighAgain(db, params.id as string, body, at);
      return getPour(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/pours/:id/regraded',
    body: regradeBody,
    touches: ['pours', 'rack', 'orders', 'today', 'line', 'molds', 'recipes', 'colourways', 'insight'],
    run: ({ db, body, params, at }) => {
      regrade(db, params.id as string, body, at);
      return getPour(db, params.id as string);
    },
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
  endpoint({
    method: 'POST',
    path: '/pours/:id/hardness',
    body: hardnessBody,
    touches: [...tapped, 'recipes', 'insight'],
    run: ({ db, body, params, now, at }) => {
      const id = params.id as string;
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
        early,
        at,
      });
      if (!early) clockStep(db, 'hardnessRead', { type: 'pour', id }, now);
      return getPour(db, id);
    },
  }),
];
