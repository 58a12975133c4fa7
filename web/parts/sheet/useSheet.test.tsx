// @vitest-environment jsdom
import { act, StrictMode } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import * as v from 'valibot';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { readDraft } from './drafts.ts';
import { type Sheet, useSheet } from './useSheet.ts';

vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', true);

interface Bait {
  name: string;
  price: number | null;
  lines: { packs: number | null }[];
}
const schema = v.strictObject({
  name: v.pipe(v.string(), v.minLength(1)),
  price: v.nullable(v.pipe(v.number(), v.minValue(0), v.maxValue(9999))),
  lines: v.array(v.strictObject({ packs: v.pipe(v.number(), v.integer(), v.minValue(1)) })),
});
const SEEN: Bait = { name: 'Sandlance', price: 300, lines: [{ packs: 2 }] };

let sheet: Sheet<Bait>;
let root: Root;
function Form({ seen }: { seen: Bait }) {
  sheet = useSheet<Bait>({ schema, keep: 'bait/1', seen });
  return null;
}
/** Opens it, or tells it what the record says now. */
const show = (seen = SEEN) =>
  act(async () =>
    root.render(
      <StrictMode>
        <Form seen={seen} />
      </StrictMode>,
    ),
  );
const does = (what: () => void) => act(async () => what());
/** Leaves the page and comes back to it. */
async function again(seen = SEEN): Promise<void> {
  await act(async () => root.unmount());
  root = createRoot(document.createElement('div'));
  await show(seen);
}

beforeEach(async () => {
  localStorage.clear();
  root = createRoot(document.createElement('div'));
  await show();
});
afterEach(async () => {
  await act(async () => root.unmount());
  vi.restoreAllMocks();
});

test('what is typed is kept until it is sent, also what is no figure yet; untouched, nothing is kept', async () => {
  expect([sheet.changed, readDraft('bait/1')]).toEqual([false, undefined]);
  await does(() => sheet.set('price', 450));
  await does(() => sheet.setTyped('lines.0.packs', 'a few'));
  await again();
  expect([sheet.values.price, sheet.typed, sheet.restored]).toEqual([450, { 'lines.0.packs': 'a few' }, true]);
  await does(() => sheet.done());
  await again();
  expect([sheet.values, sheet.typed, sheet.restored]).toEqual([SEEN, {}, false]);
});

test('typed back to what stands there, it is not changed and nothing is kept', async () => {
  await does(() => sheet.set('price', 450));
  expect(sheet.changed).toBe(true);
  await does(() => sheet.set('price', 300));
  expect([sheet.changed, readDraft('bait/1')]).toEqual([false, undefined]);
});

test('what another screen saved comes in where nothing was typed, and is told where something was', async () => {
  await does(() => sheet.set('price', 450));
  await show({ ...SEEN, name: 'Sand eel', price: 500 });
  expect([sheet.values.name, sheet.values.price, sheet.elsewhere]).toEqual(['Sand eel', 450, ['price']]);
  // The same once more, after the browser was closed over it.
  await again({ ...SEEN, name: 'Sprat', price: 520 });
  expect([sheet.values.name, sheet.values.price, sheet.elsewhere]).toEqual(['Sprat', 450, ['price']]);
});

test('what was sent is no change once the record says it', async () => {
  await does(() => sheet.set('price', 450));
  await does(() => sheet.done());
  await show({ ...SEEN, price: 450 });
  expect([sheet.changed, sheet.elsewhere, readDraft('bait/1')]).toEqual([false, [], undefined]);
  // And a later change elsewhere is simply taken over.
  await show({ ...SEEN, price: 600 });
  expect([sheet.values.price, sheet.elsewhere]).toEqual([600, []]);
});

test('afresh is what the record says, not what had been restored', async () => {
  await does(() => sheet.set('name', ''));
  await does(() => sheet.set('lines.0.packs', 9));
  await again();
  await does(() => sheet.startAfresh());
  expect([sheet.values, sheet.restored, sheet.changed, readDraft('bait/1')]).toEqual([SEEN, false, false, undefined]);
});

test('a row that is taken out takes its texts with it, and those of the rows after it move up', async () => {
  await does(() => sheet.set('lines', [{ packs: 1 }, { packs: null }, { packs: null }]));
  await does(() => sheet.setTyped('lines.1.packs', 'some'));
  await does(() => sheet.setTyped('lines.2.packs', 'a few'));
  await does(() => sheet.takeOut('lines', 1));
  expect([sheet.values.lines, sheet.typed]).toEqual([[{ packs: 1 }, { packs: null }], { 'lines.1.packs': 'a few' }]);
  await does(() => sheet.takeOut('lines', 0));
  expect(sheet.typed).toEqual({ 'lines.0.packs': 'a few' });
});

test('each fault has the path of its field, missing or wrong', async () => {
  await does(() => sheet.set('name', ''));
  await does(() => sheet.set('price', -1));
  await does(() => sheet.set('lines.0.packs', null));
  expect(sheet.faults.map((fault) => [fault.path.join('.'), fault.missing])).toEqual([
    ['name', true],
    ['price', false],
    ['lines.0.packs', true],
  ]);
});

test('a full storage is said, and what was typed stays on the sheet', async () => {
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  await does(() => sheet.set('price', 450));
  expect([sheet.kept, sheet.values.price]).toEqual([false, 450]);
});
