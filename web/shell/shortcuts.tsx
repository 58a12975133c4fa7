import { useEffect, useRef } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { Dialog } from '../parts/Dialog.tsx';

/** `g` and then one of these goes to a place. */
export const PLACES: [key: string, to: string, name: string][] = [
  ['t', '/', 'Today'],
  ['m', '/masters', 'Masters'],
  ['d', '/molds', 'Molds'],
  ['c', '/colours', 'Colours'],
  ['p', '/pours', 'Pours'],
  ['r', '/rack', 'Rack'],
  ['o', '/orders', 'Orders'],
  ['s', '/store', 'Store'],
  ['i', '/insight', 'Insight'],
  ['q', '/tools', 'Quick tools'],
  ['h', '/guide', 'Guide'],
];

const NEW: [place: string, to: string][] = [
  ['/masters', '/masters/new'],
  ['/molds', '/molds/plan'],
  ['/colours', '/colours/new'],
  ['/pours', '/pours/new'],
  ['/store', '/store?new'],
  ['/orders', '/orders/new'],
];

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

export function useShortcuts({ onSearch, onHelp }: { onSearch(): void; onHelp(): void }): void {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const afterG = useRef(0);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key === 'k') {
        event.preventDefault();
        onSearch();
        return;
      }
      if (
        typing(event.target) ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        document.querySelector('dialog[open]')
      )
        return;
      const place = PLACES.find(([key]) => key === event.key);
      if (Date.now() - afterG.current < 1500 && place) {
        afterG.current = 0;
        navigate(place[1]);
      } else if (event.key === 'g') afterG.current = Date.now();
      else if (event.key === '/') {
        event.preventDefault();
        onSearch();
      } else if (event.key === '?') onHelp();
      else if (event.key === 'n') navigate(NEW.find(([start]) => pathname.startsWith(start))?.[1] ?? '/orders/new');
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [navigate, pathname, onSearch, onHelp]);
}

const KEYS: [string, string][] = [
  ['/  or  Ctrl K', 'search and commands'],
  ['n', 'new: what this place makes'],
  ['?', 'these keys'],
  ['Esc', 'close'],
];

export function ShortcutHelp({ open, onClose }: { open: boolean; onClose(): void }) {
  return (
    <Dialog open={open} onClose={onClose} className="m-auto p-6" label="Keyboard shortcuts">
      <h2 className="mb-3">Keys</h2>
      <dl className="grid grid-cols-[auto_auto] gap-x-8 gap-y-1">
        {[...KEYS, ...PLACES.map(([key, , name]): [string, string] => [`g ${key}`, name])].map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="figure">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <button type="button" className="btn btn-primary btn-sm mt-4" onClick={onClose}>
        Close
      </button>
    </Dialog>
  );
}
