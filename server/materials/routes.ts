import { listQuery } from '../../contract/fields.ts';
import {
  colourStepBody,
  lotBody,
  lotMoveBody,
  lotPatch,
  materialBody,
  materialPatch,
} from '../../contract/materials.ts';
import { Failure } from '../../core/failure.ts';
import { g, say } from '../../core/units/say.ts';
import { insert, mustFind, run, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { addStep } from './colour.ts';
import {
  addLot,
  addLotMove,
  bottleInUse,
  getMaterial,
  levelOf,
  listMaterials,
  type OpenLot,
  refuseStrangeLot,
} from './store.ts';

// Which bottle is in use says how many drops an open cup takes.
const touches = ['materials', 'today', 'recipes', 'pours'];

export const materialEndpoints = [
  endpoint({ method: 'GET', path: '/materials', query: listQuery, run: ({ db, query }) => listMaterials(db, query) }),
  endpoint({ method: 'GET', path: '/materials/:id', run: ({ db, params }) => getMaterial(db, params.id as string) }),
  endpoint({
    method: 'POST',
    path: '/materials',
    body: materialBody,
    touches,
    run: ({ db, body, at }) => {
      const { lot, strength, ...facts } = body;
      if (facts.kind === 'silicone' && !(facts.mix && facts.potLifeMin && facts.demoldMin)) {
        throw new Failure(
          'invalid-input',
          'A rubber needs its ratio, pot life and demold time; they are on the tin.',
          'mix',
        );
      }
      const id = newId();
      insert(db, 'material', { id, ...facts, strength: strength ?? 1, createdAt: at });
      if (lot) addLot(db, id, lot, at);
      return getMaterial(db, id);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/materials/:id',
    body: materialPatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      refuseStrangeLot(db, params.id as string, body.lotId);
      update(db, 'material', params.id as string, version, body, 'material');
      return getMaterial(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/materials/:id/lots',
    body: lotBody,
    touches,
    run: ({ db, body, params, at }) => {
      mustFind(db, 'material', params.id as string, 'material');
      addLot(db, params.id as string, body, at);
      return getMaterial(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/materials/:id/steps',
    body: colourStepBody,
    touches: ['materials', 'recipes'],
    run: ({ db, body, params, at }) => {
      const id = params.id as string;
      mustFind(db, 'material', id, 'material');
      addStep(db, id, body, bottleInUse(db, id).bottleStrength, at);
      return getMaterial(db, id);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/lots/:id',
    body: lotPatch,
    // A lot is shown with its material, and bears its version.
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      const lot = mustFind<OpenLot>(db, 'lot', params.id as string, 'lot');
      update(db, 'material', lot.materialId, version, {}, 'material');
      run(db, 'UPDATE lot SET drops_per_ml = ?, bottle_strength = ? WHERE id = ?', [
        body.dropsPerMl === undefined ? lot.dropsPerMl : body.dropsPerMl,
        body.bottleStrength ?? lot.bottleStrength,
        lot.id,
      ]);
      return getMaterial(db, lot.materialId);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/lots/:id/moves',
    body: lotMoveBody,
    touches,
    run: ({ db, body, params, at }) => {
      const lot = mustFind<{ id: string; materialId: string }>(db, 'lot', params.id as string, 'lot');
      const level = levelOf(db, lot.id);
      if (body.kind === 'used' && body.grams > level + 1e-6) {
        throw new Failure(
          'not-enough-stock',
          say`This lot holds ${g(level)}; count it first if there is more.`,
          'grams',
        );
      }
      const grams = body.kind === 'counted' ? body.levelG - level : body.kind === 'used' ? -body.grams : body.grams;
      addLotMove(db, { id: body.id, lotId: lot.id, kind: body.kind, grams, note: body.note }, at);
      return getMaterial(db, lot.materialId);
    },
  }),
];
