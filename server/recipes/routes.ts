import * as v from 'valibot';
import { listQuery } from '../../contract/fields.ts';
import { recipeBody, recipePut } from '../../contract/recipes.ts';
import { Failure } from '../../core/failure.ts';
import { refuseTakenName } from '../colourways/store.ts';
import { mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { addRecipe, addRevision, getRecipe, itemsOf, latestRevision, listRecipes, scaleItems } from './store.ts';

const touches = ['recipes', 'colourways', 'line'];

const scaledQuery = v.strictObject({
  batchMl: v.pipe(v.string(), v.transform(Number), v.number(), v.finite(), v.gtValue(0), v.maxValue(20000)),
});

export const recipeEndpoints = [
  endpoint({ method: 'GET', path: '/recipes', query: listQuery, run: ({ db, query }) => listRecipes(db, query) }),
  endpoint({ method: 'GET', path: '/recipes/:id', run: ({ db, params }) => getRecipe(db, params.id as string) }),
  endpoint({
    method: 'GET',
    path: '/recipes/:id/scaled',
    query: scaledQuery,
    run: ({ db, params, query }) => {
      mustFind(db, 'recipe', params.id as string, 'recipe');
      const revision = latestRevision(db, params.id as string);
      return { items: scaleItems(db, itemsOf(db, revision.id), revision.basisMl, query.batchMl) };
    },
  }),
  endpoint({
    method: 'POST',
    path: '/recipes',
    body: recipeBody,
    touches,
    run: ({ db, body, at }) => getRecipe(db, addRecipe(db, body, at)),
  }),
  endpoint({
    method: 'PUT',
    path: '/recipes/:id',
    body: recipePut,
    versioned: true,
    touches: [...touches, 'pours', 'today', 'rack', 'orders'],
    run: ({ db, body, params, version, at }) => {
      const id = params.id as string;
      const current = getRecipe(db, id);
      // The screen shows both recipes, so a stale write is answered with the whole one, items and all.
      if (current.version !== version) {
        throw new Failure('stale-version', 'Somebody changed this recipe since you opened it.', undefined, { current });
      }
      refuseTakenName(db, body.name, id);
      update(db, 'recipe', id, version, { name: body.name, hex: body.hex, notes: body.notes }, 'recipe');
      addRevision(db, id, body, at);
      return getRecipe(db, id);
    },
  }),
];
