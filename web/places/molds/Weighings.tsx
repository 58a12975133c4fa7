import { useState } from 'react';
import { type Mold, type Weighing, weighingBody } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { ChoiceIn, FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { Why } from '../../parts/Why.tsx';

const OF_WORDS: Record<Weighing['of'], [one: string, more: string]> = {
  bait: ['trimmed bait', 'trimmed baits'],
  shot: ['whole shot, untrimmed', 'whole shots, untrimmed'],
  sprue: ['sprue with its runner', 'sprues with their runners'],
};

/** What a cavity really holds: weighed, it replaces the estimate in every plan from then on. */
export function Weighings({ mold }: { mold: Mold }) {
  const { text } = useTaste();
  const { weighed, estimate } = mold;
  const channelsMl = mold.sprueMl + mold.runnerMl;
  const off = weighed && weighed.cavityFrom > 0 ? 100 * (weighed.toEstimate - 1) : null;
  return (
    <section className="flex flex-col gap-2">
      <h2>What it takes</h2>
      <p>
        A bait <b className="figure text-xl">{text(mold.cavityMl, 'volume')}</b>, sprue and runner{' '}
        <b className="figure">{text(channelsMl, 'volume')}</b>.{' '}
        <Why
          reason={{
            inputs: [
              ['a bait, estimated', text(estimate.cavityMl, 'volume')],
              ['sprue and runner, estimated', text(estimate.sprueMl + estimate.runnerMl, 'volume')],
              ['baits weighed', String(weighed?.cavityFrom ?? 0)],
              ['shots or sprues weighed', String(weighed?.channelsFrom ?? 0)],
            ],
            formula: 'Mass ÷ density of the plastic. Sprue and runner = whole shot − cavities × bait.',
            grounds: [
              weighed && weighed.cavityFrom > 0
                ? `Weighed: ${weighed.cavityFrom} baits${weighed.spread === null ? '' : `, readings differ by ${(100 * weighed.spread).toFixed(1)} %`}.`
                : 'An estimate until a bait is weighed.',
              'Plans, cups and needs go by it from now on; cups already laid out keep what they were told.',
            ],
            change: 'Weigh ten baits at once, and one whole shot before trimming.',
          }}
        />
      </p>
      {weighed?.problem && (
        <p className="heat font-bold" role="alert">
          {weighed.problem}
        </p>
      )}
      {off !== null && (
        <p className={Math.abs(off) > 5 ? 'warn font-bold' : 'soft'}>
          {Math.abs(off) < 0.5
            ? `As computed, from ${weighed?.cavityFrom} baits weighed.`
            : `${Math.abs(off).toFixed(1)} % ${off > 0 ? 'more' : 'less'} than the computed ${text(estimate.cavityMl, 'volume')}, from ${weighed?.cavityFrom} weighed.`}
        </p>
      )}
      {weighed === null && <p className="soft">Computed, not yet weighed.</p>}
      <WeighingSheet mold={mold} />
      <Log mold={mold} />
    </section>
  );
}

const OF_OPTIONS = Object.entries(OF_WORDS).map(([value, [, label]]) => ({ value, label }));

function WeighingSheet({ mold }: { mold: Mold }) {
  const [begun] = useState({ of: 'bait', count: 10, grams: null, densityGPerMl: usual('plastisolGPerMl') });
  const sheet = useSheet({ schema: weighingBody, keep: `mold/${mold.id}/weighing`, seen: begun });
  const add = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}/weighings`, body: sheet.values }),
    () => {
      sheet.set('grams', null);
      sheet.done();
    },
  );
  return (
    <Sheet
      of={sheet}
      by={add}
      onSend={() => add.mutate()}
      className="grid grid-cols-2 sm:grid-cols-4 gap-3 items-start max-w-2xl"
    >
      <ChoiceIn at="of" options={OF_OPTIONS} />
      <FigureIn at="count" starts />
      <FigureIn at="grams" />
      <FigureIn at="densityGPerMl" />
      <div className="col-span-full">
        <Send className="">Weighed</Send>
      </div>
    </Sheet>
  );
}

function Log({ mold }: { mold: Mold }) {
  const { text } = useTaste();
  const back = useUndo();
  if (mold.care.weighings.length === 0) return null;
  return (
    <ul className="ruled max-w-2xl">
      {mold.care.weighings.map((row) => (
        <li key={row.id} className="flex gap-3 py-1 items-baseline">
          <span className="flex-1">
            <span className="figure">{row.count}</span> {OF_WORDS[row.of][row.count === 1 ? 0 : 1]}
          </span>
          <span className="figure">{text(row.grams, 'mass')}</span>
          <span className="soft text-sm w-24 text-right">{dateText(row.at)}</span>
          <button type="button" className="link text-sm" onClick={() => back.mutate(row.id)}>
            take back
          </button>
        </li>
      ))}
      <Refusal error={back.error} />
    </ul>
  );
}
