// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, describe, expect, test } from 'vitest';
import type { Dimension } from '../../core/units/dimension.ts';
import { mm, say } from '../../core/units/say.ts';
import { ApiError } from '../api/client.ts';
import { Page } from '../testing/page.tsx';
import { NumberField, QuantityField, Refusal } from './Fields.tsx';
import { MmField } from './MmField.tsx';

let page: Page;
afterEach(() => page.close());
let kept: number | null | undefined;

function Quantity({ dimension, first = null }: { dimension: Dimension; first?: number | null }) {
  const [value, setValue] = useState<number | null>(first);
  kept = value;
  return <QuantityField label="Amount" dimension={dimension} value={value} onChange={setValue} />;
}

function Count({ min }: { min?: number }) {
  const [value, setValue] = useState<number | null>(7);
  kept = value;
  return <NumberField label="How many" value={value} onChange={setValue} {...(min === undefined ? {} : { min })} />;
}
function Turned({ plain = false }: { plain?: boolean }) {
  const [value, setValue] = useState(10);
  kept = value;
  return <MmField label="Wall" value={value} least={2} most={40} onChange={setValue} plain={plain} />;
}
describe('an amount as a maker writes it', () => {
  test.each([
    ['metric', 'length', '3 1/2 in', 88.9, '88.9 mm'],
    ['us', 'length', '3 1/2 in', 88.9, '3.5 in'],
    ['us', 'length', '3.5', 88.9, '3.5 in'],
    ['metric', 'length', '88,9', 88.9, '88.9 mm'],
    ['metric', 'volume', '1/4 cup', 59.1470592, '59.1 mL'],
    ['us', 'temperature', '350', 176.6667, '350 °F'],
    ['metric', 'temperature', '350 F', 176.6667, '177 °C'],
    ['us', 'mass', '2 oz', 56.699, '2 oz'],
    ['metric', 'mass', '1.5 kg', 1500, '1500 g'],
  ] as const)('%s %s: %s', async (system, dimension, typed, stored, shown) => {
    page = await Page.open(<Quantity dimension={dimension} />, { system });
    await page.type('Amount', typed);
    expect(kept).toBeCloseTo(stored, 3);
    expect(page.field('Amount').value).toBe(shown);
  });

  test('what is not understood stays as it was typed, says what to write, and counts as nothing', async () => {
    page = await Page.open(<Quantity dimension="length" first={12} />);
    await page.type('Amount', '3 buckets');
    expect([kept, page.field('Amount').value]).toEqual([null, '3 buckets']);
    expect(page.field('Amount').getAttribute('aria-invalid')).toBe('true');
    expect(page.text).toContain('bucket');
    await page.type('Amount', '');
    expect([kept, page.field('Amount').getAttribute('aria-invalid')]).toEqual([null, 'false']);
  });

  test('another kind of unit is refused, not turned', async () => {
    page = await Page.open(<Quantity dimension="length" />);
    await page.type('Amount', '5 g');
    expect([kept, page.field('Amount').getAttribute('aria-invalid')]).toEqual([null, 'true']);
  });
});

describe('a bare number', () => {
  test.each([
    ['12', undefined, 12, false],
    ['1,5', undefined, 1.5, false],
    ['', undefined, null, false],
    ['a dozen', undefined, null, true],
    ['-3', 0, null, true],
    ['0', 0, 0, false],
  ] as const)('"%s", at least %s', async (typed, min, value, wrong) => {
    page = await Page.open(<Count {...(min === undefined ? {} : { min })} />);
    await page.type('How many', typed);
    expect([kept, page.text.includes('Write a number here')]).toEqual([value, wrong]);
    if (wrong) expect(page.field('How many').value).toBe(typed);
  });
});

describe('a figure that is turned while looking', () => {
  test.each([
    ['metric', '12', 12],
    ['us', '1/2', 12.7],
    ['us', '0.5 in', 12.7],
    ['metric', '1/2 in', 12.7],
  ] as const)('%s: %s', async (system, typed, stored) => {
    page = await Page.open(<Turned />, { system });
    await page.type('Wall', typed);
    expect(kept).toBeCloseTo(stored, 6);
  });

  test('what is out of its bounds never reaches the drawing unbounded', async () => {
    page = await Page.open(<Turned />);
    await page.type('Wall', '900');
    expect(kept).toBeLessThanOrEqual(40);
    await page.type('Wall', '0.1');
    expect(kept).toBeGreaterThanOrEqual(2);
  });
});

function Gap() {
  const [value, setValue] = useState(0.15);
  kept = value;
  return <MmField label="Wider by" value={value} least={0} most={1} step={0.05} fine onChange={setValue} />;
}
describe('a gap in hundredths', () => {
  test.each([
    ['metric', '0.15 mm', '0.05', 0.05, '0.05 mm'],
    ['us', '0.0059 in', '0.002 in', 0.051, '0.0020 in'],
    ['us', '0.0059 in', '0.002', 0.051, '0.0020 in'],
  ] as const)('%s: %s, then %s', async (system, first, typed, stored, shown) => {
    page = await Page.open(<Gap />, { system });
    expect(page.field('Wider by').value).toBe(first);
    await page.type('Wider by', typed);
    expect([kept, page.field('Wider by').value]).toEqual([stored, shown]);
  });

  test('its bound is told in as many places', async () => {
    page = await Page.open(<Gap />, { system: 'us' });
    await page.does(() => {
      const input = page.field('Wider by');
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(input, '1');
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
    expect(page.text).toContain('at most 0.0394 in');
  });
});

describe('a refusal', () => {
  const refused = (code: string) => {
    const told = say`A wall of ${mm(3)} tears.`;
    return new ApiError(400, code, told.text, 'wallMm', undefined, told);
  };

  test('is said in the maker’s units where it bears its figures', async () => {
    page = await Page.open(<Refusal error={refused('invalid-input')} />, { system: 'us' });
    expect(page.text).toMatch(/A wall of 0\.12 in tears\./);
  });

  test('one that only asks can be answered; any other cannot', async () => {
    let sure = 0;
    const onSure = () => {
      sure += 1;
    };
    page = await Page.open(<Refusal error={refused('contradicts-itself')} onSure={onSure} />);
    await page.press('Keep it all the same');
    expect(sure).toBe(1);
    await page.close();
    page = await Page.open(<Refusal error={refused('invalid-input')} onSure={onSure} />);
    expect(() => page.button('Keep it all the same')).toThrow();
  });

  test('of nothing is nothing, and of a stranger says that something broke', async () => {
    page = await Page.open(<Refusal error={null} />);
    expect(page.text).toBe('');
    await page.close();
    page = await Page.open(<Refusal error="odd" />);
    expect(page.text).toBe('Something broke; try again.');
  });
});
