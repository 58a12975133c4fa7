import type { ReactNode } from 'react';
import type { PourLayer, PourMold, Shot } from '../../../contract/pours.ts';
import { goes, PLACES } from '../../../core/plan/layers.ts';
import { shotsOf, unmarkedIn } from '../../../core/process/cupNow.ts';
import { shotStage } from '../../../core/process/shotNow.ts';
import { durationText } from '../../../core/units/show.ts';
import { CavityMap } from '../../parts/CavityMap.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { Guarded, useRested } from '../../parts/Guarded.tsx';
import { Stood } from '../../parts/Stood.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { Cup } from './cupState.ts';
import { type Say, ShotTicks } from './ShotTicks.tsx';

interface LaneProps {
  /** Weighs the baits of an open shot. */
  scale?: ((shot: Shot) => ReactNode) | undefined;
  onSay: Say;

  mold: PourMold;
  cup: Cup;
  /** Of what is made in it. */
  layers: PourLayer[];
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
export function Lane({ mold, cup, layers, active, hex, onDraw, onTap, onRest, onSay, scale }: LaneProps) {
  const shots = shotsOf(cup, mold.moldId);
  const shot = shots.at(-1);
  // The map comes to lie where the shot was tapped: a second tap there is none of a cavity.
  const rested = useRested(shot?.id ?? 'no shot');
  const opensS = mold.opensAt ? (Date.parse(mold.opensAt) - cup.nowMs) / 1000 : 0;
  const all = goes(layers);
  const unmarked = shot ? unmarkedIn(shot, mold) : 0;
  // A layer is still to come: nothing can be opened, and none is looked at.
  const due = shot && shot.gone < all.length ? all[shot.gone] : undefined;
  const open = unmarked > 0 && !due;
  const cooling = open && opensS > 0;
  const stage = open && shot ? shotStage(cup, mold, shot) : undefined;
  const done = shots.length >= mold.shots && !open && !due;
  // One mold has the room to itself; several share it. Never under what a glove can hit.
  const across = Math.min(mold.cavities, Math.max(mold.columns, 4));
  const cellPx = Math.max(LEAST_CELL_PX, Math.min(cup.molds.length === 1 ? 144 : 96, Math.floor(460 / across) - 8));
  const [word, figure] = due
    ? [
        `${due.map((layer) => PLACES[layers[layer]?.place ?? 'whole']).join(' and ')} next`,
        `${shot?.gone} of ${all.length}`,
      ]
    : stage && (stage.stage === 'hold' || stage.stage === 'top-up')
      ? [stage.stage === 'hold' ? 'hold light pressure' : 'top it up as it sinks', durationText(stage.leftS)]
      : stateOf(cooling, open, done, opensS, mold.opens.basis === 'kind');
  return (
    <article
      className="sheet p-3.5 flex flex-col gap-2 shrink-0"
      style={active ? { outline: '4px solid var(--heat)', outlineOffset: -4 } : undefined}
    >
      <div className="flex items-start gap-4 flex-wrap">
        <div className="flex-1 min-w-40">
          <h2 className="lg:text-2xl">{mold.name}</h2>
          <p className="bench-text soft">
            {shot ? `shot ${shots.length} of ${mold.shots}` : `${mold.shots} shots to draw`}
          </p>
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
          <span className="bench-text soft">{word}</span>
        </p>
      </div>
      {layers.length > 1 && <LayersIn layers={layers} shot={shot} mold={mold} />}
      {shot && (
        <CavityMap
          cavities={mold.cavities}
          columns={across}
          shape={mold.shape}
          bait={mold.baitId}
          marks={shot.marks}
          hex={hex}
          onTap={(cavity) => onTap(shot, cavity)}
          resting={!rested}
          cellPx={cellPx}
        />
      )}
      <ShotTicks cup={cup} mold={mold} shot={open ? shot : undefined} layer={due?.[0]} done={done} onSay={onSay} />
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
        {open && !cooling && shot && scale?.(shot)}
        {!active && (
          <Guarded
            means={`draw ${mold.moldId} ${shots.length} ${shot?.gone ?? 0}`}
            className="btn btn-ghost border border-[var(--edge)] bench-target"
            onAct={onDraw}
          >
            {due ? 'Layer filled' : 'Shot drawn'}
          </Guarded>
        )}
      </div>
    </article>
  );
}

/** What goes into the mold, in its order; what is in it already is filled. */
function LayersIn({ layers, shot, mold }: { layers: PourLayer[]; shot: Shot | undefined; mold: PourMold }) {
  const { text } = useTaste();
  return (
    <ol className="bench-text flex flex-wrap gap-x-4 gap-y-1">
      {layers.map((layer, index) => {
        const there = shot?.parts.some((part) => part.layer === index) ?? false;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a layer is its place in the list
          <li key={index} className="flex items-center gap-2">
            <span
              className="inline-block w-5 h-5 rounded-full border-2"
              style={{
                borderColor: 'var(--edge)',
                background: there ? layer.hex : `color-mix(in srgb, ${layer.hex} 30%, transparent)`,
              }}
            />
            <span>
              {PLACES[layer.place]} <span className="figure soft">{text(mold.layersMl[index] ?? 0, 'volume')}</span>
              {typeof mold.layersMm[index] === 'number' && (
                <span className="figure soft">, up to {text(mold.layersMm[index] as number, 'length')}</span>
              )}
              {there && <span className="sr-only"> is in</span>}
            </span>
          </li>
        );
      })}
      {mold.stands && (
        <li className="bench-text soft">
          <Stood of={mold.stands} />
        </li>
      )}
    </ol>
  );
}
