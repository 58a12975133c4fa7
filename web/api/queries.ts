import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type { Bin, BinWithMoves } from '../../contract/bins.ts';
import type { Plastics } from '../../contract/blend.ts';
import type { Accents, ColourUses, Colourway, ColourwayRow, MoldLevels } from '../../contract/colourways.ts';
import type { Page } from '../../contract/fields.ts';
import type { OrderImport } from '../../contract/imports.ts';
import type { Instrument, InstrumentNow } from '../../contract/instruments.ts';
import type { ColourLook, ColourLookOf } from '../../contract/looks.ts';
import type { Master, MasterRow } from '../../contract/masters.ts';
import type { Material } from '../../contract/materials.ts';
import type { Mold, MoldRow } from '../../contract/molds.ts';
import type { Money } from '../../contract/money.ts';
import type {
  Bag,
  Complaint,
  Customer,
  CustomerWith,
  Order,
  OrderRow,
  Origin,
  RackRow,
  Recall,
  StockMove,
} from '../../contract/orders.ts';
import type { Packing, PackTime, PackWith } from '../../contract/packing.ts';
import type { PlanAsked, WithLine } from '../../contract/plan.ts';
import type { Hands, Oven, Pour, PourRow } from '../../contract/pours.ts';
import type { Ledger, Recipe, RecipeRow } from '../../contract/recipes.ts';
import type { Season } from '../../contract/season.ts';
import type { TasteWish } from '../../contract/tastes.ts';
import type { LineCounts, SearchHit, Today } from '../../contract/today.ts';
import type { KickFit, Ladder, LadderRow, WaterTest } from '../../contract/water.ts';
import type { Bait, BaitOutline, Clock, Kept, Maker, OwnMeasure, Workshop } from '../../contract/workshop.ts';
import type { Slopes } from '../../core/water/tomorrow.ts';
import { call } from './client.ts';

/** As many as the server gives at once. */
const MOST = '?limit=200';

/** A list to its end: a workshop with more of them than one answer holds is not shown without the rest. */
async function whole<T>(path: string, query: string): Promise<Page<T>> {
  const found = await call<Page<T>>(`${path}${query}`);
  const items = [...found.items];
  for (let next = found.nextCursor; next; ) {
    const more = await call<Page<T>>(`${path}${query}&cursor=${next}`);
    items.push(...more.items);
    next = more.nextCursor;
  }
  return { items, nextCursor: null };
}

const list = <T>(key: string, path: string, query = MOST) =>
  queryOptions({ queryKey: [key, 'list', query], queryFn: () => whole<T>(path, query) });

/** The last few of a list, where older ones are of no use. */
const newest = <T>(key: string, path: string, query: string) =>
  queryOptions({ queryKey: [key, 'list', query], queryFn: () => call<Page<T>>(`${path}${query}`) });

