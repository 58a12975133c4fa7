import { Link } from 'react-router';
import type { PlanAsked } from '../../../contract/plan.ts';
import { forLines } from '../../../core/plan/forLines.ts';
import { LACK_WORDS } from '../../../core/plan/lackWords.ts';
import type { PlannedCup, ProductionPlan } from '../../../core/plan/production.ts';
import { useWrite } from '../../api/write.ts';
import { dayText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useLayOut } from '../../parts/useLayOutPour.ts';
import { Hours } from './Hours.tsx';
import { KeepIt } from './KeepIt.tsx';
import { PlanDays } from './PlanDays.tsx';
import { saveCalendar } from './planCalendar.ts';
import { ShortInStore } from './ShortInStore.tsx';
import { usePlan } from './usePlan.ts';
import { handsDecide, namedIn, ordersOf, type PlannedOrder } from './words.ts';

/** The evenings ahead: which cups on which, when each order is packed, and how sure that is. */
export function PlanPage() {
  const { asked, looked, stop, untouched } = usePlan();
  const { say } = useTaste();
  const move = useWrite<PlanAsked, { colourwayId: string; from: string; to: string }>((body) => ({
    path: '/plan/moved',
    body,
  }));
  const letGo = useWrite<PlanAsked, { colourwayId: string }>((body) => ({ path: '/plan/let-go', body }));
  const layOut = useLayOut();
  if (!asked) return <Waiting />;
  const plan = looked?.plan ?? null;
  const named = namedIn(asked);
  if (asked.lines.length === 0)
    return (
      <Page title="The evenings ahead" tab="Plan">
        <Empty
          say="Nothing is wanted."
          then="Take an order, and this page says on which evening what is poured and when it can be sent."
          to="/orders/new"
          action="Take an order"
        />
        <Hours asked={asked} />
      </Page>
    );
  return (
    <Page
      title="The evenings ahead"
      tab="Plan"
      under="Cups, molds and packing, evening by evening: least late first, then fewest colours. No plan shortens a cure."
      actions={
        plan && (
          <>
            <button
              type="button"
              className="btn btn-ghost border border-[var(--edge)]"
              onClick={() => void saveCalendar(plan, asked)}
            >
              Calendar file
            </button>
            <button type="button" className="btn btn-ghost border border-[var(--edge)]" onClick={() => print()}>
              Print
            </button>
          </>
        )
      }
    >
      {looked?.problem && <p className="heat font-bold">{say(looked.problem)}</p>}
      {!plan && !looked?.problem && asked.asked.lines.length > 0 && <p className="text-2xl">Looking for a plan …</p>}
      {plan && (
        <>
          <Sure
            plan={plan}
            over={looked?.over ?? false}
            onStop={stop}
            orders={ordersOf(plan, asked).filter(({ orderId }) => orderId !== '')}
          />
          <ShortInStore plan={plan} asked={asked} />
          <Fixed plan={plan} untouched={untouched?.over ? untouched.plan : null} some={asked.pins.length > 0} />
        </>
      )}
      <Refusal error={move.error ?? letGo.error ?? layOut.error} />
      <div className="grid grid-cols-1 xl:grid-cols-[minmax(0,1fr)_340px] gap-x-10 gap-y-8">
        {plan && (
          <PlanDays
            days={plan.days}
            named={named}
            onMove={(colourwayId, from, to) => move.mutate({ colourwayId, from, to })}
            onLetGo={(colourwayId) => letGo.mutate({ colourwayId })}
            onLayOut={(cup) =>
              layOut.mutate({
                colourwayId: cup.colourId,
                molds: cup.molds,
                orderLines: forOrders(cup, asked),
              })
            }
          />
        )}
        <div className="flex flex-col gap-8">
          {plan && <Orders orders={ordersOf(plan, asked)} asked={asked} />}
          <Hours asked={asked} />
        </div>
      </div>
    </Page>
  );
}

/** The lines of orders that a cup is laid out for; what is for the rack is for nobody yet. */
const forOrders = (cup: PlannedCup, { asked, lines }: PlanAsked) => {
  const ordered = new Set(lines.filter(({ orderId }) => orderId !== '').map(({ id }) => id));
  return forLines(cup, asked.lines).filter(({ orderLineId }) => ordered.has(orderLineId));
};

interface SureProps {
  plan: ProductionPlan;
  over: boolean;
  orders: PlannedOrder[];
  onStop(): void;
}

