import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { format } from 'date-fns/format';
import { parseISO } from 'date-fns/parseISO';
import { subDays } from 'date-fns/subDays';
import type { PlanAsked } from '../../contract/plan.ts';
import type { LineCounts, Today, TodayCup, TodayNeed, TodayOrder } from '../../contract/today.ts';
import { usual } from '../../core/defaults.ts';
import { tried } from '../../core/failure.ts';
import { countWord, isLate } from '../../core/plan/evening.ts';
import { forLines } from '../../core/plan/forLines.ts';
import { type Lack, type PlannedCup, productionSchema } from '../../core/plan/production.ts';
import { plannedAtOnce } from '../../core/plan/productionPlan.ts';
import { CURE_DAYS, CURE_MS } from '../../core/process/cure.ts';
import { isCounted, piecesText } from '../../core/units/counted.ts';
import { g, say } from '../../core/units/say.ts';
import { hoursText } from '../../core/units/show.ts';
import { check } from '../../core/validate.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { usableMolds } from '../molds/store.ts';
import { allNeeds, cups, type PlacedNeed } from '../orders/need.ts';
import { openOrders } from '../orders/store.ts';
import { planAsked, wishedLines } from '../plan/asked.ts';
import { LAST_SHOT_AT, SHOTS_DRAWN, WAS_READ } from '../pours/readings.ts';
import { RACK } from '../stock/lying.ts';
import { rack } from '../stock/store.ts';
import { lackSentence } from './lacks.ts';

const amountOf = (kind: string, amount: number) => (isCounted(kind) ? piecesText(amount) : g(Math.round(amount)));

interface Named {
  id: string;
  name: string;
  hex?: string;
}

const named = (db: Db, table: 'colourway_called' | 'bait') =>
  new Map(all<Named>(db, `SELECT * FROM ${table}`).map((row) => [row.id, row]));

const count = (db: Db, sql: string, params: unknown[] = []) => first<{ n: number }>(db, sql, params)?.n ?? 0;

/** The first evening of the plan on which anything is poured: what is laid out then, in the order in which it is poured. */
interface FirstEvening {
  day: string | null;
  cups: PlannedCup[];
  /** Evenings of the plan on which each colour is poured. */
  evenings: Map<string, number>;
  /** Evenings on which any of the first one's colours is. */
  inAll: number;
  asked: PlanAsked;
  /** Orders that the days ahead do not make good, and why. */
  lacks: Map<string, Lack>;
  /** Colours of such. */
  lacking: Set<string>;
  toOrder: Today['toOrder'];
}

function firstEvening(db: Db, now: Date): FirstEvening {
  const asked = planAsked(db, now);
  // A workshop too large to plan at once says so on the plan's own page.
  const plan = tried(() => plannedAtOnce(check(productionSchema, asked.asked))).value;
  const days = plan?.days ?? [];
  const orderOf = new Map(asked.lines.map(({ id, orderId }) => [id, orderId]));
  const lacks = new Map(
    (plan?.lines ?? []).flatMap(({ lineId, why }): [string, Lack][] => (why ? [[orderOf.get(lineId) ?? '', why]] : [])),
  );
  const colourOf = new Map(asked.asked.lines.map(({ id, colourId }) => [id, colourId]));
  const lacking = new Set((plan?.lines ?? []).flatMap(({ lineId, why }) => (why ? [colourOf.get(lineId) ?? ''] : [])));
  const nameOf = new Map(asked.materials.map(({ id, name }) => [id, name]));
  const toOrder = (plan?.materials ?? []).map(({ materialId, shortG }) => ({
    name: nameOf.get(materialId) ?? '',
    g: shortG,
  }));
  const first = days.find(({ cups }) => cups.length > 0);
  const mine = new Set(first?.cups.map(({ colourId }) => colourId));
  const evenings = new Map<string, number>();
  for (const { cups } of days)
    for (const { colourId } of cups) evenings.set(colourId, (evenings.get(colourId) ?? 0) + 1);
  const inAll = days.filter(({ cups }) => cups.some(({ colourId }) => mine.has(colourId))).length;
  return { day: first?.day ?? null, cups: first?.cups ?? [], evenings, inAll, asked, lacks, lacking, toOrder };
}

