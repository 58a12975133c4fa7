import { useMemo } from 'react';
import { v7 } from 'uuid';
import { usual } from '../../../core/defaults.ts';
import { tried } from '../../../core/failure.ts';
import { microwave } from '../../../core/heat/microwave.ts';
import { isCooking } from '../../../core/process/heatNext.ts';
import { durationText, percentText } from '../../../core/units/show.ts';
import { Caution } from '../../parts/Caution.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useBenchRoom } from './benchRoom.ts';
import { CupLooks } from './CupLooks.tsx';
import { massLeftG } from './massLeft.ts';
import type { AtTheCup } from './useAtTheCup.ts';

/** Bursts that cook this cup from where it is: the next one is started with a tap, then it is stirred, scraped and read. */
export function Cooking({ at: { pour, folded, lead, cup, window, nowMs, write } }: { at: AtTheCup }) {
  const taste = useTaste();
  const room = useBenchRoom();
  const oven = room.useOven();
  const clocks = room.useClocks();
  const tapped = room.useTaps().findLast(({ path, refused }) => !refused && path === `/pours/${pour.id}/bursts`)?.body;
  const last = folded.heats.at(-1);
  const roomC = lead.evening.roomC ?? taste.workshop.roomC;
  const fromC = last?.c ?? roomC;
  const massG = massLeftG({ pour, lead, cup });
  const plan = useMemo(() => {
    const toC = usual('cookC');
    if (!oven || fromC >= toC || !(massG > 0)) return null;
    const { watts, efficiency, school } = oven;
    const cpJPerGK = usual('plastisolCpJPerGK');
    return tried(() => microwave({ massG, fromC, toC, watts, efficiency, cpJPerGK, school })).value ?? null;
  }, [oven, fromC, massG]);
  // What is warm enough to be drawn from is not cooked.
  if (!oven || !plan || (last && last.c >= window.lowC && !isCooking({ ...folded, limits: pour.limits }, window)))
    return null;
  const running = clocks.find((clock) => clock.kind === 'burst' && clock.aboutId === pour.id);
  // The oven runs whether the Wi-Fi does or not.
  const begun =
    tapped &&
    !(last && last.at > String(tapped.tappedAt)) &&
    Date.parse(String(tapped.tappedAt)) + 1000 * Number(tapped.seconds);
  const dueMs = begun || (running && Date.parse(running.dueAt)) || undefined;
  const [next, ...later] = plan.bursts;
  if (!next) return null;
  return (
    <section className="px-3.5 flex flex-col gap-2" aria-label="Cooking">
      {dueMs !== undefined ? (
        <p className="text-2xl font-bold" aria-live={dueMs > nowMs ? 'off' : 'assertive'}>
          {dueMs > nowMs ? (
            <>
              In the oven, <span className="figure">{durationText((dueMs - nowMs) / 1000)}</span> to go
            </>
          ) : (
            <span className="heat">Out with it: stir, scrape the wall down, read it</span>
          )}
        </p>
      ) : (
        <button
          type="button"
          className="btn btn-outline border-2 h-20 bench-text self-start"
          onClick={() =>
            room.tap(
              `/pours/${pour.id}/bursts`,
              { id: v7(), level: next.level, seconds: next.seconds },
              `${durationText(next.seconds)} in the oven`,
              pour.id,
            )
          }
        >
          Start <span className="figure">{durationText(next.seconds)}</span> at {percentText(next.level)}
        </button>
      )}
      <p className="bench-text">
        to about <b className="figure">{taste.text(next.afterC, 'temperature')}</b>
        {later.length > 0 && (
          <>
            , then {later.map(({ seconds, level }) => `${durationText(seconds)} at ${percentText(level)}`).join(', ')},
            a stir between
          </>
        )}
      </p>
      <p className="soft">
        {Math.round(oven.watts)} W, of which {percentText(oven.efficiency)} reach the cup
        {oven.bursts > 0 ? (
          `, by ${oven.bursts} ${oven.bursts === 1 ? 'burst that was' : 'bursts that were'} read`
        ) : (
          <span className="default-mark"> default</span>
        )}
        {last === undefined && `; from the room’s ${taste.text(roomC, 'temperature')}`}.
      </p>
      <CupLooks ticks={folded.ticks} onSay={(said) => write.said('looks', said)} />
      <Caution about={['hot', 'scorch']} />
    </section>
  );
}
