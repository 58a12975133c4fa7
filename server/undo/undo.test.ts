import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Pour } from '../../contract/pours.ts';
import { undoOfOlder } from '../../contract/undo.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let pour: Pour;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  pour = await poured(workshop, stock, 2);
});
afterEach(() => workshop.close());

const undo = (rowId: string | undefined, id?: string) => workshop.post<Pour>('/undo', { rowId, ...(id ? { id } : {}) });
const now = async () => (await workshop.get<Pour>(`/pours/${pour.id}`)).body;

describe('one address takes anything back', () => {
  test('a shot: its clock ends, the other stays; the row is still in the file', async () => {
    const shot = (await now()).shots.at(-1);
    const { body, status } = await undo(shot?.id);
    expect([status, body.id, body.shots.map((row) => row.id)]).toEqual([201, pour.id, [(await now()).shots[0]?.id]]);
    const { n } = workshop.data.db.prepare('SELECT count(*) AS n FROM shot WHERE id = ?').get(shot?.id) as {
      n: number;
    };
    expect(n).toBe(1);
  });

  test('a reading and a dose of the same cup', async () => {
    await workshop.post(`/pours/${pour.id}/heats`, { kind: 'reading', c: 168 });
    const heats = (await now()).heats;
    expect((await undo(heats.at(-1)?.id)).body.heats).toHaveLength(heats.length - 1);
    const ledger = await workshop.post<{ doses: { id: string }[] }>(`/ledgers/${pour.ledgerId}/doses`, {
      materialId: stock.colourant.id,
      amount: 3,
      unit: 'drop',
    });
    const taken = await undo(ledger.body.doses.at(-1)?.id);
    expect((taken.body as unknown as { doses: { reverses: string | null }[] }).doses.at(-1)?.reverses).toBe(
      ledger.body.doses.at(-1)?.id,
    );
  });

  test('twice, of nothing, and of a row that takes another back', async () => {
    const shot = (await now()).shots[0]?.id;
    const own = randomUUID();
    expect((await undo(shot, own)).status).toBe(201);
    expect((await undo(shot)).body).toMatchObject({ error: { code: 'already-reversed' } });
    expect((await undo(own)).body).toMatchObject({ error: { code: 'invalid-input', path: 'rowId' } });
    expect((await undo(randomUUID())).body).toMatchObject({ error: { code: 'not-found' } });
    expect((await now()).shots).toHaveLength(1);
  });

  test('a cup that is closed stays as it was', async () => {
    await workshop.post(`/pours/${pour.id}/heats`, { kind: 'reading', c: 168 });
    const { shots, heats } = await now();
    await workshop.post(`/pours/${pour.id}/close`, closing(8, 0));
    for (const row of [shots[0], heats[0]])
      expect((await undo(row?.id)).body).toMatchObject({ error: { code: 'pour-closed' } });
    expect((await now()).shots).toEqual(shots);
  });
});

test.each([
  ['/pours/p1/undo', { id: 'x', rowId: 'r' }, '/undo', { id: 'x', rowId: 'r' }],
  ['/ledgers/l1/undo', { id: 'x', doseId: 'd', tappedAt: 't' }, '/undo', { id: 'x', rowId: 'd', tappedAt: 't' }],
  ['/pours/p1/shots', { id: 'x' }, '/pours/p1/shots', { id: 'x' }],
  ['/undo', { rowId: 'r' }, '/undo', { rowId: 'r' }],
])('a tap that waited since an earlier page, %s', (path, body, wanted, as) => {
  expect(undoOfOlder({ path, body, key: 'k' })).toEqual({ path: wanted, body: as, key: 'k' });
});
