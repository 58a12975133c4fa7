import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Master } from '../../../contract/masters.ts';
import { insertSheet, type Mold } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { type Insert, insertSize, STUFF_G_PER_ML, type Stuff } from '../../../core/mold/inserts.ts';
import { roughBait } from '../../../core/water/assumed.ts';
import { inWater } from '../../../core/water/inWater.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { ChoiceIn, FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { sinkText, useTaste } from '../../parts/taste.tsx';

const KIND_WORDS: Record<Insert['kind'], string> = {
  weight: 'weight',
  wire: 'wire',
  tube: 'tube',
  rod: 'rod, drawn out',
};

/** What is held in each cavity while it fills, and what that does to the bait in water. */
export function Inserts({ mold }: { mold: Mold }) {
  const master = useQuery({ ...queries.master(mold.master?.masterId ?? ''), enabled: mold.master !== null }).data;
  const inserts = mold.inserts ?? [];
  const write = useWrite<Mold, Insert[]>((next) => ({
    path: `/molds/${mold.id}`,
    method: 'PATCH',
    version: mold.version,
    body: { inserts: next },
  }));
  const cavities = [...new Set(inserts.map((one) => one.cavity).filter((one): one is number => one !== null))].sort(
    (a, b) => a - b,
  );
  const shown =
    cavities.length === 0
      ? [1]
      : Array.from({ length: mold.cavities }, (_, i) => i + 1).filter(
          (one) => cavities.includes(one) || one === firstWithout(cavities),
        );
  return (
    <section className="flex flex-col gap-2">
      <h2>Set into the cavities</h2>
      {inserts.length === 0 && (
        <p className="soft">Nothing: plain plastic. A wire, tube, weight or rod is added here.</p>
      )}
      <ul className="ruled max-w-2xl">
        {inserts.map((insert, i) => (
          <li key={JSON.stringify(insert)} className="flex gap-3 py-1 items-baseline">
            <InsertLine insert={insert} />
            <button
              type="button"
              className="link text-sm"
              onClick={() => write.mutate(inserts.filter((_, at) => at !== i))}
            >
              leave out
            </button>
          </li>
        ))}
      </ul>
      {inserts.length > 0 &&
        shown.map((cavity) => (
          <InWater
            key={cavity}
            mold={mold}
            master={master}
            inserts={inserts.filter((one) => one.cavity === null || one.cavity === cavity)}
            name={
              cavities.length === 0
                ? 'Each bait'
                : cavities.includes(cavity)
                  ? `Cavity ${cavity}`
                  : 'The other cavities'
            }
          />
        ))}
      <Refusal error={write.error} />
      <AddInsert mold={mold} inserts={inserts} />
      {inserts.some((one) => one.stuff === 'lead') && <Caution about={['lead']} />}
    </section>
  );
}

const firstWithout = (cavities: number[]) => {
  let n = 1;
  while (cavities.includes(n)) n += 1;
  return n;
};

function InsertLine({ insert }: { insert: Insert }) {
  const { text } = useTaste();
  const { massG, volumeMl } = insertSize(insert);
  return (
    <>
      <span className="flex-1">
        <b>{insert.stuff}</b> {KIND_WORDS[insert.kind].split(',')[0]}
        {insert.diameterMm && ` ${text(insert.diameterMm, 'length')} × ${text(insert.lengthMm ?? 0, 'length')}`}
        {insert.stays ? '' : ', drawn out'}
        <span className="soft">
          {' '}
          {text(insert.fromNoseMm, 'length')} from the nose,{' '}
          {insert.upMm === 0
            ? 'in the middle'
            : `${text(Math.abs(insert.upMm), 'length')} ${insert.upMm > 0 ? 'over' : 'under'} it`}
          {insert.cavity !== null && `, cavity ${insert.cavity}`}
        </span>
      </span>
      <span className="figure">{text(massG, 'mass')}</span>
      <span className="figure soft w-20 text-right">{text(volumeMl, 'volume')}</span>
    </>
  );
}

