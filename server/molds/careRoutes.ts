import { dipBody, type MoldRow, rebuildBody, sparkBody, weighingBody } from '../../contract/molds.ts';
import { Failure } from '../../core/failure.ts';
import { first, insert, mustFind, run } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { LOG_TABLES } from './care.ts';
import { addMold, getMold } from './store.ts';

const touches = ['molds', 'masters', 'line', 'today'];

const logEndpoint = <S extends typeof weighingBody | typeof dipBody | typeof sparkBody>(
  log: keyof typeof LOG_TABLES,
  body: S,
) =>
  endpoint({
    method: 'POST',
    path: `/molds/:id/${log}`,
    body,
    touches,
    run: ({ db, body, params, at }) => {
      const mold = mustFind<MoldRow>(db, 'mold', params.id as string, 'mold');
      insert(db, LOG_TABLES[log], { ...body, id: newId(body.id), moldId: mold.id, at });
      return getMold(db, mold.id);
    },
  });

export const moldCareEndpoints = [
  logEndpoint('weighings', weighingBody),
  logEndpoint('dips', dipBody),
  logEndpoint('sparks', sparkBody),
  endpoint({
    method: 'POST',
    path: '/molds/:id/rebuilds',
    body: rebuildBody,
    touches: [...touches, 'materials', 'baits'],
    run: ({ db, body, params, at }) => {
      const old = mustFind<MoldRow & { build: null }>(db, 'mold', params.id as string, 'mold');
      if (first(db, 'SELECT 1 FROM mold WHERE rebuilt_from_id = ?', [old.id]))
        throw new Failure('invalid-input', 'This mold was made anew already; make its successor anew.');
      const { name: _, kind, fill, baitId, cavities, columns, cavityMl, sprueMl, runnerMl } = old;
      const made = addMold(
        db,
        {
          name: body.name,
          kind,
          fill,
          baitId,
          cavities,
          columns,
          cavityMl,
          sprueMl,
          runnerMl,
          injectorMl: old.injectorMl,
          secondInjectorMl: old.secondInjectorMl,
          ...(old.revisionId ? { revisionId: old.revisionId } : {}),
          ...(old.rubberId ? { rubberId: old.rubberId } : {}),
          ...(old.plan ? { planInput: old.plan.input } : {}),
          ...(old.making ? { making: old.making } : {}),
          ...(old.fitting ? { fitting: old.fitting } : {}),
          ...(old.inserts ? { inserts: old.inserts } : {}),
          ...(old.build ? { build: old.build } : {}),
        },
        at,
        old.id,
      );
      run(db, 'UPDATE mold SET retired_at = coalesce(retired_at, ?), version = version + 1 WHERE id = ?', [at, old.id]);
      return getMold(db, made);
    },
  }),
];
