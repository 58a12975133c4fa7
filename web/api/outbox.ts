import { useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import { ApiError, call, NoAnswer } from './client.ts';
import { serverStamp } from './now.ts';
import { adoptOlder, isShelf, shelve, shelved, type Tap, unshelve } from './shelf.ts';

export type { Tap };

/** Silence is asked after again so much later, ms; then always after the last. */
const AGAIN_MS = [2000, 4000, 8000, 15_000];

const listeners = new Set<() => void>();
/** Taps that the browser had no room for: they live as long as this page does. */
let unkept: Tap[] = [];
let taps: Tap[] = [];
let sending = false;
let silences = 0;
/** What keeps the workshop's computer from taking them, in its own words. */
let trouble: string | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;

function reread(): void {
  taps = [...shelved(), ...unkept].sort((a, b) => a.n - b.n);
  for (const listener of listeners) listener();
}

function keep(tap: Tap): void {
  unkept = unkept.filter((row) => row.key !== tap.key);
  if (!shelve(tap)) unkept.push(tap);
  reread();
}

function drop(key: string): void {
  unkept = unkept.filter((row) => row.key !== key);
  unshelve(key);
  // Where one went there may be room for another.
  for (const tap of unkept) if (shelve(tap)) unkept = unkept.filter((row) => row !== tap);
  reread();
}

let answered: (about: string, answer: unknown) => void = () => {};

/** What to do with the server's answer to a tap. */
export function onAnswer(handler: typeof answered): void {
  answered = handler;
}

const nextTurn = () => new Promise((done) => setTimeout(done, 0));

const noAnswer = (error: unknown) =>
  error instanceof NoAnswer ||
  (error instanceof ApiError && (error.status >= 500 || error.code === 'passcode-needed' || error.status === 426));

/** Sends waiting taps in order; an answer of any kind takes a tap out, silence leaves it for the next try. */
async function sendAll(): Promise<void> {
  for (let tap = taps.find((row) => !row.refused); tap; tap = taps.find((row) => !row.refused)) {
    const { key, path, body, about } = tap;
    try {
      const answer = await call<unknown>(path, { method: 'POST', body, key });
      silences = 0;
      trouble = null;
      answered(about, answer);
      // Screens hear of an answer a turn later; until then the tap stands in for it, or it would vanish for a moment.
      await nextTurn();
      drop(key);
    } catch (error) {
      if (noAnswer(error)) {
        trouble = error instanceof ApiError && error.status >= 500 ? error.message : null;
        reread();
        later();
        return;
      }
      if (!(error instanceof ApiError)) throw error;
      silences = 0;
      trouble = null;
      keep({ ...tap, refused: error.message });
    }
  }
}

/** One timer for all of them, each silence a little longer. */
function later(): void {
  clearTimeout(timer);
  timer = setTimeout(send, AGAIN_MS[Math.min(silences, AGAIN_MS.length - 1)]);
  silences += 1;
}

/** Runs in one tab at a time where the browser can tell; where it cannot, or one is stuck, the key still counts once. */
async function alone(work: () => Promise<void>): Promise<void> {
  const { locks } = navigator;
  if (!locks || silences > AGAIN_MS.length) return work();
  await locks.request('blunko.outbox', { ifAvailable: true }, async (lock) => {
    if (lock) return work();
    // Another tab sends; should it stop, this one looks again.
    if (taps.some((row) => !row.refused)) later();
  });
}

function send(): void {
  clearTimeout(timer);
  timer = undefined;
  if (sending || !taps.some((row) => !row.refused)) return;
  sending = true;
  void alone(sendAll).finally(() => {
    sending = false;
    // What was tapped while the last answer came.
    if (timer === undefined && taps.some((row) => !row.refused)) send();
  });
}

/** The workshop's computer was just heard: nothing has to wait for its turn. */
export function sendNow(): void {
  silences = 0;
  send();
}

/** Records a bench tap; it counts once however often it has to be sent, at the moment it was made. */
export function tap(path: string, body: Record<string, unknown>, said: string, about: string): void {
  const n = (taps.at(-1)?.n ?? 0) + 1;
  keep({ key: v7(), n, path, body: { ...body, tappedAt: serverStamp() }, said, about });
  if (timer === undefined) send();
}

/** A tap that adds a row: the row's id comes from here, so that later taps can point to it before it is answered. */
export function tapRow(path: string, body: Record<string, unknown>, said: string, about: string): void {
  tap(path, { id: v7(), ...body }, said, about);
}

export const dismiss = drop;

export function startOutbox(): void {
  adoptOlder();
  reread();
  window.addEventListener('online', sendNow);
  window.addEventListener('storage', (event) => {
    if (!isShelf(event.key)) return;
    reread();
    if (timer === undefined) send();
  });
  send();
}

function useOutbox<T>(read: () => T): T {
  return useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, read);
}

export const useTaps = (): Tap[] => useOutbox(() => taps);

/** What the workshop's computer said it cannot take them for; null where it is only silent. */
export const useTrouble = (): string | null => useOutbox(() => trouble);

/** How many taps only this page knows of, since the browser has no room. */
export const useUnkept = (): number => useOutbox(() => unkept.length);