/** A list that grows for ever, a page at a time; `More` asks for the next. */
export const pages = <T>(key: string, path: string, query: string) =>
  infiniteQueryOptions({
    queryKey: [key, 'pages', query],
    queryFn: ({ pageParam }) => call<Page<T>>(`${path}${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (last) => last.nextCursor,
  });
const one = <T>(key: string, path: string, id: string) =>
  queryOptions({ queryKey: [key, id], queryFn: () => call<T>(`${path}/${encodeURIComponent(id)}`) });

export interface Rack extends Page<RackRow> {
  moves: StockMove[];
}

/** What a page can do without: whoever asks for it says that it is not there. */
const beside = { throwOnError: false } as const;

/** Keys begin with the names that the server calls stale. */
export const queries = {
  workshop: queryOptions({ ...beside, queryKey: ['workshop'], queryFn: () => call<Workshop>('/workshop') }),
  session: queryOptions({
    queryKey: ['session'],
    ...beside,
    queryFn: () => call<{ needed: boolean; known: boolean }>('/session'),
  }),
  network: queryOptions({
    queryKey: ['network'],
    ...beside,
    queryFn: () => call<{ urls: string[]; root: string | null }>('/network'),
  }),
  makers: { ...list<Maker>('makers', '/makers', ''), ...beside },
  measures: { ...list<OwnMeasure>('measures', '/measures', ''), ...beside },
  baits: list<Bait>('baits', '/baits', ''),
  /** How they are drawn: they go stale with them. */
  outlines: queryOptions({
    ...beside,
    queryKey: ['baits', 'outlines'],
    queryFn: () => call<Page<BaitOutline>>('/baits/outlines'),
  }),
  masters: list<MasterRow>('masters', '/masters'),
  master: (id: string) => one<Master>('masters', '/masters', id),
  waterTests: (masterId: string) =>
    queryOptions({
      queryKey: ['water-tests', masterId],
      queryFn: () => call<Page<WaterTest>>(`/masters/${encodeURIComponent(masterId)}/water-tests`),
    }),
  kickFit: queryOptions({ ...beside, queryKey: ['kick-fit'], queryFn: () => call<KickFit>('/kick-fit') }),
  ladders: list<LadderRow>('ladders', '/ladders'),
  ladder: (id: string) => one<Ladder>('ladders', '/ladders', id),
  molds: list<MoldRow>('molds', '/molds'),
  mold: (id: string) => one<Mold>('molds', '/molds', id),
  materials: list<Material>('materials', '/materials'),
  recipes: list<RecipeRow>('recipes', '/recipes'),
  recipe: (id: string) => one<Recipe>('recipes', '/recipes', id),
  colourways: list<ColourwayRow>('colourways', '/colourways'),
  colourway: (id: string) => one<Colourway>('colourways', '/colourways', id),
  uses: (id: string) =>
    queryOptions({
      ...beside,
      queryKey: ['colourways', id, 'used'],
      // Orders and the rack change it too: asked for anew whenever it is looked at.
      staleTime: 0,
      queryFn: () => call<ColourUses>(`/colourways/${encodeURIComponent(id)}/used`),
    }),
  /** As the orders stand. */
  accents: queryOptions({ ...beside, queryKey: ['orders', 'accents'], queryFn: () => call<Accents>('/accents') }),
  /** As its molds stand: they go stale with them. */
  levels: (id: string) => list<MoldLevels>('molds', `/colourways/${encodeURIComponent(id)}/levels`, ''),
  ledgers: newest<Ledger>('ledgers', '/ledgers', '?limit=20'),
  ledger: (id: string) => one<Ledger>('ledgers', '/ledgers', id),
  looksOf: (ledgerId: string) =>
    queryOptions({
      queryKey: ['looks', ledgerId],
      queryFn: () => call<Page<ColourLook>>(`/ledgers/${encodeURIComponent(ledgerId)}/looks`),
    }),
  newestLooks: newest<ColourLookOf>('looks', '/looks', ''),
  openPours: list<PourRow>('pours', '/pours', `${MOST}&only=open`),
  pours: (q: string) => pages<PourRow>('pours', '/pours', `?limit=40${q ? `&q=${encodeURIComponent(q)}` : ''}`),
  newestPours: newest<PourRow>('pours', '/pours', '?limit=60'),
  allTests: list<WaterTest>('water-tests', '/water-tests'),
  pour: (id: string) => one<Pour>('pours', '/pours', id),
  linked: (id: string) =>
    queryOptions({
      queryKey: ['pours', id, 'linked'],
      queryFn: () => call<Page<{ id: string; code: string }>>(`/pours/${encodeURIComponent(id)}/linked`),
    }),
  oven: queryOptions({ ...beside, queryKey: ['pours', 'oven'], queryFn: () => call<Oven>('/oven') }),
  /** What hands take here, by mold. */
  hands: (makerId?: string) =>
    queryOptions({
      ...beside,
      queryKey: ['pours', 'hands', makerId],
      queryFn: () => call<Page<Hands>>(`/hands${makerId ? `?makerId=${makerId}` : ''}`),
    }),
  firming: queryOptions({ ...beside, queryKey: ['pours', 'firming'], queryFn: () => call<Slopes>('/firming') }),
  instruments: { ...list<Instrument>('instruments', '/instruments', ''), ...beside },
  instrumentsNow: queryOptions({
    ...beside,
    queryKey: ['instruments', 'now'],
    queryFn: () => call<Page<InstrumentNow>>('/instruments/now'),
  }),
  bins: list<Bin>('bins', '/bins', ''),
  bin: (id: string) => one<BinWithMoves>('bins', '/bins', id),
  plastics: (scale: 'A' | '00') =>
    queryOptions({ queryKey: ['pours', 'plastics', scale], queryFn: () => call<Plastics>(`/plastics?scale=${scale}`) }),
  /** What the next evenings are planned from; it is stale whenever Today is. */
  plan: queryOptions({ ...beside, queryKey: ['today', 'plan'], queryFn: () => call<PlanAsked>('/plan') }),
  /** The same with lines that are being typed. */
  planWith: (lines: WithLine[]) => {
    const asked = encodeURIComponent(JSON.stringify(lines));
    return queryOptions({
      ...beside,
      queryKey: ['today', 'plan', asked],
      queryFn: () => call<PlanAsked>(`/plan?with=${asked}`),
    });
  },
  rack: queryOptions({ queryKey: ['rack'], queryFn: () => call<Rack>('/rack') }),
  bag: (code: string) => one<Bag>('orders', '/bags', code),
  /** Sister bags of a bag, and what of its cups still lies there. */
  recall: (code: string) =>
    queryOptions({
      ...beside,
      queryKey: ['rack', 'recall', code],
      queryFn: () => call<Recall>(`/bags/${encodeURIComponent(code)}/recall`),
    }),
  openOrders: list<OrderRow>('orders', '/orders', `${MOST}&only=open&sort=due`),
  allOrders: { ...list<OrderRow>('orders', '/orders', `${MOST}&sort=due`), staleTime: 0 },
  goneOrders: pages<OrderRow>('orders', '/orders', '?limit=25&only=gone&sort=-due'),
  order: (id: string) => one<Order>('orders', '/orders', id),
  orderImports: list<OrderImport>('orders', '/orders/imports', ''),
  packing: (orderId: string) =>
    queryOptions({
      queryKey: ['orders', orderId, 'packing'],
      queryFn: () => call<Packing>(`/orders/${encodeURIComponent(orderId)}/packing`),
    }),
  /** What goes with each bag, and how long one takes. */
  packWith: queryOptions({
    ...beside,
    queryKey: ['orders', 'pack-with'],
    queryFn: () => call<Page<PackWith> & { time: PackTime }>('/pack-with'),
  }),
  tastes: (orderId: string) =>
    queryOptions({
      queryKey: ['orders', orderId, 'tastes'],
      queryFn: () => call<Page<TasteWish>>(`/orders/${encodeURIComponent(orderId)}/tastes`),
    }),
  season: (weeks: number) =>
    queryOptions({
      queryKey: ['season', weeks],
      staleTime: 0,
      queryFn: () => call<Season>(`/season?weeks=${weeks}`),
    }),
  /** What was sold and is due within these days. */
  money: (from: string, to: string) =>
    queryOptions({
      queryKey: ['orders', 'money', from, to],
      queryFn: () => call<Money>(`/money?from=${from}&to=${to}`),
    }),
  customers: list<Customer>('customers', '/customers'),
  customer: (id: string) => one<CustomerWith>('customers', '/customers', id),
  /** What was found wrong with what a mold made, or a colour. */
  complaints: (of: 'moldId' | 'colourwayId', id: string) =>
    queryOptions({
      ...beside,
      queryKey: ['complaints', of, id],
      queryFn: () => call<Page<Complaint>>(`/complaints?${of}=${encodeURIComponent(id)}`),
    }),
  complaintsOfBag: (code: string) =>
    queryOptions({
      queryKey: ['complaints', 'bag', code],
      queryFn: () => call<Page<Complaint>>(`/bags/${encodeURIComponent(code)}/complaints`),
    }),
  origin: (code: string) =>
    queryOptions({
      queryKey: ['complaints', 'origin', code],
      queryFn: () => call<Page<Origin>>(`/bags/${encodeURIComponent(code)}/origin`),
    }),
  clocks: { ...list<Clock>('clocks', '/clocks', ''), ...beside },
  kept: newest<Kept>('kept', '/kept', '?limit=50'),
  today: queryOptions({ queryKey: ['today'], queryFn: () => call<Today>('/today') }),
  line: queryOptions({ ...beside, queryKey: ['line'], queryFn: () => call<LineCounts>('/line') }),
  search: (q: string) =>
    queryOptions({
      ...beside,
      queryKey: ['search', q],
      queryFn: () => call<Page<SearchHit>>(`/search?q=${encodeURIComponent(q)}`),
      enabled: q.trim() !== '',
    }),
};
