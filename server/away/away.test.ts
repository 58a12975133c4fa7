import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Material } from '../../contract/materials.ts';
import type { Mold } from '../../contract/molds.ts';
import type { Order } from '../../contract/orders.ts';
import { poured, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const away = (kind: string, row: { id: string; version: number }, out = true) =>
  workshop.ask<{ awayAt: string | null }>('PATCH', `/away/${kind}/${row.id}`, { away: out }, { version: row.version });
const thrownOut = (kind: string, id: string) => workshop.ask('DELETE', `/away/${kind}/${id}`);
type Row = { id: string; version: number; name: string };
const only = async <T extends Row>(path: string) => (await workshop.get<Page<T>>(path)).body.items[0] as T;

describe('what is put away', () => {
  test('keeps its record and says since when; it comes back as it was', async () => {
    const { body: material } = await workshop.post<Material>('/materials', { name: 'Old Green', kind: 'colourant' });
    expect((await away('materials', material)).body.awayAt).toBe(workshop.now.toISOString());
    const put = (await workshop.get<Material>(`/materials/${material.id}`)).body;
    expect([put.name, put.awayAt, put.version]).toEqual([
      'Old Green',
      workshop.now.toISOString(),
      material.version + 1,
    ]);
    expect((await away('materials', put, false)).body.awayAt).toBeNull();
    expect((await workshop.get<Material>(`/materials/${material.id}`)).body.awayAt).toBeNull();
  });

  test('is not asked to be bought again', async () => {
    const { body: salt } = await workshop.post<Material>('/materials', {
      name: 'Coarse salt',
      kind: 'salt',
      reorderG: 500,
      lot: { code: 'A1', grams: 20 },
    });
    const low = async () =>
      (await workshop.get<{ needs: { title: string }[] }>('/today')).body.needs.filter((need) =>
        /Coarse/.test(need.title),
      );
    expect(await low()).toHaveLength(1);
    await away('materials', salt);
    expect(await low()).toEqual([]);
  });

  test.each([
    ['baits', '/baits'],
    ['recipes', '/recipes'],
    ['customers', '/customers'],
  ])('%s that an open order wants stay until it is sent', async (kind, list) => {
    const stock = await stocked(workshop);
    const refused = await away(kind, await only(list));
    expect([refused.status, refused.body.error.code]).toEqual([400, 'in-use']);
    expect(refused.body.error.message).toContain(stock.order.code);
    const { body: order } = await workshop.get<Order>(`/orders/${stock.order.id}`);
    await workshop.ask('PATCH', `/orders/${order.id}`, { cancelled: true }, { version: order.version });
    expect((await away(kind, await only(list))).status).toBe(200);
  });

  test('a colour whose cup still stands open stays too', async () => {
    const stock = await stocked(workshop);
    const pour = await poured(workshop, stock, 1);
    await workshop.ask('PATCH', `/orders/${stock.order.id}`, { cancelled: true }, { version: stock.order.version });
    const refused = await away('recipes', await only('/recipes'));
    expect(refused.body.error.message).toContain(pour.code);
  });

  test('a screen that saw an older version puts nothing away', async () => {
    const { body: material } = await workshop.post<Material>('/materials', { name: 'Old Green', kind: 'colourant' });
    expect((await away('materials', { ...material, version: 99 })).status).toBe(409);
    expect((await workshop.get<Material>(`/materials/${material.id}`)).body.awayAt).toBeNull();
  });
});

describe('what is thrown out', () => {
  test('is gone where nothing names it', async () => {
    const { body: material } = await workshop.post<Material>('/materials', { name: 'Typed by mistake', kind: 'flake' });
    expect((await thrownOut('materials', material.id)).status).toBe(200);
    expect((await workshop.get(`/materials/${material.id}`)).status).toBe(404);
    expect((await thrownOut('materials', material.id)).status).toBe(404);
  });

  test.each([
    ['materials', '/materials'],
    ['recipes', '/recipes'],
    ['baits', '/baits'],
    ['customers', '/customers'],
  ])('%s that other records name stay, and the refusal says what to do', async (kind, list) => {
    await stocked(workshop);
    const row = await only(list);
    const refused = await thrownOut(kind, row.id);
    expect([refused.status, refused.body.error.code]).toEqual([400, 'in-use']);
    expect(refused.body.error.message).toContain('Put it away');
    expect((await only(list)).id).toBe(row.id);
  });

  test('a mold that was only written down goes whole; one that was poured from, stays', async () => {
    const stock = await stocked(workshop);
    const { body: typo } = await workshop.post<Mold>('/molds', {
      name: 'Sandlance × 40',
      kind: 'aluminium',
      fill: 'injection',
      baitId: stock.master.baitId,
      revisionId: stock.master.latest.id,
      cavities: 40,
      cavityMl: 10,
    });
    expect((await away('molds', typo)).body.error.code).toBe('not-applicable');
    expect((await thrownOut('molds', typo.id)).status).toBe(200);
    expect((await workshop.get(`/molds/${typo.id}`)).status).toBe(404);
    await poured(workshop, stock, 1);
    const refused = await thrownOut('molds', stock.mold.id);
    expect([refused.status, refused.body.error.code]).toEqual([400, 'in-use']);
    expect((await workshop.get<Page<Mold>>('/molds')).body.items.map((one) => one.name)).toEqual(['Sandlance × 4']);
  });

  test('an own measure and a kept result only that way', async () => {
    const { body: scoop } = await workshop.post<Row>('/measures', { name: 'scoop', count: 10, grams: 7 });
    expect((await away('measures', scoop)).body.error.code).toBe('not-applicable');
    expect((await thrownOut('measures', scoop.id)).status).toBe(200);
    expect((await workshop.get<Page<Row>>('/measures')).body.items).toEqual([]);
  });

  test.each(['pours', 'workshop', 'constructor'])('nothing of the kind “%s”', async (kind) => {
    expect((await thrownOut(kind, 'x')).status).toBe(404);
  });
});
