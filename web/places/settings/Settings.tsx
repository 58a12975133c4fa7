import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import {
  type Maker,
  makerBody,
  measureBody,
  type OwnMeasure,
  type Workshop,
  workshopBody,
} from '../../../contract/workshop.ts';
import { SCHOOL_WORDS, SCHOOLS } from '../../../core/heat/microwave.ts';
import { COLOUR_WHEN, COLOUR_WHENS, SALT_WHEN, SALT_WHENS } from '../../../core/process/adding.ts';
import { DEGASSING_WORDS, DEGASSINGS } from '../../../core/process/ways.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { Page } from '../../parts/Page.tsx';
import { ThrowOut } from '../../parts/PutAway.tsx';
import { ChoiceIn, choices, FigureIn, TextIn, TickIn } from '../../parts/sheet/In.tsx';
import { AsItWas, Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { Instruments } from './Instruments.tsx';
import { Tablet } from './Tablet.tsx';

export function Settings() {
  const { workshop, maker } = useTaste();
  return (
    <Page title="Settings" tab="Settings" under="Units belong to each maker; the rest to the workshop.">
      <div className="grid grid-cols-1 md:grid-cols-2 gap-x-16 gap-y-10">
        {maker && <MakerForm key={maker.id} maker={maker} />}
        <Measures />
        <WorkshopForm workshop={workshop} />
        <Backup />
        <Instruments />
        <Tablet />
      </div>
    </Page>
  );
}

const UNITS = [
  { value: 'metric', label: 'metric' },
  { value: 'us', label: 'US' },
];
const DEGREES = [
  { value: 'C', label: '°C' },
  { value: 'F', label: '°F' },
];

function MakerForm({ maker }: { maker: Maker }) {
  const { makers, choose } = useTaste();
  const { name, system, temperature } = maker;
  const sheet = useSheet({ schema: makerBody, keep: `maker/${maker.id}`, seen: { name, system, temperature } });
  const save = useWrite<Maker>(
    () => ({ path: `/makers/${maker.id}`, method: 'PATCH', version: maker.version, body: sheet.values }),
    sheet.done,
  );
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-2xl">At this bench</h2>
      <SelectField
        label="Who measures here"
        value={maker.id}
        options={makers.map((row) => ({ value: row.id, label: row.name }))}
        onChange={choose}
        hint="kept on this device"
      />
      <Sheet of={sheet} by={save} onSend={() => save.mutate()}>
        <div className="grid grid-cols-2 sm:grid-cols-3 gap-4">
          <TextIn at="name" />
          <ChoiceIn at="system" options={UNITS} />
          <ChoiceIn at="temperature" options={DEGREES} />
        </div>
        <Send className="" onlyChanged>
          Keep
        </Send>
      </Sheet>
      <AnotherMaker system={system} temperature={temperature} />
    </section>
  );
}

function AnotherMaker({ system, temperature }: Pick<Maker, 'system' | 'temperature'>) {
  const { choose } = useTaste();
  const sheet = useSheet({ schema: makerBody, keep: 'maker', seen: { name: '', system, temperature } });
  const add = useWrite<Maker>(
    () => ({ path: '/makers', body: sheet.values }),
    (made) => {
      sheet.startAfresh();
      sheet.done();
      choose(made.id);
    },
  );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="flex gap-3 items-start">
      <TextIn at="name" label="Another maker" className="w-56" />
      <div className="mt-5">
        <Send className="">Add</Send>
      </div>
    </Sheet>
  );
}

interface MeasureTyped {
  name: string;
  count: number | null;
  grams: number | null;
  densityGPerMl: number | null;
}

/** A scoop, a squirt, half the smallest spoon: weighed once, then used like any other unit. */
function Measures() {
  const { text } = useTaste();
  const { data } = useQuery(queries.measures);
  const [changing, setChanging] = useState<OwnMeasure | null>(null);
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-2xl">Your own measures</h2>
      <ul className="ruled">
        {(data?.items ?? []).map((measure) => (
          <li key={measure.id} className="flex justify-between gap-3 py-1.5 items-baseline flex-wrap">
            <b>1 {measure.name}</b>
            <span className="figure">{text(measure.ml, 'volume')}</span>
            <span className="soft text-sm">
              {measure.count} weighed {text(measure.grams, 'mass')}
            </span>
            <button type="button" className="link text-sm" onClick={() => setChanging(measure)}>
              change it
            </button>
            <ThrowOut kind="measures" id={measure.id} />
          </li>
        ))}
      </ul>
      <MeasureSheet key={changing?.id ?? 'new'} measure={changing} onDone={() => setChanging(null)} />
    </section>
  );
}

const NEW_MEASURE: MeasureTyped = { name: '', count: 10, grams: null, densityGPerMl: 1 };

