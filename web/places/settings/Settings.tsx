import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Maker, OwnMeasure, Workshop } from '../../../contract/workshop.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { Page } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Tablet } from './Tablet.tsx';

export function Settings() {
  const { workshop, maker } = useTaste();
  return (
    <Page title="Settings" tab="Settings" under="Units belong to each maker; the rest to the workshop.">
      <div className="grid grid-cols-1 md:grid-cols-2 gap-x-16 gap-y-10">
        {maker && <MakerForm key={`${maker.id} ${maker.version}`} maker={maker} />}
        <Measures />
        <WorkshopForm key={workshop.version} workshop={workshop} />
        <Backup />
        <Tablet />
      </div>
    </Page>
  );
}

function MakerForm({ maker }: { maker: Maker }) {
  const { makers, choose } = useTaste();
  const [name, setName] = useState(maker.name);
  const [system, setSystem] = useState(maker.system);
  const [temperature, setTemperature] = useState(maker.temperature);
  const save = useWrite<Maker>(() => ({
    path: `/makers/${maker.id}`,
    method: 'PATCH',
    version: maker.version,
    body: { name, system, temperature },
  }));
  const [newName, setNewName] = useState('');
  const add = useWrite<Maker>(
    () => ({ path: '/makers', body: { name: newName, system, temperature } }),
    (made) => {
      setNewName('');
      choose(made.id);
    },
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
      <div className="grid grid-cols-2 sm:grid-cols-3 gap-4">
        <TextField label="Name" value={name} onChange={setName} />
        <SelectField
          label="Units"
          value={system}
          options={[
            { value: 'metric', label: 'metric' },
            { value: 'us', label: 'US' },
          ]}
          onChange={setSystem}
        />
        <SelectField
          label="Temperature"
          value={temperature}
          options={[
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
          onChange={setTemperature}
        />
      </div>
      <Refusal error={save.error} />
      <button type="button" className="btn btn-primary self-start" onClick={() => save.mutate()}>
        Keep
      </button>
      <div className="flex gap-3 items-start">
        <TextField label="Another maker" value={newName} onChange={setNewName} className="w-56" />
        <button type="button" className="btn btn-line mt-5" disabled={!newName.trim()} onClick={() => add.mutate()}>
          Add
        </button>
      </div>
    </section>
  );
}

/** A scoop, a squirt, half the smallest spoon: weighed once, then used like any other unit. */
function Measures() {
  const { text } = useTaste();
  const { data } = useQuery(queries.measures);
  const [name, setName] = useState('');
  const [count, setCount] = useState<number | null>(10);
  const [grams, setGrams] = useState<number | null>(null);
  const [density, setDensity] = useState<number | null>(1);
  const add = useWrite<OwnMeasure>(
    () => ({ path: '/measures', body: { name, count, grams, densityGPerMl: density } }),
    () => {
      setName('');
      setGrams(null);
    },
  );
  const ml = count && grams && density ? grams / (count * density) : null;
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-2xl">Your own measures</h2>
      <ul className="ruled">
        {(data?.items ?? []).map((measure) => (
          <li key={measure.id} className="flex justify-between py-1.5">
            <b>1 {measure.name}</b>
            <span className="figure">{text(measure.ml, 'volume')}</span>
            <span className="soft text-sm">
              {measure.count} weighed {text(measure.grams, 'mass')}
            </span>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-3">
        <TextField label="Called" value={name} onChange={setName} placeholder="scoop" />
        <NumberField label="How many" value={count} onChange={setCount} min={1} />
        <QuantityField label="Weigh together" dimension="mass" value={grams} onChange={setGrams} />
        <NumberField
          label="Density, g/mL"
          value={density}
          onChange={setDensity}
          hint="1: water"
          isDefault={density === 1}
        />
      </div>
      <p className="figure text-xl">{ml === null ? '—' : `1 ${name || 'of it'} = ${text(ml, 'volume')}`}</p>
      <Refusal error={add.error} />
      <button
        type="button"
        className="btn btn-primary self-start"
        disabled={!name.trim() || ml === null}
        onClick={() => add.mutate()}
      >
        Keep this measure
      </button>
    </section>
  );
}

function WorkshopForm({ workshop }: { workshop: Workshop }) {
  const [name, setName] = useState(workshop.name);
  const [currency, setCurrency] = useState(workshop.currency);
  const [roomC, setRoom] = useState<number | null>(workshop.roomC);
  const [glassMl, setGlass] = useState<number | null>(workshop.glassMl);
  const [dropsPerMl, setDrops] = useState<number | null>(workshop.dropsPerMl);
  const save = useWrite<Workshop>(() => ({
    path: '/workshop',
    method: 'PATCH',
    version: workshop.version,
    body: { name, currency: currency.toUpperCase(), roomC, glassMl, dropsPerMl },
  }));
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-2xl">The workshop</h2>
      <div className="grid grid-cols-2 gap-4">
        <TextField label="Name" value={name} onChange={setName} />
        <TextField label="Money" value={currency} onChange={setCurrency} hint="three letters: EUR, USD, GBP" />
        <QuantityField
          label="Room temperature"
          dimension="temperature"
          value={roomC}
          onChange={setRoom}
          hint="rubber is timed at this"
          isDefault={workshop.version === 1}
        />
        <QuantityField
          label="The cooking glass holds"
          dimension="volume"
          value={glassMl}
          onChange={setGlass}
          hint="leave room for froth"
          isDefault={workshop.version === 1}
        />
        <NumberField
          label="Drops in a mL"
          value={dropsPerMl}
          onChange={setDrops}
          hint="weigh twenty drops: 20 ÷ grams"
          isDefault={workshop.version === 1}
        />
      </div>
      <Refusal error={save.error} />
      <button
        type="button"
        className="btn btn-primary self-start"
        disabled={roomC === null || !glassMl || !dropsPerMl}
        onClick={() => save.mutate()}
      >
        Keep
      </button>
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