function cupsTonight(
  db: Db,
  needs: PlacedNeed[],
  { cups: planned, evenings, asked, lacking }: FirstEvening,
  now: Date,
): { cups: TodayCup[]; withoutMold: Today['withoutMold'] } {
  const colourways = named(db, 'colourway_called');
  const baits = named(db, 'bait');
  const molds = new Map(usableMolds(db).map((mold) => [mold.id, mold]));
  const at = now.toISOString();
  // What is wished for the rack gets what the orders leave.
  const needed = new Map(cups(db, allNeeds(db, at, wishedLines(db, now)), at).map((cup) => [cup.colourwayId, cup]));
  const ordered = new Set(needs.map(({ lineId }) => lineId));
  const forOrders = <T extends { orderLineId: string }>(rows: T[]) =>
    rows.filter(({ orderLineId }) => ordered.has(orderLineId));
  const withoutMold = [...needed.values()].flatMap((cup) =>
    cup.withoutMold.map(({ baitId, baits: n, why }) => ({
      baitName: baits.get(baitId)?.name ?? '',
      colourwayName: colourways.get(cup.colourwayId)?.name ?? '',
      baits: n,
      why,
    })),
  );
  const shown = planned.flatMap((one): TodayCup[] => {
    const cup = needed.get(one.colourId);
    if (!cup) return [];
    return [
      {
        colourwayId: cup.colourwayId,
        colourwayName: colourways.get(cup.colourwayId)?.name ?? '',
        hex: colourways.get(cup.colourwayId)?.hex ?? '#888888',
        cookMl: cup.cookMl,
        cookG: cup.cookG,
        cups: cup.cups,
        minutes: cup.minutes,
        // What is not planned to its end takes at least as many as it is reckoned to.
        evenings: Math.max(evenings.get(one.colourId) ?? 1, lacking.has(one.colourId) ? cup.evenings : 1),
        tonight: {
          molds: one.molds.map(({ moldId, shots }) => ({ moldId, shots })),
          orderLines: forOrders(forLines(one, asked.asked.lines)),
          glasses: one.glasses,
        },
        molds: cup.molds.map(({ moldId, baitId, shots, goodNeeded, expectedGood, made, rejected }) => ({
          moldId,
          moldName: molds.get(moldId)?.name ?? '',
          baitName: baits.get(baitId)?.name ?? '',
          shape: molds.get(moldId)?.shape ?? 'stick',
          cavities: molds.get(moldId)?.cavities ?? 0,
          shots,
          goodNeeded,
          expectedGood,
          made,
          rejected,
        })),
        orderLines: forOrders(cup.orderLines),
        orderIds: [
          ...new Set(
            needs.filter((need) => need.colourwayId === cup.colourwayId && need.short > 0).map((need) => need.orderId),
          ),
        ],
      },
    ];
  });
  return { cups: shown, withoutMold };
}

function todayOrders(db: Db, needs: PlacedNeed[]): TodayOrder[] {
  return openOrders(db, needs).map((order) => ({
    id: order.id,
    code: order.code,
    customer: order.customer,
    dueOn: order.dueOn,
    state: order.state,
    shortBaits: order.shortBaits,
    packsLeft: order.lines.reduce((sum, line) => sum + Math.max(0, line.packs - line.packed), 0),
    lines: order.lines.map((line) => {
      const need = needs.find((row) => row.lineId === line.id);
      return {
        baitName: line.baitName,
        colourwayId: line.colourwayId,
        colourwayName: line.colourwayName,
        hex: line.hex,
        packsReady: line.packed + Math.floor((need?.fromReady ?? 0) / line.perPack),
        packsLeft: Math.max(0, line.packs - line.packed),
      };
    }),
  }));
}

