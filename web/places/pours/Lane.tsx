import type { PourMold, Shot } from '../../../contract/pours.ts';
import { shotsOf, unmarkedIn } from '../../../core/process/next.ts';
import { durationText } from '../../../core/units/show.ts';
import { CavityMap } from '../../parts/CavityMap.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { Guarded, useRested } from '../../parts/Guarded.tsx';
import type { Cup } from './cupState.ts';

interface LaneProps {
  mold: PourMold;
  cup: Cup;
  active: boolean;
  hex: string;
  onDraw(): void;
  onTap(shot: Shot, cavity: number): void;
  onRest(shot: Shot): void;
}

const LEAST_CELL_PX = 76;

function stateOf(
  cooling: boolean,
  open: boolean,
  done: boolean,
  opensS: number,
  byKind: boolean,
): [word: string, figure: string] {
  if (cooling) return [byKind ? 'cooling, by a default' : 'cooling, as computed', durationText(opensS)];
  if (open) return ['open it', 'now'];
  return done ? ['all shots', 'done'] : ['empty', 'next'];
}

/** One mold: where it stands, its cavities to be tapped, its shots on a scale. */
export function Lane({ mold, cup, active, hex, onDraw, onTap, onRest }: LaneProps) {
  const shots = shotsOf(cup, mold.moldId);
  const shot = shots.at(-1);
  // The map comes to lie where the shot was tapped: a second tap there is none of a cavity.
  const rested = useRested(shot?.id ?? 'no shot');
  const opensS = mold.opensAt ? (Date.parse(mold.opensAt) - cup.nowMs) / 1000 : 0;
  const unmarked = shot ? unmarkedIn(shot, mold) : 0;
  const open = unmarked > 0;
  const cooling = open && opensS > 0;
  const done = shots.length >= mold.shots && !open;
  // One mold has the room to itself; several share it. Never under what a glove can hit.
  const across = Math.min(mold.cavities, Math.max(mold.columns, 4));
  const cellPx = Math.max(LEAST_CELL_PX, Math.min(cup.molds.length === 1 ? 144 : 96, Math.floor(460 / across) - 8));
  const [word, figure] = stateOf(cooling, open, done, opensS, mold.opens.basis === 'kind');
  return (
    <article
      className="sheet p-3.5 flex flex-col gap-2 shrink-0"
      style={active ? { outline: '4px solid var(--heat)', outlineOffset: -4 } : undefined}
    >
      <div className="flex items-start gap-4 flex-wrap">
        <div className="flex-1 min-w-40">
          <h2>{mold.name}</h2>
          <p className="soft">{shot ? `shot ${shots.length} of ${mold.shots}` : `${mold.shots} shots to draw`}</p>
          <Graduated
            value={shots.length}
            most={Math.max(mold.shots, shots.length)}
            label={`${shots.length} of ${mold.shots} shots`}
            widthPx={150}
            colour={active ? 'var(--heat)' : 'var(--rest)'}
          />
        </div>
        <p className="text-right">
          <span
            className="figure text-3xl block leading-none"
            style={{ color: open && !cooling ? 'var(--heat)' : cooling ? 'var(--rest)' : undefined }}
          >
            {figure}
          </span>
          <span className="soft">{word}</span>
        </p>
      </div>
      {shot && (
        <CavityMap
          cavities={mold.cavities}
          columns={across}
          shape={mold.shape}
          marks={shot.marks}
          hex={hex}
          onTap={(cavity) => onTap(shot, cavity)}
          resting={!rested}
          cellPx={cellPx}
        />
      )}
      <div className="flex gap-2 flex-wrap">
        {open && shot && (
          <Guarded
            means={`rest good ${shot.id} ${unmarked}`}
            className="btn btn-line bench-target"
            onAct={() => onRest(shot)}
          >
            Rest good
          </Guarded>
        )}
        {!active && (
          <Guarded
            means={`draw ${mold.moldId} ${shots.length}`}
            className="btn btn-ghost border border-[var(--edge)] bench-target"
            onAct={onDraw}
          >
            Shot drawn
          </Guarded>
        )}
      </div>
    </article>
  );
}
