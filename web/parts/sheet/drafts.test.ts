// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { dropDraft, readDraft, writeDraft } from './drafts.ts';

const typed = { values: { name: 'Eel' }, seen: { name: '' }, typed: { packs: 'about eight' } };

beforeEach(() => localStorage.clear());
afterEach(() => vi.restoreAllMocks());

test('what was typed comes back under its own name, until it is sent', () => {
  expect(writeDraft('order', typed)).toBe(true);
  expect(readDraft('order')).toMatchObject(typed);
  expect(readDraft('mold')).toBeUndefined();
  dropDraft('order');
  expect(readDraft('order')).toBeUndefined();
});

test('a draft older than a fortnight, or cut short, is let go', () => {
  writeDraft('order', typed);
  vi.spyOn(Date, 'now').mockReturnValue(Date.now() + 15 * 24 * 3600_000);
  expect(readDraft('order')).toBeUndefined();
  vi.restoreAllMocks();
  localStorage.setItem('blunko.draft.order', '{"values":{"na');
  expect(readDraft('order')).toBeUndefined();
  expect(localStorage.length).toBe(0);
});

test('a full storage is told, any other fault is not swallowed', () => {
  const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  expect(writeDraft('order', typed)).toBe(false);
  full.mockImplementation(() => {
    throw new Error('broken');
  });
  expect(() => writeDraft('order', typed)).toThrow('broken');
});
