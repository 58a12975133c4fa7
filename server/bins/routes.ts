import { binBody, binMixBody, binMoveBody, binPatch, puckBody } from '../../contract/bins.ts';
import { insert, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { addPuck } from './pucks.ts';
import { getBin, listBins, mixBins, moveBin } from './store.ts';

const touches = ['bins', 'recipes'];

export const binEndpoints = [
  endpoint({ method: 'GET', path: '/bins', run: ({ db }) => ({ items: listBins(db), nextCursor: null }) }),
  endpoint({ method: 'GET', path: '/bins/:id', run: ({ db, params }) => getBin(db, params.id as string) }),
  endpoint({
    method: 'POST',
    path: '/bins',
    body: binBody,
    touches,
    run: ({ db, body, at }) => {
      const id = newId();
      insert(db, 'bin', { id, ...body, createdAt: at });
      return getBin(db, id);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/bins/mixed',
    body: binMixBody,
    touches,
    run: ({ db, body, at }) => getBin(db, mixBins(db, body, at)),
  }),
  endpoint({
    method: 'PATCH',
    path: '/bins/:id',
    body: binPatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      update(db, 'bin', params.id as string, version, body, 'bin');
      return getBin(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/bins/:id/moves',
    body: binMoveBody,
    touches,
    run: ({ db, body, params, at }) => {
      moveBin(db, params.id as string, body, at);
      return getBin(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/bins/:id/pucks',
    body: puckBody,
    touches,
    run: ({ db, body, params, at }) => {
      addPuck(db, params.id as string, body, at);
      return getBin(db, params.id as string);
    },
  }),
];
