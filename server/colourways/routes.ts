import { colourwayBody, marksPatch } from '../../contract/colourways.ts';
import { listQuery } from '../../contract/fields.ts';
import { Failure } from '../../core/failure.ts';
import { mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { levelsOf } from '../molds/levels.ts';
import { usableMolds } from '../molds/store.ts';
import { accents } from './accents.ts';
import {
  addColourway,
  addLayers,
  getColourway,
  latestLayers,
  listColourways,
  refuseTakenName,
  usedIn,
} from './store.ts';

const touches = ['colourways', 'line'];

export const colourwayEndpoints = [
  endpoint({ method: 'GET', path: '/accents', run: ({ db, at }) => accents(db, at) }),
  endpoint({ method: 'GET', path: '/colourways', query: listQuery, run: ({ db, query }) => listColourways(db, query) }),
  endpoint({ method: 'GET', path: '/colourways/:id', run: ({ db, params }) => getColourway(db, params.id as string) }),
  endpoint({
    method: 'GET',
    path: '/colourways/:id/levels',
    run: ({ db, params }) => {
      const { layers } = latestLayers(db, params.id as string);
      return { items: [...levelsOf(db, usableMolds(db), layers).values()], nextCursor: null };
    },
  }),
  endpoint({
    method: 'POST',
    path: '/colourways',
    body: colourwayBody,
    touches,
    run: ({ db, body, at }) => getColourway(db, addColourway(db, body, at)),
  }),
  endpoint({
    method: 'PUT',
    path: '/colourways/:id',
    body: colourwayBody,
    versioned: true,
    touches: [...touches, 'pours', 'today', 'rack', 'orders', 'molds'],
    run: ({ db, body, params, version, at }) => {
      const id = params.id as string;
      const current = getColourway(db, id);
      if (current.recipeId !== null)
        throw new Failure(
          'not-applicable',
          'A colour of one melt changes with its recipe; layers make another colour.',
        );
      if (current.version !== version)
        throw new Failure('stale-version', 'Somebody changed this colour since you opened it.', undefined, { current });
      refuseTakenName(db, body.name, id);
      update(db, 'colourway', id, version, { name: body.name, hex: body.hex, notes: body.notes }, 'colour');
      addLayers(db, id, body, at);
      return getColourway(db, id);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/colourways/:id',
    body: marksPatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      update(db, 'colourway', params.id as string, version, body, 'colour');
      return getColourway(db, params.id as string);
    },
  }),
  endpoint({
    method: 'GET',
    path: '/colourways/:id/used',
    run: ({ db, params }) => {
      mustFind(db, 'colourway', params.id as string, 'colour');
      return usedIn(db, params.id as string);
    },
  }),
];
