import type { ImportBody } from '../../../contract/imports.ts';
import type { OrderRow } from '../../../contract/orders.ts';
import { Failure } from '../../../core/failure.ts';
import type { LeftOver, TableOrder } from '../../../core/plan/orderTable.ts';

export interface Table {
  name: string;
  headings: string[];
  rows: string[][];
}

/** A table holds so much at most: ten thousand lines of many columns. */
const MOST_BYTES = 8_000_000;
const MOST_ROWS = 10_000;

/** A file's text, in whatever of the usual encodings it was saved: by its mark, else UTF-8, else Windows’ western one. */
function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** @throws Failure with what to do, where it is no table. */
export async function readTable(file: File): Promise<Table> {
  if (file.size > MOST_BYTES) throw new Failure('too-large', 'That file is larger than 8 MB; split it.');
  const { parse } = await import('papaparse');
  const text = textOf(new Uint8Array(await file.arrayBuffer()));
  if (text.includes('\0')) throw new Failure('invalid-input', 'That is no table of text: save it as CSV first.');
  const { data } = parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const [headings, ...rows] = data;
  if (!headings || headings.length < 2)
    throw new Failure(
      'invalid-input',
      'That is no table: a row of headings is wanted, and columns parted by commas or semicolons.',
    );
  if (rows.length === 0) throw new Failure('invalid-input', 'Under its headings the table is empty.');
  if (rows.length > MOST_ROWS)
    throw new Failure('too-large', `The table has ${rows.length} rows; ${MOST_ROWS} are read in at once. Split it.`);
  return { name: file.name.slice(0, 120), headings: headings.map((one) => one.trim()), rows };
}

/** What is sent: names once, lines by their places. */
export function bodyOfImport(name: string, orders: TableOrder[], left: LeftOver[]): ImportBody {
  const [baitIds, colourwayIds]: [string[], string[]] = [[], []];
  const placeIn = (list: string[], id: string) => {
    const at = list.indexOf(id);
    return at >= 0 ? at : list.push(id) - 1;
  };
  return {
    name,
    baitIds,
    colourwayIds,
    orders: orders.map(({ customerId, newCustomer, dueOn, notes, lines }) => ({
      customerId,
      newCustomer,
      dueOn,
      notes,
      lines: lines.map(
        ({ baitId, colourwayId, packs, perPack, priceMinor }): [number, number, number, number, number | null] => [
          placeIn(baitIds, baitId),
          placeIn(colourwayIds, colourwayId),
          packs,
          perPack,
          priceMinor,
        ],
      ),
    })),
    leftOver: left.map(({ row, cells, why }) => ({
      row,
      cells: cells.slice(0, 100).map((cell) => cell.slice(0, 500)),
      why,
    })),
  };
}

/** All orders as a table, a row a line; what a spreadsheet would take for a formula stays the text that it is. */
export async function ordersCsv(orders: OrderRow[], minorPerUnit: number): Promise<string> {
  const { unparse } = await import('papaparse');
  const columns = [
    'order',
    'customer',
    'due',
    'state',
    'sent',
    'bait',
    'colour',
    'packs',
    'per pack',
    'packed',
    'price',
    'notes',
  ];
  const rows = orders.flatMap((order) =>
    order.lines.map((line) => ({
      order: order.code,
      customer: order.customer,
      due: order.dueOn,
      state: order.state,
      sent: order.sentAt?.slice(0, 10) ?? '',
      bait: line.baitName,
      colour: line.colourwayName,
      packs: line.packs,
      'per pack': line.perPack,
      packed: line.packed,
      price: line.priceMinor === null ? '' : line.priceMinor / minorPerUnit,
      notes: order.notes,
    })),
  );
  return unparse(rows, { columns, escapeFormulae: true });
}