/** The bait with and without what is set into it: sinks or floats, how fast, and how it hangs. */
function InWater({
  mold,
  master,
  inserts,
  name,
}: {
  mold: Mold;
  master: Master | undefined;
  inserts: Insert[];
  name: string;
}) {
  const taste = useTaste();
  const { text } = taste;
  const staying = inserts.filter((one) => one.stays).map((one) => ({ ...one, ...insertSize(one) }));
  const takenMl = inserts.reduce((sum, one) => sum + insertSize(one).volumeMl, 0);
  const wholeMl = mold.weighed && mold.weighed.cavityFrom > 0 ? mold.cavityMl + takenMl : mold.estimate.cavityMl;
  if (takenMl >= wholeMl) return <p className="heat font-bold">{name}: what is set in is larger than the cavity.</p>;
  const plasticMl = wholeMl - takenMl;
  const staysMl = staying.reduce((sum, one) => sum + one.volumeMl, 0);
  const revision = master?.revisions.find((one) => one.id === mold.revisionId);
  const rough = roughBait(revision, wholeMl);
  const bait = {
    ...rough,
    plasticGPerMl: usual('plastisolGPerMl'),
    waterGPerMl: usual('seaGPerMl'),
  };
  const plain = inWater({ ...bait, wholeMl, held: [] }).sinks;
  const laden = inWater({
    ...bait,
    // A rod that is drawn out leaves its room empty.
    wholeMl: plasticMl + staysMl,
    held: staying.map(({ massG, volumeMl, fromNoseMm, upMm }) => ({
      massG,
      volumeMl,
      atMm: [fromNoseMm, 0, (rough.centroidMm?.[2] ?? 0) + upMm],
      inside: true,
    })),
  });
  const speed = ({ mmPerS, buoyancy }: typeof plain) =>
    buoyancy === 'neutral' ? 'hangs in the water' : `${buoyancy} at ${sinkText(mmPerS, taste)}`;
  return (
    <p>
      <b>{name}</b> {speed(laden.sinks)}, plain it {speed(plain)}; weighs{' '}
      <b className="figure">{text(laden.massG, 'mass')}</b> with {text(plasticMl, 'volume')} of plastic.{' '}
      {laden.hangs && staying.length > 0 && <b>{laden.hangs.sentence}</b>}{' '}
      <span className="default-mark">
        {revision?.mesh ? 'sea water' : 'sea water; middle and area from length and width'}
      </span>
    </p>
  );
}

interface Typed {
  kind: Insert['kind'];
  stuff: Stuff;
  massG: number | null;
  diameterMm: number | null;
  lengthMm: number | null;
  boreMm: number | null;
  fromNoseMm: number | null;
  underMm: number | null;
  cavity: string;
}

const EVERY = 'all';
const BEGUN: Typed = {
  kind: 'weight',
  stuff: 'tungsten',
  massG: null,
  diameterMm: null,
  lengthMm: null,
  boreMm: null,
  fromNoseMm: null,
  underMm: 0,
  cavity: EVERY,
};

/** What is sent: a weight by its mass, all else by its size. */
const insertOf = ({ massG, diameterMm, lengthMm, boreMm, cavity, kind, stuff, fromNoseMm, underMm }: Typed) => ({
  cavity: cavity === EVERY ? null : Number(cavity),
  kind,
  stuff,
  ...(kind === 'weight' ? { massG } : { diameterMm, lengthMm }),
  ...(kind === 'tube' && boreMm !== null ? { boreMm } : {}),
  stays: kind !== 'rod',
  fromNoseMm,
  underMm: underMm ?? 0,
});

function AddInsert({ mold, inserts }: { mold: Mold; inserts: Insert[] }) {
  const [begun] = useState(BEGUN);
  const sheet = useSheet<Typed>({
    schema: insertSheet,
    keep: `mold/${mold.id}/insert`,
    seen: begun,
    body: insertOf,
  });
  const { kind } = sheet.values;
  const add = useWrite<Mold>(
    () => {
      const { underMm, ...insert } = insertOf(sheet.values);
      return {
        path: `/molds/${mold.id}`,
        method: 'PATCH',
        version: mold.version,
        body: { inserts: [...inserts, { ...insert, upMm: -underMm }] },
      };
    },
    () => {
      sheet.startAfresh();
      sheet.done();
    },
  );
  return (
    <details className="max-w-2xl" open={sheet.restored}>
      <summary className="cursor-pointer font-bold">Set something in</summary>
      <Sheet
        of={sheet}
        by={add}
        onSend={() => add.mutate()}
        className="grid grid-cols-2 sm:grid-cols-4 gap-3 mt-2 items-start"
      >
        <ChoiceIn at="kind" options={Object.entries(KIND_WORDS).map(([value, label]) => ({ value, label }))} />
        <ChoiceIn at="stuff" options={Object.keys(STUFF_G_PER_ML).map((value) => ({ value, label: value }))} />
        {kind === 'weight' ? (
          <FigureIn at="massG" />
        ) : (
          <>
            <FigureIn at="diameterMm" />
            <FigureIn at="lengthMm" label="Long" />
            {kind === 'tube' && <FigureIn at="boreMm" />}
          </>
        )}
        <FigureIn at="fromNoseMm" />
        <FigureIn at="underMm" />
        <ChoiceIn
          at="cavity"
          options={[
            { value: EVERY, label: 'every cavity' },
            ...Array.from({ length: mold.cavities }, (_, i) => ({ value: String(i + 1), label: `cavity ${i + 1}` })),
          ]}
        />
        <div className="col-span-full">
          <Send className="">Set in</Send>
        </div>
      </Sheet>
    </details>
  );
}
