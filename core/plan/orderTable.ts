import { format } from 'date-fns/format';
import { isValid } from 'date-fns/isValid';
import { parse } from 'date-fns/parse';
import { LINE_MOST, LINES_MOST } from './orderBounds.ts';

/** What a column of a table of orders can be. */
export const ORDER_COLUMNS = [
  'customer',
  'order',
  'due',
  'bait',
  'colour',
  'packs',
  'perPack',
  'price',
  'notes',
] as const;
export type OrderColumn = (typeof ORDER_COLUMNS)[number];
/** Which column of the table it stands in; left out: in none. */
export type OrderMapping = Partial<Record<OrderColumn, number>>;
/** Without these a row says nothing. */
export const NEEDED_COLUMNS: readonly OrderColumn[] = ['bait', 'colour', 'packs'];

/** What people write over their columns. */
const HEADINGS: Record<OrderColumn, RegExp> = {
  customer: /^(customer|client|shop|buyer|for|name|ship ?to)/,
  order: /^(order|reference|ref|number|no\.?$|po)/,
  due: /^(due|date|deliver|wanted|by|until|when)/,
  bait: /^(bait|lure|product|item|model|article|what|shape)/,
  colour: /^(colou?r|pattern|shade)/,
  packs: /^(packs?$|bags?$|qty|quantity|amount|count|pieces|units)/,
  perPack: /^(per|to a|in a|pack size|baits)/,
  price: /^(price|each|unit price|cost)/,
  notes: /^(note|remark|comment|message)/,
};

