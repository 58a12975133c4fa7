import { useQuery } from '@tanstack/react-query';
import { Menu, Moon, Settings, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import { NavLink, useLocation } from 'react-router';
import type { LineCounts } from '../../contract/today.ts';
import { queries } from '../api/queries.ts';
import { chooseTheme, useTheme } from '../parts/theme.ts';

interface Station {
  to: string;
  name: string;
  /** What waits there, in figures and in words for who hears it. */
  waits(line: LineCounts): [figures: string, words: string];
}

const STATIONS: Station[] = [
  {
    to: '/masters',
    name: 'Masters',
    waits: ({ masters: { count, unmeasured } }) => [
      unmeasured ? `${count} · ${unmeasured} to weigh` : `${count}`,
      `${count} masters, ${unmeasured} without a volume`,
    ],
  },
  {
    to: '/molds',
    name: 'Molds',
    waits: ({ molds: { count, setting } }) => [
      setting ? `${count} · ${setting} setting` : `${count}`,
      `${count} molds, ${setting} setting`,
    ],
  },
  { to: '/colours', name: 'Colours', waits: ({ colours: { count } }) => [`${count}`, `${count} recipes`] },
  {
    to: '/pours',
    name: 'Pours',
    waits: ({ pours: { open, total } }) => [open ? `${open} open` : `${total}`, `${total} pours, ${open} open`],
  },
  {
    to: '/rack',
    name: 'Rack',
    waits: ({ rack: { baits, curing } }) => [
      curing ? `${baits} · ${curing} curing` : `${baits}`,
      `${baits} baits, ${curing} of them curing`,
    ],
  },
  {
    to: '/orders',
    name: 'Orders',
    waits: ({ orders: { open, short } }) => [
      short ? `${open} · ${short} short` : `${open}`,
      `${open} open orders, ${short} short`,
    ],
  },
];

const BESIDE = [
  ['/', 'Today'],
  ['/store', 'Store'],
  ['/insight', 'Insight'],
  ['/tools', 'Tools'],
  ['/guide', 'Guide'],
] as const;

function Others({ className, onGo }: { className: string; onGo?: () => void }) {
  return (
    <nav aria-label="Other places" className={className}>
      {BESIDE.map(([to, name]) => (
        <NavLink key={to} to={to} end className="aside-link hover:underline underline-offset-6" onClick={onGo}>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}

/** Where there is no room for them beside the line, the other places open from one target. */
function OthersMenu() {
  const [open, setOpen] = useState(false);
  const { pathname } = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: it closes when somebody went somewhere
  useEffect(() => setOpen(false), [pathname]);
  return (
    <div className="md:hidden ml-auto self-center relative">
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2"
        aria-expanded={open}
        aria-label="Other places"
        onClick={() => setOpen(!open)}
      >
        <Menu size={20} />
      </button>
      {open && (
        <Others
          className="absolute right-0 top-full z-30 sheet shadow-lg p-2 flex flex-col text-lg w-44 [&>a]:px-3 [&>a]:py-2.5"
          onGo={() => setOpen(false)}
        />
      )}
    </div>
  );
}

function Stations({ data }: { data: LineCounts | undefined }) {
  return (
    <nav aria-label="The line" className="flex order-last w-full md:order-none md:w-auto">
      {STATIONS.map((station) => {
        const [figures, words] = data ? station.waits(data) : ['', ''];
        return (
          <NavLink
            key={station.to}
            to={station.to}
            className="station relative flex-1 md:flex-none min-w-0 h-12 md:h-[64px] md:w-[82px] lg:w-[90px] xl:w-[118px] overflow-hidden pl-1.5 md:pl-2.5 pt-1.5 md:pt-2 border-l-2 border-[var(--rule)] hover:bg-[var(--paper)]"
          >
            <span className="block font-bold leading-tight text-[0.8125rem] md:text-base">{station.name}</span>
            <span
              className="figure text-[0.66rem] tracking-[-0.05em] leading-tight soft block whitespace-nowrap"
              aria-hidden="true"
            >
              <span className="md:hidden">{figures.split(' ')[0]}</span>
              <span className="hidden md:inline">{figures.split(/ (?=[a-z])/)[0]}</span>
              <span className="hidden xl:inline">{figures.match(/ [a-z].*/)?.[0]}</span>
            </span>
            <span className="sr-only">{words}</span>
            <svg className="absolute left-0 bottom-0 hidden md:block" width={118} height={14} aria-hidden="true">
              {[1, 2, 3, 4, 5].map((tick) => (
                <line
                  key={tick}
                  x1={tick * 19.6}
                  x2={tick * 19.6}
                  y1={tick === 3 ? 4 : 8}
                  y2={14}
                  stroke="var(--rule)"
                  strokeWidth={2}
                />
              ))}
            </svg>
          </NavLink>
        );
      })}
    </nav>
  );
}

/** The order of work as a ruler: six stations, each with what waits at it. */
export function TheLine({ onSearch, onHelp }: { onSearch(): void; onHelp(): void }) {
  const { data } = useQuery(queries.line);
  const theme = useTheme();
  return (
    <header className="no-print bg-[var(--sheet)] border-b-2 border-[var(--rule)] flex flex-wrap md:flex-nowrap items-stretch pl-3 md:pl-4 xl:pl-6 pr-1 xl:pr-3 shrink-0">
      <NavLink
        to="/"
        className="font-[family-name:var(--font-display)] text-xl md:text-2xl font-bold tracking-tight self-center pr-2 xl:pr-6 py-1.5"
        aria-label="Blunko, today"
      >
        Blunko
      </NavLink>
      <Stations data={data} />
      <Others className="ml-auto hidden md:flex items-center gap-2 xl:gap-4 text-sm xl:text-[0.9375rem]" />
      <OthersMenu />
      <span className="flex items-center self-center">
        <button
          type="button"
          className="btn btn-ghost btn-sm px-2 figure text-base"
          onClick={onSearch}
          aria-label="Search (slash)"
        >
          /
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm px-2 figure text-base hidden sm:inline-flex"
          onClick={onHelp}
          aria-label="Keyboard shortcuts (question mark)"
        >
          ?
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm px-2"
          onClick={() => chooseTheme(theme === 'night' ? 'daylight' : 'night')}
          aria-label={theme === 'night' ? 'Daylight theme' : 'Night bench theme'}
        >
          {theme === 'night' ? <Sun size={17} /> : <Moon size={17} />}
        </button>
        <NavLink to="/settings" className="btn btn-ghost btn-sm px-2" aria-label="Settings">
          <Settings size={17} />
        </NavLink>
      </span>
    </header>
  );
}
