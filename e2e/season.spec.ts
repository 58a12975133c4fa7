import { stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

test('a free evening is filled from the season’s forecast, and what was sold is told as money', async ({
  page,
  world,
}) => {
  const { api, colourwayId, moldId, orderId, pourId } = await stocked(world.url);
  const { baitId } = await api<{ baitId: string }>('GET', `/molds/${moldId}`);
  const { customerId, version } = await api<{ customerId: string; version: number }>('GET', `/orders/${orderId}`);
  await api('PATCH', `/orders/${orderId}`, { cancelled: true }, version);
  const cup = await api<{ version: number }>('GET', `/pours/${pourId}`);
  await api('PATCH', `/pours/${pourId}`, { discarded: true }, cup.version);
  const now = new Date();
  const inDays = (days: number, years: number) =>
    new Date(Date.UTC(now.getUTCFullYear() - years, now.getUTCMonth(), now.getUTCDate() + days))
      .toISOString()
      .slice(0, 10);
  // Two springs: 64 and 48 baits in the weeks that are ahead now; one order of long before begins the record.
  for (const [dueOn, packs] of [
    [inDays(20, 1), 8],
    [inDays(20, 2), 6],
    [inDays(-10, 2), 1],
  ] as const)
    await api('POST', '/orders', { customerId, dueOn, lines: [{ baitId, colourwayId, packs, perPack: 8 }] });
  // Sent long ago, as far as the record goes.
  for (const { id, version: seen } of (
    await api<{ items: { id: string; version: number }[] }>('GET', '/orders?only=open')
  ).items)
    world.data.db.prepare('UPDATE customer_order SET sent_at = due_on, version = ? WHERE id = ?').run(seen + 1, id);
  await enter(page);
  await page.goto('/orders');
  await page.getByRole('link', { name: 'For the season' }).click();
  const wants = page.getByRole('region', { name: 'What it wants' });
  // By another way: the calculator over HTTP, asked for the same two seasons.
  const { baits } = await api<{ baits: number }>('POST', '/calc/stock.season', {
    sold: [64, 48],
    gainMinor: 4,
    lossMinor: 1,
  });
  await expect(wants).toContainText(`${baits} baits will do`);
  await expect(wants).toContainText('64 last year, 48 2 years ago');
  await wants.getByRole('button', { name: `Pour ${baits} on free evenings` }).dblclick();
  await expect(page.getByRole('region', { name: 'On free evenings' }).getByRole('listitem')).toHaveCount(1);
  await expect(wants).toContainText('enough');
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('No order is short, and tonight is free.');
  const day = (await api<{ cups: { tonight: { molds: { shots: number }[] } }[] }>('GET', '/today')).cups[0];
  await page.getByRole('button', { name: 'Lay out Slack Tide' }).click();
  await expect(page).toHaveURL(/\/pours\/[0-9a-f-]{36}$/);
  // All of it is laid out, over as many glasses as it takes.
  const laid = world.data.db
    .prepare(
      'SELECT sum(pm.shots) AS shots FROM pour_mold pm JOIN pour ON pour.id = pm.pour_id WHERE pour.closed_at IS NULL',
    )
    .get();
  expect(laid).toEqual({ shots: day?.tonight.molds.reduce((sum, { shots }) => sum + shots, 0) });
});
