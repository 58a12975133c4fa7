import { listQuery } from '../../contract/fields.ts';
import { type KickFit, ladderBody, ladderPatch, trialBody, waterTestBody } from '../../contract/water.ts';
import { Failure } from '../../core/failure.ts';
import { TRIALS_NEEDED } from '../../core/water/fitKick.ts';
import { ladderSteps } from '../../core/water/ladder.ts';
import { first, insert, mustFind, update } from '../db/rows.ts';
import { type Beside, endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import {
  type BareLadder,
  getLadder,
  getTest,
  judgedLadder,
  kickFit,
  listLadders,
  listTests,
  testsOf,
} from './store.ts';

const judged = (ladder: BareLadder, beside: Beside) => judgedLadder(ladder, beside);

const touches = ['water-tests', 'kick-fit', 'masters', 'ladders'];

export const waterEndpoints = [
  endpoint({ method: 'GET', path: '/water-tests', query: listQuery, run: ({ db, query }) => listTests(db, query) }),
  endpoint({
    method: 'GET',
    path: '/masters/:id/water-tests',
    run: ({ db, params }) => {
      mustFind(db, 'master', params.id as string, 'master');
      return { items: testsOf(db, params.id as string), nextCursor: null };
    },
  }),
  endpoint({
    method: 'POST',
    path: '/masters/:id/revisions/:revisionId/water-tests',
    body: waterTestBody,
    touches,
    run: ({ db, body, params, at }) => {
      const { id: masterId, revisionId } = params as { id: string; revisionId: string };
      if (!first(db, 'SELECT 1 FROM master_revision WHERE id = ? AND master_id = ?', [revisionId, masterId]))
        throw new Failure('not-found', 'There is no such revision of this master.');
      if ((body.scale === null) !== (body.hardness === null))
        throw new Failure(
          'invalid-input',
          'A hardness needs its scale, 00 or A, and a scale its hardness.',
          'hardness',
        );
      const id = newId(body.id);
      insert(db, 'water_test', { ...body, id, revisionId, at });
      return getTest(db, id);
    },
  }),
  endpoint({ method: 'GET', path: '/ladders', query: listQuery, run: ({ db, query }) => listLadders(db, query) }),
  endpoint({
    method: 'GET',
    path: '/ladders/:id',
    run: ({ db, params }) => getLadder(db, params.id as string),
    finish: judged,
  }),
  endpoint({
    method: 'POST',
    path: '/ladders',
    body: ladderBody,
    touches,
    prepare: async (_body, beside) => (await kickFit(beside)).fit,
    finish: judged,
    run: ({ db, body, at, prepared }) => {
      const { name, scale, hardness, walkingMPerS } = body;
      const known = prepared as KickFit['fit'];
      // Stepped by what is known: a workshop with trials gets steps about its own plastic.
      const steps = ladderSteps({
        ...body,
        ...(known && known.n >= TRIALS_NEEDED
          ? { strouhal: known.strouhal, addedMassCoefficient: known.addedMassCoefficient }
          : {}),
      });
      const id = newId();
      insert(db, 'ladder', { id, name, scale, hardness, walkingMPerS, steps, createdAt: at });
      return getLadder(db, id);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/ladders/:id',
    body: ladderPatch,
    versioned: true,
    touches,
    finish: judged,
    run: ({ db, body, params, version }) => {
      update(db, 'ladder', params.id as string, version, body, 'tail ladder');
      return getLadder(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/ladders/:id/trials',
    body: trialBody,
    touches,
    finish: judged,
    run: ({ db, body, params, at }) => {
      const ladder = getLadder(db, params.id as string);
      if (body.step >= ladder.steps.length)
        throw new Failure('invalid-input', `This ladder has steps 0 to ${ladder.steps.length - 1}.`, 'step');
      insert(db, 'ladder_trial', { ...body, id: newId(body.id), ladderId: ladder.id, at });
      return getLadder(db, ladder.id);
    },
  }),
  endpoint({ method: 'GET', path: '/kick-fit', run: () => null, finish: (_none, beside) => kickFit(beside) }),
];
