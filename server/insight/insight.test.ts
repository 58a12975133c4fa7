import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Insight } from '../../contract/insight.ts';
import type { Pour } from '../../contract/pours.ts';
import { poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const insight = async () => (await workshop.get<Insight>('/insight')).body;
const closed = async (lost: object) => {
  const pour = await poured(workshop, stock, 1);
  const weights = { cookedG: 100, goodG: 31, rejectG: 10, returnedG: 40, ...lost };
  return (await workshop.post<Pour>(`/pours/${pour.id}/close`, weights)).body;
};

test('what a cup lost counts where somebody weighed it; else it is not known, and nobody can account for it', async () => {
  const balances = [
    await closed({}),
    await closed({ residueG: 6 }),
    await closed({ residueG: null, degassedG: 4 }),
    await closed({ residueG: 0, degassedG: 5 }),
  ].map(({ balance }) => [balance?.residueG, balance?.degassedG, balance?.unaccountedG]);
  // 100 − 31 − 10 − 40 are 19 g.
  expect(balances).toEqual([
    [null, null, 19],
    [6, null, 13],
    [null, 4, 15],
    [0, 5, 14],
  ]);
  const { pours } = await insight();
  expect(pours.map((pour) => [pour.residueG, pour.degassedG])).toEqual(balances.map(([a, b]) => [a, b]));
  // More than there was is refused, whatever of it was lost.
  const pour = await poured(workshop, stock, 1);
  const over = { cookedG: 100, goodG: 31, rejectG: 10, returnedG: 40, residueG: 10, degassedG: 9.5 };
  const answer = await workshop.post(`/pours/${pour.id}/close`, over);
  expect([answer.status, answer.body.error.code]).toEqual([400, 'mass-not-conserved']);
});

test('plain first pours are told of beside it, weighed or not, and are in no yield', async () => {
  await closed({});
  const before = await insight();
  expect(before.firstPours).toEqual({ count: 0, weighed: 0, grams: 0 });
  const event = (body: object) => workshop.post(`/molds/${stock.mold.id}/events`, body);
  workshop.waits(1);
  await event({ kind: 'step', step: 'first' });
  expect((await insight()).firstPours).toEqual({ count: 1, weighed: 0, grams: 0 });
  await event({ kind: 'first-pour', grams: 31 });
  const after = await insight();
  expect(after.firstPours).toEqual({ count: 1, weighed: 1, grams: 31 });
  expect(after.pours).toEqual(before.pours);
});
