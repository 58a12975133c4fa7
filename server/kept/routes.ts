import { listQuery } from '../../contract/fields.ts';
import { type Kept, keptBody, keptPatch } from '../../contract/workshop.ts';
import { insert, mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';

const LISTING = {
  select: 'SELECT /*sort*/ kept_result.* FROM kept_result',
  sorts: { created: 'created_at', title: 'title' },
  order: '-created',
  search: "(title || ' ' || calculator) LIKE @q",
  idColumn: 'kept_result.id',
};

export const keptEndpoints = [
  endpoint({ method: 'GET', path: '/kept', query: listQuery, run: ({ db, query }) => page<Kept>(db, LISTING, query) }),
  endpoint({
    method: 'POST',
    path: '/kept',
    body: keptBody,
    touches: ['kept'],
    // Worked out again here: what is kept is what the calculator says, not what a browser claims it said.
    prepare: (body, { jobs, signal }) => jobs.calculate(body.calculator, body.input, { signal }),
    run: ({ db, body, at, prepared }) => {
      const id = newId();
      insert(db, 'kept_result', { id, ...body, output: prepared, createdAt: at });
      return mustFind<Kept>(db, 'kept_result', id, 'kept result');
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/kept/:id',
    body: keptPatch,
    versioned: true,
    touches: ['kept'],
    run: ({ db, body, params, version }) => {
      update(db, 'kept_result', params.id as string, version, body, 'kept result');
      return mustFind<Kept>(db, 'kept_result', params.id as string, 'kept result');
    },
  }),
];
