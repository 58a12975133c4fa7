import { expect, test } from 'vitest';
import { ApiError, NoAnswer } from '../api/client.ts';
import { isGone } from './Page.tsx';

const said = (status: number) => new ApiError(status, 'not-found', 'no');

// The bench once vanished half a minute after the Wi-Fi did, with the hot cup in the hand.
test.each([
  ['nothing went wrong', null, undefined, false],
  ['the Wi-Fi is away, the record was read', new NoAnswer(), {}, false],
  ['the server broke, the record was read', said(500), {}, false],
  ['it was thrown out meanwhile', said(404), {}, true],
  ['it never was there', said(404), undefined, true],
  ['nothing was ever read', new NoAnswer(), undefined, true],
] as const)('%s', (_, error, data, gone) => {
  expect(isGone(error, data)).toBe(gone);
});
