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

test('softener is part of a blend where it is known what a percent of it does, and what it costs', async () => {
  const softener = { name: 'Loft Ease', kind: 'softener', pricePerKgMinor: 500, lot: { code: 'E1', grams: 400 } };
  const { body: ease } = await workshop.post<Material>('/materials', softener);
  // Not known what it does: it is not there to be blended with, and what it does to a cup is not known.
  expect(shares(await laidOut({ wanted: { scale: '00', value: 16 } }))).toEqual([['Soft 20', 1]]);
  const some = (materialId: string | undefined, share: number) => ({ materialId, share });
  const soft = (await laidOut({ wanted: { scale: '00', value: 20 } })).parts[0]?.materialId as string;
  const mixed = () => laidOut({ wanted: { scale: '00', value: 16 }, blend: [some(soft, 0.96), some(ease.id, 0.04)] });
  expect((await mixed()).blend.hardness).toBeNull();
  const knows = { pointsPerPercent: -1.5, hardnessScale: '00' };
  await workshop.ask('PATCH', `/materials/${ease.id}`, knows, { version: ease.version });
  // 20 − 1.5 · 100 · 0.04/0.96.
  expect((await mixed()).blend.hardness?.value).toBeCloseTo(20 - 6.25, 9);
  // To 17, a point off 16: two percent of the plastisol. The firm one, and the other drum, cost more.
  const laid = await laidOut({ wanted: { scale: '00', value: 16 } });
  const of = (name: string) => laid.parts.find((part) => part.name === name)?.share ?? 0;
  expect(of('Loft Ease') / of('Soft 20')).toBeGreaterThan(0.0199);
  expect(laid.blend.hardness?.value).toBeLessThanOrEqual(17 + 1e-6);
  expect(laid.parts.reduce((sum, part) => sum + part.share, 0)).toBeCloseTo(1, 9);
});

test('how much plastic fills a cup is a matter of what it is made of', async () => {
  const heavy = { name: 'Sink 30', kind: 'plastisol', densityGPerMl: 1.36, lot: { code: 'H1', grams: 5000 } };
  const { body: sink } = await workshop.post<Material>('/materials', heavy);
  const alone = await laidOut({ blend: [{ materialId: sink.id, share: 1 }] });
  expect(alone.plan.cookG).toBeCloseTo(alone.cookMl * 1.36, 6);
  // Half and half by mass of 1.02 and 1.36: 2 g are 1/1.02 + 1/1.36 mL.
  const half = [
    { materialId: sink.id, share: 0.5 },
    { materialId: stock.plastisol.id, share: 0.5 },
  ];
  const gPerMl = 2 / (1 / 1.02 + 1 / 1.36);
  const changed = await workshop.ask<Pour>('PATCH', `/pours/${alone.id}`, { blend: half }, { version: alone.version });
  expect(changed.body.plan.cookG).toBeCloseTo(alone.cookMl * gPerMl, 6);
  for (const part of changed.body.parts) expect(part.plannedG).toBeCloseTo((alone.cookMl * gPerMl) / 2, 6);
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
