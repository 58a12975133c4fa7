import type * as v from 'valibot';
import type { ColourLook, ColourLookOf, lookBody } from '../../contract/looks.ts';
import { foreseenOf } from '../../core/colour/foresee.ts';
import { deltaE, labOf } from '../../core/colour/lab.ts';
import type { ForeseenMelt } from '../../core/colour/learnt.ts';
import { layerOver, type Optics, type Rgb } from '../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../core/colour/nominal.ts';
import { colourOf } from '../../core/plastisol/bin.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { lastDose } from '../ledgers/store.ts';
import { ingredientsIn } from '../pours/colour.ts';
import { enteredInto } from '../pours/parts.ts';
import { pourOfLedger } from '../pours/stirs.ts';

/** What the plastic of a ledger's cup is before anything is dosed: plain, or as its remelt is known. */
function plainOf(db: Db, ledgerId: string): Optics {
  const pourId = pourOfLedger(db, ledgerId);
  return (pourId && colourOf(enteredInto(db, pourId))?.optics) || PLAIN_PLASTIC;
}

type Row = Omit<ColourLook, 'foreseen' | 'seen' | 'deltaE00'> & { foreseen: ForeseenMelt; reflected: Rgb };

const COLUMNS = 'l.id, l.dose_seq, l.how, l.thickness_mm, l.reflected, l.foreseen, l.note, l.at';

function asLook<R extends Row>({ foreseen, reflected: seen, ...look }: R) {
  const linear = layerOver(foreseen.optics, look.thicknessMm, [1, 1, 1]);
  return { ...look, seen, foreseen: linear, deltaE00: deltaE(labOf(linear), labOf(seen)) };
}

/** Looks at a cup that stand, the newest first. */
export const looksOf = (db: Db, ledgerId: string): ColourLook[] =>
  all<Row>(
    db,
    `SELECT ${COLUMNS} FROM colour_look l
     WHERE l.ledger_id = ? AND ${standing('colour_look', 'l')} ORDER BY l.seq DESC LIMIT 40`,
    [ledgerId],
  ).map(asLook);

/** The newest looks at any cup. */
export const newestLooks = (db: Db): ColourLookOf[] =>
  all<Row & { of: string }>(
    db,
    `SELECT ${COLUMNS}, coalesce(recipe.name || ', ' || pour.code, ledger.title) AS of
     FROM colour_look l JOIN ledger ON ledger.id = l.ledger_id LEFT JOIN pour ON pour.ledger_id = l.ledger_id
     LEFT JOIN recipe ON recipe.id = pour.recipe_id
     WHERE ${standing('colour_look', 'l')} ORDER BY l.seq DESC LIMIT 40`,
  ).map(asLook);

export function addLook(
  db: Db,
  ledgerId: string,
  { id, how, thicknessMm, seen, note }: v.InferOutput<typeof lookBody>,
  at: string,
): void {
  mustFind(db, 'ledger', ledgerId, 'dosing ledger');
  insert(db, 'colour_look', {
    id: newId(id),
    ledgerId,
    doseSeq: lastDose(db, ledgerId),
    how,
    thicknessMm,
    reflected: seen,
    foreseen: foreseenOf(ingredientsIn(db, ledgerId), plainOf(db, ledgerId)),
    note: note ?? '',
    at,
  });
}
