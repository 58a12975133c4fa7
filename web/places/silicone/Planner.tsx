import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Way } from '../../../core/mold/blockPlan.ts';
import { queries } from '../../api/queries.ts';
import { QuantityField, SelectField } from '../../parts/Fields.tsx';
import { NewRubber } from '../../parts/NewRubber.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { BlockSide } from './BlockSide.tsx';
import { MixSide } from './MixSide.tsx';
import { isLaid, type Planning, usePlanning } from './usePlanning.ts';
import { POURS } from './ways.ts';

export function Planner() {
  const masters = useQuery(queries.masters);
  const materials = useQuery(queries.materials);
  if (!masters.data || !materials.data) return <Waiting />;
  if (masters.data.items.length === 0) {
    return (
      <Page title="Plan a mold" tab="Plan a mold">
        <Empty
          say="A mold needs a master."
          then="Measure one first; its box and rubber are computed from it."
          to="/masters/new"
          action="Measure a master"
        />
      </Page>
    );
  }
  const rubbers = materials.data.items.filter((row) => row.kind === 'silicone');
  return <Plan masters={masters.data.items} rubbers={rubbers} />;
}

interface Stores {
  masters: MasterRow[];
  rubbers: Material[];
}

function Plan({ masters, rubbers }: Stores) {
  const { text, say } = useTaste();
  const planning = usePlanning(masters, rubbers);
  const [adding, setAdding] = useState(false);
  const { rubber, choices, refused } = planning;
  return (
    <Page
      title={planning.title}
      tab="Plan a mold"
      under={
        rubber?.mix ? (
          <>
            Rubber <b className="text-[var(--ink)]">{rubber.name}</b>, {rubber.mix.partA} to {rubber.mix.partB} by{' '}
            {rubber.mix.by}, room {text(choices.roomC, 'temperature')}, {text(rubber.levelG, 'mass')} in the store
          </>
        ) : (
          'No rubber in the store yet.'
        )
      }
      actions={<Chosen planning={planning} masters={masters} rubbers={rubbers} onAdd={() => setAdding(!adding)} />}
    >
      {(adding || rubbers.length === 0) && (
        <NewRubber
          onDone={(id) => {
            planning.setRubberId(id);
            setAdding(false);
          }}
        />
      )}
      <NoVolume planning={planning} />
      {refused && (
        <p className="heat font-bold text-lg" role="alert">
          {say(refused)}
        </p>
      )}
      {isLaid(planning) && (
        <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_400px] xl:grid-cols-[minmax(540px,1fr)_430px] gap-8 items-start -mt-2">
          <BlockSide planning={planning} />
          <MixSide planning={planning} rubbers={rubbers} />
        </div>
      )}
    </Page>
  );
}

function Chosen({ planning, masters, rubbers, onAdd }: Stores & { planning: Planning; onAdd(): void }) {
  const { choices, master, rubber } = planning;
  return (
    <>
      <SelectField
        label="Poured as"
        value={choices.way}
        options={(Object.keys(POURS) as Way[]).map((one) => ({ value: one, label: POURS[one].words }))}
        onChange={planning.setWay}
        className="w-32"
      />
      <SelectField
        label="Master"
        value={master.id}
        options={masters.map((row) => ({ value: row.id, label: `${row.name} v${row.latest.number}` }))}
        onChange={planning.setMasterId}
        className="w-48"
      />
      {rubbers.length > 0 && (
        <SelectField
          label="Rubber"
          value={rubber?.id ?? ''}
          options={rubbers.map((row) => ({ value: row.id, label: row.name }))}
          onChange={planning.setRubberId}
          className="w-44"
        />
      )}
      <button type="button" className="link self-center text-sm" onClick={onAdd}>
        {rubbers.length === 0 ? 'Add the rubber you have' : 'another rubber'}
      </button>
    </>
  );
}

/** A master that nobody weighed: the way to its volume, or a filling test in its stead. */
function NoVolume({ planning: { master, choices, change } }: { planning: Planning }) {
  if (master.latest.volumeMl !== null) return null;
  return (
    <p className="warn font-bold text-lg">
      {master.name} has no volume yet.{' '}
      <Link to={`/masters/${master.id}`} className="link">
        Weigh it or sink it first
      </Link>
      , or fill the box round it:{' '}
      <QuantityField
        label="It took"
        dimension="volume"
        value={choices.filledMl}
        onChange={(filledMl) => change({ filledMl })}
        hint="of grain or water to the line, with the masters in it"
        className="w-72 mt-2 font-normal text-base"
      />
    </p>
  );
}
