import { readFileSync } from 'node:fs';
import { stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

interface Plan {
  asked: { days: { day: string }[] };
  pins: { day: string; pours: boolean }[];
}

test('the evenings ahead: what is poured when, moved by hand, what that costs, laid out, and a calendar of it', async ({
  page,
  world,
}) => {
  const { api } = await stocked(world.url);
  await enter(page);
  await page.goto('/orders');
  await page.getByRole('link', { name: 'The evenings ahead' }).click();
  const sure = page.getByRole('region', { name: 'What it keeps' });
  await expect(sure).toContainText('can be packed in time');
  await expect(sure).toContainText('None is less late.');
  const days = page.getByRole('listitem').filter({ has: page.getByRole('heading', { level: 3 }) });
  const tonight = days.filter({ has: page.getByRole('heading', { name: 'Tonight' }) });
  await expect(tonight.getByRole('button', { name: /drag to another evening/ })).toHaveCount(1);
  // Hands by another sum: to set up, and 130 s a shot of four, as many as give what is short with 90 % certainty.
  const told = await tonight.textContent();
  const shots = Number(/(\d+) shots in/.exec(told ?? '')?.[1]);
  const asked = await api<{ shots: number }>('POST', '/calc/yield.shots', { goodNeeded: 16, cavities: 4 });
  expect(shots).toBe(asked.shots);
  await expect(tonight).toContainText(`${5 * Math.round((25 + (shots * 130) / 60) / 5)} min of 3 h`);

  // Sent to another evening: it is there, fixed, and not tonight.
  await page.getByLabel(/on another evening/).selectOption({ index: 2 });
  await expect(tonight.getByRole('button', { name: /drag to another evening/ })).toHaveCount(0);
  await expect(page.getByText('fixed', { exact: true })).toBeVisible();
  await expect(page.getByText(/What is fixed by hand costs/)).toBeVisible();
  const { pins } = await api<Plan>('GET', '/plan');
  expect(pins.map(({ pours }) => pours)).toEqual([false, true]);
  await page.getByRole('button', { name: 'Let go' }).click();
  await expect(tonight.getByRole('button', { name: /drag to another evening/ })).toHaveCount(1);

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Calendar file' }).click();
  const text = readFileSync(await (await download).path(), 'utf8');
  const lines = text.split('\r\n');
  expect([lines[0], lines.at(-2) ?? lines.at(-1)]).toEqual(['BEGIN:VCALENDAR', 'END:VCALENDAR']);
  const today = (await api<Plan>('GET', '/plan')).asked.days[0]?.day.replaceAll('-', '');
  expect(text).toContain(`DTSTART;VALUE=DATE:${today}`);
  expect(text).toContain(`SUMMARY:Pour Slack Tide`);

  // Off for a day, everybody: what was tonight's is tomorrow's.
  await page.getByLabel('Day', { exact: true }).fill((await api<Plan>('GET', '/plan')).asked.days[0]?.day as string);
  await page.getByRole('button', { name: 'Take it off' }).click();
  await expect(page.getByText('nobody works')).toBeVisible();
  await expect(tonight.getByRole('button', { name: /drag to another evening/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Work it after all' }).click();
  await tonight.getByRole('button', { name: 'Lay it out' }).click();
  await expect(page).toHaveURL(/\/pours\/[0-9a-f-]{36}$/);
  await page.goto('/orders/plan');
  await expect(sure).toContainText('Nothing has to be poured.');
});

test('while an order is typed it is told which day is kept nine times in ten, and how sure the one that stands there is', async ({
  page,
  world,
}) => {
  const { api } = await stocked(world.url);
  await enter(page);
  await page.goto('/orders/new');
  await page.getByLabel('Packs', { exact: true }).fill('60');
  const promise = page.getByRole('region', { name: 'What can be promised' });
  await expect(promise).toContainText('Packed nine times in ten by');
  // The same out of the API: what is typed, asked of the calculator.
  const bait = (await api<{ items: { id: string }[] }>('GET', '/baits')).items[0]?.id;
  const colour = (await api<{ items: { id: string }[] }>('GET', '/colourways')).items[0]?.id;
  const typed = encodeURIComponent(JSON.stringify([{ baitId: bait, colourwayId: colour, packs: 60, perPack: 8 }]));
  const { asked } = await api<{ asked: object }>('GET', `/plan?with=${typed}`);
  const found = await api<{ day: string; kept: { day: string; share: number }[] }>('POST', '/calc/plan.promise', {
    plan: asked,
    lineIds: ['new 1'],
  });
  const inWords = (iso: string) =>
    new Date(`${iso}T12:00:00`)
      .toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
      .replace(',', '');
  await expect(promise).toContainText(`by ${inWords(found.day)}.`);
  const due = await page.getByLabel('Due').inputValue();
  const share = found.kept.find(({ day }) => day === due)?.share as number;
  await expect(promise).toContainText(`${inWords(due)} is kept in ${Math.round(share * 100)} of 100.`);
  await promise.getByRole('button', { name: /^Promise/ }).click();
  await expect(page.getByLabel('Due')).toHaveValue(found.day);
  // Another figure, another day; the one that was promised is measured by it.
  await page.getByLabel('Packs', { exact: true }).fill('600');
  await expect(promise).toContainText('fewer than nine of ten cases');
  await expect(promise).toContainText(`${inWords(found.day)} is kept in 0 of 100.`);
});
