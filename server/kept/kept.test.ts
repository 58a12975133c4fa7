import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Kept } from '../../contract/workshop.ts';
import { TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const keep = (input: object, title = 'the lid') =>
  workshop.post<Kept>('/kept', { calculator: 'clay.bake', title, input });
const titles = async () => (await workshop.get<Page<Kept>>('/kept')).body.items.map((row) => row.title);
const rename = (id: string, title: string, version: number) =>
  workshop.ask<Kept>('PATCH', `/kept/${id}`, { title }, { version });

test('what is kept is what the calculator says, whatever the browser claims', async () => {
  const { body } = await keep({ thicknessMm: 18 });
  // 15 minutes for each 6 mm.
  expect(body.output).toMatchObject({ minutes: 45 });
  expect((await keep({ thicknessMm: -1 })).body.error).toMatchObject({ code: 'invalid-input', path: 'thicknessMm' });
  expect((await workshop.post('/kept', { calculator: 'no.such', title: 'x', input: {} })).body.error.code).toBe(
    'unknown-calculator',
  );
  expect(await titles()).toEqual(['the lid']);
});

test('it is called otherwise; of two who do so at once the second sees what the first wrote', async () => {
  const { id } = (await keep({ thicknessMm: 18 })).body;
  const first = await rename(id, 'the box', 1);
  expect([first.status, first.body.title, first.body.output]).toEqual([200, 'the box', { minutes: 45 }]);
  const second = await rename(id, 'the base', 1);
  expect([second.status, second.body.error.code, second.body.error.current]).toMatchObject([
    409,
    'stale-version',
    { title: 'the box' },
  ]);
  expect(await titles()).toEqual(['the box']);
  expect((await rename(id, '', 2)).body.error).toMatchObject({ code: 'invalid-input', path: 'title' });
  expect((await rename('01a21858-34eb-744a-abfc-4cfe618f36ee', 'x', 1)).status).toBe(404);
});
