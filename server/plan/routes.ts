import * as v from 'valibot';
import { rowId } from '../../contract/fields.ts';
import { hoursBody, movedBody, offBody } from '../../contract/plan.ts';
import { insert } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { planAsked } from './asked.ts';
import { endRow, letGo, moveCup, setHours } from './store.ts';

export const planEndpoints = [
  endpoint({ method: 'GET', path: '/plan', run: ({ db, now }) => planAsked(db, now) }),
  endpoint({
    method: 'POST',
    path: '/plan/hours',
    body: hoursBody,
    touches: ['today'],
    run: ({ db, body, now }) => {
      setHours(db, body.makerId, body.hours);
      return planAsked(db, now);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/plan/off',
    body: offBody,
    touches: ['today'],
    run: ({ db, body, at, now }) => {
      insert(db, 'day_off', { day: body.day, makerId: body.makerId || null, id: body.id ?? newId(), createdAt: at });
      return planAsked(db, now);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/plan/off/:id/end',
    touches: ['today'],
    run: ({ db, params, at, now }) => {
      endRow(db, 'day_off', params.id as string, at);
      return planAsked(db, now);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/plan/moved',
    body: movedBody,
    touches: ['today'],
    run: ({ db, body, at, now }) => {
      moveCup(db, body, at);
      return planAsked(db, now);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/plan/let-go',
    body: v.strictObject({ colourwayId: rowId }),
    touches: ['today'],
    run: ({ db, body, at, now }) => {
      letGo(db, body.colourwayId, at);
      return planAsked(db, now);
    },
  }),
];
