import { useNow } from '../api/now.ts';
import { dismiss, useTaps, useTrouble, useUnkept } from '../api/outbox.ts';
import type { Tap } from '../api/shelf.ts';

/** A tap on its way is not worth a word that moves the page under the next one; one that waits longer than this is. */
const ON_ITS_WAY_MS = 2000;

/** Says what has not reached the workshop's computer yet, and what it refused. */
export function Outbox() {
  const taps = useTaps();
  return taps.length === 0 ? null : <Unsent taps={taps} />;
}

function Unsent({ taps }: { taps: Tap[] }) {
  const unkept = useUnkept();
  const trouble = useTrouble();
  const now = useNow();
  const waiting = taps.filter((row) => !row.refused);
  const refused = taps.filter((row) => row.refused);
  const since = Date.parse(String(waiting[0]?.body.tappedAt));
  const late = waiting.length > 0 && (trouble !== null || !(now - since < ON_ITS_WAY_MS));
  if (!late && unkept === 0 && refused.length === 0) return null;
  return (
    <section
      className="no-print shrink-0 border-t-2 border-[var(--warn)] bg-[var(--sheet)] px-4 sm:px-8 py-2 flex flex-col gap-1 max-h-[30dvh] overflow-auto"
      role="status"
    >
      {late && (
        <p className="warn font-bold">
          {waiting.length === 1 ? 'One tap is' : `${waiting.length} taps are`} kept here until the workshop’s computer
          {trouble ? ` takes ${waiting.length === 1 ? 'it' : 'them'}. It says: ${trouble}` : ' answers.'}
        </p>
      )}
      {unkept > 0 && (
        <p className="heat font-bold">
          This browser has no room left: {unkept === 1 ? 'one tap is' : `${unkept} taps are`} only in this page. Leave
          it open until the workshop’s computer answers.
        </p>
      )}
      {refused.map(({ key, said, refused: why }) => (
        <p key={key} className="flex items-center gap-3">
          <span>
            <strong>{said}</strong> was not taken: {why}
          </span>
          <button type="button" className="btn btn-sm btn-line" onClick={() => dismiss(key)}>
            Understood
          </button>
        </p>
      ))}
    </section>
  );
}
