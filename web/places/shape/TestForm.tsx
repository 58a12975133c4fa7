import { useState } from 'react';
import type { Master } from '../../../contract/masters.ts';
import { PACES, type WaterTest } from '../../../contract/water.ts';
import { useWrite } from '../../api/write.ts';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';

type Kicks = '' | 'yes' | 'weak' | 'no';
interface Speed {
  kicks: Kicks;
  mPerS: number | null;
}
const NO_SPEED: Speed = { kicks: '', mPerS: null };

/** A test in the tub or on the water. */
export function TestForm({ master, onDone }: { master: Master; onDone(): void }) {
  const { bait } = master;
  const [revisionId, setRevision] = useState(master.latest.id);
  const [place, setPlace] = useState<'tank' | 'lake'>('tank');
  const [placeName, setPlaceName] = useState('');
  const [blend, setBlend] = useState('');
  const [hardness, setHardness] = useState<number | null>(bait.wantedScale === '00' ? bait.wantedHardness : null);
  const [speeds, setSpeeds] = useState<Record<(typeof PACES)[number], Speed>>({
    slow: NO_SPEED,
    medium: NO_SPEED,
    fast: NO_SPEED,
  });
  const [roll, setRoll] = useState<'' | 'none' | 'some' | 'much'>('');
  const [runs, setRuns] = useState<'' | 'true' | 'left' | 'right'>('');
  const [sinkS, setSinkS] = useState<number | null>(null);
  const [sinkDepthMm, setDepth] = useState<number | null>(null);
  const [rig, setRig] = useState('');
  const [weightG, setWeight] = useState<number | null>(null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [fish, setFish] = useState<number | null>(null);
  const [ending, setEnding] = useState<'' | 'whole' | 'torn' | 'lost' | 'void'>('');
  const [notes, setNotes] = useState('');
  const save = useWrite<WaterTest>(
    () => ({
      path: `/masters/${master.id}/revisions/${revisionId}/water-tests`,
      body: {
        place,
        placeName,
        blend,
        ...(hardness === null ? {} : { scale: '00', hardness }),
        speeds: PACES.flatMap((pace) =>
          speeds[pace].kicks === '' ? [] : [{ pace, kicks: speeds[pace].kicks, mPerS: speeds[pace].mPerS }],
        ),
        roll: roll || null,
        runs: runs || null,
        sinkS: sinkDepthMm === null ? null : sinkS,
        sinkDepthMm: sinkS === null ? null : sinkDepthMm,
        ...(place === 'lake' ? { rig, weightG, minutes, fish, ending: ending || null } : {}),
        notes,
      },
    }),
    onDone,
  );
  return (
    <form
      className="sheet p-5 grid grid-cols-1 sm:grid-cols-[1fr_1fr_1fr] gap-x-8 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <div className="flex flex-col gap-2">
        <SelectField
          label="Revision"
          value={revisionId}
          options={master.revisions.map((row) => ({ value: row.id, label: `v${row.number}: ${row.reason}` }))}
          onChange={setRevision}
        />
        <SelectField
          label="Where"
          value={place}
          options={[
            { value: 'tank', label: 'Tank, tub or pool' },
            { value: 'lake', label: 'On the water' },
          ]}
          onChange={setPlace}
        />
        <TextField label="The place, by your own name" value={placeName} onChange={setPlaceName} />
        <div className="grid grid-cols-2 gap-3">
          <TextField label="Blend" value={blend} onChange={setBlend} />
          <NumberField label="Shore 00" value={hardness} onChange={setHardness} min={0} />
        </div>
      </div>
      <div className="flex flex-col gap-2">
        <span className="label-small font-bold">Does it kick?</span>
        {PACES.map((pace) => (
          <fieldset key={pace} className="flex items-center gap-1.5" aria-label={`Kick, ${pace}`}>
            <span className="w-16 font-bold capitalize">{pace}</span>
            {(['yes', 'weak', 'no'] as const).map((kicks) => (
              <button
                key={kicks}
                type="button"
                className={`btn btn-sm ${speeds[pace].kicks === kicks ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
                aria-pressed={speeds[pace].kicks === kicks}
                onClick={() =>
                  setSpeeds({
                    ...speeds,
                    [pace]: { ...speeds[pace], kicks: speeds[pace].kicks === kicks ? '' : kicks },
                  })
                }
              >
                {kicks}
              </button>
            ))}
            <input
              className="input input-sm figure-input w-20"
              inputMode="decimal"
              placeholder="m/s"
              aria-label={`Speed, ${pace}, m/s`}
              onChange={(event) => {
                const mPerS = Number(event.target.value.replace(',', '.'));
                setSpeeds({ ...speeds, [pace]: { ...speeds[pace], mPerS: mPerS > 0 ? mPerS : null } });
              }}
            />
          </fieldset>
        ))}
        <div className="grid grid-cols-2 gap-3 mt-2">
          <SelectField
            label="Roll"
            value={roll}
            options={[
              { value: '', label: 'not seen' },
              { value: 'none', label: 'none' },
              { value: 'some', label: 'some' },
              { value: 'much', label: 'much' },
            ]}
            onChange={setRoll}
          />
          <SelectField
            label="Runs"
            value={runs}
            options={[
              { value: '', label: 'not seen' },
              { value: 'true', label: 'true' },
              { value: 'left', label: 'to the left' },
              { value: 'right', label: 'to the right' },
            ]}
            onChange={setRuns}
          />
          <NumberField label="Sinks in, seconds" value={sinkS} onChange={setSinkS} min={0} />
          <QuantityField label="over a depth of" dimension="length" value={sinkDepthMm} onChange={setDepth} />
        </div>
      </div>
      <div className="flex flex-col gap-2">
        {place === 'lake' && (
          <>
            <TextField label="Rig" value={rig} onChange={setRig} />
            <div className="grid grid-cols-2 sm:grid-cols-3 gap-3">
              <QuantityField label="Weight" dimension="mass" value={weightG} onChange={setWeight} />
              <NumberField label="Minutes" value={minutes} onChange={setMinutes} min={0} />
              <NumberField label="Fish" value={fish} onChange={setFish} min={0} />
            </div>
            <SelectField
              label="And the bait"
              value={ending}
              options={[
                { value: '', label: 'not noted' },
                { value: 'whole', label: 'still whole' },
                { value: 'torn', label: 'torn' },
                { value: 'lost', label: 'lost: cut short, not torn' },
                { value: 'void', label: 'void: weather' },
              ]}
              onChange={setEnding}
            />
          </>
        )}
        <TextField label="Notes" value={notes} onChange={setNotes} />
        <Refusal error={save.error} />
        <button type="submit" className="btn btn-primary self-start" disabled={save.isPending}>
          Keep this test
        </button>
      </div>
    </form>
  );
}
