import { subHours } from 'date-fns/subHours';
import type * as v from 'valibot';
import type { eveningPatch } from '../../contract/pours.ts';
import { usual } from '../../core/defaults.ts';
import { Failure } from '../../core/failure.ts';
import { lightToDark } from '../../core/plan/lightToDark.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, run, update } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { workshop } from '../workshop/store.ts';

/** The evening that is under way, or a new one. */
export function eveningFor(db: Db, at: string): { id: string; next: number } {
  const open = first<{ id: string; next: number }>(
    db,
    `SELECT evening_id AS id, (SELECT max(place) + 1 FROM pour p WHERE p.evening_id = pour.evening_id) AS next FROM pour
     WHERE closed_at IS NULL AND evening_id IS NOT NULL AND laid_out_at > ? ORDER BY laid_out_at DESC LIMIT 1`,
    [subHours(new Date(at), usual('oneEveningH')).toISOString()],
  );
  if (open) return open;
  const id = newId();
  insert(db, 'evening', { id, roomC: workshop(db).roomC, createdAt: at });
  return { id, next: 0 };
}

interface Placed {
  id: string;
  leadId: string | null;
  hex: string;
  started: boolean;
}

const cupsOf = (db: Db, eveningId: string) =>
  all<Omit<Placed, 'started'> & { startedAt: string | null }>(
    db,
    `SELECT pour.id, pour.lead_id, recipe.hex, pour.started_at FROM pour JOIN recipe ON recipe.id = pour.recipe_id
     WHERE pour.evening_id = ? AND pour.discarded_at IS NULL ORDER BY pour.place, pour.code`,
    [eveningId],
  ).map(({ startedAt, ...cup }): Placed => ({ ...cup, started: startedAt !== null }));

function write(db: Db, ids: string[]): void {
  ids.forEach((id, place) => {
    run(db, 'UPDATE pour SET place = @place WHERE id = @id', { id, place });
  });
}

/** Cups that are drawn together stay beside each other, the leading one first. */
const withPartners = (cups: Placed[], leads: Placed[]) =>
  leads.flatMap((lead) => [lead, ...cups.filter((cup) => cup.leadId === lead.id)]).map((cup) => cup.id);

/** Light before dark, as far as nobody ordered them and nothing was begun. */
export function orderByLight(db: Db, eveningId: string): void {
  const evening = first<{ ordered: number }>(db, 'SELECT ordered FROM evening WHERE id = ?', [eveningId]);
  if (evening?.ordered === 1) return;
  const cups = cupsOf(db, eveningId);
  const leads = cups.filter((cup) => cup.leadId === null);
  const begun = leads.filter((lead) =>
    cups.some((cup) => cup.started && (cup.id === lead.id || cup.leadId === lead.id)),
  );
  const waiting = lightToDark(leads.filter((lead) => !begun.includes(lead)));
  write(db, withPartners(cups, [...begun, ...waiting]));
}

/** Another order of its cups, or what the room's thermometer says. */
export function changeEvening(
  db: Db,
  id: string,
  version: number,
  { roomC, order }: v.InferOutput<typeof eveningPatch>,
): void {
  update(
    db,
    'evening',
    id,
    version,
    { ...(roomC === undefined ? {} : { roomC }), ...(order ? { ordered: 1 } : {}) },
    'evening',
  );
  if (!order) return;
  const cups = cupsOf(db, id);
  const leads = cups.filter((cup) => cup.leadId === null);
  if (order.length !== leads.length || leads.some((lead) => !order.includes(lead.id)))
    throw new Failure('invalid-input', 'Name each cup of the evening that leads its molds, once.', 'order');
  write(
    db,
    withPartners(
      cups,
      order.map((one) => leads.find((lead) => lead.id === one) as Placed),
    ),
  );
}
