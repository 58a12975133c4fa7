import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Colourway } from '../../contract/colourways.ts';
import type { Material } from '../../contract/materials.ts';
import type { Pour } from '../../contract/pours.ts';
import { firstShot, type Stocked, softAndFirm, stocked, TestWorkshop, twoShots } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let firm: Material | undefined;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  [, firm] = await softAndFirm(workshop);
});
afterEach(() => workshop.close());

const laidOut = (more?: object) => twoShots(workshop, stock, more);
const shares = (pour: Pour) => pour.parts.map((part) => [part.name, Number(part.share.toFixed(4))]);

test('a cup is laid out blended for what is wanted, at the least price within a point', async () => {
  // 33 is within a point of 34 and takes the least of the dear one: (33 − 20) / 40.
  const pour = await laidOut({ wanted: { scale: '00', value: 34 } });
  expect(shares(pour)).toEqual(
    expect.arrayContaining([
      ['Firm 60', 0.325],
      ['Soft 20', 0.675],
    ]),
  );
  expect(pour.blend.hardness?.value).toBeCloseTo(33, 6);
});

test.each([
  ['nothing is wanted: the first drum', {}, [['Soft 22', 1]]],
  ['none reaches it: the plastic that comes nearest', { wanted: { scale: '00', value: 90 } }, [['Firm 60', 1]]],
  ['no two are known on that scale: the first drum', { wanted: { scale: 'A', value: 8 } }, [['Soft 22', 1]]],
])('%s', async (_, more, parts) => {
  expect(shares(await laidOut(more))).toEqual(parts);
});

test('what the maker chose stands, and a layer may want a hardness of its own', async () => {
  const blend = [{ materialId: stock.plastisol.id, share: 1 }];
  expect(shares(await laidOut({ wanted: { scale: '00', value: 34 }, blend }))).toEqual([['Soft 22', 1]]);
  const { body: tail } = await workshop.post<{ id: string }>('/recipes', {
    name: 'Limpet',
    hex: '#d8cdb8',
    basisMl: 240,
    items: [{ materialId: stock.colourant.id, amount: 6, unit: 'drop' }],
  });
  const { body: colour } = await workshop.post<Colourway>('/colourways', {
    name: 'Ebb Glass',
    hex: '#7fa3a0',
    notes: '',
    layers: [
      { place: 'core', recipeId: stock.recipe.id, measure: 'rest', wanted: { scale: '00', value: 58 } },
      {
        place: 'tail',
        recipeId: tail.id,
        measure: 'ml',
        eachMl: 2,
        joins: 'melted',
        wanted: { scale: '00', value: 22 },
      },
    ],
  });
  const lead = await laidOut({ colourwayId: colour.id });
  const cups = await Promise.all(lead.cups.map(async (cup) => (await workshop.get<Pour>(`/pours/${cup.id}`)).body));
  expect(cups.map((cup) => [cup.recipeName, cup.wanted?.value, Number(cup.blend.hardness?.value.toFixed(3))])).toEqual([
    ['Slack Tide', 58, 57],
    ['Limpet', 22, 21],
  ]);
});

test('readings of baits that several cups gave to speak of none of them', async () => {
  const fitted = async () =>
    (await workshop.get<{ n: number; leftOut: number }>('/plastics?scale=00')).body as { n: number; leftOut: number };
  const blend = [{ materialId: firm?.id, share: 1 }];
  const [one, two] = [await laidOut({ blend }), await laidOut({ blend })];
  const drawn = (pour: Pour, from: Pour[]) =>
    firstShot(workshop, stock, pour, {
      parts: from.map((cup) => ({ pourId: cup.id, lastDose: null, lastHeat: null })),
    });
  const read = async (pour: Pour) => workshop.post(`/pours/${pour.id}/hardness`, { scale: '00', value: 57 });
  const three = await laidOut({ blend });
  await drawn(one, [one, two]);
  await drawn(three, [three]);
  const weighed = { cookedG: 110, rejectG: 0, returnedG: 50 };
  await workshop.post(`/pours/${one.id}/close`, {
    ...weighed,
    goodG: 40,
    others: [{ pourId: two.id, cookedG: 110, returnedG: 80 }],
  });
  await workshop.post(`/pours/${three.id}/close`, { ...weighed, goodG: 40 });
  workshop.waits(25);
  await read(one);
  await read(three);
  expect(await fitted()).toMatchObject({ n: 1, leftOut: 1 });
});
