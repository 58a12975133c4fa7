import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Clock } from '../../contract/workshop.ts';
import { durationText } from '../../core/units/show.ts';
import { useNow } from '../api/now.ts';
import { tap, useTaps } from '../api/outbox.ts';
import { queries } from '../api/queries.ts';
import { useWidth } from '../parts/Fitted.tsx';
import { Guarded } from '../parts/Guarded.tsx';
import { alarm } from './alarm.ts';
import { type ClockSaid, clockTaps, foldClocks } from './clockTaps.ts';
import { along, MARKS, placeFlags } from './scale.ts';

const FLAG_PX = 186;
/** What a mark's label takes. */
const MARK_PX = 42;
/** What its edges and the way to all clocks take at most. */
const BESIDE_PX = 160;
/** Under this there is room for the nearest clock alone. */
const NARROW_PX = 560;

interface Flag {
  clock: Clock;
  dueS: number;
}

const HOT = new Set<Clock['kind']>(['pot-life', 'open', 'bake', 'burst', 'stir']);

export function clockPath(clock: Clock): string {
  if (clock.aboutType === 'mold') return `/molds/${clock.aboutId}`;
  if (clock.aboutType === 'pour') return `/pours/${clock.aboutId}`;
  if (clock.aboutType === 'pour-mold') return `/pours/${clock.aboutId?.split(' ')[0]}/bench`;
  if (clock.aboutType === 'master') return `/masters/${clock.aboutId}`;
  return '/';
}

/** Where somebody allowed it, a clock that comes due is told over whatever else is looked at. */
function tellOutside({ label, id }: Clock): void {
  if (typeof Notification === 'undefined' || Notification.permission !== 'granted') return;
  if (document.visibilityState === 'visible') return;
  // A phone's browser refuses it outside its own worker: the sound is there all the same.
  try {
    new Notification(label, { tag: id, body: 'It is due.' });
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
  }
}

/** Sounds and speaks once for each clock that comes due while somebody is here. */
function useAlarms(flags: Flag[]): void {
  const rung = useRef(new Set<string>());
  useEffect(() => {
    for (const { clock, dueS } of flags) {
      const id = `${clock.id} ${clock.dueAt}`;
      if (dueS <= 0 && dueS > -120 && !rung.current.has(id)) {
        rung.current.add(id);
        alarm();
        tellOutside(clock);
      }
    }
  }, [flags]);
}

/** Marks that have room beside each other. */
function roomyMarks(width: number): [at: number, label: string][] {
  const roomy: [number, string][] = [];
  for (const [seconds, label] of MARKS) {
    const at = along(seconds) * (width - MARK_PX);
    const before = roomy.at(-1);
    if (!before || at - before[0] >= MARK_PX) roomy.push([at, label]);
  }
  return roomy;
}

function FlagOn({ clock, dueS }: Flag) {
  const late = dueS <= 0;
  const colour = late || HOT.has(clock.kind) ? 'var(--heat)' : 'var(--rest)';
  return (
    <Link
      to={clockPath(clock)}
      title={clock.label}
      className="pl-2 min-w-0 flex-1 h-full flex flex-col justify-center hover:bg-[var(--paper)]"
      style={{ borderLeft: `4px solid ${colour}` }}
    >
      <span className="text-sm font-bold truncate leading-tight">{clock.label}</span>
      <span className="figure text-sm truncate leading-tight" style={{ color: colour }}>
        {late ? `due ${durationText(-dueS)} ago` : durationText(dueS)}
      </span>
    </Link>
  );
}

