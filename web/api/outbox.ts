import { useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import { ApiError, call, NoAnswer } from './client.ts';

/** A bench tap on its way: kept in the browser until the server has answered it. */
export interface Tap {
  key: string;
  path: string;
  body: Record<string, unknown>;
  /** What the tap was, in the maker's words, should it be refused. */
  said: string;
  /** The record it belongs to, such as a pour's id. */
  about: string;
  refused?: string;
}

const STORE = 'blunko.outbox';
const listeners = new Set<() => void>();
let taps: Tap[] = read();
let sending = false;

function read(): Tap[] {
  try {
    return JSON.parse(localStorage.getItem(STORE) ?? '[]') as Tap[];
  } catch {
    return [];
  }
}

function write(next: Tap[]): void {
  taps = next;
  localStorage.setItem(STORE, JSON.stringify(next));
  for (const listener of listeners) listener();
}

let answered: (about: string, answer: unknown) => void = () => {};

/** What to do with the server's answer to a tap. */
export function onAnswer(handler: typeof answered): void {
  answered = handler;
}

/** Sends waiting taps in order; an answer of any kind takes a tap out, silence leaves it for the next try. */
async function send(): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    for (let tap = taps.find((row) => !row.refused); tap; tap = taps.find((row) => !row.refused)) {
      const { key, path, body, about } = tap;
      try {
        const answer = await call<unknown>(path, { method: 'POST', body, key });
        answered(about, answer);
        write(taps.filter((row) => row.key !== key));
      } catch (error) {
        if (
          error instanceof NoAnswer ||
          (error instanceof ApiError && (error.status >= 500 || error.code === 'passcode-needed'))
        ) {
          setTimeout(() => void send(), 3000);
          return;
        }
        if (!(error instanceof ApiError)) throw error;
        write(taps.map((row) => (row.key === key ? { ...row, refused: error.message } : row)));
      }
    }
  } finally {
    sending = false;
  }
}

/** Records a bench tap; it counts once however often it has to be sent. */
export function tap(path: string, body: Record<string, unknown>, said: string, about: string): void {
  write([...taps, { key: v7(), path, body, said, about }]);
  void send();
}

/** A tap that adds a row: the row's id comes from here, so that later taps can point to it before it is answered. */
export function tapRow(path: string, body: Record<string, unknown>, said: string, about: string): void {
  tap(path, { id: v7(), ...body }, said, about);
}

export function dismiss(key: string): void {
  write(taps.filter((row) => row.key !== key));
}

export function startOutbox(): void {
  window.addEventListener('online', () => void send());
  window.addEventListener('storage', (event) => {
    if (event.key === STORE) {
      taps = read();
      for (const listener of listeners) listener();
    }
  });
  void send();
}

export function useTaps(): Tap[] {
  return useSyncExternalStore(
    (changed) => {
      listeners.add(changed);
      return () => listeners.delete(changed);
    },
    () => taps,
  );
}
