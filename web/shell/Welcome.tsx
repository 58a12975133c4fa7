import { useState } from 'react';
import type { Maker } from '../../contract/workshop.ts';
import { showText } from '../../core/units/show.ts';
import { useWrite } from '../api/write.ts';
import { Refusal, TextField } from '../parts/Fields.tsx';

const CHOICES = [
  { system: 'metric', temperature: 'C', title: 'Metric', rows: 'mm · mL · g · °C' },
  { system: 'us', temperature: 'F', title: 'US', rows: 'in · fl oz · oz · °F' },
] as const;

/** The first visit: how this maker measures. Everything is shown and typed so from then on. */
export function Welcome() {
  const [name, setName] = useState('');
  const [system, setSystem] = useState<'metric' | 'us'>('metric');
  const add = useWrite<Maker>(() => ({
    path: '/makers',
    body: { name: name.trim() || 'Maker', system, temperature: system === 'us' ? 'F' : 'C' },
  }));
  return (
    <main className="min-h-dvh flex flex-col justify-center gap-7 max-w-3xl mx-auto px-8 py-10">
      <p className="font-[family-name:var(--font-display)] text-2xl font-bold">Blunko</p>
      <h1 className="text-5xl">How do you measure?</h1>
      <p className="soft text-lg max-w-xl">
        Everything is shown and typed in these from now on. You can still write 1/8 tsp, 3 1/2 in, 0.5 cup or 350 F
        anywhere, and change this later.
      </p>
      <div className="grid sm:grid-cols-2 gap-5" role="radiogroup" aria-label="Units">
        {CHOICES.map((choice) => {
          const taste = { system: choice.system, temperature: choice.temperature };
          const chosen = system === choice.system;
          return (
            // biome-ignore lint/a11y/useSemanticElements: a large pressed target for gloves, with the role of a radio
            <button
              key={choice.system}
              type="button"
              role="radio"
              aria-checked={chosen}
              onClick={() => setSystem(choice.system)}
              className="text-left p-6 rounded-md cursor-pointer bg-[var(--sheet)]"
              style={{ outline: chosen ? '4px solid var(--rest)' : '1px solid var(--edge)' }}
            >
              <span className="font-[family-name:var(--font-display)] text-3xl font-bold block">
                {choice.title} {chosen && <span className="rest">✓</span>}
              </span>
              <span className="figure soft block mb-4">{choice.rows}</span>
              <span className="block">
                A bait of <b className="figure">{showText(110, 'length', taste)}</b>
              </span>
              <span className="block">
                in a cup of <b className="figure">{showText(237, 'volume', taste)}</b>
              </span>
              <span className="block">
                cooked to <b className="figure">{showText(175, 'temperature', taste)}</b>
              </span>
            </button>
          );
        })}
      </div>
      <form
        className="flex gap-4 items-end flex-wrap"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <TextField
          label="Your name at the bench"
          value={name}
          onChange={setName}
          className="w-72"
          hint="so that two makers keep their own units"
        />
        <button type="submit" className="btn btn-primary btn-lg mb-5" disabled={add.isPending}>
          Start with {system === 'us' ? 'US' : 'metric'} units
        </button>
      </form>
      <Refusal error={add.error} />
    </main>
  );
}
