// @vitest-environment jsdom
import { useState } from 'react';
import * as v from 'valibot';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { mm, say } from '../../../core/units/say.ts';
import { ApiError } from '../../api/client.ts';
import { Page } from '../../testing/page.tsx';
import { ChoiceIn, FigureIn, NoteIn, TextIn, TickIn } from './In.tsx';
import { AsItWas, Send, Sheet } from './Sheet.tsx';
import { useSheet } from './useSheet.ts';

interface Tin {
  name: string;
  wallMm: number | null;
  wasteFraction: number | null;
  priceMinor: number | null;
  count: number | null;
  pour: string | null;
  sealed: boolean;
  notes: string;
}
const positive = v.pipe(v.number(), v.minValue(0));
const schema = v.strictObject({
  name: v.pipe(v.string(), v.minLength(1)),
  wallMm: v.optional(v.pipe(v.number(), v.minValue(2), v.maxValue(40)), 10),
  wasteFraction: positive,
  priceMinor: v.nullable(positive),
  count: v.pipe(v.number(), v.integer(), v.minValue(1)),
  pour: v.picklist(['slow', 'fast']),
  sealed: v.boolean(),
  notes: v.string(),
});
const BEGUN: Tin = {
  name: '',
  wallMm: 10,
  wasteFraction: 0.07,
  priceMinor: null,
  count: null,
  pour: 'slow',
  sealed: false,
  notes: '',
};
const POURS = [
  { value: 'slow', label: 'slowly' },
  { value: 'fast', label: 'at once' },
];

let page: Page;
let sent: [values: Tin, sure: boolean][];
let told: { refuse(error: unknown): void; values: Tin; left: boolean };
let begun: Tin;

function Form() {
  const sheet = useSheet<Tin>({ schema, keep: 'tin', seen: begun });
  const [error, setError] = useState<unknown>(null);
  told = { refuse: setError, values: sheet.values, left: told?.left ?? false };
  return (
    <Sheet of={sheet} by={{ error, isPending: false }} onSend={(sure) => sent.push([sheet.values, sure])}>
      <TextIn at="name" />
      <FigureIn at="wallMm" />
      <FigureIn at="wasteFraction" />
      <FigureIn at="priceMinor" />
      <FigureIn at="count" />
      <ChoiceIn at="pour" options={POURS} />
      <TickIn at="sealed" />
      <NoteIn at="notes" />
      <Send>Keep it</Send>
      <AsItWas onDone={() => (told.left = true)} />
    </Sheet>
  );
}
const open = async (system: 'metric' | 'us' = 'metric', first: Partial<Tin> = {}) => {
  begun = { ...BEGUN, ...first };
  page = await Page.open(<Form />, { system });
};
const refuse = (...refusal: ConstructorParameters<typeof ApiError>) =>
  page.does(() => told.refuse(new ApiError(...refusal)));
const status = () => page.box.querySelector('[role="status"]')?.textContent ?? '';
const isOff = () => page.button('Keep it').disabled;
/** The field’s own words, by its path, without the mark of a default. */
function words(path: string): string {
  const input = page.box.querySelector<HTMLInputElement>(`[data-field="${path}"]`);
  const label = [...page.box.querySelectorAll('label')].find((one) => one.control === input);
  return (label?.textContent ?? '').replace(/ *default.*/, '');
}
const invalid = (label: string) => page.field(label).getAttribute('aria-invalid') === 'true';

beforeEach(() => {
  localStorage.clear();
  sent = [];
});
afterEach(() => page.close());

