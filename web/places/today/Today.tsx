import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { Link } from 'react-router';
import type { Today } from '../../../contract/today.ts';
import { useMinute } from '../../api/now.ts';
import { queries } from '../../api/queries.ts';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { Glass } from '../../parts/Glass.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { MoldBlock } from '../../parts/MoldBlock.tsx';
import { Waiting } from '../../parts/Page.tsx';
import { Puck } from '../../parts/Puck.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useLayOut, useLayOutAll } from '../../parts/useLayOutPour.ts';
import { Stream } from './Stream.tsx';

const STEP_WORDS: Record<Today['step'], string> = {
  master: 'Measure a master',
  mold: 'To the molds',
  colour: 'Write a recipe',
  order: 'Take an order',
  pour: 'Lay out the pours',
  resume: 'Back to the bench',
  pack: 'To the order',
  rest: 'Look at the rack',
  store: 'To the store',
  hours: 'Say who works when',
  settings: 'To the settings',
};

/** One computed sentence, the run of the workshop, and what needs a person. */
export function TodayPlace() {
  const { data: today } = useQuery(queries.today);
  const { text, workshop, say } = useTaste();
  const now = useMinute();
  if (!today) return <Waiting />;
  const date = format(now, 'EEEE d MMMM');
  const blank =
    today.orders.length === 0 && today.rack.length === 0 && today.cups.length === 0 && today.openPours.length === 0;
  return (
    <div className="px-4 sm:px-7 xl:px-10 py-5 sm:py-6 max-w-[1400px] mx-auto flex flex-col gap-7">
      <div className="grid grid-cols-1 xl:grid-cols-[minmax(0,1fr)_370px] gap-x-12 gap-y-6">
        <div>
          <h1 className="text-[2.1rem] sm:text-[2.9rem] leading-[1.04]">
            {today.lead} <span className="heat">{today.act}</span>
          </h1>
          <p className="soft sm:text-lg mt-3">
            {date} · the room is {text(workshop.roomC, 'temperature')}
            {workshop.roomC <= 15 && ', so rubber sets slowly and molds want warming first'}
          </p>
          {today.toOrder.length > 0 && (
            <p className="warn sm:text-lg mt-2 font-bold">
              Order {today.toOrder.map(({ name, g }) => `${text(g, 'mass')} of ${name}`).join(', ')}.
            </p>
          )}
          <NextStep today={today} />
        </div>
        <NeedsYou today={today} />
      </div>
      {blank ? <Path step={today.step} /> : <Stream today={today} />}
      {today.withoutMold.map((row) => (
        <p key={`${row.baitName} ${row.colourwayName}`} className="heat font-bold">
          {row.baits} {row.baitName} {row.colourwayName} are short and no mold makes them
          {row.why ? ' in it' : ''}. {row.why ? `${say(row.why)} ` : ''}
          <Link to={row.why ? '/colours' : '/molds/new'} className="link">
            {row.why ? 'The colours' : 'Add the mold'}
          </Link>
        </p>
      ))}
    </div>
  );
}

function NextStep({ today }: { today: Today }) {
  const first = today.cups[0];
  const layOut = useLayOut();
  const all = useLayOutAll();
  const cups = today.cups.map(({ colourwayId, tonight }) => ({ colourwayId, ...tonight }));
  if (today.step === 'pour' && first) {
    return (
      <div className="mt-5 flex gap-3 flex-wrap">
        {cups.length > 1 && (
          <button
            type="button"
            className="btn btn-lg btn-primary"
            disabled={all.isPending || layOut.isPending}
            onClick={() => all.mutate(cups)}
          >
            Lay out all {cups.length} cups
          </button>
        )}
        {today.cups.map((cup, index) => (
          <button
            key={cup.colourwayId}
            type="button"
            className={`btn btn-lg ${index === 0 && cups.length === 1 ? 'btn-primary' : 'btn-line'}`}
            disabled={all.isPending || layOut.isPending}
            onClick={() => layOut.mutate({ colourwayId: cup.colourwayId, ...cup.tonight })}
          >
            Lay out {cup.colourwayName}
          </button>
        ))}
        <Link to="/orders/plan" className="btn btn-lg btn-ghost border border-[var(--edge)]">
          The evenings ahead
        </Link>
        <Refusal error={all.error ?? layOut.error} />
      </div>
    );
  }
  return (
    <Link to={today.to} className="btn btn-primary btn-lg mt-5">
      {STEP_WORDS[today.step]}
    </Link>
  );
}

