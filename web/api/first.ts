import { FIRST_ANSWERS, type FirstAnswers } from '../../contract/first.ts';

/** What the server put into this page; nothing in a shell that the browser kept. */
export const first: FirstAnswers | null = (() => {
  // Where there is no page there is nothing in it: the outbox is tried without one.
  const text = globalThis.document?.getElementById(FIRST_ANSWERS)?.textContent;
  return text ? (JSON.parse(text) as FirstAnswers) : null;
})();

const answers = new Map(Object.entries(first?.answers ?? {}));

/** What came with the page for this address, once: whoever asks again asks the server. */
export function cameWith(address: string): unknown {
  const answer = answers.get(address);
  answers.delete(address);
  return answer;
}

/** What nobody asked for at the start is too old for who asks later. */
export const forget = () => answers.clear();
