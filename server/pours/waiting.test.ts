import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Mold } from '../../contract/molds.ts';
import type { Pour, Waiting } from '../../contract/pours.ts';
import type { Rescue } from '../../core/plastisol/rescue.ts';
import { firstShot, type Stocked, stocked, TestWorkshop, twoShots } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const waiting = async (pour: Pour) => (await workshop.get<Waiting>(`/pours/${pour.id}/waiting`)).body;

test('what is left is what was cooked less what was drawn and what stays in the cup; a full mold waits for nobody', async () => {
  const pour = await twoShots(workshop, stock);
  const before = await waiting(pour);
  expect(before.availableMl).toBeCloseTo(pour.cookMl - 8, 6);
  // Sixteen are ordered, none of them is made.
  expect(before.molds).toMatchObject([
    { id: stock.mold.id, cavities: 4, wanted: 16, secondsPerShot: 70, mostShots: 1 },
  ]);
  const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  expect((await waiting(pour)).molds).toEqual([]);
  const marks = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
  await workshop.post(`/pours/${pour.id}/shots/${body.shots[0]?.id}/marks`, { marks });
  const after = await waiting(pour);
  expect(after.molds).toHaveLength(1);
  // 4 × 10 mL, the sprue's 5, and six in a hundred more that are fed while it shrinks.
  expect(before.availableMl - after.availableMl).toBeCloseTo(45 * 1.06, 6);
});

test('what it can still make is asked of the calculator: the ordered baits first', async () => {
  const other = await workshop.made<Mold>('/molds', {
    name: 'Sandlance × 1',
    kind: 'aluminium',
    fill: 'injection',
    baitId: stock.master.baitId,
    cavities: 1,
    cavityMl: 10,
    sprueMl: 2,
  });
  const pour = await twoShots(workshop, stock);
  const { availableMl, molds } = await waiting(pour);
  expect(molds.map(({ id }) => id).sort()).toEqual([stock.mold.id, other.id].sort());
  const ask = {
    availableMl,
    secondsLeft: 300,
    molds: molds.map(({ name: _, ...mold }) => mold),
  };
  const { body } = await workshop.post<Rescue>('/calc/batch.rescue', ask);
  // Each is filled once: four and one of the sixteen, 70 and 40 s.
  expect(body).toMatchObject({ served: 5, seconds: 110 });
  expect(body.shots.map(({ id, shots, baits }) => [id, shots, baits])).toEqual(
    molds.map(({ id, cavities }) => [id, 1, cavities]),
  );
  // In a minute only the small one.
  const hurried = await workshop.post<Rescue>('/calc/batch.rescue', { ...ask, secondsLeft: 60 });
  expect(hurried.body.shots).toMatchObject([{ id: other.id, shots: 1 }]);
});

test('a cup that is closed has nothing left to rescue', async () => {
  const pour = await twoShots(workshop, stock);
  await firstShot(workshop, stock, pour);
  await workshop.made(`/pours/${pour.id}/close`, {
    cookedG: 90,
    goodG: 40.8,
    rejectG: 0,
    returnedG: 40,
    residueG: 6,
  });
  expect((await workshop.get(`/pours/${pour.id}/waiting`)).body.error.code).toBe('pour-closed');
});