function needsYou(db: Db, orders: TodayOrder[], now: Date): TodayNeed[] {
  const today = format(now, 'yyyy-MM-dd');
  const hardness = all<{
    id: string;
    code: string;
    recipe: string;
    scale: string | null;
    wanted: number | null;
    closedAt: string;
  }>(
    db,
    `SELECT pour.id, pour.code, c.name AS recipe, pour.wanted_scale AS scale, pour.wanted_hardness AS wanted, pour.closed_at
     FROM pour JOIN colourway_called c ON c.id = pour.colourway_id
     WHERE pour.lead_id IS NULL AND pour.closed_at > ? AND ${LAST_SHOT_AT} <= ?
       AND NOT ${WAS_READ}
     ORDER BY pour.closed_at LIMIT 4`,
    [subDays(now, 14).toISOString(), new Date(now.getTime() - CURE_MS).toISOString()],
  );
  const low = all<{ id: string; name: string; kind: string; levelG: number; reorderG: number }>(
    db,
    `SELECT id, name, kind, reorder_g, level_g FROM (SELECT material.*, coalesce((SELECT sum(l.grams) FROM lot_level l
       WHERE l.material_id = material.id), 0) AS level_g FROM material WHERE away_at IS NULL) WHERE level_g < reorder_g ORDER BY level_g / reorder_g LIMIT 4`,
  );
  const late = orders.filter((order) => isLate(order.dueOn, today));
  return [
    ...late.map(
      (order): TodayNeed => ({
        kind: 'late',
        when: `due ${format(parseISO(order.dueOn), 'd MMM')}`,
        title: `${order.customer}, ${order.code} is late`,
        detail: order.shortBaits > 0 ? `still short by ${order.shortBaits} baits` : `${order.packsLeft} packs to pack`,
        to: `/orders/${order.id}`,
      }),
    ),
    ...hardness.map(
      (pour): TodayNeed => ({
        kind: 'hardness',
        when: 'cured',
        title: `Hardness of ${pour.recipe}, ${pour.code}`,
        detail:
          pour.wanted === null ? 'read it before it is packed' : `wanted ${pour.wanted} on the ${pour.scale} scale`,
        to: `/pours/${pour.id}`,
      }),
    ),
    ...low.map(
      (material): TodayNeed => ({
        kind: 'store',
        when: say`${amountOf(material.kind, material.levelG)} left`,
        title: `${material.name} runs low`,
        detail: say`you reorder at ${amountOf(material.kind, material.reorderG)}`,
        to: `/store?material=${material.id}`,
      }),
    ),
  ].slice(0, 6);
}

function openPours(db: Db): Today['openPours'] {
  return all<Omit<Today['openPours'][number], 'started'> & { startedAt: string | null }>(
    db,
    `SELECT pour.id, pour.code, c.name AS colourway_name, recipe.hex, pour.cook_ml, pour.started_at,
      ${SHOTS_DRAWN} AS shots_done,
      (SELECT sum(shots) FROM pour_mold pm WHERE pm.pour_id = pour.id) AS shots_planned
     FROM pour JOIN recipe ON recipe.id = pour.recipe_id JOIN colourway_called c ON c.id = pour.colourway_id
     WHERE pour.closed_at IS NULL AND pour.lead_id IS NULL ORDER BY pour.laid_out_at, pour.place, pour.code`,
  ).map(({ startedAt, ...pour }) => ({ ...pour, started: startedAt !== null }));
}

type Sentence = Pick<Today, 'lead' | 'act' | 'step' | 'to'>;

/** The next thing a workshop lacks on its way to a packed order. */
function firstSteps(db: Db): Sentence | undefined {
  if (count(db, 'SELECT count(*) AS n FROM mold') === 0) {
    return count(db, 'SELECT count(*) AS n FROM master') === 0
      ? { lead: 'Start with a bait.', act: 'Measure one master.', step: 'master', to: '/masters/new' }
      : { lead: 'The master is here.', act: 'Plan its mold.', step: 'mold', to: '/molds/plan' };
  }
  if (count(db, 'SELECT count(*) AS n FROM recipe') === 0) {
    return { lead: 'A mold waits for colour.', act: 'Write the first recipe.', step: 'colour', to: '/colours/new' };
  }
  if (count(db, 'SELECT count(*) AS n FROM customer_order') === 0) {
    return { lead: 'Molds and colours are ready.', act: 'Take an order.', step: 'order', to: '/orders/new' };
  }
  return undefined;
}

const dayName = (dueOn: string, now: Date) => {
  const due = parseISO(dueOn);
  const days = Math.round((due.getTime() - parseISO(format(now, 'yyyy-MM-dd')).getTime()) / 86400_000);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  return days > 1 && days < 7 ? format(due, 'EEEE') : format(due, 'd MMMM');
};

