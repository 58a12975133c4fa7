import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import type { Clock } from '../../../contract/workshop.ts';
import { DEFAULTS, usual } from '../../../core/defaults.ts';
import { bake } from '../../../core/mold/clay.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { dateText } from '../../parts/dates.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Why } from '../../parts/Why.tsx';
import { KIND_WORDS } from '../../parts/words/master.ts';
import { BaitFacts } from './BaitFacts.tsx';
import { MasterDrawing } from './MasterDrawing.tsx';
import { MeshRevision, ReviseForm, VolumeForm } from './Revise.tsx';

export function MasterPage() {
  const { id = '' } = useParams();
  const { data: master, error } = useQuery(queries.master(id));
  const { text } = useTaste();
  const [doing, setDoing] = useState<'volume' | 'revision' | 'mesh' | null>(null);
  if (isGone(error, master)) return <Missing error={error} back="All masters" backTo="/masters" />;
  if (!master) return <Waiting />;
  const { latest } = master;
  return (
    <Page
      title={
        <>
          {master.name} <span className="figure text-xl soft">v{latest.number}</span>
        </>
      }
      tab={master.name}
      under={`${KIND_WORDS[master.kind]}. v${latest.number}: “${latest.reason}”.`}
      actions={
        <>
          <button
            type="button"
            className="btn btn-line"
            onClick={() => setDoing(doing === 'revision' ? null : 'revision')}
          >
            New revision
          </button>
          <Link to={`/masters/${master.id}/water`} className="btn btn-line">
            In water
          </Link>
          <Link to={`/masters/${master.id}/shape`} className="btn btn-line">
            Shape bench
          </Link>
          {latest.meshId && (
            <Link to={`/molds/build?master=${master.id}`} className="btn btn-line">
              Build a mold
            </Link>
          )}
          <Link to={`/molds/plan?master=${master.id}`} className="btn btn-primary">
            Plan a mold
          </Link>
        </>
      }
    >
      {doing === 'revision' && <ReviseForm master={master} onDone={() => setDoing(null)} />}
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_380px] gap-12">
        <div className="flex flex-col gap-8">
          <MasterDrawing shape={master.shape} {...latest} />
          {doing === 'mesh' && <MeshRevision master={master} onDone={() => setDoing(null)} />}
          <section>
            <h2 className="mb-2 flex items-baseline gap-4">
              Revisions
              {master.revisions.filter((row) => row.meshId).length > 1 && (
                <Link to={`/masters/${master.id}/compare`} className="link text-sm font-text font-normal">
                  Lay two over each other
                </Link>
              )}
            </h2>
            <ol className="ruled">
              {master.revisions.map((revision) => (
                <RevisionRow key={revision.id} revision={revision} all={master.revisions} />
              ))}
            </ol>
          </section>
          <BaitFacts key={master.bait.version} bait={master.bait} />
        </div>
        <div className="flex flex-col gap-8">
          <section>
            <h2>Volume</h2>
            {latest.volumeMl === null ? (
              <p className="warn font-bold text-lg mt-1">Not weighed yet. The mold planner needs it.</p>
            ) : (
              <p className="big mt-2">{text(latest.volumeMl, 'volume')}</p>
            )}
            {latest.volumes.map((reading) => (
              <p key={reading.id} className="label-small mt-1">
                {text(reading.ml, 'volume')}{' '}
                {reading.how === 'weighed'
                  ? `${text(reading.grams ?? 0, 'mass')} at ${reading.densityGPerMl} g/mL`
                  : reading.how === 'mesh'
                    ? 'from its mesh'
                    : 'water displaced'}
                , {dateText(reading.at)}
              </p>
            ))}
            <button
              type="button"
              className="link mt-2 text-sm"
              onClick={() => setDoing(doing === 'volume' ? null : 'volume')}
            >
              Measure it {latest.volumeMl === null ? '' : 'again'}
            </button>
            {doing === 'volume' && <VolumeForm master={master} onDone={() => setDoing(null)} />}
          </section>
          <ShapeFacts
            master={master}
            bringing={doing === 'mesh'}
            onBring={() => setDoing(doing === 'mesh' ? null : 'mesh')}
          />
          {master.kind === 'clay' && <Baking master={master} />}
          <Survived master={master} />
          <section>
            <h2 className="mb-1">Molds of it</h2>
            {master.moldList.length === 0 && <p className="soft">None yet.</p>}
            {master.moldList.map((mold) => (
              <p key={mold.id}>
                <Link to={`/molds/${mold.id}`} className="link">
                  {mold.name}
                </Link>
                {mold.revisionNumber !== null && (
                  <span className="figure text-sm soft"> of v{mold.revisionNumber}</span>
                )}
              </p>
            ))}
          </section>
          <Photos aboutType="master" aboutId={master.id} />
        </div>
      </div>
    </Page>
  );
}

