import type { PourMold, Shot } from '../../../contract/pours.ts';
import { shotsOf } from '../../../core/process/cupNow.ts';
import { saidOf, saysOf, TICKS, type TickId } from '../../../core/process/evidence.ts';
import { wayInto } from '../../../core/process/shotNow.ts';
import { asBefore } from '../../../core/process/ways.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Guarded } from '../../parts/Guarded.tsx';
import type { Cup } from './cupState.ts';

export type Say = (what: TickId, said: string, of?: { moldId?: string; nth?: number; layer?: number }) => void;

/** One thing that may be said: each tap says the next, and what nobody tapped is not known. */
export function TickTarget({
  what,
  said,
  onSay,
}: {
  what: TickId;
  said: string | undefined;
  onSay(said: string): void;
}) {
  const options = Object.keys(TICKS[what].says);
  const next = options[(said === undefined ? -1 : options.indexOf(said)) + 1] ?? (options[0] as string);
  return (
    <Guarded
      shy
      means={`${what} ${said ?? ''}`}
      className={`btn h-[76px] min-h-16 px-3 font-normal flex-col items-start gap-0 leading-tight border ${said === undefined ? 'btn-ghost border-dashed border-[var(--edge)]' : 'btn-line'}`}
      label={`${TICKS[what].asks}: ${said === undefined ? 'not known' : saysOf(what, said)}; tap for ${saysOf(what, next)}`}
      onAct={() => onSay(next)}
    >
      <span className="bench-text soft">{TICKS[what].asks}</span>
      <b className={`text-2xl leading-none ${said === undefined ? 'soft' : ''}`}>
        {said === undefined ? 'not known' : saysOf(what, said)}
      </b>
    </Guarded>
  );
}

/**
 * What is said of a shot by taps: before it is filled how its mold stands, once it is open how it came out.
 * @param shot the one that is in the mold; undefined: the next is to be filled. @param layer that is filled next into one that is begun.
 */
export function ShotTicks({
  cup,
  mold,
  shot,
  layer,
  done,
  onSay,
}: {
  cup: Cup;
  mold: PourMold;
  shot: Shot | undefined;
  layer: number | undefined;
  done: boolean;
  onSay: Say;
}) {
  const way = wayInto(cup, mold);
  if (done) return null;
  const drawn = shotsOf(cup, mold.moldId).length;
  const of = {
    moldId: mold.moldId,
    nth: shot || layer !== undefined ? drawn : drawn + 1,
    ...(layer ? { layer } : {}),
  };
  const before = asBefore(cup.ticks, way, of);
  return (
    <div className="flex flex-col gap-2">
      {!shot && <p className="bench-text">{way.fill}</p>}
      <div className="flex gap-2 flex-wrap">
        {(shot ? way.after : way.before.filter((what) => what !== 'insert' || mold.inserted)).map((what) => (
          <TickTarget
            key={what}
            what={what}
            said={saidOf(cup.ticks, what, of)?.said}
            onSay={(said) => onSay(what, said, of)}
          />
        ))}
        {!shot && before.length > 0 && (
          <Guarded
            means={`as before ${mold.moldId} ${of.nth}`}
            className="btn btn-line h-16 min-h-16"
            onAct={() => {
              for (const { what, said } of before) onSay(what, said, of);
            }}
          >
            As before
          </Guarded>
        )}
      </div>
      {shot && <p className="bench-text soft">{way.out}</p>}
      {way.caution !== 'hot' && <Caution about={[way.caution]} />}
    </div>
  );
}
