import type { ReactNode } from 'react';
import { useState } from 'react';
import { type Choices, type Planned, USUAL_BED } from '../../../core/mold/blockPlan.ts';
import { bubbleTimes } from '../../../core/mold/bubbles.ts';
import { inMixes } from '../../../core/mold/inMixes.ts';
import { outOfLevel } from '../../../core/mold/standing.ts';
import { durationText } from '../../../core/units/show.ts';
import { Caution } from '../../parts/Caution.tsx';
import { NumberField, QuantityField, SelectField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

interface Props {
  planned: Planned;
  choices: Choices;
  /** The master's volume as measured, if it was. */
  measuredMl: number | null;
  onChange(part: Partial<Choices>): void;
}

const HOLD_WORDS: Record<Choices['hold'], string> = {
  glue: 'a thin film of glue',
  bed: 'a self-levelling epoxy bed',
  'box-over': 'the box set over it',
};

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details className="border-t border-[var(--rule)] pt-2">
      <summary className="cursor-pointer font-bold">{title}</summary>
      <div className="mt-2 flex flex-col gap-3">{children}</div>
    </details>
  );
}

/** How the masters are held, whether it stands level, how bubbles are kept out, and the amount by filling. */
export function PlanDetails(props: Props) {
  return (
    <div className="flex flex-col gap-2 max-w-2xl">
      <Holding {...props} />
      <Bubbles {...props} />
      <Filling {...props} />
      <Level {...props} />
    </div>
  );
}

function Holding({ planned, choices, onChange }: Props) {
  const { text } = useTaste();
  const { bed } = planned;
  const set = (part: Partial<Choices['bed']>) => onChange({ bed: { ...choices.bed, ...part } });
  const two = choices.way === 'two-piece';
  return (
    <Part title={`Held by ${two ? 'the clay bed to the parting line' : HOLD_WORDS[choices.hold]}`}>
      {two ? (
        <p className="soft">Sulphur-free clay up to the parting line; keys pressed in off the middle.</p>
      ) : (
        <>
          <SelectField
            label="The master is held by"
            value={choices.hold}
            options={(Object.keys(HOLD_WORDS) as Choices['hold'][]).map((value) => ({
              value,
              label: HOLD_WORDS[value],
            }))}
            onChange={(hold) => onChange({ hold })}
            className="w-64"
          />
          {choices.hold === 'box-over' && (
            <p className="soft">Nothing holds it but its weight: pour slowly into a corner, or it floats up.</p>
          )}
        </>
      )}
      {!two && choices.hold === 'bed' && (
        <>
          <div className="grid grid-cols-2 sm:grid-cols-4 gap-3">
            <QuantityField
              label="Bed, deep"
              dimension="length"
              value={choices.bed.depthMm}
              onChange={(mm) => mm && set({ depthMm: mm })}
              isDefault={choices.bed.depthMm === USUAL_BED.depthMm}
            />
            <QuantityField
              label="Sunk into it"
              dimension="length"
              value={choices.bed.sinkMm}
              onChange={(mm) => mm !== null && set({ sinkMm: mm })}
              isDefault={choices.bed.sinkMm === USUAL_BED.sinkMm}
            />
            <NumberField
              label="Work, min"
              value={choices.bed.workMin}
              onChange={(n) => n && set({ workMin: n })}
              isDefault={choices.bed.workMin === USUAL_BED.workMin}
            />
            <NumberField
              label="Firm, min"
              value={choices.bed.firmMin}
              onChange={(n) => n && set({ firmMin: n })}
              isDefault={choices.bed.firmMin === USUAL_BED.firmMin}
            />
            <NumberField
              label="Part A"
              value={choices.bed.partA}
              onChange={(n) => n && set({ partA: n })}
              isDefault={choices.bed.partA === USUAL_BED.partA}
            />
            <NumberField
              label="Part B"
              value={choices.bed.partB}
              onChange={(n) => n && set({ partB: n })}
              isDefault={choices.bed.partB === USUAL_BED.partB}
            />
            <SelectField
              label="Mixed by"
              value={choices.bed.by}
              options={[
                { value: 'volume', label: 'volume' },
                { value: 'mass', label: 'mass' },
              ]}
              onChange={(by) => set({ by })}
            />
          </div>
          {bed && (
            <p>
              <b className="figure">{text(bed.resinMl, 'volume')}</b> of resin:{' '}
              <b className="figure">{text(bed.gramsA, 'mass')}</b> of A and{' '}
              <b className="figure">{text(bed.gramsB, 'mass')}</b> of B. Work it within {durationText(bed.workMin * 60)}
              , straighten the masters until it is firm, {durationText(bed.firmMin * 60)} at{' '}
              {text(choices.roomC, 'temperature')}. Each master’s {text(bed.masters[0]?.sunkMl ?? 0, 'volume')} in the
              bed come off the bait, taken as even over its height.
            </p>
          )}
          <Caution about={['resin']} />
        </>
      )}
    </Part>
  );
}

