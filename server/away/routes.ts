import { awayBody } from '../../contract/fields.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, mustFind, remove, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';

interface Kind {
  table: string;
  what: string;
  /** What somebody still waits for names it: SQL that gives the codes, of `@id`. */
  waiting?: string;
  /** It is only thrown out, never put away. */
  loose?: boolean;
  touches: string[];
}

const openOrders = (line: string) =>
  `SELECT DISTINCT o.code FROM order_line l JOIN customer_order o ON o.id = l.order_id
   WHERE ${line} AND l.taken_at IS NULL AND o.sent_at IS NULL AND o.cancelled_at IS NULL`;

const KINDS: Record<string, Kind> = {
  baits: {
    table: 'bait',
    what: 'bait',
    waiting: openOrders('l.bait_id = @id'),
    touches: ['baits', 'masters', 'molds', 'today'],
  },
  recipes: {
    table: 'recipe',
    what: 'recipe',
    // Wanted for itself, or as a layer of what is wanted.
    waiting: `${openOrders(`l.colourway_id IN (SELECT v.colourway_id FROM colourway_layer y JOIN colourway_revision v ON v.id = y.revision_id
      WHERE y.recipe_id = @id)`)} UNION SELECT code FROM pour WHERE recipe_id = @id AND closed_at IS NULL AND discarded_at IS NULL`,
    touches: ['recipes', 'colourways', 'line', 'today'],
  },
  colourways: {
    table: 'colourway',
    what: 'colour',
    waiting: `${openOrders('l.colourway_id = @id')} UNION SELECT code FROM pour WHERE colourway_id = @id AND closed_at IS NULL AND discarded_at IS NULL`,
    touches: ['colourways', 'line', 'today'],
  },
  materials: { table: 'material', what: 'material', touches: ['materials', 'today'] },
  customers: {
    table: 'customer',
    what: 'customer',
    waiting: 'SELECT code FROM customer_order WHERE customer_id = @id AND sent_at IS NULL AND cancelled_at IS NULL',
    touches: ['customers'],
  },
  bins: { table: 'bin', what: 'bin', touches: ['bins', 'recipes'] },
  ladders: { table: 'ladder', what: 'tail ladder', touches: ['ladders'] },
  // A mold that was poured from is retired; one that was only written down is thrown out.
  molds: { table: 'mold', what: 'mold', loose: true, touches: ['molds', 'baits', 'today', 'line'] },
  ledgers: { table: 'ledger', what: 'ledger', touches: ['ledgers'] },
  measures: { table: 'measure', what: 'measure', loose: true, touches: ['measures'] },
  kept: { table: 'kept_result', what: 'kept result', loose: true, touches: ['kept'] },
};

function kindOf(name: string | undefined): Kind {
  const kind = name !== undefined && Object.hasOwn(KINDS, name) ? KINDS[name] : undefined;
  if (!kind) throw new Failure('not-found', 'Nothing of that kind is put away or thrown out.');
  return kind;
}

function refuseWanted(db: Db, { waiting, what }: Kind, id: string): void {
  const codes = waiting ? all<{ code: string }>(db, waiting, { id }).map((row) => row.code) : [];
  if (codes.length > 0)
    throw new Failure('in-use', `This ${what} is still wanted by ${codes.slice(0, 5).join(', ')}; finish that first.`);
}

const touches = [...new Set(Object.values(KINDS).flatMap((kind) => kind.touches))];

/** What is no longer made or bought leaves the lists; what nothing else names can be thrown out whole. */
export const awayEndpoints = [
  endpoint({
    method: 'PATCH',
    path: '/away/:kind/:id',
    body: awayBody,
    versioned: true,
    touches,
    run: ({ db, body, params, version, at }) => {
      const kind = kindOf(params.kind);
      if (kind.loose) throw new Failure('not-applicable', `A ${kind.what} is thrown out, or stays.`);
      const id = params.id as string;
      if (body.away) refuseWanted(db, kind, id);
      update(db, kind.table, id, version, { awayAt: body.away ? at : null }, kind.what);
      return { id, awayAt: body.away ? at : null };
    },
  }),
  endpoint({
    method: 'DELETE',
    path: '/away/:kind/:id',
    touches,
    run: ({ db, params }) => {
      const kind = kindOf(params.kind);
      const id = params.id as string;
      mustFind(db, kind.table, id, kind.what);
      remove(db, kind.table, id, kind.what);
      return { id };
    },
  }),
];