/** What several evenings are, and whether so many are left. */
function overEvenings(hours: number, evenings: number, dueOn: string, first: string, now: Date): string {
  const last = subDays(parseISO(dueOn), CURE_DAYS);
  const left = Math.max(0, differenceInCalendarDays(last, now) + 1);
  const work = `About ${hoursText(hours)} at the bench: ${countWord(evenings, 'evening').toLowerCase()}`;
  return left >= evenings
    ? `${work}; the first ${first}.`
    : `${work}, and ${left === 0 ? 'none is' : left === 1 ? 'one is' : `${left} are`} left to cure in time. Another mold or a later day.`;
}

/** The last evening that still makes the due day. */
function pourBy(dueOn: string, now: Date): string {
  const last = format(subDays(parseISO(dueOn), CURE_DAYS), 'yyyy-MM-dd');
  const today = format(now, 'yyyy-MM-dd');
  if (last < today) return 'It cures past the due day; say so to the customer.';
  const cures = `it cures for ${CURE_DAYS === 1 ? 'a day' : `${CURE_DAYS} days`}`;
  return last === today ? `Pour tonight: ${cures}.` : `Pour by ${dayName(last, now)}: ${cures}.`;
}

type Known = Pick<Today, 'cups' | 'openPours' | 'orders' | 'eveningOn'> & {
  evenings: number;
  forRack: boolean;
  lacks: FirstEvening['lacks'];
};

function sentence(db: Db, today: Known, now: Date): Sentence {
  const running = today.openPours.find((pour) => pour.started) ?? today.openPours[0];
  if (running) {
    const lead = running.started ? `${running.colourwayName} is in the cup.` : `${running.colourwayName} is laid out.`;
    const act = running.started
      ? `${running.shotsDone} of ${running.shotsPlanned} shots drawn.`
      : `${running.shotsPlanned} shots to draw.`;
    return { lead, act, step: 'resume', to: `/pours/${running.id}/bench` };
  }
  const short = today.orders.find((order) => order.shortBaits > 0);
  if (short && today.cups.length > 0) {
    const served = new Set(today.cups.flatMap((cup) => cup.orderIds));
    const firstDue = today.orders.find((order) => served.has(order.id)) ?? short;
    const whose =
      served.size === 1
        ? `${firstDue.customer}’s order`
        : `${countWord(served.size, 'order').toLowerCase()}, the first due ${dayName(firstDue.dueOn, now)},`;
    const minutes = today.cups.reduce((sum, cup) => sum + cup.minutes, 0);
    const { evenings } = today;
    const hours = (minutes + evenings * usual('setUpMin')) / 60;
    const glasses = today.cups.reduce((sum, cup) => sum + cup.tonight.glasses, 0);
    const day = today.eveningOn === format(now, 'yyyy-MM-dd') ? 'tonight' : dayName(today.eveningOn ?? '', now);
    const Whose = `${whose.charAt(0).toUpperCase()}${whose.slice(1)}`;
    const take = served.size === 1 ? 'takes' : 'take';
    const said = [...served].some((id) => today.lacks.get(id) === 'no-material')
      ? {
          lead: `${Whose} ${take} more than the store holds.`,
          act: `Order it; ${countWord(glasses, 'cup').toLowerCase()} can be poured ${day === 'tonight' || day === 'tomorrow' ? day : `on ${day}`}.`,
        }
      : evenings > 1
        ? {
            lead: `${Whose} ${take} ${evenings} evenings.`,
            act: overEvenings(hours, evenings, firstDue.dueOn, day, now),
          }
        : {
            lead: `${countWord(glasses, 'cup')} ${glasses === 1 ? 'makes' : 'make'} ${whose} good${today.forRack ? ', and some for the rack' : ''}.`,
            act: `${day === 'tonight' ? '' : `The next evening is ${day}. `}${pourBy(firstDue.dueOn, now)} About ${hoursText(hours)} at the bench.`,
          };
    return {
      ...said,
      step: 'pour',
      to: `/orders/${firstDue.id}`,
    };
  }
  const packable = today.orders.find((order) => order.state === 'good' || order.state === 'ready');
  if (packable) {
    const act = packable.state === 'ready' ? 'Send it.' : `Pack ${countWord(packable.packsLeft, 'bag').toLowerCase()}.`;
    return {
      lead: `${packable.customer}’s order is ${packable.state === 'ready' ? 'packed' : 'good'}.`,
      act,
      step: 'pack',
      to: `/orders/${packable.id}`,
    };
  }
  if (short) return lackSentence(`${short.customer}’s order`, short.id, today.lacks.get(short.id) ?? 'no-mold');
  if (today.cups.length > 0) {
    const glasses = today.cups.reduce((sum, cup) => sum + cup.tonight.glasses, 0);
    const when = today.eveningOn === format(now, 'yyyy-MM-dd') ? 'tonight is free' : 'the next evening is free';
    return {
      lead: `No order is short, and ${when}.`,
      act: `${countWord(glasses, 'cup')} for the season.`,
      step: 'pour',
      to: '/orders/season',
    };
  }
  const curing = today.orders.find((order) => order.state === 'curing');
  if (curing)
    return {
      lead: `${curing.customer}’s order is curing.`,
      act: 'Nothing to pour for it.',
      step: 'rest',
      to: `/orders/${curing.id}`,
    };
  return firstSteps(db) ?? { lead: 'Nothing is short.', act: 'Pour for stock, or rest.', step: 'rest', to: '/rack' };
}

