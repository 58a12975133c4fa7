import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { ApiError } from './api/client.ts';
import { listen, whenThere } from './api/live.ts';
import { onAnswer, sendNow, startOutbox } from './api/outbox.ts';
import { queries } from './api/queries.ts';
import { fetchThrough } from './api/stale.ts';
import { router } from './shell/routes.tsx';
import { keepShell } from './shell/shellWorker.ts';
import { applyTheme } from './shell/theme.ts';
import { reloadLostParts, serverBuild } from './shell/upgrade.ts';
import './styles/app.css';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      retry: (count, error) => !(error instanceof ApiError && error.status < 500) && count < 3,
    },
  },
});

applyTheme();
reloadLostParts(() => {
  const { location: to } = router.state.navigation;
  return to && to.pathname + to.search;
});
keepShell();
fetchThrough(client);
whenThere((build) => {
  sendNow();
  serverBuild(build);
});
listen();
onAnswer((about, answer) => {
  // The answer replaces what the screen shows before the tap leaves the outbox, so that no total ever jumps back.
  const record = answer as { id: string; doses?: unknown[]; molds?: unknown[] };
  if (record.molds) client.setQueryData(['pours', record.id], record);
  else if (record.doses) {
    client.setQueryData(['ledgers', record.id], record);
    client.setQueryData(['pours', about], (pour: object | undefined) => pour && { ...pour, doses: record.doses });
  }
});
startOutbox();

// What every first view needs is asked for while the rest of the page still loads.
const here = location.pathname;
const cup = /^\/pours\/([0-9a-f-]{36})\/bench$/.exec(here)?.[1];
const { session, workshop, makers, measures, line, clocks, today, materials } = queries;
for (const first of [session, workshop, makers, measures, line, clocks]) void client.prefetchQuery(first as never);
if (here === '/') void client.prefetchQuery(today);
if (cup) for (const first of [queries.pour(cup), materials]) void client.prefetchQuery(first as never);

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