/** The mesh of the newest revision, and the ways out of it. */
function ShapeFacts({ master, bringing, onBring }: { master: Master; bringing: boolean; onBring(): void }) {
  const { text } = useTaste();
  const { meshId, mesh, spec, number } = master.latest;
  const file = (format: string) =>
    `/api/meshes/${meshId}/file?format=${format}&name=${encodeURIComponent(`${master.name} v${number}`)}`;
  return (
    <section>
      <h2 className="mb-1">Shape</h2>
      {mesh ? (
        <>
          <p>
            {spec ? 'Sculpted here' : 'Brought as a mesh'}, {mesh.triangles.toLocaleString('en-GB')} triangles
            {mesh.thinnestMm !== null && `, thinnest wall ${text(mesh.thinnestMm, 'length')}`}.
          </p>
          <p className="flex gap-4 mt-1">
            {(['stl', 'obj', '3mf'] as const).map((format) => (
              <a key={format} className="link text-sm" href={file(format)} download>
                {format.toUpperCase()}
              </a>
            ))}
          </p>
        </>
      ) : (
        <p className="soft">Known by its sizes only. Sculpt it on the shape bench, or bring its mesh.</p>
      )}
      <button type="button" className="link text-sm mt-2" aria-expanded={bringing} onClick={onBring}>
        Bring a mesh as v{number + 1}
      </button>
    </section>
  );
}

function RevisionRow({ revision, all }: { revision: Revision; all: Revision[] }) {
  const { text } = useTaste();
  const parent = all.find((row) => row.id === revision.parentId);
  const second = all.find((row) => row.id === revision.secondParentId);
  const changes = parent
    ? (['lengthMm', 'widthMm', 'heightMm', 'thickestMm'] as const)
        .filter((key) => revision[key] !== parent[key])
        .map(
          (key) =>
            `${{ lengthMm: 'length', widthMm: 'width', heightMm: 'height', thickestMm: 'thickest' }[key]} ${text(parent[key], 'length')} → ${text(revision[key], 'length')}`,
        )
    : [];
  return (
    <li className="py-2.5 flex gap-5 items-baseline">
      <span className="figure text-lg w-10">v{revision.number}</span>
      <span className="flex-1">
        <span className="font-bold block">{revision.reason}</span>
        <span className="label-small">
          {parent ? `from v${parent.number}` : 'the first'}
          {revision.secondParentId && ` and ${second ? `v${second.number}` : 'another master’s revision'}`}
          {changes.length > 0 && `: ${changes.join(', ')}`}
        </span>
      </span>
      <span className="figure text-sm">{revision.volumeMl === null ? '' : text(revision.volumeMl, 'volume')}</span>
      <span className="soft text-sm">{dateText(revision.createdAt)}</span>
    </li>
  );
}

function Baking({ master }: { master: Master }) {
  const { text } = useTaste();
  const { minutes } = bake({ thicknessMm: master.latest.thickestMm, minutesPer6mm: usual('bakeMinPer6Mm') });
  const start = useWrite<Clock>(() => ({ path: `/masters/${master.id}/bake`, body: {} }));
  return (
    <section className="flex flex-col gap-2">
      <h2>Baking</h2>
      <p className="big">{minutes} min</p>
      <p>
        at {text(usual('bakeC'), 'temperature')} for the thickest {text(master.latest.thickestMm, 'length')}, or hotter
        and shorter as some packets say.{' '}
        <Why
          reason={{
            inputs: [
              ['thickest section', text(master.latest.thickestMm, 'length')],
              ['minutes per 6 mm', String(usual('bakeMinPer6Mm'))],
            ],
            formula: 'minutes per 6 mm × thickness ÷ 6, up to the next whole minute',
            grounds: [`${usual('bakeMinPer6Mm')} min per 6 mm is a default: ${DEFAULTS.bakeMinPer6Mm.source}.`],
          }}
        />
      </p>
      <button type="button" className="btn btn-line self-start" onClick={() => start.mutate()}>
        In the oven: start the clock
      </button>
      <Refusal error={start.error} />
      <Caution about={['clay']} />
    </section>
  );
}

function Survived({ master }: { master: Master }) {
  const change = useWrite<Master, Master['survived']>((survived) => ({
    path: `/masters/${master.id}`,
    method: 'PATCH',
    version: master.version,
    body: { survived },
  }));
  return (
    <SelectField
      label="Did it survive its mold?"
      value={master.survived}
      options={[
        { value: 'yes', label: 'Yes, it can be molded again' },
        { value: 'mended', label: 'Broken and mended' },
        { value: 'lost', label: 'Lost: one mold was all' },
      ]}
      onChange={(survived) => change.mutate(survived)}
      error={change.error?.message}
    />
  );
}
