import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { giveOrTakeS, vagueUntilS } from '../../../core/process/cupHeat.ts';
import { cupText } from '../../../core/process/next.ts';
import { durationText } from '../../../core/units/show.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useBenchRoom } from './benchRoom.ts';
import { CupsHere } from './CupsHere.tsx';
import type { AtTheCup } from './useAtTheCup.ts';

/** The cup's heat, readable from two metres, its curve, and what can be written of it. */
export function CupSide({ at, curve }: { at: AtTheCup; curve: ReactNode }) {
  const taste = useTaste();
  const { pour, folded, window, setPad, nowMs } = at;
  const last = folded.heats.at(-1);
  const { dry } = useBenchRoom();
  return (
    <section className="flex flex-col lg:min-h-0" aria-label="The cup">
      <CupsHere at={at} />
      <div className="relative flex flex-col">
        <button
          type="button"
          className="text-left flex items-start"
          onClick={() => setPad('reading')}
          aria-label={`Cup temperature ${last ? taste.text(last.c, 'temperature') : 'not read yet'}; type a new one`}
        >
          <span
            className="huge"
            style={{ color: last && (last.c < window.lowC || last.c > window.highC) ? 'var(--warn)' : undefined }}
          >
            {last ? taste.parts(last.c, 'temperature').figure : '—'}
          </span>
          <span className="figure text-5xl soft mt-1 ml-1">{taste.unit('temperature')}</span>
        </button>
        {!dry && (
          <Link
            to={`/pours/${pour.id}`}
            className="absolute right-0 top-0 btn btn-ghost bench-target max-sm:px-1.5 border border-[var(--edge)]"
          >
            Sheet
          </Link>
        )}
      </div>
      <p className="bench-text mt-2">
        <span
          className="inline-block w-4 h-4 rounded-full border border-current align-[-2px] mr-2"
          style={{ background: pour.hex }}
        />
        <b>{pour.recipeName}</b> <span className="figure soft">{pour.code}</span>
        {/* One text, as the server drew it: the eye finds nothing new. */}
        <span className="soft">{` · ${cupText(taste.text(pour.cookMl, 'volume'), { heats: folded.heats, nowMs })}`}</span>
      </p>
      <Cooling at={at} />
      <Stir at={at} />
      <div className="hidden lg:flex lg:flex-1 lg:min-h-0">{curve}</div>
      <Acts at={at} />
    </section>
  );
}

/** Until when it can be drawn from, as it cools; whether that is enough for what is left to draw. */
function Cooling({ at: { heat, handsS, window, folded } }: { at: AtTheCup }) {
  const taste = useTaste();
  if (!heat)
    return folded.heats.length > 0 ? <p className="bench-text soft">Not known how it cools: read it again.</p> : null;
  const { state, enters, leaves, readings } = heat;
  const clock = (s: number) => <b className="figure text-2xl">{durationText(s)}</b>;
  const sure = readings > 1 ? ` ± ${durationText(giveOrTakeS(leaves))}` : '';
  const vagueS = readings > 1 ? vagueUntilS(leaves) : null;
  const short = state !== 'below' && handsS > Math.max(0, leaves.inS);
  return (
    <div className="bench-text mt-1" aria-live="off">
      {state === 'below' ? (
        <p>
          <b className="heat">Below {taste.text(window.lowC, 'temperature')} by now</b>
          {leaves.inS < 0 && <>, since {clock(-leaves.inS)}</>}: reheat, or read it again
        </p>
      ) : vagueS !== null ? (
        <p>
          may leave its window any moment, or in {clock(vagueS)} at the latest: <b>read it again</b>
        </p>
      ) : (
        <p>
          {state === 'above' && <>in its window in {clock(enters.inS)}, </>}
          leaves {state === 'above' ? 'it' : 'its window'} in {clock(leaves.inS)}
          {sure}
          {readings === 1 && <span className="default-mark"> default</span>}
        </p>
      )}
      {short && <p className="warn font-bold">What is left to draw takes about {durationText(handsS)}: reheat.</p>}
    </div>
  );
}

/** How long the last stir lasts: what sinks is stirred up just before it is drawn. */
function Stir({ at: { folded, nowMs } }: { at: AtTheCup }) {
  const { stir } = folded;
  if (!stir) return null;
  const leftS = stir.dueAt === null ? null : (Date.parse(stir.dueAt) - nowMs) / 1000;
  const late = leftS !== null && leftS <= 0;
  return (
    <p className="bench-text">
      <span>
        {leftS === null ? (
          `${stir.name} sinks: stir, then draw`
        ) : late ? (
          <b className="heat">{stir.name} has sunk: stir now</b>
        ) : (
          <>
            <b className="figure text-2xl">{durationText(leftS)}</b> until {stir.name} has sunk
          </>
        )}
      </span>
    </p>
  );
}

function Acts({ at: { folded, nowMs, lastAct, write, setPad, setDosing } }: { at: AtTheCup }) {
  const taste = useTaste();
  return (
    <div className="flex gap-1.5 sm:gap-2 mt-2 lg:mt-auto pb-1 lg:pb-3 flex-wrap">
      <button type="button" className="btn btn-line bench-target max-sm:px-1.5" onClick={() => setPad('reading')}>
        {taste.unit('temperature')}
      </button>
      <button type="button" className="btn btn-line bench-target max-sm:px-1.5" onClick={() => setDosing(true)}>
        Dose
      </button>
      <button
        type="button"
        className={`btn bench-target max-sm:px-1.5 ${folded.stir && folded.stir.dueAt !== null && Date.parse(folded.stir.dueAt) <= nowMs ? 'btn-accent' : 'btn-line'}`}
        onClick={() => write.stirred()}
      >
        Stirred
      </button>
      <button
        type="button"
        className="btn btn-line bench-target max-sm:px-1.5"
        disabled={!lastAct}
        onClick={() => lastAct && write.undo(lastAct)}
      >
        Undo{/* Its row has room for one word. */}
        <span className="sr-only"> {lastAct ? ('moldId' in lastAct ? 'shot' : 'reading') : ''}</span>
      </button>
    </div>
  );
}
