import {
  baitBody,
  type Maker,
  makerBody,
  measureBody,
  type OwnMeasure,
  type Workshop,
  workshopBody,
} from '../../contract/workshop.ts';
import { usual } from '../../core/defaults.ts';
import { Failure } from '../../core/failure.ts';
import { unitOf } from '../../core/units/convert.ts';
import { insert, mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { baitOutlines, baits, makers, measures, workshop } from './store.ts';

function refuseBuiltIn(name: string): void {
  try {
    unitOf(name, { dropsPerMl: usual('dropsPerMl'), measures: [] });
  } catch {
    return;
  }
  throw new Failure('invalid-input', `"${name}" is already a unit; call your measure something else.`, 'name');
}

export const workshopEndpoints = [
  endpoint({ method: 'GET', path: '/workshop', run: ({ db }) => workshop(db) }),
  endpoint({
    method: 'PATCH',
    path: '/workshop',
    body: workshopBody,
    versioned: true,
    touches: ['workshop', 'today', 'pours'],
    run: ({ db, body, version }) => {
      const current = workshop(db);
      if (current.version !== version) {
        throw new Failure('stale-version', 'The workshop was changed meanwhile. Look at both.', undefined, { current });
      }
      update(db, 'workshop', '1', version, body, 'workshop');
      return workshop(db);
    },
  }),
  endpoint({ method: 'GET', path: '/makers', run: ({ db }) => ({ items: makers(db), nextCursor: null }) }),
  endpoint({
    method: 'POST',
    path: '/makers',
    body: makerBody,
    touches: ['makers'],
    run: ({ db, body, at }) => {
      const id = newId();
      insert(db, 'maker', { id, ...body, createdAt: at });
      return mustFind<Maker>(db, 'maker', id, 'maker');
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/makers/:id',
    body: makerBody,
    versioned: true,
    touches: ['makers'],
    run: ({ db, body, params, version }) => {
      update(db, 'maker', params.id as string, version, body, 'maker');
      return mustFind<Maker>(db, 'maker', params.id as string, 'maker');
    },
  }),
  endpoint({ method: 'GET', path: '/measures', run: ({ db }) => ({ items: measures(db), nextCursor: null }) }),
  endpoint({
    method: 'POST',
    path: '/measures',
    body: measureBody,
    touches: ['measures'],
    run: ({ db, body, at }) => {
      refuseBuiltIn(body.name);
      const id = newId();
      insert(db, 'measure', { id, ...body, ml: body.grams / (body.count * body.densityGPerMl), createdAt: at });
      return mustFind<OwnMeasure>(db, 'measure', id, 'measure');
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/measures/:id',
    body: measureBody,
    versioned: true,
    touches: ['measures'],
    run: ({ db, body, params, version }) => {
      refuseBuiltIn(body.name);
      const ml = body.grams / (body.count * body.densityGPerMl);
      update(db, 'measure', params.id as string, version, { ...body, ml }, 'measure');
      return mustFind<OwnMeasure>(db, 'measure', params.id as string, 'measure');
    },
  }),
  endpoint({
    method: 'GET',
    path: '/baits/outlines',
    run: ({ db }) => ({ items: baitOutlines(db), nextCursor: null }),
  }),
  endpoint({ method: 'GET', path: '/baits', run: ({ db }) => ({ items: baits(db), nextCursor: null }) }),
  endpoint({
    method: 'PATCH',
    path: '/baits/:id',
    body: baitBody,
    versioned: true,
    touches: ['baits', 'masters', 'molds', 'orders', 'today'],
    run: ({ db, body, params, version }) => {
      update(db, 'bait', params.id as string, version, body, 'bait');
      return mustFind(db, 'bait', params.id as string, 'bait');
    },
  }),
];

export type { Workshop };
