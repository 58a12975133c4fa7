// @vitest-environment jsdom
import { act, StrictMode, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { afterEach, expect, test, vi } from 'vitest';
import type { Hand } from './errand.ts';
import { useErrand } from './useErrand.ts';

vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', true);
const made: { wish: string; answer(text: string): void; ended: boolean }[] = [];
afterEach(() => made.splice(0));

const hire = (): Hand<string, string, never> => {
  const one = { wish: '', answer: (_: string) => undefined as undefined, ended: false };
  return {
    ask: (wish) =>
      new Promise((done) => {
        made.push(
          Object.assign(one, {
            wish,
            answer: (text: string) => {
              done(text);
              return undefined;
            },
          }),
        );
      }),
    died: () => undefined,
    end: () => {
      one.ended = true;
    },
  };
};

function Judge({ wish }: { wish: string | null }) {
  const [said, setSaid] = useState('nothing');
  useErrand(
    wish,
    hire,
    { answer: (_, text) => setSaid(text), problem: (_, why) => setSaid(String(why)) },
    { newer: 'ends' },
  );
  return said;
}

test('mounted twice, as a development build does, it hears the worker of the mount that stays', async () => {
  const box = document.createElement('div');
  const root = createRoot(box);
  const show = (wish: string | null) =>
    act(async () =>
      root.render(
        <StrictMode>
          <Judge wish={wish} />
        </StrictMode>,
      ),
    );
  await show('a');
  expect(made.map(({ wish, ended }) => [wish, ended])).toEqual([
    ['a', true],
    ['a', false],
  ]);
  await act(async () => made[0]?.answer('too late'));
  expect(box.textContent).toBe('nothing');
  await act(async () => made[1]?.answer('A'));
  expect(box.textContent).toBe('A');
  await show('b');
  await act(async () => made.at(-1)?.answer('B'));
  expect(box.textContent).toBe('B');
  await act(async () => root.unmount());
  expect(made.at(-1)?.ended).toBe(true);
});
