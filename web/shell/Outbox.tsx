import { dismiss, useTaps } from '../api/outbox.ts';

/** Says what has not reached the workshop's computer yet, and what it refused. */
export function Outbox() {
  const taps = useTaps();
  const waiting = taps.filter((row) => !row.refused);
  const refused = taps.filter((row) => row.refused);
  if (taps.length === 0) return null;
  return (
    <section
      className="no-print shrink-0 border-t-2 border-[var(--warn)] bg-[var(--sheet)] px-8 py-2 flex flex-col gap-1"
      role="status"
    >
      {waiting.length > 1 && (
        <p className="warn font-bold">{waiting.length} taps are kept here until the workshop’s computer answers.</p>
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