describe('what stands in a field', () => {
  test.each([
    ['metric', '10 mm', '7', '450', '4.50'],
    ['us', '0.39 in', '7', '450', '4.50'],
  ] as const)(
    '%s: lengths in the maker’s unit, shares in percent, money in the workshop’s',
    async (system, wall, waste, minor, price) => {
      await open(system, { priceMinor: Number(minor) });
      expect([page.field('Wall').value, page.field('cup’s walls, %').value, page.field('EUR').value]).toEqual([
        wall,
        waste,
        price,
      ]);
    },
  );

  test('a default is marked as one until another figure is typed', async () => {
    await open();
    const mark = () => page.field('Wall').closest('div')?.textContent?.includes('default') ?? false;
    const before = page.text.match(/default/g)?.length ?? 0;
    await page.type('Wall', '12');
    expect([before - (page.text.match(/default/g)?.length ?? 0), told.values.wallMm, mark()]).toEqual([1, 12, false]);
  });

  test.each([
    ['Wall', '1/2 in', 'wallMm', 12.7],
    ['cup’s walls, %', '12,5 %', 'wasteFraction', 0.125],
    ['EUR', '3.5', 'priceMinor', 350],
    ['How many', '24', 'count', 24],
  ] as const)('%s: %s is read', async (label, text, field, value) => {
    await open();
    const at = field === 'count' ? words('count') : label;
    await page.type(at, text);
    expect(told.values[field]).toBeCloseTo(value, 9);
  });

  test.each([
    ['wallMm', 'a thumb'],
    ['wasteFraction', 'some'],
    ['count', '2.5'],
    ['priceMinor', 'cheap'],
  ] as const)('%s: “%s” stays as it was typed, counts as nothing and is not sent', async (field, text) => {
    await open('metric', { name: 'Tin', count: 3 });
    const label = words(field);
    await page.type(label, text);
    expect([page.field(label).value, told.values[field], invalid(label), isOff()]).toEqual([text, null, true, true]);
    expect(status()).toMatch(/Not understood yet|Still missing/);
    await page.does(() => page.box.querySelector('form')?.requestSubmit());
    expect(sent).toEqual([]);
  });
});

describe('what is missing or wrong', () => {
  test('is said in the words of the fields, and nothing is sent until it is there', async () => {
    await open();
    expect([isOff(), status()]).toEqual([true, expect.stringMatching(/^Still missing: .*Name.*\.$/)]);
    await page.type(words('name'), 'Tin');
    await page.type(words('count'), '3');
    expect([isOff(), status()]).toEqual([false, '']);
    await page.press('Keep it');
    expect(sent).toEqual([[{ ...BEGUN, name: 'Tin', count: 3 }, false]]);
  });

  test.each([
    ['metric', /at most 40 mm, not 50 mm/],
    ['us', /at most 1\.57 in, not 1\.97 in/],
  ] as const)('%s: a bound is said in the maker’s unit', async (system, said) => {
    await open(system, { name: 'Tin', count: 3 });
    await page.type('Wall', '50 mm');
    expect([isOff(), invalid('Wall')]).toEqual([true, true]);
    expect(status()).toMatch(said);
  });
});

describe('a refusal', () => {
  const ready = () => open('us', { name: 'Tin', count: 3 });
  const thin = say`A wall of ${mm(3)} is too thin.`;

  test('stands at its field in the maker’s unit, takes the eye there, and goes when the field is changed', async () => {
    await ready();
    await refuse(400, 'wall-too-thin', thin.text, 'wallMm', undefined, thin);
    expect([invalid('Wall'), document.activeElement === page.field('Wall')]).toEqual([true, true]);
    expect(page.text).toContain('A wall of 0.12 in is too thin.');
    await page.type('Wall', '1 in');
    expect([invalid('Wall'), page.text.includes('too thin')]).toEqual([false, false]);
  });

  test('of a field that is not here stands by the button', async () => {
    await ready();
    await refuse(400, 'in-use', 'A pour wants it.', 'pourId');
    expect(page.box.querySelector('[role="alert"]')?.textContent).toContain('A pour wants it.');
  });

  test('what contradicts itself is asked, and sent again with a word', async () => {
    await ready();
    await refuse(400, 'contradicts-itself', 'It is 90 mm long and 900 g heavy.', 'wallMm');
    expect(invalid('Wall')).toBe(false);
    await page.press(/right|all the same|keep/i);
    expect(sent.at(-1)?.[1]).toBe(true);
  });
});

describe('what was typed', () => {
  test('is here again after a reload, and can be put aside', async () => {
    await open();
    await page.type(words('name'), 'Tin');
    await page.does(() => (page.box.querySelector('[data-field="sealed"]') as HTMLInputElement).click());
    await page.close();
    await open();
    expect([told.values.name, told.values.sealed]).toEqual(['Tin', true]);
    await page.press('Start afresh');
    expect([told.values, localStorage.length]).toEqual([BEGUN, 0]);
  });

  test('goes with “as it was”, which leaves', async () => {
    await open();
    await page.pick(words('pour'), 'at once');
    expect(told.values.pour).toBe('fast');
    await page.press('As it was');
    expect([told.values.pour, told.left]).toEqual(['slow', true]);
  });
});
