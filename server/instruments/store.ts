import type { Instrument } from '../../contract/instruments.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

export const instruments = (db: Db) =>
  all<Instrument>(
    db,
    'SELECT id, kind, name, how, pour_id, shot_id, order_id, away_at, version FROM instrument WHERE away_at IS NULL ORDER BY created_at, id',
  );
