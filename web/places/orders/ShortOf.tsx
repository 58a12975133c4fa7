import { Link } from 'react-router';
import type { ColourwayRow } from '../../../contract/colourways.ts';
import type { MoldRow } from '../../../contract/molds.ts';
import type { Order } from '../../../contract/orders.ts';
import { CUP_DEFAULTS } from '../../../core/plan/cup.ts';
import { handsS } from '../../../core/plan/hours.ts';
import type { CupNeed } from '../../../core/plan/need.ts';
import { cupsText, hoursText } from '../../../core/units/show.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { Glass } from '../../parts/Glass.tsx';
import { Ready } from '../../parts/Ready.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useLayOut } from '../../parts/useLayOutPour.ts';
import { Why } from '../../parts/Why.tsx';

/** What makes the short lines of a colour good; the first evening of it is laid out with one tap. */
export function ShortOf({
  cup,
  molds,
  colour,
  order,
}: {
  cup: CupNeed;
  molds: MoldRow[];
  colour: ColourwayRow | undefined;
  order: Order;
}) {
  const { text, workshop, say } = useTaste();
  const layOut = useLayOut();
  const { tonight, evenings } = cup;
  const glasses = tonight?.glasses ?? 1;
  const baitName = (baitId: string) => order.lines.find((line) => line.baitId === baitId)?.baitName ?? 'bait';
  return (
    <article className="flex gap-6">
      {cup.molds.length > 0 && (
        <Glass
          hex={colour?.hex ?? '#888888'}
          fill={Math.min(1, cup.cookMl / evenings / glasses / workshop.glassMl)}
          glasses={glasses}
          label={`${text(cup.cookMl, 'volume')} of ${colour?.name}`}
        />
      )}
      <div className="flex-1 flex flex-col gap-2">
        <h3 className="text-xl">{colour?.name}</h3>
        {cup.molds.length > 0 && (
          <p>
            <b className="figure text-2xl">{cupsText(cup.cookMl)}</b>{' '}
            <span className="figure">
              {text(cup.cookMl, 'volume')}, {text(cup.cookG, 'mass')}
            </span>
            {evenings === 1 && glasses > 1 && (
              <>
                {' '}
                in <b className="figure">{glasses}</b> cups
              </>
            )}
          </p>
        )}
        {cup.molds.map((need) => (
          <Needed
            key={need.moldId}
            need={need}
            mold={molds.find((row) => row.id === need.moldId)}
            twin={cup.molds.some((other) => other !== need && other.baitId === need.baitId)}
          />
        ))}
        {cup.molds.length > 0 && <Work cup={cup} molds={molds} />}
        {cup.withoutMold.map((row) => (
          <p key={row.baitId} className="heat font-bold">
            {row.baits} {baitName(row.baitId)} are short, and no mold here makes it{row.why ? ' in this colour' : ''}.{' '}
            {row.why ? `${say(row.why)} ` : ''}
            <Link to={row.why ? `/colours/${cup.colourwayId}` : '/molds/new'} className="link">
              {row.why ? 'The colour' : 'Add its mold'}
            </Link>
          </p>
        ))}
        <Refusal error={layOut.error} />
        {cup.molds.length > 0 && tonight === null && (
          <p className="heat font-bold">One shot is more than an evening’s hours or its glasses: lay it out by hand.</p>
        )}
        {tonight && (
          <button
            type="button"
            className="btn btn-primary btn-lg self-start"
            disabled={layOut.isPending}
            onClick={() => layOut.mutate({ colourwayId: cup.colourwayId, ...tonight })}
          >
            {evenings > 1 ? 'Lay out the first evening' : 'Lay out this pour'}
          </button>
        )}
      </div>
    </article>
  );
}

/** The shots of one mold, and what is to be expected of them. */
function Needed({ need, mold, twin }: { need: CupNeed['molds'][number]; mold: MoldRow | undefined; twin: boolean }) {
  const { text } = useTaste();
  return (
    <p>
      <b className="figure text-xl">{need.shots} shots</b> of{' '}
      <Link to={`/molds/${need.moldId}`} className="link">
        {mold?.name}
      </Link>
      : about <b className="figure">{Math.round(need.expectedGood)}</b> good, at least{' '}
      <b className="figure">{need.goodNeeded}</b> nine times in ten
      {twin && ', together with its twin'}. <Ready readyAt={mold?.readyAt ?? null} />{' '}
      <Why
        reason={{
          inputs: [
            ['good baits needed', String(need.goodNeeded)],
            ['cavities', String(mold?.cavities ?? '')],
            ['rejects of this mold', `${need.rejected} of ${need.made}`],
            ['a shot', text(need.shotMl, 'volume')],
          ],
          formula:
            'The fewest shots with a 90 % chance of enough good baits. The reject rate starts at 1 in 20 and is learnt from this mold’s own shots. Plastisol = shots × shot volume with 6 % feed, and 8 mL film in the cup.',
          grounds: [
            need.made > 0
              ? `Fitted from ${need.made} counted baits of this mold.`
              : 'No bait of this mold is counted yet: 1 in 20 is a default.',
            `Feed ${100 * CUP_DEFAULTS.feedFraction} %, film ${CUP_DEFAULTS.cupFilmMl} mL and density ${CUP_DEFAULTS.densityGPerMl} g/mL are defaults.`,
          ],
          change:
            need.rejected > 0 ? 'Fewer rejects: look at which cavity keeps failing.' : 'More cavities save shots.',
        }}
      />
    </p>
  );
}

/** How long that is at the bench, and over how many evenings. */
function Work({ cup: { hours, evenings, tonight, molds: needed }, molds }: { cup: CupNeed; molds: MoldRow[] }) {
  const { workshop } = useTaste();
  return (
    <p>
      About <b className="figure text-xl">{hoursText(hours)}</b> at the bench
      {evenings > 1 ? (
        <>
          : <b className="heat">{evenings} evenings</b> of {Number(workshop.eveningH.toFixed(1))} h.
          {tonight && (
            <>
              {' '}
              The first: <b className="figure">{tonight.molds.reduce((sum, mold) => sum + mold.shots, 0)} shots</b> from{' '}
              <b className="figure">{tonight.glasses}</b> {tonight.glasses === 1 ? 'cup' : 'cups'}.
            </>
          )}
        </>
      ) : (
        '.'
      )}{' '}
      <Why
        reason={{
          inputs: needed.map((need): [string, string] => [
            molds.find((row) => row.id === need.moldId)?.name ?? '',
            `${need.shots} × ${handsS(molds.find((row) => row.id === need.moldId)?.cavities ?? 1)} s of hands`,
          ]),
          formula:
            'One person’s hands, shot by shot, or the slowest mold with its waits, whichever is longer; with cooking and clearing up for each evening.',
          grounds: [
            'Seconds of hands are defaults; the wait of a mold is the one last worked out for it, else a default by its kind.',
          ],
          change: 'A second mold shortens the waits, not the hands; more hours an evening: fewer evenings.',
        }}
      />
    </p>
  );
}
