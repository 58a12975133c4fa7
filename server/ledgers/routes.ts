import { listQuery } from '../../contract/fields.ts';
import { doseBody, keepBody, type Ledger, ledgerBody, ledgerPatch } from '../../contract/recipes.ts';
import { Failure } from '../../core/failure.ts';
import { asWritten } from '../../core/plastisol/cup.ts';
import { mustFind, run, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { page } from '../http/list.ts';
import { bottleInUse } from '../materials/store.ts';
import { pourOfLedger, stirs } from '../pours/stirs.ts';
import { addRecipe, getRecipe } from '../recipes/store.ts';
import { addDose, addLedger, getLedger } from './store.ts';

const touches = ['ledgers', 'pours', 'clocks'];

const LISTING = {
  select:
    'SELECT /*sort*/ ledger.id, ledger.title, ledger.batch_ml, ledger.recipe_id, ledger.version, ledger.created_at, ledger.away_at FROM ledger',
  sorts: { created: 'created_at', title: 'title' },
  order: '-created',
  search: 'title LIKE @q',
  where: 'ledger.of_pour = 0',
  idColumn: 'ledger.id',
};

export const ledgerEndpoints = [
  endpoint({
    method: 'GET',
    path: '/ledgers',
    query: listQuery,
    run: ({ db, query }) => page<Ledger>(db, LISTING, query),
  }),
  endpoint({
    method: 'PATCH',
    path: '/ledgers/:id',
    body: ledgerPatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      update(db, 'ledger', params.id as string, version, body, 'ledger');
      return getLedger(db, params.id as string);
    },
  }),
  endpoint({ method: 'GET', path: '/ledgers/:id', run: ({ db, params }) => getLedger(db, params.id as string) }),
  endpoint({
    method: 'POST',
    path: '/ledgers',
    body: ledgerBody,
    touches,
    run: ({ db, body, at }) => getLedger(db, addLedger(db, body.title, body.batchMl, at)),
  }),
  endpoint({
    method: 'POST',
    path: '/ledgers/:id/doses',
    body: doseBody,
    touches,
    run: ({ db, body, params, at, now }) => {
      mustFind(db, 'ledger', params.id as string, 'dosing ledger');
      addDose(db, params.id as string, body, at);
      // Whatever goes in is stirred in.
      const cup = pourOfLedger(db, params.id as string);
      if (cup) stirs(db, cup, now);
      return getLedger(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/ledgers/:id/keep',
    body: keepBody,
    touches: [...touches, 'recipes', 'line'],
    run: ({ db, body, params, at }) => {
      const ledger = getLedger(db, params.id as string);
      const totals = asWritten(ledger.doses, (materialId) => bottleInUse(db, materialId));
      if (totals.length === 0) throw new Failure('invalid-input', 'Nothing is in this cup yet; add a dose first.');
      const recipe = addRecipe(
        db,
        {
          ...body,
          notes: '',
          basisMl: ledger.batchMl,
          items: totals,
          reason: `kept from the ledger "${ledger.title}"`,
        },
        at,
      );
      run(db, 'UPDATE ledger SET recipe_id = ?, version = version + 1 WHERE id = ?', [recipe, ledger.id]);
      return getRecipe(db, recipe);
    },
  }),
];
