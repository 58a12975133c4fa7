import { useQuery } from '@tanstack/react-query';
import { Moon, Settings, Sun } from 'lucide-react';
import { NavLink } from 'react-router';
import type { Line } from '../../contract/today.ts';
import { queries } from '../api/queries.ts';
import { chooseTheme, useTheme } from './theme.ts';

interface Station {
  to: string;
  name: string;
  /** What waits there, in figures and in words for who hears it. */
  waits(line: Line): [figures: string, words: string];
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

/** The order of work as a ruler: six stations, each with what waits at it. */
export function TheLine({ onSearch, onHelp }: { onSearch(): void; onHelp(): void }) {
  const { data } = useQuery(queries.line);
  const theme = useTheme();
  return (
    <header className="no-print bg-[var(--sheet)] border-b-2 border-[var(--rule)] flex items-stretch h-[66px] pl-6 pr-2 xl:pr-3 shrink-0">
      <NavLink
        to="/"
        className="font-[family-name:var(--font-display)] text-2xl font-extrabold tracking-tight self-center pr-3 xl:pr-6"
        aria-label="Blunko, today"
      >
        Blunko
      </NavLink>
      <nav aria-label="The line" className="flex">
        {STATIONS.map((station) => {
          const [figures, words] = data ? station.waits(data) : ['', ''];
          return (
            <NavLink
              key={station.to}
              to={station.to}
              className="station relative w-[90px] xl:w-[118px] overflow-hidden pl-2.5 pt-2 border-l-2 border-[var(--rule)] hover:bg-[var(--paper)]"
            >
              <span className="block font-bold leading-tight">{station.name}</span>
              <span
                className="figure text-[0.66rem] tracking-[-0.05em] leading-tight soft block whitespace-nowrap"
                aria-hidden="true"
              >
                {figures.split(/ (?=[a-z])/)[0]}
                <span className="hidden xl:inline">{figures.match(/ [a-z].*/)?.[0]}</span>
              </span>
              <span className="sr-only">{words}</span>
              <svg className="absolute left-0 bottom-0" width={118} height={14} aria-hidden="true">
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
      <nav aria-label="Other places" className="ml-auto flex items-center gap-2 xl:gap-4 text-sm xl:text-[0.9375rem]">
        {BESIDE.map(([to, name]) => (
          <NavLink key={to} to={to} end className="aside-link hover:underline underline-offset-6">
            {name}
          </NavLink>
        ))}
        <span className="flex items-center">
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
            className="btn btn-ghost btn-sm px-2 figure text-base"
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
      </nav>
    </header>
  );
}
