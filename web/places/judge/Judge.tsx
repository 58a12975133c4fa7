import { useState } from 'react';
import { saltedGPerMl } from '../../../core/water/inWater.ts';
import { useTaste } from '../../parts/taste.tsx';
import { Demold } from './Demold.tsx';
import { Evening } from './Evening.tsx';
import { HookFit } from './HookFit.tsx';
import { notYet, type JudgeProps as Props } from './judging.tsx';
import { Sink } from './Sink.tsx';
import { Swim } from './Swim.tsx';

const TABS = ['Swim', 'Sink', 'Hook', 'Mold', 'Evening'] as const;

/** What the shape will do, beside it and always up to date. */
export function Judge(props: Props) {
  const [tab, setTab] = useState<(typeof TABS)[number]>('Swim');
  const { judged, assumed, materials, done, problem } = props;
  const yet = notYet(problem);
  const { text, money, say } = useTaste();
  const ml = judged.measured?.volumeMl ?? null;
  const massG = ml === null ? null : ml * saltedGPerMl(assumed.saltGPerCup);
  const plastisol = materials.find((row) => row.kind === 'plastisol' && row.pricePerKgMinor !== null);
  return (
    <section className="flex flex-col gap-2 min-h-full" aria-label="What the shape will do">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
        <Figure label="Volume" value={ml === null ? yet : text(ml, 'volume')} />
        <Figure
          label={assumed.saltGPerCup > 0 ? 'With salt' : 'In plastic'}
          value={massG === null ? yet : text(massG, 'mass')}
        />
        {massG !== null && plastisol?.pricePerKgMinor && (
          <Figure label="Plastic, each" value={money((massG * plastisol.pricePerKgMinor) / 1000)} />
        )}
      </div>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
        <Figure label="Thickest" value={judged.thickness ? text(judged.thickness.thickestMm, 'length') : yet} small />
        <Figure
          label="Thinnest wall"
          value={judged.thickness ? text(judged.thickness.thinnestMm, 'length') : yet}
          small
        />
        <p className="label-small pb-0.5 flex-1 text-right" role="status">
          {problem ? (
            <span className="heat font-bold">{say(problem)}</span>
          ) : done < 1 ? (
            `judging, ${Math.round(done * 100)} %`
          ) : (
            'judged'
          )}
        </p>
      </div>
      {judged.measured && judged.measured.shells - judged.measured.voids > 1 && (
        <p className="heat text-sm font-bold" role="alert">
          In {judged.measured.shells - judged.measured.voids} pieces: a slot or a bore cuts all the way through. Make it
          shorter or shallower, or the pieces will be cast apart.
        </p>
      )}
      <div className="flex gap-1 border-b-2 border-[var(--ink)]" role="tablist" aria-label="Judgement">
        {TABS.map((one) => (
          <button
            key={one}
            type="button"
            role="tab"
            aria-selected={tab === one}
            className={`px-2 py-1 text-sm font-bold ${tab === one ? 'bg-[var(--ink)] text-[var(--sheet)]' : ''}`}
            onClick={() => setTab(one)}
          >
            {one}
          </button>
        ))}
      </div>
      {tab === 'Swim' && <Swim {...props} />}
      {tab === 'Sink' && <Sink {...props} />}
      {tab === 'Hook' && <HookFit {...props} />}
      {tab === 'Mold' && <Demold {...props} />}
      {tab === 'Evening' && <Evening {...props} />}
    </section>
  );
}

function Figure({ label, value, small }: { label: string; value: string; small?: boolean }) {
  return (
    <div>
      <p className="label-small">{label}</p>
      <p className={`figure whitespace-nowrap ${small ? 'text-base leading-tight' : 'text-xl leading-none'}`}>
        {value}
      </p>
    </div>
  );
}
