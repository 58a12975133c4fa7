import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Mold } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { WEAK_WALL_MM } from '../../../core/mold/standing.ts';
import { durationText } from '../../../core/units/show.ts';
import { call } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Cylinder } from '../../parts/Cylinder.tsx';
import { QuantityField, Refusal, SelectField, Stepper, TextField } from '../../parts/Fields.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Why } from '../../parts/Why.tsx';
import { BoxDrawing } from './BoxDrawing.tsx';
import { BoxToCut } from './BoxToCut.tsx';
import { HighPoints } from './HighPoints.tsx';
import { NewRubber } from './NewRubber.tsx';
import { PlanDetails } from './PlanDetails.tsx';
import { type Choices, POURS, STARTING, tryPlan, type Way } from './planning.ts';
import { RubberFit, rankRubbers } from './RubberFit.tsx';

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
  return <Bench masters={masters.data.items} rubbers={materials.data.items.filter((row) => row.kind === 'silicone')} />;
}

function Bench({ masters, rubbers }: { masters: MasterRow[]; rubbers: Material[] }) {
  const { text, workshop, taste, say } = useTaste();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const [masterId, setMasterId] = useState(
    search.get('master') ?? masters.find((row) => row.latest.volumeMl)?.id ?? masters[0]?.id ?? '',
  );
  const [rubberId, setRubberId] = useState('');
  const [adding, setAdding] = useState(false);
  const [choices, setChoices] = useState<Choices>({
    ...STARTING,
    way: (Object.keys(POURS) as Way[]).find((one) => one === search.get('pour')) ?? 'open-face',
    roomC: workshop.roomC,
  });
  const [name, setName] = useState<string>();
  const master = masters.find((row) => row.id === masterId) ?? (masters[0] as MasterRow);
  const rubber = rubbers.find((row) => row.id === rubberId) ?? rankRubbers(rubbers, choices.way)[0];
  const { planned: found, refused } = tryPlan(master.latest, rubber, choices);
  const planned = found?.plan;
  const stepMm = taste.system === 'us' ? 25.4 / 16 : 1;
  const change = (part: Partial<Choices>) => setChoices((now) => ({ ...now, ...part }));
  // Another box or another count puts the masters back into their rows.
  const step = (key: 'count' | 'wallMm' | 'gapMm' | 'coverMm' | 'wastePercent', by: number, least: number) =>
    change({ [key]: Math.max(least, choices[key] + by), places: null });
  const way = POURS[choices.way];
  const moldName = name ?? `${master.name} × ${choices.count}, ${way.words}`;
  const make = useWrite<Mold, boolean>(
    () => ({
      path: '/molds',
      body: {
        name: moldName,
        kind: way.kind,
        fill: way.fill,
        baitId: master.baitId,
        revisionId: master.latest.id,
        cavities: choices.count,
        cavityMl: found?.master.volumeMl,
        rubberId: rubber?.id,
        planInput: found?.input,
        making: found?.making,
      },
    }),
    async (mold, mixed) => {
      // Should the second call fail, the mold's own page still offers "Mixed now".
      try {
        if (mixed) await call(`/molds/${mold.id}/events`, { method: 'POST', body: { kind: 'mixed' } });
      } finally {
        navigate(`/molds/${mold.id}`);
      }
    },
  );
  const pour = planned?.pours[0];
  return (
    <Page
      title={`${master.name} × ${choices.count}, ${way.words}`}
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
      actions={
        <>
          <SelectField
            label="Poured as"
            value={choices.way}
            options={(Object.keys(POURS) as Way[]).map((one) => ({ value: one, label: POURS[one].words }))}
            onChange={(one) => change({ way: one, places: null })}
            className="w-32"
          />
          <SelectField
            label="Master"
            value={master.id}
            options={masters.map((row) => ({ value: row.id, label: `${row.name} v${row.latest.number}` }))}
            onChange={(id) => {
              setMasterId(id);
              change({ places: null, filledMl: null });
            }}
            className="w-48"
          />
          {rubbers.length > 0 && (
            <SelectField
              label="Rubber"
              value={rubber?.id ?? ''}
              options={rubbers.map((row) => ({ value: row.id, label: row.name }))}
              onChange={setRubberId}
              className="w-44"
            />
          )}
          <button type="button" className="link self-center text-sm" onClick={() => setAdding(!adding)}>
            {rubbers.length === 0 ? 'Add the rubber you have' : 'another rubber'}
          </button>
        </>
      }
    >
      {(adding || rubbers.length === 0) && (
        <NewRubber
          onDone={(id) => {
            setRubberId(id);
            setAdding(false);
          }}
        />
      )}
      {master.latest.volumeMl === null && (
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
      )}
      {refused && (
        <p className="heat font-bold text-lg" role="alert">
          {say(refused)}
        </p>
      )}
      {found && planned && pour && rubber && (
        <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_400px] xl:grid-cols-[minmax(540px,1fr)_430px] gap-8 items-start -mt-2">
          <div className="flex flex-col gap-4">
            <BoxDrawing
              plan={planned}
              master={{ ...found.master, shape: master.shape }}
              count={choices.count}
              twoPiece={choices.way === 'two-piece'}
              places={found.places}
              thinnest={found.thinnest}
              onMove={(index, to) => change({ places: found.places.map((place, at) => (at === index ? to : place)) })}
            />
            {found.thinnest.mm < WEAK_WALL_MM - 1e-6 && (
              <p className="warn font-bold" role="alert">
                {found.thinnest.mm <= 0
                  ? `A master touches ${found.thinnest.between === 'a wall' ? 'the wall' : 'another'}: there is no rubber there.`
                  : `Only ${text(found.thinnest.mm, 'length')} of rubber between a master and ${found.thinnest.between === 'a wall' ? 'the wall' : 'the next'}: under ${text(WEAK_WALL_MM, 'length')} it tears.`}{' '}
                {choices.places && (
                  <button type="button" className="link" onClick={() => change({ places: null })}>
                    Back in rows
                  </button>
                )}
              </p>
            )}
            <div className="flex gap-8 flex-wrap">
              <Stepper label="Masters" shown={String(choices.count)} onStep={(by) => step('count', by, 1)} />
              <Stepper
                label="Wall"
                shown={text(choices.wallMm, 'length')}
                onStep={(by) => step('wallMm', by * stepMm, 3)}
                isDefault={choices.wallMm === STARTING.wallMm}
              />
              <Stepper
                label="Between"
                shown={text(choices.gapMm, 'length')}
                onStep={(by) => step('gapMm', by * stepMm, 3)}
                isDefault={choices.gapMm === STARTING.gapMm}
              />
              <Stepper
                label="Over the top"
                shown={text(choices.coverMm, 'length')}
                onStep={(by) => step('coverMm', by * stepMm, 3)}
                isDefault={choices.coverMm === STARTING.coverMm}
              />
              <Stepper
                label="For the cup’s walls"
                shown={`${choices.wastePercent} %`}
                onStep={(by) => step('wastePercent', by, 0)}
                isDefault={choices.wastePercent === STARTING.wastePercent}
              />
            </div>
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
              <TextField label="Name of the mold" value={moldName} onChange={setName} />
            </div>
            <PlanDetails planned={found} choices={choices} measuredMl={master.latest.volumeMl} onChange={change} />
            <BoxToCut
              inside={{
                lengthMm: planned.boxLengthMm,
                widthMm: planned.boxWidthMm,
                heightMm: planned.boxHeightMm,
              }}
              name={moldName}
            />
          </div>
          <div className="flex flex-col gap-4">
            <h2 className="text-2xl">
              Mix {text(pour.mixMl, 'volume')}
              {planned.pours.length > 1 && ' for each half'},{' '}
              {pour.mixes === 1 ? 'in one go' : `in ${pour.mixes} mixes`}
            </h2>
            {pour.mixes > 1 && <p className="-mt-3 soft">The cylinders show one mix of {pour.mixes}.</p>}
            <div className="flex flex-wrap">
              <Cylinder
                title="Part A"
                note="stir the tin first"
                ml={pour.mlA / pour.mixes}
                grams={pour.gramsA / pour.mixes}
                heightPx={230}
                widthPx={82}
              />
              <Cylinder
                title="Part B"
                note="into the same tared cup"
                ml={pour.mlB / pour.mixes}
                grams={pour.gramsB / pour.mixes}
                heightPx={230}
                widthPx={58}
              />
            </div>
            <p>
              Pot life at {text(choices.roomC, 'temperature')} is <b>{durationText(planned.potLifeMin * 60)}</b>
              {Math.abs(planned.potLifeMin - (rubber.potLifeMin ?? 0)) >= 1 && (
                <>, not the {rubber.potLifeMin} min on the tin</>
              )}
              ; demold after <b>{durationText(planned.demoldMin * 60)}</b>. Vacuum cup of at least{' '}
              <b>{text(planned.vacuumCupMl, 'volume')}</b>.{' '}
              <Why
                reason={{
                  inputs: [
                    [
                      'block',
                      `${text(planned.boxLengthMm, 'length')} × ${text(planned.boxWidthMm, 'length')} × ${text(planned.boxHeightMm, 'length')}`,
                    ],
                    ['masters in it', text(found.master.volumeMl * choices.count, 'volume')],
                    ['net rubber', text(pour.netMl, 'volume')],
                    ['rated at', text(rubber.ratedC ?? usual('ratedC'), 'temperature')],
                  ],
                  formula:
                    'Rubber = block − masters, plus waste. Times double for each 10 °C below the rated temperature and halve above it.',
                  grounds: [
                    'Wall, gap, cover and waste are defaults until you change them.',
                    'The ten-degree rule is a starting value: the rubber’s own sheet wins.',
                  ],
                  change: 'One master fewer, or a thinner wall, saves most rubber.',
                }}
              />
            </p>
            {rubber.levelG > 0 && planned.pours.length * (pour.gramsA + pour.gramsB) > rubber.levelG && (
              <p className="heat font-bold">
                The store holds {text(rubber.levelG, 'mass')}: not enough for this block.
              </p>
            )}
            <Refusal error={make.error} />
            <div className="flex flex-wrap gap-3">
              {!found.bed && (
                <button
                  type="button"
                  className="btn btn-primary btn-lg px-4"
                  disabled={make.isPending}
                  onClick={() => make.mutate(true)}
                >
                  Mixed now: start the clocks
                </button>
              )}
              <button
                type="button"
                className={`btn btn-lg px-4 ${found.bed ? 'btn-primary' : 'btn-line'}`}
                disabled={make.isPending}
                onClick={() => make.mutate(false)}
              >
                {found.bed ? 'Keep the plan, then mix the resin' : 'Keep the plan'}
              </button>
            </div>
            <RubberFit rubber={rubber} rubbers={rubbers} master={master} way={choices.way} planned={found} />
            {choices.way !== 'open-face' && master.latest.meshId && (
              <HighPoints meshId={master.latest.meshId} lengthMm={master.latest.lengthMm} />
            )}
            <Caution about={['rubber']} />
          </div>
        </div>
      )}
    </Page>
  );
}
