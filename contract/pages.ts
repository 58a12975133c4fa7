/** What the pages of a build are called: the name of their first script, which changes with every build. */
export const buildIn = (text: string): string | null => /assets\/(index-[\w-]+)\.js/.exec(text)?.[1] ?? null;

/** Under which names a browser keeps taps that wait: one each, after this and its key. */
export const TAP_SHELF = 'blunko.tap.';
/** Earlier pages kept all taps in one list. */
export const OLD_TAP_LIST = 'blunko.outbox';
