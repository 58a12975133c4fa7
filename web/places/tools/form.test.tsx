// @vitest-environment jsdom
import { toJsonSchema } from '@valibot/to-json-schema';
import { useState } from 'react';
import { afterEach, describe, expect, test } from 'vitest';
import { calculators } from '../../../core/calculators.ts';
import { Page } from '../../testing/page.tsx';
import { Form } from './Form.tsx';
import { type Schema, withDefaults } from './schema.ts';

let page: Page;
let asked: Record<string, unknown>;
afterEach(() => page.close());

const tool = (name: string) => {
  const found = calculators.find((one) => one.name === name);
  if (!found) throw new Error(name);
  const schema = toJsonSchema(found.schema, { errorMode: 'ignore', typeMode: 'input' }) as Schema;
  return { schema, start: withDefaults(schema, found.example) as Record<string, unknown> };
};

function Trial({ schema, start }: ReturnType<typeof tool>) {
  const [value, setValue] = useState(start);
  asked = value;
  return <Form schema={schema} value={value} onChange={setValue} />;
}
const open = async (name: string, system: 'metric' | 'us' = 'metric', more: object = {}) => {
  const { schema, start } = tool(name);
  page = await Page.open(<Trial schema={schema} start={{ ...start, ...more }} />, { system });
};
const groups = () =>
  [...page.box.querySelectorAll('legend')].map((one) => one.textContent?.replace(' leave it out', '').trim());

describe('each input of a calculator', () => {
  test.each([
    ['metric', '9', 9],
    ['us', '1/4', 6.35],
    ['us', '9 mm', 9],
  ] as const)('%s: %s is read as a length', async (system, text, mm) => {
    await open('clay.bake', system);
    await page.type('Thickest section', text);
    expect(asked.thicknessMm).toBeCloseTo(mm, 9);
  });

  test('a share is written in percent, and stands as one', async () => {
    await open('silicone.plan');
    expect(page.field('cup’s walls, %').value).toBe('7');
    await page.type('cup’s walls, %', '12.5');
    expect(asked.wasteFraction).toBeCloseTo(0.125, 12);
  });

  test('an emptied one is left out, so that its default or the word for it counts', async () => {
    await open('clay.bake');
    await page.type('Minutes per 6 mm', '');
    expect('minutesPer6mm' in asked).toBe(false);
  });

  test('of a fixed few the words are to pick from', async () => {
    await open('silicone.plan');
    await page.pick('Mixed by', 'volume');
    expect((asked.mix as { by: string }).by).toBe('volume');
  });
});

test('what may be not known is a field that may stay empty, and is sent as not known', async () => {
  await open('remelt.mix');
  const heats = () =>
    [...page.box.querySelectorAll('label')]
      .filter((one) => one.textContent?.startsWith('Heats'))
      .map((one) => one.control as HTMLInputElement);
  expect(heats().map((one) => one.value)).toEqual(['0', '3', '']);
  await page.typeInto(heats()[1] as HTMLInputElement, '');
  expect((asked.parts as { heats: unknown }[]).map((one) => one.heats)).toEqual([0, null, null]);
  await page.typeInto(heats()[2] as HTMLInputElement, '6');
  expect((asked.parts as { heats: unknown }[]).map((one) => one.heats)).toEqual([0, null, 6]);
});

describe('rows and groups', () => {
  test('one more row is the last again, under a name of its own; taken out, the others stay', async () => {
    await open('batch.size');
    const before = asked.molds as { id: string }[];
    await page.press('one more');
    const rows = asked.molds as { id: string }[];
    expect([rows.length, new Set(rows.map((row) => row.id)).size]).toEqual([before.length + 1, before.length + 1]);
    await page.does(() => (page.box.querySelector('[aria-label="Take this row out"]') as HTMLButtonElement).click());
    expect(asked.molds).toEqual(rows.slice(1));
  });

  test('the last row that has to be there cannot be taken out', async () => {
    const { start } = tool('batch.size');
    await open('batch.size', 'metric', { molds: (start.molds as object[]).slice(0, 1) });
    expect((page.box.querySelector('[aria-label="Take this row out"]') as HTMLButtonElement).disabled).toBe(true);
  });

  test('a group that may be left out begins empty, and nothing is made up for it', async () => {
    await open('silicone.plan');
    const name = 'A box you have';
    expect(groups()).not.toContain(name);
    await page.press(new RegExp(`^${name}`));
    expect(groups()).toContain(name);
    expect(Object.values(asked.box as object).every((one) => one === undefined)).toBe(true);
    expect(JSON.parse(JSON.stringify(asked)).box).toEqual({});
    await page.press('leave it out');
    expect([groups().includes(name), asked.box]).toEqual([false, undefined]);
  });
});
