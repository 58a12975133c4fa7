import * as v from 'valibot';
import { rowId } from '../../contract/fields.ts';
import { hoursBody, movedBody, offBody, type WithLine, withLines } from '../../contract/plan.ts';
import { Failure } from '../../core/failure.ts';
import { check } from '../../core/validate.ts';
import { endpoint } from '../http/endpoint.ts';
import { planAsked } from './asked.ts';
import { addOff, endRow, letGo, moveCup, setHours } from './store.ts';

/** @throws Failure `malformed-json`, `invalid-input`. */
function typedIn(text: string): WithLine[] {
  let lines: unknown;
  try {
    lines = JSON.parse(text);
  } catch {
    throw new Failure('malformed-json', 'The lines are no JSON.', 'with');
  }
  return check(withLines, lines);
}

export const planEndpoints = [
  endpoint({
    method: 'GET',
    path: '/plan',
    query: v.strictObject({ with: v.optional(v.pipe(v.string(), v.maxLength(20_000)), '[]') }),
    run: ({ db, query, now }) => planAsked(db, now, typedIn(query.with)),
  }),
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
      addOff(db, { id: body.id, day: body.day, makerId: body.makerId || null }, at);
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