/** All that is hot, setting or curing, on one time scale from now to two days, on every screen. */
export function ClockStrip() {
  const { data, isError } = useQuery(queries.clocks);
  const now = useNow();
  const [ref, width] = useWidth(1200, BESIDE_PX);
  const [open, setOpen] = useState(false);
  const flags = foldClocks(data?.items ?? [], useTaps()).map((clock) => ({
    clock,
    dueS: (Date.parse(clock.dueAt) - now) / 1000,
  }));
  useAlarms(flags);
  const narrow = width < NARROW_PX;
  const placed = narrow
    ? flags.slice(0, 1).map((item) => ({ item, x: 0, more: flags.slice(1) }))
    : placeFlags(flags, width, FLAG_PX);
  const due = flags.filter((flag) => flag.dueS <= 0);
  const idle = flags.length === 0;
  return (
    <section
      className="no-print bg-[var(--sheet)] border-t-2 border-[var(--rule)] shrink-0 relative flex items-stretch pl-4 sm:pl-8 pr-2 gap-2"
      aria-label="Clocks"
    >
      {open && <ClockList flags={flags} onClose={() => setOpen(false)} />}
      <div ref={ref} className={`relative flex-1 min-w-0 overflow-hidden ${idle ? 'h-8' : 'h-[68px]'}`}>
        {idle && (
          <p className="soft text-sm leading-8 truncate">
            {isError && !data ? 'The clocks cannot be read just now.' : 'Nothing is hot, setting or curing.'}
          </p>
        )}
        {!idle &&
          !narrow &&
          roomyMarks(width).map(([at, label]) => (
            <span
              key={label}
              className="absolute top-0 h-2.5 border-l-2 border-[var(--rule)] pl-1.5 figure text-[0.6875rem] soft leading-3 whitespace-nowrap"
              style={{ left: at }}
            >
              {label}
            </span>
          ))}
        {placed.map(({ item, x, more }) => (
          <div
            key={item.clock.id}
            className={`absolute bottom-1.5 flex items-center ${narrow ? 'top-1.5' : 'top-3.5'}`}
            style={{ left: x, width: narrow ? width : FLAG_PX - 6 }}
          >
            <FlagOn {...item} />
            {more.length > 0 && (
              <button
                type="button"
                className="btn btn-ghost btn-sm px-1.5 figure"
                onClick={() => setOpen(!open)}
                aria-label={`${more.length} more clocks near this one`}
              >
                +{more.length}
              </button>
            )}
          </div>
        ))}
      </div>
      <button
        type="button"
        className="shrink-0 self-center min-h-8 px-2 text-sm link soft"
        aria-expanded={open}
        aria-label="All clocks"
        onClick={() => setOpen(!open)}
      >
        {/* By the window's width, not the strip's: the word itself takes room from the strip. */}
        all<span className="hidden md:inline"> clocks</span>
      </button>
      <p className="sr-only" role="alert">
        {due.map((flag) => `${flag.clock.label} is due.`).join(' ')}
      </p>
    </section>
  );
}

/** Fetched when somebody looks at the clocks: no page waits for its form. */
const NewClock = lazy(() => import('./NewClock.tsx').then((part) => ({ default: part.NewClock })));

function ClockList({ flags, onClose }: { flags: Flag[]; onClose(): void }) {
  return (
    <section
      className="absolute bottom-full right-2 sm:right-6 w-[440px] max-w-[calc(100vw-1rem)] max-h-[70dvh] overflow-auto sheet shadow-lg p-4 z-20"
      aria-label="All clocks"
    >
      <div className="flex justify-between items-center">
        <h2>Clocks</h2>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
          Close
        </button>
      </div>
      <ul className="ruled">
        {flags.map(({ clock, dueS }) => (
          <ClockRow key={clock.id} clock={clock} dueS={dueS} />
        ))}
      </ul>
      <TellOutside />
      <Suspense fallback={null}>
        <NewClock />
      </Suspense>
    </section>
  );
}

/** Asked for only by whoever wants it; what a browser refused once it does not ask again. */
function TellOutside() {
  const [allowed, setAllowed] = useState(typeof Notification === 'undefined' ? 'denied' : Notification.permission);
  if (allowed === 'granted') return <p className="soft text-sm py-1">Clocks are told outside this page too.</p>;
  if (allowed === 'denied') return null;
  return (
    <button
      type="button"
      className="btn btn-sm btn-ghost"
      onClick={() => void Notification.requestPermission().then(setAllowed)}
    >
      Tell me outside this page too
    </button>
  );
}

function ClockRow({ clock, dueS }: { clock: Clock; dueS: number }) {
  const say = (body: ClockSaid, said: string) => tap(clockTaps(clock.id), body, `${clock.label}: ${said}`, clock.id);
  return (
    <li className="py-2 flex items-center gap-2">
      <Link to={clockPath(clock)} className="flex-1 min-w-0">
        <span className="block font-bold truncate">{clock.label}</span>
        <span className={`figure text-sm ${dueS <= 0 ? 'heat' : 'rest'}`}>
          {dueS <= 0 ? `due ${durationText(-dueS)} ago` : `in ${durationText(dueS)}`}
        </span>
      </Link>
      <button type="button" className="btn btn-sm btn-ghost" onClick={() => say({ addMinutes: 5 }, '5 min more')}>
        +5 min
      </button>
      <Guarded means={`done ${clock.id}`} className="btn btn-sm btn-line" onAct={() => say({ ended: true }, 'done')}>
        Done
      </Guarded>
    </li>
  );
}
