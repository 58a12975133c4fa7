import { OLD_TAP_LIST, TAP_SHELF } from '../../contract/pages.ts';
import { undoOfOlder } from '../../contract/undo.ts';

/** A bench tap on its way: kept in the browser until the server has answered it. */
export interface Tap {
  key: string;
  /** Its place in the order of taps on this device. */
  n: number;
  path: string;
  body: Record<string, unknown>;
  /** What the tap was, in the maker's words, should it be refused. */
  said: string;
  /** The record it belongs to, such as a pour's id. */
  about: string;
  refused?: string;
}

/** Taps that came along from the workshop's older address; the address may send them again. */
const CARRIED = 'blunko.carried';

const isTap = (value: unknown): value is Tap => {
  const tap = value as Tap | null;
  return typeof tap?.key === 'string' && typeof tap.path === 'string' && typeof tap.body === 'object';
};

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    // Rubbish is no tap.
    return null;
  }
}

/** All taps that this browser keeps, in their order. Each lies under a key of its own, so that no tab writes over another's. */
export function shelved(): Tap[] {
  const found: Tap[] = [];
  try {
    for (let i = 0; i < localStorage.length; i++) {
      const name = localStorage.key(i);
      if (!name?.startsWith(TAP_SHELF)) continue;
      const tap = parsed(localStorage.getItem(name));
      if (isTap(tap)) found.push(undoOfOlder(tap));
    }
  } catch {
    return [];
  }
  return found.sort((a, b) => a.n - b.n || (a.key < b.key ? -1 : 1));
}

/** @returns whether the browser took it; a full one does not. */
export function shelve(tap: Tap): boolean {
  try {
    localStorage.setItem(TAP_SHELF + tap.key, JSON.stringify(tap));
    return true;
  } catch {
    return false;
  }
}

export function unshelve(key: string): void {
  localStorage.removeItem(TAP_SHELF + key);
}

export const isShelf = (name: string | null) => name === null || name.startsWith(TAP_SHELF);

function adopt(taps: unknown, from: number): boolean {
  return (Array.isArray(taps) ? taps : []).filter(isTap).every((tap, index) => shelve({ ...tap, n: from + index }));
}

/** Takes over the list of an earlier page, and taps that the older address sent along; neither is dropped before it is kept. */
export function adoptOlder(): void {
  try {
    const next = () => (shelved().at(-1)?.n ?? 0) + 1;
    const list = localStorage.getItem(OLD_TAP_LIST);
    if (list !== null && adopt(parsed(list), next())) localStorage.removeItem(OLD_TAP_LIST);
    const sent = /^#taps=(.+)$/.exec(window.location?.hash ?? '')?.[1];
    if (!sent) return;
    const taps = parsed(decodeURIComponent(sent));
    const known = new Set(parsed(localStorage.getItem(CARRIED)) as string[] | null);
    const fresh = (Array.isArray(taps) ? taps : []).filter(isTap).filter((tap) => !known.has(tap.key));
    if (!adopt(fresh, next())) return;
    localStorage.setItem(CARRIED, JSON.stringify([...known, ...fresh.map((tap) => tap.key)]));
    window.history.replaceState(null, '', window.location.pathname + window.location.search);
  } catch {
    // A browser that keeps nothing has nothing to hand over.
  }
}
