import type { Instrument } from '../contract/instruments.ts';
import type { Pour } from '../contract/pours.ts';
import type { Burst } from '../core/heat/microwave.ts';
import { durationText } from '../core/units/show.ts';
import { big, type Id, stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

test('the evening, the degassing and the warmth between shots tell what a hand calculation tells', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, pourId } = await stocked(world.url);
  const { plan, ledgerId, cookMl } = await api<Pour>('GET', `/pours/${pourId}`);
  const { bursts } = await api<{ bursts: Burst[] }>('POST', '/calc/heat.microwave', {
    massG: plan.cookG,
    fromC: 20,
    watts: 900,
    school: 'full-power',
  });
  // In, each burst and its stir; then three times 70 s to fill four cavities, two minutes in cold metal, a minute to open.
  const cooked = 10 + bursts.reduce((sum, { seconds }) => sum + seconds + 15, 0);
  const total = cooked + 3 * (70 + 120 + 60);
  const idle = total - (10 + 15 * bursts.length + 3 * (70 + 60));
  await page.goto(`/pours/${pourId}/evening`);
  await expect(
    page.getByText(`: ${durationText(total)}, of which your hands are free for ${durationText(idle)}.`),
  ).toBeVisible();
  await expect(page.getByText(`Sandlance × 4 is what it waits for: ${durationText(750)} of work`)).toBeVisible();
  // Two molds, two shots and one: the longer chain is 500 s.
  await expect(page.getByText(`One more Sandlance × 4 saves ${durationText(250)}.`)).toBeVisible();
  await expect(page.getByText('No order of the work is shorter.')).toBeVisible();

  const { version } = await api<{ version: number }>('GET', '/workshop');
  await api('PATCH', '/workshop', { degassing: 'vacuum' }, version);
  const [colour] = (await api<{ items: Id[] }>('GET', '/materials')).items;
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 174 });
  await api('POST', `/ledgers/${ledgerId}/doses`, { materialId: colour?.id, amount: 24, unit: 'drop' });
  await page.goto(`/pours/${pourId}/bench`);
  await expect(page.getByRole('heading', { name: 'Degas it under vacuum.' })).toBeVisible();
  // 20 + 154·exp(−120/600) = 146.1 °C, less what it fell since it was read.
  await expect(page.getByText(/In 2:00 it falls to about 14[56] °C\./)).toBeVisible();
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).click();
  await expect(page.getByRole('heading', { name: /^Draw shot 1/ })).toBeVisible();
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).click();
  await expect(big(page)).toHaveText(/^Held/);
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).click();
  const kept = page.getByText(/^Kept at 1[67]\d °C meanwhile/);
  await expect(kept).toBeVisible();
  const [, c = '', percent = ''] = /Kept at (\d+) °C .* at ([\d.]+) %/.exec((await kept.textContent()) ?? '') ?? [];
  // What is left of the cup, over ten minutes' time constant, out of half of 900 W; the drops weigh 1.2 g.
  const { drawnMl } = await api<Pour>('GET', `/pours/${pourId}`);
  const left = (plan.cookG + 1.2) * (1 - drawnMl / cookMl);
  expect(Math.abs(Number(percent) - (100 * left * 1.8 * (Number(c) - 20)) / 600 / 450)).toBeLessThan(1);
});

test('a bait that is laid on the scale too light is told by its cavity', async ({ page, world }) => {
  await enter(page);
  const { api, pourId, moldId } = await stocked(world.url);
  const scale = await api<Instrument>('POST', '/instruments', { kind: 'scale', name: 'Loft scale', how: 'stand-in' });
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 174 });
  await api('POST', `/pours/${pourId}/shots`, { moldId });
  world.passes(0.1);
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Weigh each bait' }).click();
  await expect(page.getByRole('button', { name: 'Scale back to the cup' })).toBeVisible();
  // It rests at nothing before the first is laid on it.
  await expect(page.getByRole('region', { name: 'Instruments' }).getByText(/^−?0(\.\d)? g$/)).toBeVisible();
  await page.waitForTimeout(3500);
  // A cavity of 10 mL at 1.02 is 10.2 g; a tenth less is 9.2.
  for (const [grams, cavity] of [
    [10.2, 1],
    [9.2, 2],
  ] as const) {
    await api('POST', `/instruments/${scale.id}/stand-in`, { addG: grams });
    const weigh = page.getByRole('button', { name: new RegExp(`g: cavity ${cavity}$`) });
    await expect(weigh).toBeVisible({ timeout: 15_000 });
    await weigh.click();
    await expect(page.getByText(`${cavity} of 4 weighed`)).toBeVisible();
  }
  await expect(page.getByText(/^Cavity 2: .* light of 10\.2 g/)).toBeVisible();
  await expect(page.getByText(/^Cavity 1:/)).toHaveCount(0);
  const rows = world.data.db.prepare('SELECT cavity, grams, instrument_id FROM bait_weighing ORDER BY cavity').all();
  expect(rows).toEqual([
    { cavity: 1, grams: expect.closeTo(10.2, 0), instrument_id: scale.id },
    { cavity: 2, grams: expect.closeTo(9.2, 0), instrument_id: scale.id },
  ]);
});
