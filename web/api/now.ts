import { useSyncExternalStore } from 'react';

// A tablet's own clock may be wrong by minutes; pot life is counted on the server's.
let offsetMs = 0;

export function learnServerTime(iso: string): void {
  offsetMs = Date.parse(iso) - Date.now();
}

export const serverNow = () => Date.now() + offsetMs;

/** The server's time now in ms, again every second. */
export function useNow(): number {
  return useSyncExternalStore(
    (changed) => {
      const timer = setInterval(changed, 1000);
      return () => clearInterval(timer);
    },
    () => Math.floor(serverNow() / 1000) * 1000,
  );
}