const folded = (text: string) =>
  text.normalize('NFKD').replace(/\p{M}/gu, '').replace(/[’‘`]/g, "'").replace(/\s+/g, ' ').trim().toLowerCase();

/** Which column is probably which, by its heading; each column is one thing. */
export function guessedMapping(headings: string[]): OrderMapping {
  const mapping: OrderMapping = {};
  const taken = new Set<number>();
  for (const column of ORDER_COLUMNS) {
    const at = headings.findIndex((heading, i) => !taken.has(i) && HEADINGS[column].test(folded(heading)));
    if (at < 0) continue;
    mapping[column] = at;
    taken.add(at);
  }
  return mapping;
}

/** A figure as people write it: `6.50`, `6,50`, `1.234,50`, `1 234.5`, with a sign of money before or after. */
export function figureOf(text: string): number | null {
  const plain = text.replace(/[^\d.,-]/g, '');
  if (!/\d/.test(plain)) return null;
  const last = Math.max(plain.lastIndexOf('.'), plain.lastIndexOf(','));
  const rest = plain.length - last - 1;
  const sign = plain[last];
  const others = sign === '.' ? ',' : '.';
  // One sign before three digits, and no other: thousands; else the last one is the decimal point.
  const thousands = last > 0 && rest === 3 && !plain.includes(others);
  const value = Number(
    last < 0 || thousands
      ? plain.replace(/[.,]/g, '')
      : `${plain.slice(0, last).replace(/[.,]/g, '')}.${plain.slice(last + 1)}`,
  );
  return Number.isFinite(value) ? value : null;
}

const DAY_FIRST = [
  'yyyy-MM-dd',
  'd.M.yyyy',
  'd/M/yyyy',
  'd-M-yyyy',
  'd.M.yy',
  'd/M/yy',
  'yyyy/M/d',
  'd MMM yyyy',
  'd MMMM yyyy',
];
const MONTH_FIRST = [
  'yyyy-MM-dd',
  'M/d/yyyy',
  'M-d-yyyy',
  'M/d/yy',
  'd.M.yyyy',
  'yyyy/M/d',
  'MMM d yyyy',
  'MMM d, yyyy',
  'd MMM yyyy',
];

/** A day as people write it, as yyyy-MM-dd; null: none that there is. @param monthFirst 3/4 is the fourth of March. */
export function dayOf(text: string, monthFirst: boolean): string | null {
  const tidy = text.trim().replace(/[T ]\d\d:\d\d.*$/, '');
  for (const pattern of monthFirst ? [...MONTH_FIRST, ...DAY_FIRST] : [...DAY_FIRST, ...MONTH_FIRST]) {
    const day = parse(tidy, pattern, new Date(2000, 0, 1));
    if (isValid(day) && day.getFullYear() >= 2000 && day.getFullYear() < 2100) return format(day, 'yyyy-MM-dd');
  }
  return null;
}

interface Named {
  id: string;
  name: string;
}

export interface OrderTableKnown {
  baits: (Named & { packCount: number })[];
  colours: Named[];
  customers: Named[];
  /** What a name of the table means here, by its folded form: "kelp shad" is a bait of ours. */
  means: Record<string, string>;
  monthFirst: boolean;
  minorPerUnit: number;
  /** Where a row says no day, and no customer. */
  usualDue: string;
  usualCustomer: string;
}

export interface TableLine {
  baitId: string;
  colourwayId: string;
  packs: number;
  perPack: number;
  priceMinor: number | null;
}

export interface TableOrder {
  customerId: string | null;
  /** Where nobody of that name is here yet. */
  newCustomer: string | null;
  dueOn: string;
  notes: string;
  lines: TableLine[];
}

/** A row that nobody could match, with why; kept as it was. */
export interface LeftOver {
  row: number;
  cells: string[];
  why: string;
  /** The name that is not known, and of what. */
  unknown: { what: 'bait' | 'colour'; name: string } | null;
}

export const meaningOf = (what: 'bait' | 'colour', name: string) => `${what} ${folded(name)}`;
const byName = <T extends Named>(rows: T[]) => new Map(rows.map((row) => [folded(row.name), row]));

interface Matched {
  /** Rows of one key are one order. */
  key: string;
  order: Omit<TableOrder, 'lines'>;
  line: TableLine;
}
type Unmatched = Pick<LeftOver, 'why' | 'unknown'>;

const whole = (value: number | null, most: number) =>
  value !== null && Number.isInteger(value) && value >= 1 && value <= most;

/** Reads the rows of one table. */
function reader(mapping: OrderMapping, known: OrderTableKnown) {
  const [baits, colours, customers] = [byName(known.baits), byName(known.colours), byName(known.customers)];
  return (cells: string[]): Matched | Unmatched => {
    const cell = (column: OrderColumn) => (mapping[column] === undefined ? '' : (cells[mapping[column]] ?? '').trim());
    const no = (why: string): Unmatched => ({ why, unknown: null });
    const find = <T extends Named>(what: 'bait' | 'colour', all: Map<string, T>): T | undefined => {
      const meant = known.means[meaningOf(what, cell(what))];
      return all.get(folded(cell(what))) ?? [...all.values()].find(({ id }) => id === meant);
    };
    const strange = (what: 'bait' | 'colour'): Unmatched => ({
      why: cell(what) ? `no ${what} is called “${cell(what)}”` : `no ${what} is named`,
      unknown: { what, name: cell(what) },
    });
    const [bait, colour] = [find('bait', baits), find('colour', colours)];
    if (!bait) return strange('bait');
    if (!colour) return strange('colour');
    const packs = figureOf(cell('packs'));
    if (!whole(packs, LINE_MOST.packs))
      return no(`“${cell('packs')}” is no number of packs from 1 to ${LINE_MOST.packs}`);
    const perPack = cell('perPack') === '' ? bait.packCount : figureOf(cell('perPack'));
    if (!whole(perPack, LINE_MOST.perPack))
      return no(`“${cell('perPack')}” is no number of baits to a pack from 1 to ${LINE_MOST.perPack}`);
    if (Number(packs) * Number(perPack) > LINE_MOST.baits)
      return no(`more than ${LINE_MOST.baits} baits on one line: split it`);
    const price = figureOf(cell('price'));
    if (cell('price') !== '' && (price === null || price < 0)) return no(`“${cell('price')}” is no price`);
    const dueOn = cell('due') === '' ? known.usualDue : dayOf(cell('due'), known.monthFirst);
    if (dueOn === null) return no(`“${cell('due')}” is no day`);
    const name = cell('customer') || known.usualCustomer;
    if (name === '') return no('no customer is named');
    if (name.length > 120) return no('a customer’s name has 120 letters at most');
    const customer = customers.get(folded(name));
    const reference = cell('order');
    return {
      key: reference ? `order ${folded(reference)} ${folded(name)}` : `${folded(name)} ${dueOn}`,
      order: {
        customerId: customer?.id ?? null,
        newCustomer: customer ? null : name,
        dueOn,
        notes: [reference && `Their order ${reference}.`, cell('notes')].filter(Boolean).join(' ').slice(0, 2000),
      },
      line: {
        baitId: bait.id,
        colourwayId: colour.id,
        packs: Number(packs),
        perPack: Number(perPack),
        priceMinor: price === null ? null : Math.round(price * known.minorPerUnit),
      },
    };
  };
}

/**
 * A table of orders as orders: rows of one reference, or of one customer and day, are one order. Nothing is guessed: a row
 * that cannot be matched is left over with its reason.
 * @param rows cells as text, the headings not among them; @param first the number of the first of them in its file.
 */
export function ordersOf(
  rows: string[][],
  mapping: OrderMapping,
  known: OrderTableKnown,
  first = 2,
): { orders: TableOrder[]; left: LeftOver[] } {
  const read = reader(mapping, known);
  const groups = new Map<string, TableOrder[]>();
  const left: LeftOver[] = [];
  rows.forEach((cells, i) => {
    if (cells.every((one) => one.trim() === '')) return;
    const found = read(cells);
    if ('why' in found) {
      left.push({ row: first + i, cells, ...found });
      return;
    }
    const group = groups.get(found.key) ?? [];
    groups.set(found.key, group);
    const order = group.at(-1);
    if (order && order.lines.length < LINES_MOST) order.lines.push(found.line);
    else group.push({ ...found.order, lines: [found.line] });
  });
  return { orders: [...groups.values()].flat(), left };
}
