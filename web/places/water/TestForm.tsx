import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Master } from '../../../contract/masters.ts';
import { KICKS, PACES, type WaterTest, waterTestBody } from '../../../contract/water.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { ChoiceIn, FigureIn, NoteIn, TextIn, useIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

interface Speed {
  pace: (typeof PACES)[number];
  kicks: (typeof KICKS)[number] | null;
  mPerS: number | null;
}

interface Typed {
  place: 'tank' | 'lake';
  placeName: string;
  blend: string;
  finish: string;
  waterC: number | null;
  pourId: string | null;
  hardness: number | null;
  speeds: Speed[];
  roll: string | null;
  runs: string | null;
  sinkS: number | null;
  sinkDepthMm: number | null;
  rig: string;
  weightG: number | null;
  minutes: number | null;
  fish: number | null;
  ending: string | null;
  notes: string;
}

const emptyFor = (hardness: number | null): Typed => ({
  place: 'tank',
  placeName: '',
  blend: '',
  finish: '',
  waterC: null,
  pourId: null,
  hardness,
  speeds: PACES.map((pace) => ({ pace, kicks: null, mPerS: null })),
  roll: null,
  runs: null,
  sinkS: null,
  sinkDepthMm: null,
  rig: '',
  weightG: null,
  minutes: null,
  fish: null,
  ending: null,
  notes: '',
});

const ON_THE_WATER = ['rig', 'weightG', 'minutes', 'fish', 'ending'] as const;

/** What was seen; a speed at which nobody looked for a kick says nothing. */
function bodyOf({ hardness, speeds, ...test }: Typed) {
  const seen = { ...test, ...(hardness === null ? {} : { scale: '00', hardness }) };
  const kicked = speeds.filter((speed) => speed.kicks !== null || speed.mPerS !== null);
  if (test.place === 'lake') return { ...seen, speeds: kicked };
  const ashore = Object.entries(seen).filter(([key]) => !(ON_THE_WATER as readonly string[]).includes(key));
  return { ...Object.fromEntries(ashore), speeds: kicked };
}

/** A test in the tub or on the water. */
export function TestForm({ master, onDone }: { master: Master; onDone(): void }) {
  const { bait } = master;
  const [revisionId, setRevision] = useState(master.latest.id);
  const [begun] = useState(() => emptyFor(bait.wantedScale === '00' ? bait.wantedHardness : null));
  const sheet = useSheet<Typed>({ schema: waterTestBody, keep: `master/${master.id}/test`, seen: begun, body: bodyOf });
  const { place } = sheet.values;
  // The newest cups with this bait in them; older ones are told by no age.
  const pours = (useQuery(queries.newestPours).data?.items ?? []).filter(
    (pour) => pour.shots > 0 && pour.baits.split(', ').includes(bait.name),
  );
  const save = useWrite<WaterTest>(
    () => ({
      path: `/masters/${master.id}/revisions/${revisionId}/water-tests`,
      body: bodyOf(sheet.values),
    }),
    () => {
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet
      of={sheet}
      by={save}
      onSend={() => save.mutate()}
      className="sheet p-5 grid grid-cols-1 sm:grid-cols-[1fr_1fr_1fr] gap-x-8 gap-y-1"
    >
      <div className="flex flex-col gap-2">
        <SelectField
          label="Revision"
          value={revisionId}
          options={master.revisions.map((row) => ({ value: row.id, label: `v${row.number}: ${row.reason}` }))}
          onChange={setRevision}
        />
        <ChoiceIn at="place" options={PLACES} />
        <TextIn at="placeName" />
        <div className="grid grid-cols-2 gap-3">
          <ChoiceIn
            at="pourId"
            options={[
              { value: '', label: 'not known' },
              ...pours.map((pour) => ({ value: pour.id, label: `${pour.code}, ${pour.colourwayName}` })),
            ]}
          />
          <FigureIn at="waterC" hint="cold stiffens it" />
          <TextIn at="blend" />
          <FigureIn at="hardness" />
          <TextIn at="finish" />
        </div>
      </div>
      <div className="flex flex-col gap-2">
        <span className="label-small font-bold">Does it kick?</span>
        {PACES.map((pace, i) => (
          <PaceField key={pace} at={`speeds.${i}`} pace={pace} />
        ))}
        <div className="grid grid-cols-2 gap-3 mt-2">
          <ChoiceIn at="roll" options={ROLLS} />
          <ChoiceIn at="runs" options={RUNS} />
          <FigureIn at="sinkS" />
          <FigureIn at="sinkDepthMm" />
        </div>
      </div>
      <div className="flex flex-col gap-2">
        {place === 'lake' && (
          <>
            <TextIn at="rig" />
            <div className="grid grid-cols-2 sm:grid-cols-3 gap-3">
              <FigureIn at="weightG" />
              <FigureIn at="minutes" />
              <FigureIn at="fish" />
            </div>
            <ChoiceIn at="ending" options={ENDINGS} />
          </>
        )}
        <NoteIn at="notes" />
        <Send className="">Keep this test</Send>
      </div>
    </Sheet>
  );
}

const PLACES = [
  { value: 'tank', label: 'Tank, tub or pool' },
  { value: 'lake', label: 'On the water' },
];
const ROLLS = [
  { value: '', label: 'not seen' },
  { value: 'none', label: 'none' },
  { value: 'some', label: 'some' },
  { value: 'much', label: 'much' },
];
const RUNS = [
  { value: '', label: 'not seen' },
  { value: 'true', label: 'true' },
  { value: 'left', label: 'to the left' },
  { value: 'right', label: 'to the right' },
];
const ENDINGS = [
  { value: '', label: 'not noted' },
  { value: 'whole', label: 'still whole' },
  { value: 'torn', label: 'torn' },
  { value: 'lost', label: 'lost: cut short, not torn' },
  { value: 'void', label: 'void: weather' },
];

/** One pace: whether it kicked, and how fast that was. */
function PaceField({ at, pace }: { at: string; pace: string }) {
  const kicks = useIn(`${at}.kicks`);
  return (
    <fieldset className="flex flex-wrap items-start gap-1.5" aria-label={`Kick, ${pace}`}>
      <span className="w-16 shrink-0 font-bold capitalize pt-2">{pace}</span>
      {KICKS.map((one) => (
        <button
          key={one}
          type="button"
          className={`btn btn-sm h-10 ${kicks.value === one ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
          aria-pressed={kicks.value === one}
          onClick={() => kicks.set(kicks.value === one ? null : one)}
        >
          {one}
        </button>
      ))}
      <FigureIn at={`${at}.mPerS`} label={`Speed, ${pace}`} className="flex-1 min-w-20 max-w-28" bare />
    </fieldset>
  );
}
