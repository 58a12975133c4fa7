import { Link } from 'react-router';
import { PLACES } from '../../../core/plan/layers.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { AtTheCup } from './useAtTheCup.ts';

/** All cups that stand open this evening, one of them in hand: a tap takes up another. */
export function CupsHere({ at: { lead, cups, pour, setHand } }: { at: AtTheCup }) {
  const taste = useTaste();
  // Those that are drawn together first.
  const mineFirst = (id: string) => (cups.some((one) => one.pour.id === id) ? 0 : 1);
  const here = lead.evening.cups
    .filter((cup) => cup.closedAt === null)
    .sort((a, b) => mineFirst(a.id) - mineFirst(b.id));
  if (here.length < 2) return null;
  return (
    <nav className="flex gap-2 overflow-x-auto pb-2 mb-1 shrink-0" aria-label="Cups of this evening">
      {here.map((cup) => {
        const mine = cups.find((one) => one.pour.id === cup.id);
        const inHand = cup.id === pour.id;
        const last = mine?.folded.heats.at(-1);
        const what =
          lead.layers.length > 1 && mine ? cup.layers.map((n) => PLACES[lead.layers[n]?.place ?? 'whole']) : [];
        const face = (
          <>
            <span
              className="inline-block w-4 h-4 rounded-full border border-current shrink-0"
              style={{ background: cup.hex }}
            />
            <span className="flex flex-col items-start leading-tight text-left">
              <b className="max-w-32 truncate">{cup.recipeName}</b>
              <span className="bench-text">
                <span className="figure">{last ? taste.text(last.c, 'temperature') : cup.code}</span>
                {what.length > 0 && ` ${what.join(', ')}`}
              </span>
            </span>
          </>
        );
        const looks = `btn h-16 min-h-16 shrink-0 gap-2 px-3 font-normal ${inHand ? 'btn-line' : 'btn-ghost border border-[var(--edge)]'}`;
        const style = inHand ? { outline: '3px solid var(--ink)', outlineOffset: -3 } : undefined;
        return mine ? (
          <button
            key={cup.id}
            type="button"
            className={looks}
            style={style}
            aria-pressed={inHand}
            onClick={() => setHand(cup.id)}
          >
            {face}
          </button>
        ) : (
          <Link key={cup.id} to={`/pours/${cup.id}/bench`} className={looks}>
            {face}
          </Link>
        );
      })}
    </nav>
  );
}
