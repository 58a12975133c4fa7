import { buildIn } from '../../contract/pages.ts';

/** A part that is gone is asked for again by a fresh page, once; a second time within this the fault is another. */
const RELOADED = 'blunko.reloaded';
const AGAIN_MS = 20_000;

const ownBuild = (): string | null => {
  const script = document.querySelector<HTMLScriptElement>('script[type=module][src*="/assets/index-"]');
  return buildIn(script?.src ?? '');
};

let older = false;

/** The shell that the browser keeps; none over plain http in the network. */
const keeper = async () => ('serviceWorker' in navigator ? navigator.serviceWorker.getRegistration() : undefined);

/** What the server serves now: a tab of an older build loads anew when it next goes to another place. */
export function serverBuild(build: string | null): void {
  const own = ownBuild();
  older = build !== null && own !== null && build !== own;
  // The newer shell is fetched now, so that it is there when somebody goes on.
  // Where the browser cannot, such as while one is being put in place, the next load gets it.
  if (older) void keeper().then((kept) => kept?.update().catch(() => undefined));
}

/** Loads the page anew where the server has a newer one, by way of the newer shell where one waits. */
export function loadNewer(): void {
  if (!older) return;
  void keeper().then((kept) => {
    if (!kept?.waiting) return location.reload();
    navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
    kept.waiting.postMessage({ type: 'SKIP_WAITING' });
  });
}

function reloadOnce(to: string | undefined): boolean {
  try {
    if (Date.now() - Number(sessionStorage.getItem(RELOADED)) < AGAIN_MS) return false;
    sessionStorage.setItem(RELOADED, String(Date.now()));
  } catch {
    return false;
  }
  if (to === undefined) location.reload();
  else location.assign(to);
  return true;
}

/**
 * A tab that was left open over an upgrade loads anew instead of failing on a part that is no longer there.
 * @param going where somebody was just going, if anywhere.
 */
export function reloadLostParts(going: () => string | undefined): void {
  window.addEventListener('vite:preloadError', (event) => {
    if (reloadOnce(going())) event.preventDefault();
  });
}
