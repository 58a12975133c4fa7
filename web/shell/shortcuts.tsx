import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';

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

/** A native dialog that follows `open`. */
function useDialog(open: boolean) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog) return;
    if (open && !dialog.open) {
      dialog.showModal();
      // A closed dialog cannot hold the focus, so the field is given it now.
      dialog.querySelector('input')?.focus();
    }
    if (!open && dialog.open) dialog.close();
  }, [open]);
  return ref;
}

const KEYS: [string, string][] = [
  ['/  or  Ctrl K', 'search and commands'],
  ['n', 'new: what this place makes'],
  ['?', 'these keys'],
  ['Esc', 'close'],
];

interface DialogProps {
  open: boolean;
  onClose(): void;
  /** What it is about, for who hears it. */
  label: string;
  /** Where it stands, how wide it may be, its padding. */
  className?: string;
  /** Drawn only while it is open, so that it begins anew each time. */
  children: ReactNode;
}

export const AMID = 'm-auto p-3 sm:p-5 max-w-[97vw] max-h-[98dvh] overflow-auto';

/** A sheet over the page that keeps the focus; Escape closes it. */
export function Dialog({ open, onClose, label, className = AMID, children }: DialogProps) {
  const ref = useDialog(open);
  // Not there before it is first asked for: a first view pays for nothing that nobody opened.
  const [asked, setAsked] = useState(open);
  if (open && !asked) setAsked(true);
  if (!asked) return null;
  return (
    <dialog ref={ref} onClose={onClose} className={`sheet text-[var(--ink)] ${className}`} aria-label={label}>
      {open && children}
    </dialog>
  );
}

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