/** What the plan keeps, and how far from the best it may be. */
function Sure({ plan, over, orders, onStop }: SureProps) {
  const late = orders.filter(({ packedOn, lateDays }) => packedOn === null || (lateDays ?? 0) > 0);
  const evenings = plan.days.filter(({ cups }) => cups.length > 0).length;
  const last = orders
    .map(({ packedOn }) => packedOn ?? '')
    .sort()
    .at(-1);
  return (
    <section className="flex flex-col gap-1" aria-label="What it keeps">
      <p className="text-2xl">
        {orders.length === 0 ? (
          'No order waits; it is poured for the season.'
        ) : late.length === 0 ? (
          <>
            All {orders.length} {orders.length === 1 ? 'order' : 'orders'} can be packed in time
            {last && (
              <>
                , the last on <b>{dayText(last)}</b>
              </>
            )}
            .
          </>
        ) : (
          <>
            <b className="heat">
              {late.length} of {orders.length} {orders.length === 1 ? 'order' : 'orders'}
            </b>{' '}
            cannot be packed in time: {late.map(({ code }) => code).join(', ')}.
          </>
        )}{' '}
        {evenings === 0
          ? 'Nothing has to be poured.'
          : `${plan.changeovers} ${plan.changeovers === 1 ? 'colour' : 'colours'} on ${evenings} ${evenings === 1 ? 'evening' : 'evenings'}.`}
      </p>
      {handsDecide(plan) && (
        <p className="text-lg">Hands decide: a second mold would shorten the waits, and none of these evenings.</p>
      )}
      <p className="soft" aria-live="polite">
        {proved(plan)}{' '}
        {!over && (
          <>
            Still looking for a better one …{' '}
            <button type="button" className="link" onClick={onStop}>
              Stop
            </button>
          </>
        )}
        {plan.stopped === 'failed' && `The solver failed (${plan.fault}); this is the plan by due dates.`}
      </p>
    </section>
  );
}

function proved({ lateBaitDays, boundBaitDays, by }: ProductionPlan): string {
  const made = by === 'heuristic' ? 'Planned by due dates.' : 'Searched for.';
  if (lateBaitDays === 0) return `${made} None is less late.`;
  const days = `${Math.round(lateBaitDays)} baits × days late`;
  if (boundBaitDays === null) return `${made} ${days}; how little it could be is not known yet.`;
  if (lateBaitDays - boundBaitDays < 0.5) return `${made} ${days}; proved: no plan has less.`;
  return `${made} ${days}; no plan has less than ${Math.round(boundBaitDays)}.`;
}

/** What it costs that cups were put on evenings by hand. */
function Fixed({ plan, untouched, some }: { plan: ProductionPlan; untouched: ProductionPlan | null; some: boolean }) {
  if (!some) return null;
  if (!untouched) return <p className="soft">Some cups are fixed by hand; what that costs is being worked out.</p>;
  const late = plan.lateBaitDays - untouched.lateBaitDays;
  const colours = plan.changeovers - untouched.changeovers;
  const costs = [
    ...(late > 0.5 ? [`${Math.round(late)} baits × days late`] : []),
    ...(colours > 0 ? [`${colours} more ${colours === 1 ? 'colour' : 'colours'} to begin`] : []),
  ];
  return (
    <p className={late > 0.5 ? 'warn font-bold' : ''}>
      {costs.length === 0
        ? 'What is fixed by hand costs nothing.'
        : `What is fixed by hand costs ${costs.join(' and ')}.`}
    </p>
  );
}

function Orders({ orders, asked }: { orders: PlannedOrder[]; asked: PlanAsked }) {
  return (
    <section aria-label="When each can be sent">
      <h2 className="mb-2">When each can be sent</h2>
      <ul className="ruled">
        {orders.map((order) => (
          <li key={order.orderId || `${order.code} ${order.dueOn}`} className="py-2">
            <Link
              to={order.orderId ? `/orders/${order.orderId}` : '/orders/season'}
              className="row-hover grid grid-cols-[1fr_auto] gap-x-3"
            >
              <span className="font-bold">{order.customer}</span>
              <span className="figure soft text-sm text-right">{order.code}</span>
              {order.packedOn ? (
                <span className={order.lateDays ? 'heat font-bold' : ''}>
                  packed {dayText(order.packedOn)}
                  {order.lateDays ? `, ${order.lateDays} ${order.lateDays === 1 ? 'day' : 'days'} late` : ''}
                </span>
              ) : (
                <span className="heat font-bold">
                  short by {order.shortBaits}: {order.why ? LACK_WORDS[order.why] : ''}
                </span>
              )}
              <span className="soft text-right">due {dayText(order.dueOn)}</span>
            </Link>
            {order.orderId !== '' && (order.packedOn === null || (order.lateDays ?? 0) > 0) && (
              <KeepIt asked={asked} orderId={order.orderId} dueOn={order.dueOn} />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
