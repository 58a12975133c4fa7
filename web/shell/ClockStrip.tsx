import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Clock } from '../../contract/workshop.ts';
import { durationText } from '../../core/units/show.ts';
import { useNow } from '../api/now.ts';
import { queries } from '../api/queries.ts';
import { useWrite } from '../api/write.ts';
import { alarm } from './alarm.ts';
import { along, MARKS, placeFlags } from './scale.ts';

const FLAG_PX = 186;

interface Flag {
  clock: Clock;
  dueS: number;
}

const HOT = new Set<Clock['kind']>(['pot-life', 'open', 'bake']);

export function clockPath(clock: Clock): string {
  if (clock.aboutType === 'mold') return `/molds/${clock.aboutId}`;
  if (clock.aboutType === 'pour') return `/pours/${clock.aboutId}`;
  if (clock.aboutType === 'pour-mold') return `/pours/${clock.aboutId?.split(' ')[0]}/bench`;
  if (clock.aboutType === 'master') return `/masters/${clock.aboutId}`;
  return '/';
}

function useWidth() {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1200);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? 1200));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, width };
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
      }
    }
  }, [flags]);
}

/** All that is hot, setting or curing, on one time scale from now to two days, on every screen. */
export function ClockStrip() {
  const { data } = useQuery(queries.clocks);
  const now = useNow();
  const { ref, width } = useWidth();
  const [open, setOpen] = useState(false);
  const flags = (data?.items ?? []).map((clock) => ({ clock, dueS: (Date.parse(clock.dueAt) - now) / 1000 }));
  useAlarms(flags);
  const placed = placeFlags(flags, width, FLAG_PX);
  const due = flags.filter((flag) => flag.dueS <= 0);
  return (
    <section
      className="no-print bg-[var(--sheet)] border-t-2 border-[var(--rule)] shrink-0 relative"
      aria-label="Clocks"
    >
      {open && <ClockList flags={flags} onClose={() => setOpen(false)} />}
      <div ref={ref} className="relative h-[72px] mx-8 overflow-hidden">
        {MARKS.map(([seconds, label]) => (
          <span
            key={label}
            className="absolute top-0 h-2.5 border-l-2 border-[var(--rule)] pl-1.5 figure text-[0.6875rem] soft leading-3 whitespace-nowrap"
            style={{ left: Math.min(width - 26, along(seconds) * (width - 4)) }}
          >
            {label}
          </span>
        ))}
        {placed.map(({ item: { clock, dueS }, x, more }) => {
          const late = dueS <= 0;
          const colour = late || HOT.has(clock.kind) ? 'var(--heat)' : 'var(--rest)';
          return (
            <div
              key={clock.id}
              className="absolute top-3.5 bottom-1.5 flex"
              style={{ left: x, width: FLAG_PX - 6, borderLeft: `4px solid ${colour}` }}
            >
              <Link
                to={clockPath(clock)}
                className="pl-2 min-w-0 flex-1 flex flex-col justify-center hover:bg-[var(--paper)]"
              >
                <span className="text-sm font-bold truncate leading-tight">{clock.label}</span>
                <span className="figure text-sm truncate leading-tight" style={{ color: colour }}>
                  {late ? `due ${durationText(-dueS)} ago` : durationText(dueS)}
                </span>
              </Link>
              {more.length > 0 && (
                <button
                  type="button"
                  className="btn btn-ghost btn-xs self-center figure"
                  onClick={() => setOpen(!open)}
                  aria-label={`${more.length} more clocks near this one`}
                >
                  +{more.length}
                </button>
              )}
            </div>
          );
        })}
        {flags.length === 0 && <p className="absolute top-6 soft text-sm">Nothing is hot, setting or curing.</p>}
        <button
          type="button"
          className="absolute right-0 bottom-0 h-6 min-w-6 text-xs link soft"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          all clocks
        </button>
      </div>
      <p className="sr-only" role="alert">
        {due.map((flag) => `${flag.clock.label} is due.`).join(' ')}
      </p>
    </section>
  );
}

function ClockList({ flags, onClose }: { flags: Flag[]; onClose(): void }) {
  const [label, setLabel] = useState('');
  const [minutes, setMinutes] = useState('10');
  const add = useWrite<Clock>(
    () => ({ path: '/clocks', body: { label, minutes: Number(minutes) } }),
    () => setLabel(''),
  );
  return (
    <section
      className="absolute bottom-full right-6 w-[440px] max-h-[70dvh] overflow-auto sheet shadow-lg p-4 z-20"
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
      <form
        className="flex gap-2 pt-3 items-end"
        onSubmit={(event) => {
          event.preventDefault();
          if (label.trim() && Number(minutes) > 0) add.mutate();
        }}
      >
        <label className="flex-1 label-small">
          A clock of your own
          <input className="input input-sm w-full" value={label} onChange={(event) => setLabel(event.target.value)} />
        </label>
        <label className="label-small w-20">
          minutes
          <input
            className="input input-sm w-full figure-input"
            inputMode="decimal"
            value={minutes}
            onChange={(event) => setMinutes(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-sm btn-primary">
          Start
        </button>
      </form>
    </section>
  );
}

function ClockRow({ clock, dueS }: { clock: Clock; dueS: number }) {
  const change = useWrite<Clock, { ended: true } | { addMinutes: number }>((body) => ({
    path: `/clocks/${clock.id}`,
    method: 'PATCH',
    body,
    version: clock.version,
  }));
  return (
    <li className="py-2 flex items-center gap-2">
      <Link to={clockPath(clock)} className="flex-1 min-w-0">
        <span className="block font-bold truncate">{clock.label}</span>
        <span className={`figure text-sm ${dueS <= 0 ? 'heat' : 'rest'}`}>
          {dueS <= 0 ? `due ${durationText(-dueS)} ago` : `in ${durationText(dueS)}`}
        </span>
      </Link>
      <button type="button" className="btn btn-sm btn-ghost" onClick={() => change.mutate({ addMinutes: 5 })}>
        +5 min
      </button>
      <button type="button" className="btn btn-sm btn-line" onClick={() => change.mutate({ ended: true })}>
        Done
      </button>
    </li>
  );
}
