/** A part that is gone is asked for again by a fresh page, once; a second time within this the fault is another. */
const RELOADED = 'blunko.reloaded';
const AGAIN_MS = 20_000;

const ownBuild = (): string | null => {
  const script = document.querySelector<HTMLScriptElement>('script[type=module][src*="/assets/index-"]');
  return /assets\/(index-[\w-]+)\.js/.exec(script?.src ?? '')?.[1] ?? null;
};

let older = false;

/** What the server serves now: a tab of an older build loads anew when it next goes to another place. */
export function serverBuild(build: string | null): void {
  const own = ownBuild();
  older = build !== null && own !== null && build !== own;
}

/** Whether going to another place should load the page anew. */
export const isOlder = () => older;

function reloadOnce(): boolean {
  try {
    if (Date.now() - Number(sessionStorage.getItem(RELOADED)) < AGAIN_MS) return false;
    sessionStorage.setItem(RELOADED, String(Date.now()));
  } catch {
    return false;
  }
  location.reload();
  return true;
}

/** A tab that was left open over an upgrade loads anew instead of failing on a part that is no longer there. */
export function reloadLostParts(): void {
  window.addEventListener('vite:preloadError', (event) => {
    if (reloadOnce()) event.preventDefault();
  });
}