export function today(db: Db, now: Date): Today {
  const at = now.toISOString();
  const needs = allNeeds(db, at);
  const orders = todayOrders(db, needs);
  const evening = firstEvening(db, now);
  const planned = cupsTonight(db, needs, evening, now);
  const wished = new Set(evening.asked.lines.flatMap(({ orderId, id }) => (orderId === '' ? [id] : [])));
  const forRack = evening.cups.some((cup) =>
    forLines(cup, evening.asked.asked.lines).some(({ orderLineId }) => wished.has(orderLineId)),
  );
  const here = new Set(evening.cups.map(({ colourId }) => colourId));
  const later = new Set([...evening.evenings.keys()].filter((colourId) => !here.has(colourId)));
  const pours = openPours(db);
  return {
    ...sentence(
      db,
      {
        cups: planned.cups,
        openPours: pours,
        orders,
        eveningOn: evening.day,
        evenings: Math.max(evening.inAll, ...planned.cups.map((cup) => cup.evenings)),
        forRack,
        lacks: evening.lacks,
      },
      now,
    ),
    ...planned,
    eveningOn: evening.day,
    laterCups: later.size,
    toOrder: evening.toOrder,
    openPours: pours,
    // Own water is nothing that an order could want.
    rack: rack(db, at)
      .filter((row) => row.grade === 'sell')
      .map(({ colourwayId, colourwayName, hex, baitName, baits, cured, curedAt }) => ({
        colourwayId,
        colourwayName,
        hex,
        baitName,
        baits,
        cured,
        curedAt,
      })),
    orders,
    needs: needsYou(db, orders, now),
  };
}

export function line(db: Db, now: Date): LineCounts {
  const at = now.toISOString();
  const needs = allNeeds(db, at);
  const lying = first<{ baits: number; curing: number }>(
    db,
    `SELECT coalesce(sum(baits), 0) AS baits, coalesce(sum(iif(cured_at > ?, baits, 0)), 0) AS curing FROM ${RACK}`,
    [at],
  ) as { baits: number; curing: number };
  return {
    masters: {
      count: count(db, 'SELECT count(*) AS n FROM master'),
      unmeasured: count(
        db,
        `SELECT count(*) AS n FROM master m WHERE NOT EXISTS (SELECT 1 FROM volume_reading v JOIN master_revision r ON r.id = v.revision_id WHERE r.master_id = m.id)`,
      ),
    },
    molds: {
      count: count(db, 'SELECT count(*) AS n FROM mold WHERE retired_at IS NULL'),
      setting: count(
        db,
        `SELECT count(DISTINCT about_id) AS n FROM clock WHERE kind = 'demold' AND ended_at IS NULL AND due_at > ?`,
        [at],
      ),
    },
    colours: { count: count(db, 'SELECT count(*) AS n FROM colourway') },
    pours: {
      open: count(db, 'SELECT count(*) AS n FROM pour WHERE closed_at IS NULL'),
      total: count(db, 'SELECT count(*) AS n FROM pour'),
    },
    rack: lying,
    orders: {
      open: count(db, 'SELECT count(*) AS n FROM customer_order WHERE sent_at IS NULL AND cancelled_at IS NULL'),
      short: new Set(needs.filter((need) => need.short > 0).map((need) => need.orderId)).size,
    },
  };
}
