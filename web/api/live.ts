import type { InstrumentNow } from '../../contract/instruments.ts';
import { first } from './first.ts';
import { heard } from './instruments.ts';
import { learnServerTime } from './now.ts';
import { staled } from './stale.ts';

/** A line that the server closed for good, such as before the passcode was typed, is tried again after this. */
const AGAIN_MS = 5000;

/** What is told when the server is there again, and which build of the pages it serves. */
let onHello: (build: string | null) => void = () => {};
export function whenThere(tell: (build: string | null) => void): void {
  onHello = tell;
}

let reopen: () => void = () => {};
/** Opens the line at once: somebody was let in. */
export const openLiveLine = () => reopen();

/** Listens for what became stale on any other screen; after a gap everything is fetched again. */
export function listen(): () => void {
  let source: EventSource | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let gap = false;
  let seen = first?.write;
  const open = () => {
    clearTimeout(timer);
    source?.close();
    const line = new EventSource('/api/live');
    source = line;
    line.addEventListener('hello', (event) => {
      const { now, build, write } = JSON.parse((event as MessageEvent<string>).data) as {
        now: string;
        build: string | null;
        write: string;
      };
      learnServerTime(now);
      // What came with the page is older than the line.
      if (gap || (seen !== undefined && seen !== write)) void staled(['*']);
      gap = false;
      seen = undefined;
      onHello(build);
    });
    line.addEventListener('stale', (event) => {
      const { keys, write } = JSON.parse((event as MessageEvent<string>).data) as { keys: string[]; write: string };
      void staled(keys, write);
    });
    line.addEventListener('instrument', (event) => {
      heard(JSON.parse((event as MessageEvent<string>).data) as InstrumentNow);
    });
    line.addEventListener('job', (event) => {
      const detail = JSON.parse((event as MessageEvent<string>).data) as { job: string; done: number };
      window.dispatchEvent(new CustomEvent('blunko:job', { detail }));
    });
    line.addEventListener('error', () => {
      gap = true;
      // A browser tries again by itself unless it was refused.
      if (line.readyState === EventSource.CLOSED && source === line) {
        clearTimeout(timer);
        timer = setTimeout(open, AGAIN_MS);
      }
    });
  };
  reopen = open;
  open();
  return () => {
    clearTimeout(timer);
    source?.close();
  };
}
