import { STARTING } from '../../../core/mold/blockPlan.ts';
import { WEAK_WALL_MM } from '../../../core/mold/standing.ts';
import { unitSize } from '../../../core/units/show.ts';
import { BoxDrawing } from '../../parts/BoxDrawing.tsx';
import { QuantityField, SelectField, Stepper, TextField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { BoxToCut } from './BoxToCut.tsx';
import { PlanDetails } from './PlanDetails.tsx';
import type { Laid } from './usePlanning.ts';

/** The box with its masters, and all that changes it. */
export function BlockSide({ planning }: { planning: Laid }) {
  const { found, choices, master, change, name } = planning;
  const { boxLengthMm, boxWidthMm, boxHeightMm } = found.plan;
  return (
    <div className="flex flex-col gap-4">
      <BoxDrawing
        plan={found.plan}
        master={{ ...found.master, shape: master.shape, bait: master.baitId, onEnd: found.making.onEnd }}
        count={choices.count}
        twoPiece={choices.way === 'two-piece'}
        places={found.places}
        thinnest={found.thinnest}
        onMove={(index, to) => change({ places: found.places.map((place, at) => (at === index ? to : place)) })}
      />
      <WeakWall planning={planning} />
      <Steps planning={planning} />
      <Surroundings planning={planning} />
      <PlanDetails planned={found} choices={choices} measuredMl={master.latest.volumeMl} onChange={change} />
      <BoxToCut inside={{ lengthMm: boxLengthMm, widthMm: boxWidthMm, heightMm: boxHeightMm }} name={name} />
    </div>
  );
}

function WeakWall({ planning: { found, choices, change } }: { planning: Laid }) {
  const { text } = useTaste();
  const { mm, between } = found.thinnest;
  if (mm >= WEAK_WALL_MM - 1e-6) return null;
  const wall = between === 'a wall';
  return (
    <p className="warn font-bold" role="alert">
      {mm <= 0
        ? `A master touches ${wall ? 'the wall' : 'another'}: there is no rubber there.`
        : `Only ${text(mm, 'length')} of rubber between a master and ${wall ? 'the wall' : 'the next'}: under ${text(WEAK_WALL_MM, 'length')} it tears.`}{' '}
      {choices.places && (
        <button type="button" className="link" onClick={() => change({ places: null })}>
          Back in rows
        </button>
      )}
    </p>
  );
}

function Steps({ planning: { choices, change, step } }: { planning: Laid }) {
  const { text, taste } = useTaste();
  // A sixteenth of an inch, for who measures in them.
  const stepMm = unitSize('length', taste) / (taste.system === 'us' ? 16 : 1);
  const figure = (label: string, key: 'wallMm' | 'gapMm' | 'coverMm') => (
    <Stepper
      label={label}
      shown={text(choices[key], 'length')}
      onStep={(by) => step(key, by * stepMm, 3)}
      isDefault={choices[key] === STARTING[key]}
    />
  );
  return (
    <div className="flex gap-8 flex-wrap">
      {choices.way === 'wrap' && (
        <SelectField
          label="The master"
          value={choices.onEnd ? 'end' : 'flat'}
          options={[
            { value: 'end', label: 'stands on end' },
            { value: 'flat', label: 'lies' },
          ]}
          onChange={(way) => change({ onEnd: way === 'end', places: null })}
          className="w-36"
        />
      )}
      <Stepper label="Masters" shown={String(choices.count)} onStep={(by) => step('count', by, 1)} />
      {figure('Wall', 'wallMm')}
      {figure('Between', 'gapMm')}
      {figure('Over the top', 'coverMm')}
      <Stepper
        label="For the cup’s walls"
        shown={`${choices.wastePercent} %`}
        onStep={(by) => step('wastePercent', by, 0)}
        isDefault={choices.wastePercent === STARTING.wastePercent}
      />
    </div>
  );
}

function Surroundings({ planning: { choices, change, name, setName } }: { planning: Laid }) {
  const { workshop } = useTaste();
  return (
    <div className="grid grid-cols-2 sm:grid-cols-3 gap-5 max-w-2xl">
      <QuantityField
        label="Room"
        dimension="temperature"
        value={choices.roomC}
        onChange={(c) => c !== null && change({ roomC: c })}
        isDefault={choices.roomC === workshop.roomC}
      />
      <QuantityField
        label="Mixing cup holds"
        dimension="volume"
        value={choices.mixCupMl}
        onChange={(mixCupMl) => change({ mixCupMl })}
        hint="empty: one mix"
      />
      <TextField label="Name of the mold" value={name} onChange={setName} />
    </div>
  );
}
