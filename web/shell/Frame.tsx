import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Outlet, useLocation, useMatch } from 'react-router';
import { queries } from '../api/queries.ts';
import { Waiting } from '../parts/Page.tsx';
import { TasteProvider, useTaste } from '../parts/taste.tsx';
import { ClockStrip } from './ClockStrip.tsx';
import { NoServer } from './NoServer.tsx';
import { LOOK_AGAIN_MS } from './NotFound.tsx';
import { Outbox } from './Outbox.tsx';
import { Passcode } from './Passcode.tsx';
import { ShortcutHelp, useShortcuts } from './shortcuts.tsx';
import { TheLine } from './TheLine.tsx';
import { loadNewer } from './upgrade.ts';
import { Welcome } from './Welcome.tsx';

// What is only there when it is asked for comes then.
const Palette = lazy(() => import('./Palette.tsx').then((part) => ({ default: part.Palette })));

export function Frame() {
  const session = useQuery({
    ...queries.session,
    refetchInterval: (query) => (query.state.data ? false : LOOK_AGAIN_MS),
  });
  const [locked, setLocked] = useState(false);
  useEffect(() => {
    const lock = () => setLocked(true);
    window.addEventListener('blunko:passcode', lock);
    return () => window.removeEventListener('blunko:passcode', lock);
  }, []);
  if (locked || (session.data?.needed && !session.data.known)) return <Passcode onOpen={() => setLocked(false)} />;
  if (!session.data && session.isError) return <NoServer />;
  return (
    <TasteProvider waiting={<Waiting />} silent={<NoServer />}>
      <House />
    </TasteProvider>
  );
}

/** The frame is the work itself: the line above, the clocks below, the place between. */
function House() {
  const { maker } = useTaste();
  const [atCup, dry] = [useMatch('/pours/:id/bench'), useMatch('/dry-run/:lesson')];
  const bench = atCup ?? dry;
  const { pathname } = useLocation();
  const [palette, setPalette] = useState(false);
  const [help, setHelp] = useState(false);
  useShortcuts({ onSearch: () => setPalette(true), onHelp: () => setHelp(true) });
  const place = useRef(pathname);
  useEffect(() => {
    if (place.current === pathname) return;
    place.current = pathname;
    loadNewer();
    // A new place starts at its top; the first one is there already, and to scroll is to lay out.
    document.getElementById('place')?.scrollTo(0, 0);
  }, [pathname]);
  if (!maker) return <Welcome />;
  return (
    <div className="h-dvh flex flex-col print:h-auto">
      <a
        href="#place"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-[var(--sheet)] focus:p-3"
      >
        Skip to the work
      </a>
      {!bench && <TheLine onSearch={() => setPalette(true)} onHelp={() => setHelp(true)} />}
      <main id="place" tabIndex={-1} className="flex-1 overflow-auto focus:outline-none">
        <Suspense fallback={<Waiting />}>
          <Outlet />
        </Suspense>
      </main>
      <Outbox />
      <ClockStrip />
      {palette && (
        <Suspense>
          <Palette open onClose={() => setPalette(false)} />
        </Suspense>
      )}
      <ShortcutHelp open={help} onClose={() => setHelp(false)} />
    </div>
  );
}
