import { Link, useParams } from 'react-router';
import type { Pour } from '../../../contract/pours.ts';
import type { Helps, Simulated } from '../../../core/plan/session.ts';
import { durationText } from '../../../core/units/show.ts';
import { useNow } from '../../api/now.ts';
import { timeText } from '../../parts/hours.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { EveningLanes, type Named } from './EveningLanes.tsx';
import { LaidOut } from './LaidOut.tsx';
import { ThisEvening } from './ThisEvening.tsx';
import { useEvening } from './useEvening.ts';

const namedBy = (pours: Pour[]): Named => ({
  cup: (id) => {
    const pour = pours.find((one) => one.id === id);
    const twice = pours.filter((one) => one.recipeName === pour?.recipeName).length > 1;
    return { name: pour ? `${twice ? `${pour.code} ` : ''}${pour.recipeName}` : id, hex: pour?.hex ?? '#888888' };
  },
  mold: (id) => {
    const [, one = id, twin] = /^(.*?)( \(2\))?$/.exec(id) ?? [];
    const name = pours.flatMap(({ molds }) => molds).find(({ moldId }) => moldId === one)?.name ?? one;
    return twin ? `${name}, a second` : name;
  },
});

/** The evening before it begins: its lanes, when it ends, what would shorten it, and what to lay out. */
export function EveningPage() {
  const { id = '' } = useParams();
  const { asked, pours, whole, session, simulated, problem, turns, openings } = useEvening(id);
  const { say } = useTaste();
  if (isGone(asked.error, asked.data)) return <Missing error={asked.error} back="All pours" backTo="/pours" />;
  if (!asked.data || !whole) return <Waiting />;
  const named = namedBy(pours);
  return (
    <Page
      title="The evening"
      tab="The evening"
      under="One pair of hands, one oven: everything in its order, nothing drawn outside its window."
    >
      <div className="flex flex-col gap-8">
        {session === null ? (
          <p className="text-xl">Nothing is left to draw this evening.</p>
        ) : problem ? (
          <p className="text-xl warn font-bold" role="alert">
            {say(problem)}
          </p>
        ) : simulated ? (
          <Ends of={simulated} named={named} turns={turns} openings={openings} />
        ) : (
          <p className="soft" role="status">
            Working out the evening …
          </p>
        )}
        {simulated && <EveningLanes of={simulated} named={named} />}
        <ThisEvening evening={asked.data.evening} linked={false} />
        <LaidOut pours={pours} />
        <p>
          <Link to={`/pours/${id}/bench`} className="btn btn-primary bench-target">
            To the bench
          </Link>
        </p>
      </div>
    </Page>
  );
}

function Ends({
  of,
  named,
  turns,
  openings,
}: {
  of: Simulated & { helps: Helps[] };
  named: Named;
  turns: number;
  openings: number;
}) {
  const nowMs = useNow();
  const busiest = of.busy[0];
  const what =
    busiest?.resource === 'person'
      ? 'Your hands are'
      : busiest?.resource.startsWith('mold ')
        ? `${named.mold(busiest.resource.slice(5))} is`
        : `The ${busiest?.resource} is`;
  const reheats = Object.entries(of.reheats).filter(([, n]) => n > 0);
  return (
    <div className="flex flex-col gap-2">
      <p className="text-2xl">
        Begun now it ends at <b className="figure">{timeText(new Date(nowMs + of.totalS * 1000).toISOString())}</b>:{' '}
        {durationText(of.totalS)}, of which your hands are free for {durationText(of.idleS)}.
      </p>
      <p className="text-lg">
        {what} what it waits for: {durationText(busiest?.s ?? 0)} of work of its own. {of.moldsToKeepBusy}{' '}
        {of.moldsToKeepBusy === 1 ? 'mold' : 'molds'} like these keep two hands busy.
      </p>
      {reheats.length > 0 && (
        <p className="text-lg">
          Heated again meanwhile: {reheats.map(([id, n]) => `${named.cup(id).name} ${n}×`).join(', ')}.
        </p>
      )}
      <ul className="text-lg list-disc pl-5">
        {of.helps.map((help) => (
          <li key={`${help.change} ${help.moldId ?? ''}`}>{helpText(help, named)}</li>
        ))}
      </ul>
      <p className="soft text-sm">
        {of.exact ? 'No order of the work is shorter. ' : 'The best of the orders that were tried. '}
        {turns > 0 ? (
          `What hands take is learnt from ${turns} shots of these molds;`
        ) : (
          <>
            What hands take is a <span className="default-mark">default</span> until it is learnt here;
          </>
        )}{' '}
        {openings > 0
          ? `waits as computed for each mold, and as ${openings} openings here taught.`
          : 'waits as computed for each mold.'}
      </p>
    </div>
  );
}

function helpText({ change, moldId, order, savesS }: Helps, named: Named): string {
  const less =
    Math.abs(savesS) < 60 ? 'saves nothing' : `${savesS > 0 ? 'saves' : 'costs'} ${durationText(Math.abs(savesS))}`;
  if (change === 'one-more-mold') return `One more ${named.mold(moldId ?? '')} ${less}.`;
  return `Cooked as ${order.map((id) => named.cup(id).name).join(', then ')} it ${less}.`;
}
