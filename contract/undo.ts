/** Where any row of any log is taken back: a dose, a reading, a shot, a weighing, a test, what left the rack. */
export const UNDO = '/undo';

interface Sent {
  path: string;
  body: Record<string, unknown>;
}

/** A tap of an earlier page that still waits in a browser, sent to where it is taken back now. */
export function undoOfOlder<T extends Sent>(tap: T): T {
  if (!/^\/(ledgers|pours)\/[^/]+\/undo$/.test(tap.path)) return tap;
  const { doseId, ...body } = tap.body;
  return { ...tap, path: UNDO, body: { ...body, ...(doseId === undefined ? {} : { rowId: doseId }) } };
}
