/** Whether a due day is over. @param today both as yyyy-MM-dd, in the workshop's own days. */
export const isLate = (dueOn: string, today: string) => dueOn < today;

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'];

/** "Two cups", "One cup", "7 cups". */
export function countWord(n: number, thing: string): string {
  return `${NUMBERS[n] ?? n} ${thing}${n === 1 ? '' : 's'}`;
}
