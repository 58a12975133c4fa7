import { OLD_TAP_LIST, TAP_SHELF } from '../../contract/pages.ts';

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Sends what waits in this address's browser storage along to the new one; each tap keeps its key, so none counts twice. */
export const MOVE_SCRIPT = `
const link = document.getElementById('on');
const read = (text) => { try { return JSON.parse(text); } catch { return null; } };
let taps = [];
try {
  taps = read(localStorage.getItem('${OLD_TAP_LIST}')) || [];
  for (let i = 0; i < localStorage.length; i++) {
    const name = localStorage.key(i);
    const tap = name.startsWith('${TAP_SHELF}') && read(localStorage.getItem(name));
    if (tap) taps.push(tap);
  }
} catch {}
taps = taps.filter((tap) => !tap.refused).sort((a, b) => (a.n || 0) - (b.n || 0));
if (taps.length > 0) {
  link.href += '#taps=' + encodeURIComponent(JSON.stringify(taps));
  document.getElementById('taps').textContent =
    taps.length + (taps.length === 1 ? ' tap waits' : ' taps wait') + ' in this browser and will go along.';
}
`;

/** Plain words, no styles of its own: it is seen once on each tablet. */
export function movePage(host: string, port: number, path: string): string {
  const to = `https://${host}:${port}${path}`;
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Blunko has moved to https</title></head>
<body>
<h1>Two steps, once on this tablet</h1>
<ol>
<li><p><a href="/blunko-root.crt">Take this workshop’s certificate</a> and let the tablet trust it:
in its settings under security or general, as a CA or a profile that you install and then switch on. It was made on the
workshop’s computer, for this workshop alone.</p></li>
<li><p><a id="on" href="${escaped(to)}">Go on to ${escaped(`https://${host}:${port}`)}</a>, and keep that one as a bookmark.</p></li>
</ol>
<p id="taps"></p>
<p>Why: only over https does a browser keep the screen awake at the bench and open the workshop when the Wi-Fi is gone.</p>
<script src="/move.js"></script>
</body></html>`;
}
