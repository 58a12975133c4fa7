import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { SearchHit } from '../../contract/today.ts';
import { queries } from '../api/queries.ts';
import { Dialog } from '../parts/Dialog.tsx';
import { chooseTheme, currentTheme } from '../parts/theme.ts';
import { PLACES } from './shortcuts.tsx';

const PATHS: Record<SearchHit['kind'], (id: string) => string> = {
  master: (id) => `/masters/${id}`,
  mold: (id) => `/molds/${id}`,
  colour: (id) => `/colours/${id}`,
  pour: (id) => `/pours/${id}`,
  order: (id) => `/orders/${id}`,
  customer: () => '/orders',
  material: (id) => `/store?material=${id}`,
  bag: (code) => `/bags/${code}`,
};

const COMMANDS: [string, string][] = [
  ['New master', '/masters/new'],
  ['Plan a silicone mold', '/molds/plan'],
  ['Add a bought, printed or machined mold', '/molds/new'],
  ['Write a recipe', '/colours/new'],
  ['Open a dosing ledger', '/colours/dosing'],
  ['Lay out a pour', '/pours/new'],
  ['Take an order', '/orders/new'],
  ['Add a material', '/store?new'],
  ['Settings, units and backup', '/settings'],
];

/** Search and commands in one box; arrows and Enter, or a tap. */
export function Palette({ open, onClose }: { open: boolean; onClose(): void }) {
  const [q, setQ] = useState('');
  const navigate = useNavigate();
  const hits = useQuery(queries.search(q.trim()));
  const go = (to: string) => {
    onClose();
    setQ('');
    navigate(to);
  };
  const like = (text: string) => text.toLowerCase().includes(q.trim().toLowerCase());
  const item =
    'px-4 py-2 rounded cursor-pointer flex justify-between gap-4 data-[selected=true]:bg-[var(--paper)] data-[selected=true]:outline-2 data-[selected=true]:outline-[var(--rest)]';
  return (
    <Dialog
      open={open}
      onClose={onClose}
      className="mx-auto mt-[12dvh] w-[620px] max-w-[94vw] p-0"
      label="Search and commands"
    >
      <Command shouldFilter={false} label="Search and commands" loop>
        <Command.Input
          value={q}
          onValueChange={setQ}
          placeholder="A bait, colour, order, bag code, or what to do"
          className="w-full bg-transparent px-5 py-4 text-xl outline-none border-b border-[var(--rule)]"
        />
        <Command.List className="max-h-[52dvh] overflow-auto p-2">
          <Command.Empty className="px-4 py-6 soft">Nothing by that name.</Command.Empty>
          {(hits.data?.items ?? []).map((hit) => (
            <Command.Item
              key={`${hit.kind} ${hit.id}`}
              value={`${hit.kind} ${hit.id}`}
              onSelect={() => go(PATHS[hit.kind](hit.id))}
              className={item}
            >
              <span className="font-bold">{hit.title}</span>
              <span className="soft">{hit.about}</span>
            </Command.Item>
          ))}
          {COMMANDS.filter(([name]) => like(name)).map(([name, to]) => (
            <Command.Item key={to} value={to} onSelect={() => go(to)} className={item}>
              {name}
            </Command.Item>
          ))}
          {PLACES.filter(([, , name]) => like(name)).map(([key, to, name]) => (
            <Command.Item key={name} value={name} onSelect={() => go(to)} className={item}>
              <span>Go to {name}</span>
              <span className="figure soft">g {key}</span>
            </Command.Item>
          ))}
          {like('theme') && (
            <Command.Item
              value="theme"
              onSelect={() => chooseTheme(currentTheme() === 'night' ? 'daylight' : 'night')}
              className={item}
            >
              Change the theme
            </Command.Item>
          )}
        </Command.List>
      </Command>
    </Dialog>
  );
}
