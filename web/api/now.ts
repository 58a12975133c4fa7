import { useSyncExternalStore } from 'react';

// A tablet's own clock may be wrong by minutes; pot life is counted on the server's. What was learnt is kept over a reload
// without Wi-Fi.
const STORE = 'blunko.clock';
let offsetMs = kept();

function kept(): number {
  try {
    const ms = Number(localStorage.getItem(STORE));
    return Number.isFinite(ms) ? ms : 0;
  } catch {
    return 0;
  }
}

export function learnServerTime(iso: string): void {
  offsetMs = Date.parse(iso) - Date.now();
  try {
    localStorage.setItem(STORE, String(offsetMs));
  } catch {
    // A full browser still knows the time until it is closed.
  }
}

export const serverNow = () => Date.now() + offsetMs;

/** The moment now, by the server's clock, as records hold it. */
export const serverStamp = () => new Date(serverNow()).toISOString();

/** The server's time now in ms, again every so often; a screen is drawn anew only when that time is over. */
function useTime(everyMs: number): number {
  return useSyncExternalStore(eachSecond, () => Math.floor(serverNow() / everyMs) * everyMs);
}

function eachSecond(changed: () => void): () => void {
  const timer = setInterval(changed, 1000);
  return () => clearInterval(timer);
}

/** The server's time now in ms, again every second. */
export const useNow = () => useTime(1000);

/** The server's time now in ms, again every minute: for dates. */
export const useMinute = () => useTime(60_000);
