import type { Pour } from '../../../contract/pours.ts';
import { UNDO } from '../../../contract/undo.ts';
import { TICKS } from '../../../core/process/evidence.ts';
import { type ToLay, toLayOut } from '../../../core/process/layOut.ts';
import { tapRow, useTaps } from '../../api/outbox.ts';
import { useTaste } from '../../parts/taste.tsx';
import { foldTaps } from './cupState.ts';

/** What has to lie there before the heat is on, ticked off as it is laid out; kept with the evening, on every device. */
export function LaidOut({ pours }: { pours: Pour[] }) {
  const { workshop } = useTaste();
  const taps = useTaps();
  const open = pours.filter((pour) => pour.closedAt === null);
  const [first] = open;
  if (!first) return null;
  // With the taps on their way.
  const { ticks } = foldTaps(first, taps, []);
  const there = (note: string) => ticks.find((tick) => tick.what === 'laid' && tick.note === note);
  const items = toLayOut(open, workshop);
  const left = items.filter(({ name }) => !there(name)).length;
  const toggle = ({ name }: ToLay) => {
    const found = there(name);
    if (found) tapRow(UNDO, { rowId: found.id }, `not laid out: ${name}`, first.id);
    else
      tapRow(
        `/pours/${first.id}/ticks`,
        { what: 'laid', said: 'yes', note: name },
        `${TICKS.laid.asks}: ${name}`,
        first.id,
      );
  };
  return (
    <section className="flex flex-col gap-3" aria-label="To lay out">
      <h2 className="text-2xl">
        To lay out{' '}
        <span className="figure soft text-lg">
          {items.length - left} of {items.length}
        </span>
      </h2>
      <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
        {items.map((item) => {
          const done = there(item.name) !== undefined;
          return (
            <li key={item.name}>
              <button
                type="button"
                className={`btn h-auto min-h-16 w-full justify-start text-left font-normal px-3 py-2 gap-3 ${done ? 'btn-line' : 'btn-ghost border border-[var(--edge)]'}`}
                aria-pressed={done}
                onClick={() => toggle(item)}
              >
                <span
                  aria-hidden="true"
                  className="w-7 h-7 shrink-0 border-2 border-current rounded-sm grid place-items-center font-bold"
                >
                  {done ? '✓' : ''}
                </span>
                <span className="flex-1 min-w-0">
                  <b className="block">{item.name}</b>
                  <span className="soft text-sm">{item.why}</span>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
