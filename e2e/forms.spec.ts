// Every form, refused once at each of its fields, in both systems of units; and what is typed is never lost.
import type { Locator, Page } from '@playwright/test';
import { stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

type Ids = Awaited<ReturnType<typeof stocked>>;

interface FormAt {
  name: string;
  path(ids: Ids): string;
  /** Whatever has to be pressed before the form stands there. */
  open?(page: Page): Promise<unknown>;
  /** Figures that it holds, so that a form that lost some does not pass. */
  figures: number;
}

const press = (name: string | RegExp) => (page: Page) => page.getByRole('button', { name }).first().click();
const master = ({ masterId }: Ids) => `/masters/${masterId}`;
const mold = ({ moldId }: Ids) => `/molds/${moldId}`;
const kinds = (kind: string) => async (page: Page) => {
  await press('Add a material')(page);
  await page.getByLabel('Kind').selectOption(kind);
};

const FORMS: FormAt[] = [
  { name: 'a master', path: () => '/masters/new', figures: 7 },
  { name: 'its bait', path: master, figures: 5 },
  { name: 'a revision', path: master, open: press('New revision'), figures: 11 },
  { name: 'a volume', path: master, open: press('Measure it again'), figures: 7 },
  { name: 'a mold', path: () => '/molds/new', figures: 6 },
  {
    name: 'a test in water',
    path: ({ masterId }) => `/masters/${masterId}/water`,
    open: press('Note a test'),
    figures: 7,
  },
  {
    name: 'a mold’s page',
    path: mold,
    open: async (page) => {
      await press('change')(page);
      for (const folded of ['Set something in', 'Spark erosion']) await page.getByText(folded, { exact: true }).click();
    },
    figures: 14,
  },
  { name: 'an order', path: () => '/orders/new', figures: 3 },
  { name: 'a recipe', path: () => '/colours/new', figures: 1 },
  { name: 'a ledger', path: () => '/colours/dosing', figures: 1 },
  { name: 'a flake', path: () => '/store', open: kinds('flake'), figures: 2 },
  { name: 'a plastisol', path: () => '/store', open: kinds('plastisol'), figures: 2 },
  { name: 'a rubber', path: () => '/store', open: kinds('silicone'), figures: 11 },
  { name: 'settings', path: () => '/settings', figures: 18 },
  { name: 'hours', path: () => '/orders/plan', figures: 7 },
  { name: 'a cost', path: () => '/orders/cost', figures: 9 },
  { name: 'what it earns', path: () => '/orders/money', figures: 1 },
  {
    name: 'one line more',
    path: ({ orderId }) => `/orders/${orderId}`,
    open: (page) => page.getByText('They thought again').click(),
    figures: 2,
  },
  {
    name: 'a material and its lots',
    path: () => '/store',
    open: async (page) => {
      await press(/^Harbour Blue liquid/)(page);
    },
    figures: 9,
  },
  {
    name: 'the terms of an order',
    path: ({ orderId }) => `/orders/${orderId}`,
    open: (page) => page.getByText('Due day, prices, notes and the customer').click(),
    figures: 1,
  },
  { name: 'a worn mold’s successor', path: mold, open: press('Make it anew'), figures: 3 },
  { name: 'a result that is kept', path: () => '/tools/clay.bake', figures: 0 },
  { name: 'a ladder', path: () => '/ladders', figures: 6 },
  {
    name: 'what is given into a bin',
    path: () => '/rack',
    open: async (page) => {
      await page.request.post('/api/bins', { data: { name: 'Greens', hex: '#557755' } });
      await page.reload();
      await press(/Greens/)(page);
      await press('given or used baits in')(page);
    },
    figures: 3,
  },
  {
    name: 'a bin that is weighed, and another',
    path: () => '/rack',
    open: async (page) => {
      await press('one more bin')(page);
      await press(/Greens/)(page);
      await press('weigh it')(page);
    },
    figures: 1,
  },
  {
    name: 'what is weighed into a cup',
    path: ({ pourId }) => `/pours/${pourId}`,
    open: async (page) => {
      const id = page.url().split('/').at(-1);
      const data = { name: 'Soft 22', kind: 'plastisol', lot: { code: 'A1', grams: 5000 } };
      const material = await (await page.request.post('/api/materials', { data })).json();
      const { version } = await (await page.request.get(`/api/pours/${id}`)).json();
      const blend = [{ materialId: material.id, share: 1 }];
      await page.request.patch(`/api/pours/${id}`, { data: { blend }, headers: { 'if-match': `"${version}"` } });
      await page.reload();
      await page.getByRole('button', { name: 'Weighed in' }).waitFor();
    },
    figures: 1,
  },
  // With the one part that is not weighed in yet.
  { name: 'a cup’s end', path: ({ pourId }) => `/pours/${pourId}?close`, figures: 7 },
];

const said = async (page: Page, field: Locator) =>
  (await page.locator(`[id="${await field.getAttribute('aria-describedby')}"]`).textContent()) ?? '';

/** Words for a maker: no name of a program's field, no path. */
const IN_WORDS = /^(?!.*[a-z]\.[a-z0-9])(?!.*[a-z](Mm|Ml|Id|Minor|Fraction)\b)[A-Z0-9"].{8,}/;

/** Each unit that a field may show, so that a refusal in the other system's is seen. */
const METRIC = /\d (mm|mL|L|g|kg|°C|m\/s)(?![a-z/])/;
const US = /\d (in|fl oz|oz|lb|°F|ft\/s)(?![a-z])/;

async function refused(page: Page, field: Locator, us: boolean): Promise<void> {
  const [at, unit, before] = [
    await field.getAttribute('data-field'),
    await field.getAttribute('placeholder'),
    await field.inputValue(),
  ];
  const mine = unit ? (us ? US : METRIC) : /./;
  const theirs = us ? METRIC : US;
  for (const [typed, words] of [
    ['99999999', mine],
    ['a bit', /./],
  ] as const) {
    await field.fill(typed);
    await expect(field, `${at} takes ${typed}`).toHaveAttribute('aria-invalid', 'true');
    const text = await said(page, field);
    expect(text, `${at}: ${text}`).toMatch(IN_WORDS);
    expect(text, `${at}: ${text}`).toMatch(words);
    if (unit && typed !== 'a bit') expect(text, `${at}: ${text}`).not.toMatch(theirs);
    await field.blur();
    expect(await field.inputValue(), `${at} emptied what was typed`).toContain(typed === 'a bit' ? typed : '');
    await expect(field).not.toHaveValue('');
  }
  await field.fill(before);
}

for (const units of ['Metric', 'US'] as const) {
  test(`each field of each form refuses what it cannot hold, in words and ${units} units, and keeps what was typed`, async ({
    page,
    world,
  }) => {
    test.setTimeout(300_000);
    const ids = await stocked(world.url);
    await enter(page, units);
    for (const form of FORMS) {
      await page.goto(form.path(ids));
      await page.locator('main h1').waitFor();
      await form.open?.(page);
      const figures = page.locator('input.figure-input[data-field]:visible');
      await expect.soft(figures, form.name).toHaveCount(form.figures, { timeout: 3000 });
      // In US units only what is told in them: all else was tried already.
      for (const field of await figures.all())
        if (units === 'Metric' || (await field.getAttribute('placeholder'))) await refused(page, field, units === 'US');
      if (units === 'US') continue;
      // In the hand, no field stands out of its form.
      await page.setViewportSize({ width: 390, height: 844 });
      const outside = await page.locator('form [data-field]:not([type=checkbox]):visible').evaluateAll((fields) =>
        fields
          .filter((field) => {
            const [own, form] = [field.getBoundingClientRect(), field.closest('form')?.getBoundingClientRect()];
            return form === undefined || own.right > form.right + 1 || own.left < form.left - 1 || own.width < 40;
          })
          .map((field) => (field as HTMLElement).dataset.field),
      );
      expect(outside, form.name).toEqual([]);
      await page.setViewportSize({ width: 1280, height: 800 });
      const names = page.locator('input[type=text][data-field]:visible:not(.figure-input)');
      for (const field of await names.all()) {
        const before = await field.inputValue();
        await field.fill('x'.repeat(5000));
        await expect(field, `${form.name}, ${await field.getAttribute('data-field')}`).toHaveAttribute(
          'aria-invalid',
          'true',
        );
        expect(await said(page, field)).toMatch(IN_WORDS);
        await field.fill(before);
      }
    }
  });
}

test('an order that is half typed is there after Back, a reload and a visit elsewhere, and says what it lacks', async ({
  page,
  world,
}) => {
  await stocked(world.url);
  await enter(page);
  await page.getByRole('link', { name: 'Orders' }).first().click();
  await page.getByRole('link', { name: 'Take an order' }).click();
  const packs = page.getByLabel('Packs', { exact: true });
  const send = page.getByRole('button', { name: 'Keep this order' });
  await packs.fill('7');
  await page.getByLabel('Price a pack').fill('6,50');
  await page.getByLabel('To a pack').fill('about eight');
  await expect(send).toBeDisabled();
  await expect(page.getByText('Not understood yet: Line 1, to a pack.')).toBeVisible();
  const whole = async () => {
    await expect(packs).toHaveValue('7');
    await expect(page.getByLabel('Price a pack')).toHaveValue('6.50');
    await expect(page.getByLabel('To a pack')).toHaveValue('about eight');
    await expect(page.getByText('What you had typed is here again.')).toBeVisible();
  };
  await page.goBack();
  await page.goForward();
  await whole();
  await page.reload();
  await whole();
  await page.getByLabel('To a pack').fill('8');
  await page.getByLabel('Customer').selectOption('new');
  await expect(page.getByText('Still missing: New customer, name.')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Sandbar Supply');
  await expect(page.getByText('56 baits')).toBeVisible();
  await send.click();
  // 7 packs at 6.50.
  await expect(page.getByText('€45.50')).toBeVisible();
  await page.goto('/orders/new');
  await expect(packs).toHaveValue('1');
});

test('what another tab saved meanwhile replaces nothing that was typed here, and is said beside it', async ({
  page,
  world,
}) => {
  const { api, masterId } = await stocked(world.url);
  await enter(page);
  await page.goto(`/masters/${masterId}`);
  const price = page.getByLabel('Price of a pack');
  await price.fill('4.50');
  const bait = async () =>
    (await api<{ items: { id: string; version: number; priceMinor: number }[] }>('GET', '/baits')).items[0];
  const before = await bait();
  const saved = await fetch(`${world.url}/api/baits/${before?.id}`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json', 'if-match': String(before?.version) },
    body: JSON.stringify({ priceMinor: 300, packCount: 6 }),
  });
  expect(saved.status).toBe(200);
  await expect(page.getByText('changed elsewhere to 3.00 meanwhile; yours is kept here')).toBeVisible();
  await expect(price).toHaveValue('4.50');
  // What was not typed here follows.
  await expect(page.getByLabel('To a pack')).toHaveValue('6');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('changed elsewhere')).toHaveCount(0);
  expect(await bait()).toMatchObject({ priceMinor: 450, packCount: 6 });
});

test('what only the workshop can refuse stands at its field, which is where the cursor is', async ({ page, world }) => {
  const { colourwayId } = await stocked(world.url);
  await enter(page);
  await page.goto('/colours/new');
  await page.getByLabel('Name of the colour').fill('Slack Tide');
  await page.getByLabel('What goes in').selectOption({ label: 'Harbour Blue liquid' });
  await page.getByLabel('Amount').fill('18 drops');
  await page.getByRole('button', { name: 'Keep this recipe' }).click();
  const name = page.getByLabel('Name of the colour');
  await expect(name).toHaveAttribute('aria-invalid', 'true');
  expect(await said(page, name)).toContain('There is a colour called Slack Tide already');
  await expect(name).toBeFocused();
  await expect(page.getByLabel('Amount')).toHaveValue('18 drops');
  await name.fill('Slack Tide, darker');
  await expect(name).toHaveAttribute('aria-invalid', 'false');
  await page.getByRole('button', { name: 'Keep this recipe' }).click();
  await expect(page.getByRole('heading', { name: 'Slack Tide, darker' })).toBeVisible();
  expect(page.url()).not.toContain(colourwayId);
});

test('what is typed at one order is not carried over to the next, and is there on the way back', async ({
  page,
  world,
}) => {
  const { api, orderId } = await stocked(world.url);
  const { lines } = await api<{ lines: { baitId: string; colourwayId: string }[] }>('GET', `/orders/${orderId}`);
  const line = { baitId: lines[0]?.baitId, colourwayId: lines[0]?.colourwayId, packs: 1, perPack: 8 };
  await api('POST', '/orders', { newCustomer: { name: 'Sandbar Supply' }, dueOn: '2030-06-01', lines: [line] });
  await enter(page);
  await page.goto(`/orders/${orderId}`);
  const notes = page.getByLabel('Notes');
  await page.getByText('Due day, prices, notes and the customer').click();
  await notes.fill('leave it with the harbour master');
  await page.getByRole('heading', { name: 'Tideline' }).click();
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Search and commands' }).fill('N2');
  await page.getByRole('option', { name: /N2/ }).first().click();
  await expect(page.getByRole('heading', { name: 'Sandbar Supply', level: 1 })).toBeVisible();
  await page.getByText('Due day, prices, notes and the customer').click();
  await expect(notes).toHaveValue('');
  await page.goBack();
  await page.getByText('Due day, prices, notes and the customer').click();
  await expect(notes).toHaveValue('leave it with the harbour master');
  await page.getByRole('button', { name: 'Start afresh' }).click();
  await expect(notes).toHaveValue('');
});

test('a field that was sent by Enter is empty for the next, and shows nothing that does not count', async ({
  page,
  world,
}) => {
  const { moldId } = await stocked(world.url);
  await enter(page);
  await page.goto(`/molds/${moldId}`);
  const grams = page.getByLabel('Weighed together');
  await grams.fill('101');
  await grams.press('Enter');
  await expect(page.getByText('take back')).toBeVisible();
  await expect(grams).toHaveValue('');
  await expect(page.getByText('Still missing: Weighed together.')).toBeVisible();
  await grams.fill('0.5');
  await expect(grams).toHaveValue('0.5');
  await grams.fill('0.');
  await expect(grams).toHaveValue('0.');
  await grams.fill('0.5 oz');
  await grams.blur();
  await expect(grams).toHaveValue('14.2 g');
});
