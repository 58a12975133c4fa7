export interface Draft<V> {
  values: V;
  /** What stood there when it was typed. */
  seen: V;
  /** Texts that are no figure yet, by field. */
  typed: Record<string, string>;
  at: number;
}

const SHELF = 'blunko.draft.';
const KEPT_MS = 14 * 24 * 3600_000;

/** What was typed and not sent; nothing older than a fortnight. */
export function readDraft<V>(keep: string): Draft<V> | undefined {
  const text = localStorage.getItem(SHELF + keep);
  if (text === null) return undefined;
  try {
    const draft = JSON.parse(text) as Draft<V>;
    if (Date.now() - draft.at < KEPT_MS && typeof draft.values === 'object') return draft;
  } catch (error) {
    // Cut short by a browser that was closed: what is left of it cannot be read.
    if (!(error instanceof SyntaxError)) throw error;
  }
  localStorage.removeItem(SHELF + keep);
  return undefined;
}

/** Whether there was room for it. */
export function writeDraft<V>(keep: string, draft: Omit<Draft<V>, 'at'>): boolean {
  try {
    localStorage.setItem(SHELF + keep, JSON.stringify({ ...draft, at: Date.now() }));
    return true;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'QuotaExceededError') return false;
    throw error;
  }
}

export const dropDraft = (keep: string) => localStorage.removeItem(SHELF + keep);