function NeedsYou({ today }: { today: Today }) {
  const { say } = useTaste();
  return (
    <section>
      <h2 className="mb-2">Needs you</h2>
      {today.needs.length === 0 && (
        <p className="soft border-t border-[var(--rule)] py-3">
          {today.orders.length === 0 ? 'Nothing yet.' : 'Nothing else. Stir, pour, or rest.'}
        </p>
      )}
      <ul>
        {today.needs.slice(0, 4).map((need) => (
          <li key={`${need.kind} ${need.to} ${need.title}`} className="border-t border-[var(--rule)]">
            <Link to={need.to} className="grid grid-cols-[92px_1fr] gap-3 py-2 row-hover">
              <span className="figure text-sm heat pt-0.5">{say(need.when)}</span>
              <span>
                <b className="leading-tight block">{need.title}</b>
                <span className="soft text-[0.9375rem]">{say(need.detail)}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

const PATH: [step: Today['step'], title: string, say: string, to: string][] = [
  [
    'master',
    'Master',
    'Length, width, height, thickest section; weigh it or sink it. Clay gets its baking time.',
    '/masters/new',
  ],
  [
    'mold',
    'Mold',
    'The box drawn to scale, both parts of the rubber by mass and volume, clocks from the moment it is mixed.',
    '/molds/plan',
  ],
  ['colour', 'Colour', 'A recipe per cup, or a dosing ledger that counts the drops for you.', '/colours/new'],
  ['order', 'Order', 'Packs of a bait in a colour, due when. It says what is short and what to pour.', '/orders/new'],
  ['pour', 'Pour', 'Scaled recipe, shots, good and bad by cavity, and what became of the grams.', '/pours/new'],
];

/** What each step is about, drawn. */
function StepDrawing({ step }: { step: Today['step'] }) {
  const drawing = {
    master: (
      <svg width={170} height={84} aria-hidden="true">
        <BaitShape shape="paddle" x={2} y={22} lengthPx={164} widthPx={40} fill="var(--liquid)" />
      </svg>
    ),
    mold: (
      <MoldBlock
        mold={{ name: 'A mold', cavities: 3, columns: 3, kind: 'silicone-open', shape: 'paddle' }}
        widthPx={170}
      />
    ),
    colour: <Puck hex="#5b7f4a" sizePx={80} name="a colour" />,
    order: <Graduated value={9} most={20} label="9 of 20 packs" widthPx={170} />,
    pour: <Glass hex="#5b7f4a" fill={0.62} glasses={1} label="A cup" />,
  }[step as 'master'];
  return <div className="h-[132px] flex items-end pb-3">{drawing}</div>;
}

/** From nothing to a packed order, in the order of the work. */
function Path({ step }: { step: Today['step'] }) {
  const at = PATH.findIndex(([name]) => name === step);
  return (
    <div className="flex flex-col gap-6">
      <ol className="grid grid-cols-2 sm:grid-cols-5 border-t-4 border-[var(--ink)]">
        {PATH.map(([name, title, say, to], index) => (
          <li key={name} className="border-l-2 border-[var(--ink)] pl-4 pt-3 pr-5">
            <StepDrawing step={name} />
            <h2 className={index < at ? 'rest' : index === at ? 'heat' : ''}>
              {index < at && '✓ '}
              {title}
            </h2>
            <p className="soft mt-1">{say}</p>
            {index === at && (
              <Link to={to} className="link font-bold inline-block mt-2">
                Begin here
              </Link>
            )}
          </li>
        ))}
      </ol>
      <p className="text-lg">
        Only want a figure?{' '}
        <Link to="/tools" className="link font-bold">
          Quick tools
        </Link>{' '}
        answer how much silicone, how much plastisol and how many drops without making a record.
      </p>
    </div>
  );
}
