import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Material } from '../../contract/materials.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Recipe } from '../../contract/recipes.ts';
import type { Clock } from '../../contract/workshop.ts';
import { cupWindow } from '../../core/heat/window.ts';
import { nextOf } from '../../core/process/next.ts';
import { closing, firstShot, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let gold: Material;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  gold = await workshop.made<Material>('/materials', {
    name: 'Fine gold',
    kind: 'flake',
    hex: '#c9a13b',
    sizeMm: 0.8,
    cut: 'hex',
    limitC: 165,
    lot: { code: 'G1', grams: 200 },
  });
});
afterEach(() => workshop.close());

const layOut = () =>
  workshop.made<Pour>('/pours', { colourwayId: stock.recipe.id, molds: [{ moldId: stock.mold.id, shots: 1 }] });
const dose = (pour: Pour, materialId: string, amount: number, unit: string) =>
  workshop.made(`/ledgers/${pour.ledgerId}/doses`, { materialId, amount, unit });
const stirClocks = async () =>
  (await workshop.get<Page<Clock>>('/clocks')).body.items.filter((clock) => clock.kind === 'stir');
const pourNow = async (pour: Pour) => (await workshop.get<Pour>(`/pours/${pour.id}`)).body;

test('a cup in which nothing sinks has no stir clock; flake of 0.8 mm has one of 2:39, which a stir and a reading begin anew', async () => {
  const pour = await layOut();
  await dose(pour, stock.colourant.id, 20, 'drop');
  expect([await stirClocks(), (await pourNow(pour)).stir]).toEqual([[], null]);
  await dose(pour, gold.id, 2, 'g');
  const [clock] = await stirClocks();
  expect(clock?.label).toBe(`Stir ${pour.code}: Fine gold sinks`);
  const lasts = () => Date.parse(clock?.dueAt ?? '') - workshop.now.getTime();
  expect(lasts() / 1000).toBeCloseTo(159.5, 0);
  workshop.waits(0.02);
  await workshop.made(`/pours/${pour.id}/stirs`, {});
  const [again, ...others] = await stirClocks();
  expect(others).toEqual([]);
  expect((Date.parse(again?.dueAt ?? '') - workshop.now.getTime()) / 1000).toBeCloseTo(159.5, 0);
  workshop.waits(0.02);
  await workshop.made(`/pours/${pour.id}/heats`, { kind: 'cook', c: 162 });
  const { stir } = await pourNow(pour);
  expect((Date.parse(stir?.dueAt ?? '') - workshop.now.getTime()) / 1000).toBeCloseTo(159.5, 0);
});

test('a second tap is no second stir; once it has sunk the bench says so before it is drawn; weighed, nothing runs', async () => {
  const pour = await layOut();
  await dose(pour, stock.colourant.id, 20, 'drop');
  await dose(pour, gold.id, 2, 'g');
  await workshop.made(`/pours/${pour.id}/heats`, { kind: 'cook', c: 162 });
  const key = '018f0000-0000-7000-8000-00000000000a';
  await workshop.post(`/pours/${pour.id}/stirs`, {}, { key });
  await workshop.post(`/pours/${pour.id}/stirs`, {}, { key });
  expect(workshop.data.db.prepare('SELECT count(*) AS n FROM stir').get()).toEqual({ n: 1 });
  const says = async () => nextOf({ ...(await pourNow(pour)), nowMs: workshop.now.getTime() }, (c) => `${c} °C`);
  expect((await says()).why).not.toContain('Stir first: Fine gold');
  workshop.waits(0.06);
  expect(await says()).toMatchObject({ do: 'shot', why: expect.stringContaining('Stir first: Fine gold has sunk') });
  await firstShot(workshop, stock, pour);
  await workshop.made(`/pours/${pour.id}/close`, closing(4, 0));
  expect(await stirClocks()).toEqual([]);
});

test('a stir that was none is taken back; a cup that is put away runs no clock', async () => {
  const pour = await layOut();
  await dose(pour, gold.id, 2, 'g');
  const id = '018f0000-0000-7000-8000-00000000000b';
  await workshop.made(`/pours/${pour.id}/stirs`, { id });
  expect((await workshop.post('/undo', { rowId: id })).status).toBe(201);
  expect(await stirClocks()).toEqual([]);
  await workshop.made(`/pours/${pour.id}/stirs`, {});
  const { version } = await pourNow(pour);
  await workshop.ask('PATCH', `/pours/${pour.id}`, { discarded: true }, { version });
  expect(await stirClocks()).toEqual([]);
});

test('flake that is wanted turned limits no cup; dosed by hand and not written, it does', async () => {
  const write = (turned: boolean) =>
    workshop.made<Recipe>('/recipes', {
      name: turned ? 'Turned' : 'Not turned',
      hex: '#886633',
      basisMl: 240,
      items: [{ materialId: gold.id, amount: 2, unit: 'g', turned }],
    });
  const highC = async (recipe: Recipe) => {
    const pour = await workshop.made<Pour>('/pours', {
      colourwayId: recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 1 }],
    });
    return cupWindow(pour.molds, pour.limits).highC;
  };
  const turned = await write(true);
  expect(turned.revision.items[0]?.turned).toBe(true);
  expect(await highC(await write(false))).toBe(165);
  expect(await highC(turned)).toBeGreaterThan(165);
});
