import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, startTransition } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { BENCH_PAGE, SHAPE_PAGE } from '../contract/first.ts';
import type { Clock } from '../contract/workshop.ts';
import { ApiError, NoAnswer } from './api/client.ts';
import { first, forget } from './api/first.ts';
import { listen, whenThere } from './api/live.ts';
import { learnServerTime } from './api/now.ts';
import { onAnswer, sendNow, startOutbox } from './api/outbox.ts';
import { queries } from './api/queries.ts';
import { fetchThrough } from './api/stale.ts';
import { withClock } from './shell/clockTaps.ts';
import { makeRouter } from './shell/routes.tsx';
import { keepShell } from './shell/shellWorker.ts';
import { reloadLostParts, serverBuild } from './shell/upgrade.ts';
import './styles/app.css';

const client = new QueryClient({
  defaultOptions: {
    // The workshop's computer is in the house: whether a browser believes itself online says nothing about it.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      refetchOnReconnect: true,
      staleTime: 30_000,
      // What was refused stays refused, what broke is asked for once more, and the Wi-Fi may come back.
      retry: (count, error) => (error instanceof ApiError ? error.status >= 500 && count < 1 : count < 3),
      // A page that cannot be read says so, instead of reading for ever; what is not here is said by the page itself.
      throwOnError: (error, query) =>
        query.state.data === undefined && !(error instanceof ApiError && error.status < 500),
    },
  },
});

if (first) learnServerTime(first.now);
fetchThrough(client);
onAnswer((about, answer) => {
  // The answer replaces what the screen shows before the tap leaves the outbox, so that no total ever jumps back.
  const record = answer as { id: string; doses?: unknown[]; molds?: unknown[]; dueAt?: string };
  if (record.molds) client.setQueryData(['pours', record.id], record);
  else if (record.doses) {
    client.setQueryData(['ledgers', record.id], record);
    client.setQueryData(['pours', about], (pour: object | undefined) => pour && { ...pour, doses: record.doses });
  } else if (record.dueAt)
    client.setQueryData(
      queries.clocks.queryKey,
      (list) => list && { ...list, items: withClock(list.items, answer as Clock) },
    );
});
startOutbox();
keepShell();

// What every first view needs came with the page, or is asked for while the rest of it still loads.
const ask = (...asked: { queryKey: readonly unknown[] }[]) => {
  for (const one of asked) void client.prefetchQuery(one as never);
};
const here = location.pathname;
const { session, workshop, makers, measures, line, clocks, today, materials, masters } = queries;
ask(session, workshop, makers, measures, line, clocks);
const cup = BENCH_PAGE.exec(here)?.[1];
const sculpted = SHAPE_PAGE.exec(here)?.[1];
if (here === '/') ask(today);
if (cup) ask(queries.pour(cup), materials, queries.oven, queries.instruments, queries.hands());
if (sculpted) ask(queries.master(sculpted), materials, masters);
forget();

/** An answer that failed is told on the page; only what broke in the page itself is a fault of it. */
const noted = (error: unknown) => {
  if (!(error instanceof ApiError || error instanceof NoAnswer)) console.error(error);
};

/** Each part of the start is a task of its own, so that a touch between them is not held up. */
const between = () => new Promise((next) => setTimeout(next));

/** Until the part that draws this page is there: what stands in the page stays so long. */
const partOf = (router: ReturnType<typeof makeRouter>) =>
  new Promise<void>((done) => {
    const look = () => {
      if (!router.state.initialized) return;
      stop();
      done();
    };
    const stop = router.subscribe(look);
    look();
  });

async function start(): Promise<void> {
  await between();
  const router = makeRouter();
  reloadLostParts(() => {
    const { location: to } = router.state.navigation;
    return to && to.pathname + to.search;
  });
  const root = createRoot(document.getElementById('root') as HTMLElement, { onCaughtError: noted });
  await Promise.all([between(), partOf(router)]);
  startTransition(() =>
    root.render(
      <StrictMode>
        <QueryClientProvider client={client}>
          <RouterProvider router={router} onError={noted} />
        </QueryClientProvider>
      </StrictMode>,
    ),
  );
  await between();
  whenThere((build) => {
    sendNow();
    serverBuild(build);
  });
  listen();
}
void start();
