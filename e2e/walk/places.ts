/** Every place of the house, with the records it is looked at with. */
interface Row {
  id: string;
  code?: string;
  [key: string]: unknown;
}

type Choose = 'some' | 'all';

const size = (row: unknown) => JSON.stringify(row).length;

/** The fullest, the emptiest, and those that an `odd` question picks out; or all there are. */
function chosen(rows: Row[], how: Choose, ...odd: ((row: Row) => unknown)[]): Row[] {
  if (how === 'all') return rows;
  const bySize = [...rows].sort((a, b) => size(b) - size(a));
  const picked = [bySize[0], bySize.at(-1), ...odd.map((is) => rows.find((row) => is(row)))];
  return [...new Set(picked.filter((row): row is Row => row !== undefined))];
}

/** The addresses to open, of the workshop at `url`. */
export async function places(url: string, how: Choose): Promise<string[]> {
  const get = async <T>(path: string) => (await (await fetch(`${url}/api${path}`)).json()) as T;
  const list = async (path: string): Promise<Row[]> => {
    const items: Row[] = [];
    let cursor: string | null = '';
    while (cursor !== null && items.length < 2000) {
      const page: { items: Row[]; nextCursor: string | null } = await get(
        `${path}?limit=200${cursor ? `&cursor=${encodeURIComponent(cursor)}` : ''}`,
      );
      items.push(...page.items);
      cursor = page.nextCursor;
    }
    return items;
  };
  const whole = (path: string, rows: Row[]) => Promise.all(rows.map((row) => get<Row>(`${path}/${row.id}`)));
  const masters = chosen(await whole('/masters', await list('/masters')), how);
  const molds = chosen(
    await whole('/molds', await list('/molds')),
    how,
    (row) => row.retiredAt,
    (row) => row.kind === 'dip-rods',
    (row) => row.plan,
  );
  const recipes = chosen(await whole('/recipes', await list('/recipes')), how);
  const layered = chosen(
    (await list('/colourways')).filter((row) => row.recipeId === null),
    how,
  );
  const pours = await list('/pours');
  const open = pours.filter((row) => row.closedAt === null);
  const closed = chosen(
    await whole('/pours', pours.filter((row) => row.closedAt !== null).slice(0, how === 'all' ? 400 : 30)),
    how,
    (row) => row.discardedAt,
    (row) => row.leadId,
    (row) => (row.cups as Row[]).length > 1,
  );
  const orders = chosen(
    await whole('/orders', (await list('/orders')).slice(0, how === 'all' ? 400 : 40)),
    how,
    (row) => row.state === 'short',
    (row) => row.cancelledAt,
  );
  const bags = orders
    .flatMap((row) => (row.bags as Row[]).slice(0, how === 'all' ? 5 : 1))
    .slice(0, how === 'all' ? 100 : 2);
  const customers = chosen(await list('/customers'), how);
  const ladders = (await get<{ items: Row[] }>('/ladders')).items;
  const materials = chosen(await list('/materials'), how, (row) => row.kind === 'colourant');
  const bins = chosen((await get<{ items: Row[] }>('/bins')).items, how, (row) => row.colour === null);
  const tools = (await get<{ calculators: { name: string }[] }>('/calc')).calculators.map((tool) => tool.name);
  const ledgers = (await get<{ items: Row[] }>('/ledgers?limit=3')).items;
  const each = (rows: Row[], ...paths: string[]) =>
    rows.flatMap((row) => paths.map((path) => path.replace(':id', row.id)));
  return [
    '/',
    '/masters',
    '/masters/new',
    '/masters/new?way=sculpt',
    '/masters/new?way=bring',
    '/masters/sculpt?start=paddle',
    ...each(masters, '/masters/:id', '/masters/:id/shape', '/masters/:id/compare', '/masters/:id/water'),
    '/ladders',
    ...each(ladders.slice(0, how === 'all' ? 50 : 1), '/ladders/:id'),
    '/molds',
    '/molds/new',
    '/molds/plan',
    ...each(masters.slice(0, how === 'all' ? 50 : 1), '/molds/plan?master=:id', '/molds/build?master=:id'),
    ...each(molds, '/molds/:id'),
    '/colours',
    '/colours/new',
    '/colours/dosing',
    '/colours/match',
    '/colours/travel',
    ...each(ledgers.slice(0, 1), '/colours/dosing/:id'),
    ...each(recipes, '/colours/:id'),
    ...each(recipes.slice(0, 1), '/colours/:id/edit'),
    '/colours/layers',
    ...each(layered, '/colours/:id'),
    ...each(layered.slice(0, 1), '/colours/:id/layers', '/pours/new?colour=:id'),
    '/pours',
    '/pours/new',
    ...each(open, '/pours/:id', '/pours/:id/bench'),
    ...each(open.slice(0, 1), '/pours/:id/evening'),
    '/dry-run',
    ...each(closed, '/pours/:id'),
    '/rack',
    ...each(bins, '/rack/bins/:id'),
    ...bags.map((row) => `/bags/${row.code}`),
    '/orders',
    '/orders/new',
    '/orders/plan',
    '/orders/cost',
    '/orders/money',
    '/orders/season',
    '/orders/import',
    ...each(orders, '/orders/:id'),
    ...each(orders.filter((row) => row.state === 'short').slice(0, 1), '/orders/:id/packing'),
    '/customers',
    ...each(customers.slice(0, how === 'all' ? 50 : 1), '/customers/:id'),
    '/store',
    '/store?new',
    ...each(materials, '/store?material=:id'),
    ...each(materials.filter((row) => row.kind === 'colourant').slice(0, 1), '/store/:id/measure'),
    '/insight',
    '/tools',
    ...(how === 'all' ? tools : ['batch.size', 'mesh.measure', 'silicone.plan', 'heat.train']).map(
      (name) => `/tools/${name}`,
    ),
    '/guide',
    '/settings',
    '/no/such/place',
  ];
}
