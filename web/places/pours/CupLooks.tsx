import { saidOf, saysOf, type Ticked } from '../../../core/process/evidence.ts';
import { Guarded } from '../../parts/Guarded.tsx';

/** Lumps that swim in a cup of porridge, in a box of 64 × 44. */
const LUMPS = [
  [16, 24, 6],
  [30, 19, 5],
  [44, 26, 7],
  [24, 33, 5],
  [38, 35, 4],
  [50, 17, 4],
] as const;

type Look = 'milk' | 'porridge' | 'syrup' | 'yellow';
const FILLS: Record<Look, string> = { milk: '#eef1ee', porridge: '#dfe2dc', syrup: '#a9c4c4', yellow: '#d8b13c' };
const LOOKS = Object.keys(FILLS) as Look[];

/** A cup from above its rim, as it looks on the way from milk to syrup, and past it. */
function CupDrawn({ look }: { look: Look }) {
  return (
    <svg viewBox="0 0 64 56" className="w-16 h-14" aria-hidden="true">
      <path d="M6 8 L12 52 H52 L58 8" fill="none" stroke="currentColor" strokeWidth="2.5" />
      <path d="M8 16 L12.5 50 H51.5 L56 16 Z" fill={FILLS[look]} opacity={look === 'syrup' ? 0.55 : 1} />
      {look === 'porridge' &&
        LUMPS.map(([x, y, r]) => (
          <circle key={`${x} ${y}`} cx={x} cy={y + 6} r={r} fill="#f7f8f4" stroke="#8d948c" strokeWidth="1" />
        ))}
      {look === 'syrup' && <path d="M20 22 L24 44" stroke="#fff" strokeWidth="3" strokeLinecap="round" opacity="0.9" />}
      {look === 'syrup' && <path d="M30 48 H46" stroke="#33484a" strokeWidth="2" />}
      {look === 'yellow' && (
        <path
          d="M20 12 q4 -5 0 -9 M32 12 q4 -5 0 -9 M44 12 q4 -5 0 -9"
          fill="none"
          stroke="currentColor"
          strokeWidth="2.5"
        />
      )}
    </svg>
  );
}

/** What the cup looks like, by a tap on its picture; yellow or smoking says at once what to do. */
export function CupLooks({ ticks, onSay }: { ticks: Ticked[]; onSay(said: string): void }) {
  const said = saidOf(ticks, 'looks')?.said;
  return (
    <div className="flex flex-col gap-2">
      <div className="flex gap-2 flex-wrap">
        {LOOKS.map((look) => (
          <Guarded
            key={look}
            shy
            means={`looks ${look} ${said ?? ''}`}
            className={`btn h-28 w-32 px-1 flex-col gap-0 font-normal ${said === look ? 'btn-line' : 'btn-ghost border border-[var(--edge)]'}`}
            label={`The cup looks like ${saysOf('looks', look)}${said === look ? ', said' : ''}`}
            onAct={() => onSay(look)}
          >
            <CupDrawn look={look} />
            <span className="bench-text">{saysOf('looks', look)}</span>
          </Guarded>
        ))}
      </div>
      {said === 'yellow' && (
        <p className="bench-text font-bold heat" role="alert">
          Scorched: switch off, cup out of the room, do not breathe it. What is yellow stays yellow: it goes to no bait.
        </p>
      )}
    </div>
  );
}
