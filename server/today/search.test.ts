import { afterAll, beforeAll, expect, test } from 'vitest';
import { stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeAll(async () => {
  workshop = await TestWorkshop.open();
  const { master, recipe } = await stocked(workshop);
  // N1 is the stocked one's; N2 to N11 are another customer's, each due a day later.
  for (let day = 10; day < 20; day++)
    await workshop.post('/orders', {
      ...(day === 10
        ? { newCustomer: { name: 'Slack Water 100% Club' } }
        : {
            customerId: (
              workshop.data.db.prepare(`SELECT id FROM customer WHERE name LIKE 'Slack%'`).get() as { id: string }
            ).id,
          }),
      dueOn: `2026-03-${day}`,
      lines: [{ baitId: master.baitId, colourwayId: recipe.id, packs: 1, perPack: 8 }],
    });
});
afterAll(() => workshop.close());

const codes = ['N11', 'N10', 'N9', 'N8', 'N7', 'N6', 'N5', 'N4', 'N3', 'N2'].map(
  (code) => `${code} Slack Water 100% Club`,
);

test.each([
  [
    'a code, the shortest that begins so first',
    'n1',
    ['N1 Quayside Chandlery', 'N10 Slack Water 100% Club', 'N11 Slack Water 100% Club'],
  ],
  ['a code without its letter, then what bears it in its name', '11', ['N11 Slack Water 100% Club', 'Sandlance 110']],
  ['a code beside a word of its name', 'N1 club', ['N10 Slack Water 100% Club', 'N11 Slack Water 100% Club']],
  ['a name, the newest order first, whatever the length of its code', 'slack', ['Slack Tide', ...codes]],
  ['words in any order', 'water SLACK', codes],
  ['a sign that LIKE would take for anything', '100%', codes],
  ['nothing by that name', 'slack%tide', []],
])('a search finds %s', async (_what, q, titles) => {
  const { body } = await workshop.get<{ items: { title: string }[] }>(`/search?q=${encodeURIComponent(q)}`);
  expect(body.items.map((hit) => hit.title)).toEqual(titles);
});
