import { addMinutes } from 'date-fns/addMinutes';
import type { Clock } from '../../contract/workshop.ts';
import { clockBody, clockTap } from '../../contract/workshop.ts';
import { Failure } from '../../core/failure.ts';
import { mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { refuseRunning, runningClocks, startClock } from './store.ts';

/** Counted from when it was tapped where it is long due. @throws Failure `already-closed` when somebody saw to it meanwhile. */
function putOff({ label, dueAt, endedAt }: Clock, { addMinutes: minutes }: { addMinutes: number }, now: Date) {
  if (endedAt !== null)
    throw new Failure('already-closed', `“${label}” was seen to meanwhile; start a clock of its own if it goes on.`);
  return { dueAt: addMinutes(Math.max(now.getTime(), Date.parse(dueAt)), minutes).toISOString() };
}

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
    method: 'POST',
    path: '/clocks/:id/taps',
    body: clockTap,
    touches: ['clocks', 'today'],
    run: ({ db, body, params, now, at }) => {
      const clock = mustFind<Clock>(db, 'clock', params.id as string, 'clock');
      // On two tablets it is seen to once, and the second says nothing new.
      if (clock.endedAt === null || !('ended' in body))
        update(
          db,
          'clock',
          clock.id,
          clock.version,
          'ended' in body ? { endedAt: at } : putOff(clock, body, now),
          'clock',
        );
      return mustFind<Clock>(db, 'clock', clock.id, 'clock');
    },
  }),
];
