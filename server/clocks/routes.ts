import { addMinutes } from 'date-fns/addMinutes';
import type { Clock } from '../../contract/workshop.ts';
import { clockBody, clockPatch } from '../../contract/workshop.ts';
import { mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { refuseRunning, runningClocks, startClock } from './store.ts';

export const clockEndpoints = [
  endpoint({ method: 'GET', path: '/clocks', run: ({ db }) => ({ items: runningClocks(db), nextCursor: null }) }),
  endpoint({
    method: 'POST',
    path: '/clocks',
    body: clockBody,
    touches: ['clocks'],
    run: ({ db, body, now }) => {
      refuseRunning(db, 'own', body.label, now);
      const id = startClock(db, { kind: 'own', label: body.label, dueAt: addMinutes(now, body.minutes) }, now);
      return mustFind<Clock>(db, 'clock', id, 'clock');
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/clocks/:id',
    body: clockPatch,
    versioned: true,
    touches: ['clocks', 'today'],
    run: ({ db, body, params, version, now, at }) => {
      const id = params.id as string;
      const clock = mustFind<Clock>(db, 'clock', id, 'clock');
      const late = Math.max(now.getTime(), Date.parse(clock.dueAt));
      const change = 'ended' in body ? { endedAt: at } : { dueAt: addMinutes(late, body.addMinutes).toISOString() };
      update(db, 'clock', id, version, change, 'clock');
      return mustFind<Clock>(db, 'clock', id, 'clock');
    },
  }),
];
