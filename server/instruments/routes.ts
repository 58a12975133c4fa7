import express from 'express';
import type * as v from 'valibot';
import {
  aimBody,
  type Instrument,
  instrumentBody,
  instrumentPatch,
  lineBody,
  standInBody,
} from '../../contract/instruments.ts';
import { check } from '../../core/validate.ts';
import { insert, mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import type { InstrumentDesk } from './desk.ts';
import { instruments } from './store.ts';

/** Which instruments there are, and what each is at. */
export const instrumentEndpoints = [
  endpoint({ method: 'GET', path: '/instruments', run: ({ db }) => ({ items: instruments(db), nextCursor: null }) }),
  endpoint({
    method: 'POST',
    path: '/instruments',
    body: instrumentBody,
    touches: ['instruments'],
    run: ({ db, body, at }) => {
      const id = newId();
      insert(db, 'instrument', { id, ...body, createdAt: at });
      return mustFind<Instrument>(db, 'instrument', id, 'instrument');
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/instruments/:id',
    body: instrumentPatch,
    versioned: true,
    touches: ['instruments'],
    run: ({ db, body, params, version, at }) => {
      const id = params.id as string;
      const change = 'away' in body ? { awayAt: body.away ? at : null } : body;
      update(db, 'instrument', id, version, change, 'instrument');
      return mustFind<Instrument>(db, 'instrument', id, 'instrument');
    },
  }),
  endpoint({
    method: 'POST',
    path: '/instruments/:id/aim',
    body: aimBody,
    touches: ['instruments'],
    run: ({ db, body, params }) => {
      const id = params.id as string;
      const { version } = mustFind<Instrument>(db, 'instrument', id, 'instrument');
      if (body.pourId) mustFind(db, 'pour', body.pourId, 'pour');
      if (body.shotId) mustFind(db, 'shot', body.shotId, 'shot');
      if (body.orderId) mustFind(db, 'customer_order', body.orderId, 'order');
      update(db, 'instrument', id, version, body, 'instrument');
      return mustFind<Instrument>(db, 'instrument', id, 'instrument');
    },
  }),
];

/** What instruments say, line by line; kept in memory, since what counts is what is tapped. */
export function instrumentRouter(desk: InstrumentDesk): express.Router {
  const router = express.Router();
  const on = <S extends v.GenericSchema>(
    path: string,
    schema: S,
    act: (id: string, body: v.InferOutput<S>) => unknown,
  ) =>
    router.post(`/instruments/:id/${path}`, (request, response) => {
      response.status(201).json(act(request.params.id as string, check(schema, request.body)));
    });
  router.get('/instruments/now', (_request, response) => {
    response.json({ items: desk.all(), nextCursor: null });
  });
  on('lines', lineBody, (id, line) => desk.hear(id, line));
  on('stand-in', standInBody, (id, body) => desk.standIn(id, body));
  router.delete('/instruments/:id/steps/:stepId', (request, response) => {
    response.json(desk.notAStep(request.params.id as string, request.params.stepId as string));
  });
  return router;
}
