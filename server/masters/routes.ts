import { addMinutes } from 'date-fns/addMinutes';
import { listQuery } from '../../contract/fields.ts';
import { masterBody, masterPatch, readingBody, revisionBody } from '../../contract/masters.ts';
import { usual } from '../../core/defaults.ts';
import { Failure } from '../../core/failure.ts';
import { bake } from '../../core/mold/clay.ts';
import type { Sizes } from '../../core/shape/plausible.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { clockStep, refuseRunning, runningClocks } from '../clocks/store.ts';
import { first, insert, mustFind, update } from '../db/rows.ts';
import { type Beside, endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { type NewMesh, sculpted } from '../meshes/files.ts';
import { addBait } from '../workshop/store.ts';
import { addRevision, addVolume, askAbout, checkParents, getMaster, listMasters } from './store.ts';

/** Sculpted before the transaction begins: it takes a moment. */
const solidOf = async ({ spec }: { spec?: ShapeSpec | undefined }, beside: Beside) =>
  spec ? sculpted(beside, spec, { signal: beside.signal }) : undefined;

const touches = ['masters', 'baits', 'line', 'today'];

export const masterEndpoints = [
  endpoint({ method: 'GET', path: '/masters', query: listQuery, run: ({ db, query }) => listMasters(db, query) }),
  endpoint({ method: 'GET', path: '/masters/:id', run: ({ db, params }) => getMaster(db, params.id as string) }),
  endpoint({
    method: 'POST',
    path: '/masters',
    body: masterBody,
    touches,
    prepare: solidOf,
    run: ({ db, body, at, prepared }) => {
      const { name, shape, kind, flatBack, notes, packCount, ...shapeOf } = body;
      if (first(db, 'SELECT 1 FROM bait WHERE name = ? COLLATE NOCASE', [name])) {
        throw new Failure(
          'already-exists',
          `There is already a bait called ${name}; add a revision to it, or choose another name.`,
          'name',
        );
      }
      const baitId = addBait(db, { name, shape, packCount }, at);
      const id = newId();
      insert(db, 'master', { id, baitId, kind, flatBack, notes, createdAt: at });
      addRevision(db, id, { reason: 'first shape', ...shapeOf }, at, prepared as NewMesh | undefined);
      return getMaster(db, id);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/masters/:id',
    body: masterPatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      update(db, 'master', params.id as string, version, body, 'master');
      return getMaster(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/masters/:id/revisions',
    body: revisionBody,
    touches,
    prepare: solidOf,
    run: ({ db, body, params, at, prepared }) => {
      const id = params.id as string;
      mustFind(db, 'master', id, 'master');
      checkParents(db, id, body.parentId, body.secondParentId);
      addRevision(db, id, body, at, prepared as NewMesh | undefined);
      return getMaster(db, id);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/masters/:id/revisions/:revisionId/volumes',
    body: readingBody,
    touches,
    run: ({ db, body, params, at }) => {
      const { id, revisionId } = params as { id: string; revisionId: string };
      const found = first<Sizes>(db, 'SELECT * FROM master_revision WHERE id = ? AND master_id = ?', [revisionId, id]);
      if (!found) throw new Failure('not-found', 'There is no such revision of this master.');
      askAbout(found, body, body.sure);
      addVolume(db, revisionId, body, at);
      return getMaster(db, id);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/masters/:id/bake',
    touches: ['clocks'],
    run: ({ db, params, now }) => {
      const master = getMaster(db, params.id as string);
      if (master.kind !== 'clay')
        throw new Failure('not-applicable', `${master.name} is not of clay, so it is not baked.`);
      const thicknessMm = master.latest.thickestMm;
      const { minutes } = bake({ thicknessMm, minutesPer6mm: usual('bakeMinPer6Mm') });
      const label = `${master.name} baked`;
      refuseRunning(db, 'bake', label, now);
      clockStep(db, 'baked', { type: 'master', id: master.id }, now, {
        bake: { label, dueAt: addMinutes(now, minutes) },
      });
      return runningClocks(db).find((clock) => clock.kind === 'bake' && clock.aboutId === master.id);
    },
  }),
];
