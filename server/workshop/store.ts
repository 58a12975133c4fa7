import type { Bait, BaitOutline, Maker, OwnMeasure, Workshop } from '../../contract/workshop.ts';
import { usual } from '../../core/defaults.ts';
import type { Measure } from '../../core/units/convert.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert } from '../db/rows.ts';
import { newId } from '../ids.ts';

/** What a new workshop starts from; every one of these is a default and says so on the screen. */
const EMPTY = {
  id: 1,
  name: 'My workshop',
  currency: 'EUR',
  roomC: usual('roomC'),
  glassMl: usual('glassMl'),
  dropsPerMl: usual('dropsPerMl'),
  remeltHeats: usual('heatsMost'),
  eveningH: usual('eveningH'),
  colourWhen: 'cooked',
  saltWhen: 'last',
  ovenWatts: usual('ovenWatts'),
  cookSchool: 'full-power',
  degassing: 'none',
  injectors: 1,
  platePlaces: 0,
  keepWarm: true,
  glasses: usual('glasses'),
  boardBaits: null,
  packS: usual('packS'),
  clubFraction: 1,
  shopFraction: 1,
  roundMinor: 1,
  taxFraction: 0,
};

export function workshop(db: Db): Workshop {
  const row = first<Workshop & { id: number }>(db, 'SELECT * FROM workshop WHERE id = 1');
  if (!row) throw new Error('The workshop row is missing.');
  const { id: _, ...rest } = row;
  return rest;
}

/** Called once at start, so that reading the workshop never writes. */
export function ensureWorkshop(db: Db): void {
  if (!first(db, 'SELECT 1 FROM workshop')) insert(db, 'workshop', EMPTY);
}

export const makers = (db: Db) => all<Maker>(db, 'SELECT * FROM maker ORDER BY created_at');
export const measures = (db: Db) => all<OwnMeasure>(db, 'SELECT * FROM measure ORDER BY name');

/** The workshop's own measures as units that amounts may be written in. */
export const ownUnits = (db: Db): Measure[] => measures(db).map(({ name, ml }) => ({ unit: name, ml }));
/** How baits are drawn, by the newest mesh of each. */
export const baitOutlines = (db: Db) =>
  all<BaitOutline>(
    db,
    `SELECT master.bait_id, o.above, o.side, o.wide, o.tall FROM master
     JOIN master_revision r ON r.master_id = master.id
       AND r.number = (SELECT max(number) FROM master_revision WHERE master_id = master.id)
     JOIN mesh_outline o ON o.mesh_id = r.mesh_id`,
    [],
  );

export const baits = (db: Db) => all<Bait>(db, 'SELECT * FROM bait ORDER BY name');

export function addBait(db: Db, bait: { name: string; shape: string; packCount: number }, at: string): string {
  const id = newId();
  insert(db, 'bait', { id, ...bait, createdAt: at });
  return id;
}
