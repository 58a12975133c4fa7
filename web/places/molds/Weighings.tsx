import { useState } from 'react';
import type { Mold, Weighing } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { NumberField, QuantityField, Refusal, SelectField } from '../../parts/Fields.tsx';
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
      <Form mold={mold} />
      <Log mold={mold} />
    </section>
  );
}

function Form({ mold }: { mold: Mold }) {
  const [of, setOf] = useState<Weighing['of']>('bait');
  const [count, setCount] = useState<number | null>(10);
  const [grams, setGrams] = useState<number | null>(null);
  const [densityGPerMl, setDensity] = useState<number | null>(usual('plastisolGPerMl'));
  const add = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}/weighings`, body: { of, count, grams, densityGPerMl } }),
    () => setGrams(null),
  );
  const ready = count && grams && densityGPerMl;
  return (
    <form
      className="grid grid-cols-2 sm:grid-cols-[1.5fr_0.7fr_1fr_1fr_auto] gap-3 items-start max-w-2xl"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) add.mutate();
      }}
    >
      <SelectField
        label="On the scale"
        value={of}
        options={Object.entries(OF_WORDS).map(([value, [, label]]) => ({ value: value as Weighing['of'], label }))}
        onChange={setOf}
      />
      <NumberField label="How many" value={count} onChange={setCount} min={1} />
      <QuantityField label="Together" dimension="mass" value={grams} onChange={setGrams} />
      <NumberField
        label="g/mL"
        value={densityGPerMl}
        onChange={setDensity}
        min={0.5}
        isDefault={densityGPerMl === usual('plastisolGPerMl')}
      />
      <button type="submit" className="btn btn-primary mt-[1.45rem]" disabled={!ready || add.isPending}>
        Weighed
      </button>
      <div className="col-span-full">
        <Refusal error={add.error} />
      </div>
    </form>
  );
}

function Log({ mold }: { mold: Mold }) {
  const { text } = useTaste();
  const back = useTakeBack(mold, 'weighings');
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

/** A slip in one of a mold's logs, taken back by a row of its own. */
export const useTakeBack = (mold: Mold, log: 'weighings' | 'dips' | 'sparks') =>
  useWrite<Mold, string>((rowId) => ({ path: `/molds/${mold.id}/taken-back`, body: { log, rowId } }));