function Bubbles({ planned, choices, onChange }: Props) {
  const { text } = useTaste();
  const [pumpMin, setPump] = useState<number | null>(2);
  const pour = planned.plan.pours[0];
  if (!pour) return null;
  const times = bubbleTimes({
    school: choices.school,
    mixMl: pour.mixMl / pour.mixes,
    potLifeMin: planned.plan.potLifeMin,
    ...(pumpMin ? { pumpMin } : {}),
  });
  const several =
    pour.mixes > 1
      ? inMixes({
          school: choices.school,
          mixMl: pour.mixMl / pour.mixes,
          mixes: pour.mixes,
          potLifeMin: planned.plan.potLifeMin,
          ...(pumpMin ? { pumpMin } : {}),
        })
      : null;
  return (
    <Part title={choices.school === 'vacuum' ? 'Bubbles: under vacuum' : 'Bubbles: thin stream, no vacuum'}>
      <div className="flex gap-3">
        <SelectField
          label="School"
          value={choices.school}
          options={[
            { value: 'vacuum', label: 'vacuum' },
            { value: 'thin-stream', label: 'thin stream and a wire' },
          ]}
          onChange={(school) => onChange({ school })}
          className="w-52"
        />
        {choices.school === 'vacuum' && (
          <NumberField label="Until it collapses, min" value={pumpMin} onChange={setPump} isDefault={pumpMin === 2} />
        )}
      </div>
      <p className={times.leftMin < 0 ? 'heat font-bold' : ''}>
        {times.cupMl !== null && (
          <>
            A cup of <b className="figure">{text(times.cupMl, 'volume')}</b> or more; it rises and must collapse by
            itself under full vacuum, then half a minute more.{' '}
          </>
        )}
        {choices.school === 'thin-stream' &&
          'From high into one corner, thin as a thread; a wire drawn along ribs and eyes. In an open face bubbles rise clear of the detail. '}
        <b>{times.say}</b> <span className="default-mark">rates are starting values</span>
      </p>
      {several && (
        <p className={several.leftMin < 0 ? 'heat font-bold' : ''}>
          In {pour.mixes} mixes a half takes {durationText(several.doneMin * 60)}:{' '}
          {several.leftMin >= 0
            ? `the last is in ${durationText(several.leftMin * 60)} before the first thickens, and they become one.`
            : several.bonds
              ? `${durationText(-several.leftMin * 60)} after the first has thickened. It still bonds, with a line: take a larger cup, a slower rubber, or a second pair of hands.`
              : 'the first has set by then and the last may not hold to it: take a larger cup or a slower rubber.'}{' '}
          <span className="default-mark">rates are starting values</span>
        </p>
      )}
      {choices.school === 'vacuum' && <Caution about={['vacuum']} />}
    </Part>
  );
}

function Filling({ planned, choices, measuredMl, onChange }: Props) {
  const { text } = useTaste();
  const { volumeMl } = planned.input.masters[0] ?? { volumeMl: 0 };
  const off = measuredMl && choices.filledMl ? volumeMl / measuredMl - 1 : null;
  return (
    <Part title="The amount by filling it">
      <p className="soft">
        Box and masters as they will stand: pour grain or water round them to the line, then measure it in a jug. Dry
        all of it before rubber.
      </p>
      <QuantityField
        label="It took"
        dimension="volume"
        value={choices.filledMl}
        onChange={(filledMl) => onChange({ filledMl })}
        hint="empty: by the masters’ own volume"
        className="w-56"
      />
      {choices.filledMl !== null && (
        <p>
          So a master has <b className="figure">{text(volumeMl, 'volume')}</b>
          {off !== null && (
            <span className={Math.abs(off) > 0.1 ? 'warn font-bold' : ''}>
              , {Math.abs(100 * off).toFixed(0)} % {off > 0 ? 'more' : 'less'} than measured before
              {Math.abs(off) > 0.1 && ': measure one of them again'}
            </span>
          )}
          . The mix goes by this.
        </p>
      )}
    </Part>
  );
}

function Level({ planned, choices }: Props) {
  const { text } = useTaste();
  const [deg, setDeg] = useState<number | null>(1);
  const long = Math.max(planned.plan.boxLengthMm, planned.plan.boxWidthMm);
  const { riseMm, leastCoverMm } = outOfLevel(deg ?? 0, long, choices.coverMm);
  return (
    <Part title="Does it stand level?">
      <div className="flex gap-4 items-start">
        <NumberField label="Out of level, °" value={deg} onChange={setDeg} hint="a phone or a spirit level shows it" />
        <p className={`pt-6 ${leastCoverMm < 5 ? 'warn font-bold' : ''}`}>
          One end stands {text(riseMm, 'length')} higher: over the masters there only{' '}
          <b className="figure">{text(Math.max(0, leastCoverMm), 'length')}</b> of rubber.
          {leastCoverMm < 5 && ' Wedge it level before the pour.'}
        </p>
      </div>
    </Part>
  );
}
