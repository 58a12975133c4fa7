/** One short order, as the evening's sentence needs it. */
export interface ShortOrder {
  id: string;
  dueOn: string;
  colourwayIds: string[];
}

/** Whether a due day is over. @param today both as yyyy-MM-dd, in the workshop's own days. */
export const isLate = (dueOn: string, today: string) => dueOn < today;

/** Most cups one evening is planned for. */
const CUPS_AN_EVENING = 3;

/**
 * Which short orders tonight's cups should serve: earliest due first, as long as the colours stay few enough for one
 * evening. An order that needs more colours than that still comes first, alone.
 */
export function tonight(orders: ShortOrder[]): { orderIds: string[]; colourwayIds: string[] } {
  const colourwayIds = new Set<string>();
  const orderIds: string[] = [];
  for (const order of [...orders].sort((a, b) => (a.dueOn < b.dueOn ? -1 : Number(a.dueOn > b.dueOn)))) {
    const grown = new Set([...colourwayIds, ...order.colourwayIds]);
    if (orderIds.length > 0 && grown.size > CUPS_AN_EVENING) break;
    for (const id of order.colourwayIds) colourwayIds.add(id);
    orderIds.push(order.id);
  }
  return { orderIds, colourwayIds: [...colourwayIds] };
}

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'];

/** "Two cups", "One cup", "7 cups". */
export function countWord(n: number, thing: string): string {
  return `${NUMBERS[n] ?? n} ${thing}${n === 1 ? '' : 's'}`;
}
