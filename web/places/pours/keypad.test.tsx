// @vitest-environment jsdom
import { afterEach, describe, expect, test } from 'vitest';
import { Page } from '../../testing/page.tsx';
import { Keypad } from './Keypad.tsx';

let page: Page;
let entered: [value: number, kind: string][];
let closed: number;
afterEach(() => page.close());

async function open(refuse: (value: number) => string | null = () => null) {
  entered = [];
  closed = 0;
  const kinds = [
    { value: 'reading', label: 'Reading' },
    { value: 'reheat', label: 'Reheated' },
  ];
  page = await Page.open(
    <Keypad
      open
      title="Temperature"
      unit="°C"
      kinds={kinds}
      startKind="reading"
      onClose={() => closed++}
      onEnter={(value, kind) => {
        entered.push([value, kind]);
        return refuse(value);
      }}
    />,
  );
}
const shown = () => page.box.querySelector('output')?.textContent;
const tap = async (keys: string) => {
  for (const key of keys) await page.press(key);
};
const key = (name: string, on: EventTarget = document.body) =>
  page.does(() => on.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true })));

describe('a figure is tapped with a glove', () => {
  test.each([
    ['168', '168 °C', 168],
    ['167.5', '167.5 °C', 167.5],
    ['1..5', '1.5 °C', 1.5],
    ['123456', '12345 °C', 12345],
    ['12⌫7', '17 °C', 17],
    ['⌫⌫9', '9 °C', 9],
  ])('%s', async (keys, text, value) => {
    await open();
    await tap(keys);
    expect(shown()).toBe(text);
    await page.press('Enter');
    expect(entered).toEqual([[value, 'reading']]);
  });

  test('nothing is entered where nothing was tapped; a point alone is no figure', async () => {
    await open();
    expect([shown(), page.button('Enter').disabled]).toEqual(['— °C', true]);
    await tap('.');
    await page.press('Enter');
    expect(entered).toEqual([]);
  });

  test('of which kind it is goes with it', async () => {
    await open();
    await page.press('Reheated');
    expect(page.button('Reheated').getAttribute('aria-pressed')).toBe('true');
    await tap('171');
    await page.press('Enter');
    expect(entered).toEqual([[171, 'reheat']]);
  });

  test('what is refused is said and cleared; the next key takes the word away', async () => {
    await open((value) => (value > 300 ? 'No cup is that hot.' : null));
    await tap('400');
    await page.press('Enter');
    expect([page.box.querySelector('[role="alert"]')?.textContent, shown()]).toEqual(['No cup is that hot.', '— °C']);
    await tap('1');
    expect(page.box.querySelector('[role="alert"]')).toBeNull();
  });
});

describe('a keyboard works too', () => {
  test('figures, point, back and Enter', async () => {
    await open();
    for (const name of ['1', '6', '9', 'Backspace', '8', '.', '5', 'x']) await key(name);
    expect(shown()).toBe('168.5 °C');
    await key('Enter');
    expect(entered).toEqual([[168.5, 'reading']]);
  });

  test('Enter means the figure even where a digit was tapped last, but not on the way out', async () => {
    await open();
    await tap('17');
    await key('Enter', page.button('7'));
    expect(entered).toEqual([[17, 'reading']]);
    await key('Enter', page.button('Not now'));
    expect(entered).toHaveLength(1);
    await page.press('Not now');
    expect(closed).toBe(1);
  });
});