/** A new measure, or one that is weighed again or called otherwise. */
function MeasureSheet({ measure, onDone }: { measure: OwnMeasure | null; onDone(): void }) {
  const { text } = useTaste();
  const [begun] = useState<MeasureTyped>(() => {
    if (!measure) return NEW_MEASURE;
    const { name, count, grams, densityGPerMl } = measure;
    return { name, count, grams, densityGPerMl };
  });
  const sheet = useSheet<MeasureTyped>({
    schema: measureBody,
    keep: measure ? `measure/${measure.id}` : 'measure',
    seen: begun,
  });
  const { name, count, grams, densityGPerMl } = sheet.values;
  const keep = useWrite<OwnMeasure>(
    () =>
      measure
        ? { path: `/measures/${measure.id}`, method: 'PATCH', version: measure.version, body: sheet.values }
        : { path: '/measures', body: sheet.values },
    () => {
      sheet.startAfresh();
      sheet.done();
      onDone();
    },
  );
  const ml = count && grams && densityGPerMl ? grams / (count * densityGPerMl) : null;
  return (
    <Sheet of={sheet} by={keep} onSend={() => keep.mutate()}>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-3">
        <TextIn at="name" hint="scoop, squirt" />
        <FigureIn at="count" starts={!measure} />
        <FigureIn at="grams" />
        <FigureIn at="densityGPerMl" hint="1: water" />
      </div>
      <p className="figure text-xl">{ml === null ? '—' : `1 ${name || 'of it'} = ${text(ml, 'volume')}`}</p>
      <div className="flex gap-3 items-start">
        <Send className="" onlyChanged={measure !== null}>
          {measure ? `Change ${measure.name}` : 'Keep this measure'}
        </Send>
        {measure && <AsItWas onDone={onDone} />}
      </div>
    </Sheet>
  );
}

const workshopOf = ({ currency, ...workshop }: Omit<Workshop, 'version'>) => ({
  ...workshop,
  currency: currency.toUpperCase(),
});

function WorkshopForm({ workshop }: { workshop: Workshop }) {
  const { version, ...seen } = workshop;
  const sheet = useSheet({
    schema: workshopBody,
    keep: 'workshop',
    seen,
    body: workshopOf,
  });
  const save = useWrite<Workshop>(
    () => ({ path: '/workshop', method: 'PATCH', version, body: workshopOf(sheet.values) }),
    sheet.done,
  );
  const asGiven = version === 1 && !sheet.changed;
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-2xl">The workshop</h2>
      <Sheet of={sheet} by={save} onSend={() => save.mutate()}>
        <div className="grid grid-cols-2 gap-4">
          <TextIn at="name" />
          <TextIn at="currency" hint="three letters: EUR, USD, GBP" />
          <FigureIn at="roomC" hint="rubber is timed at this" isDefault={asGiven} />
          <FigureIn at="glassMl" hint="leave room for froth" isDefault={asGiven} />
          <FigureIn at="dropsPerMl" hint="weigh twenty drops: 20 ÷ grams" isDefault={asGiven} />
          <FigureIn at="eveningH" hint="what is more is another evening" isDefault={asGiven} />
          <FigureIn at="ovenWatts" hint="its plate says" isDefault={asGiven} />
          <ChoiceIn at="cookSchool" options={choices(SCHOOLS, SCHOOL_WORDS)} />
          <ChoiceIn at="colourWhen" options={choices(COLOUR_WHENS, COLOUR_WHEN)} />
          <ChoiceIn at="saltWhen" options={choices(SALT_WHENS, SALT_WHEN)} />
          <ChoiceIn at="degassing" options={choices(DEGASSINGS, DEGASSING_WORDS)} />
          <FigureIn at="injectors" isDefault={asGiven} />
          <FigureIn at="platePlaces" hint="cups that it keeps warm" isDefault={asGiven} />
          <FigureIn at="glasses" isDefault={asGiven} />
          <FigureIn at="boardBaits" hint="empty: room for all of them" />
          <FigureIn at="packS" hint="count, oil, scent, label" isDefault={asGiven} />
          <TickIn at="keepWarm" />
          <FigureIn at="remeltHeats" hint="warned of above that, never refused" isDefault={asGiven} />
          <FigureIn at="clubFraction" />
          <FigureIn at="shopFraction" />
          <FigureIn at="roundMinor" />
          <FigureIn at="taxFraction" hint="0: none is added" />
        </div>
        <Send className="" onlyChanged>
          Keep
        </Send>
      </Sheet>
    </section>
  );
}

/** A maker's records are never hostage: one file out, the same file back in. */
function Backup() {
  const client = useQueryClient();
  const [said, setSaid] = useState<string>();
  const [error, setError] = useState<unknown>();
  const [busy, setBusy] = useState(false);
  const restore = async (file: File) => {
    setBusy(true);
    setSaid(undefined);
    setError(undefined);
    try {
      const response = await fetch('/api/restore', {
        method: 'POST',
        headers: { 'content-type': 'application/gzip' },
        body: file,
      });
      const answer = (await response.json()) as { keptAs?: string; missingFiles?: number; error?: { message: string } };
      if (!response.ok) throw new Error(answer.error?.message ?? 'It was not taken.');
      const gone = answer.missingFiles
        ? ` ${answer.missingFiles} of its files were missing already when it was saved.`
        : '';
      setSaid(`Restored. The workshop as it was before is kept in the data folder as ${answer.keptAs}.${gone}`);
      await client.invalidateQueries();
    } catch (failure) {
      setError(failure);
    } finally {
      setBusy(false);
    }
  };
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-2xl">Backup</h2>
      <p>
        One archive with every record and photo: a SQLite file and plain pictures in a .tar.gz, readable without this
        program.
      </p>
      <a href="/api/backup" className="btn btn-primary self-start" download>
        Save a backup
      </a>
      <label className="btn btn-line self-start cursor-pointer">
        {busy ? 'Checking and restoring …' : 'Restore from a backup'}
        <input
          type="file"
          accept=".gz,application/gzip"
          className="sr-only"
          disabled={busy}
          onChange={(event) => event.target.files?.[0] && void restore(event.target.files[0])}
        />
      </label>
      <p className="soft text-sm">It is checked first, and the present workshop is kept beside it.</p>
      {said && (
        <p role="status" className="rest font-bold">
          {said}
        </p>
      )}
      <Refusal error={error} />
    </section>
  );
}
