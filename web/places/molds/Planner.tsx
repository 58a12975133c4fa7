import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Mold } from '../../../contract/molds.ts';
import { Failure } from '../../../core/failure.ts';
import { type PlanInput, plan, type SiliconePlan } from '../../../core/mold/silicone.ts';
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
import { NewRubber } from './NewRubber.tsx';
import { RUBBER_ADVICE } from './words.ts';

const POURS = {
  'open-face': { words: 'open face', kind: 'silicone-open', fill: 'open-pour' },
  wrap: { words: 'wrap', kind: 'silicone-wrap', fill: 'gravity' },
  'two-piece': { words: 'two-piece', kind: 'silicone-two-piece', fill: 'gravity' },
} as const;
type Way = keyof typeof POURS;

interface Choices {
  way: Way;
  count: number;
  wallMm: number;
  gapMm: number;
  coverMm: number;
  wastePercent: number;
  roomC: number;
  mixCupMl: number | null;
}

const STARTING: Omit<Choices, 'roomC' | 'way'> = {
  count: 3,
  wallMm: 10,
  gapMm: 8,
  coverMm: 10,
  wastePercent: 7,
  mixCupMl: null,
};

function inputOf(master: MasterRow, rubber: Material, choices: Choices): PlanInput | null {
  const { volumeMl, lengthMm, widthMm, heightMm } = master.latest;
  if (!volumeMl || !rubber.mix || !rubber.potLifeMin || !rubber.demoldMin) return null;
  const { densityAGPerMl = 1.1, densityBGPerMl = 1.1 } = rubber.mix;
  return {
    pour: choices.way,
    masters: [{ volumeMl, lengthMm, widthMm, heightMm, count: choices.count }],
    wallMm: choices.wallMm,
    gapMm: choices.gapMm,
    coverMm: choices.coverMm,
    wasteFraction: choices.wastePercent / 100,
    mix: { ...rubber.mix, densityAGPerMl, densityBGPerMl },
    potLifeMin: rubber.potLifeMin,
    demoldMin: rubber.demoldMin,
    ratedC: rubber.ratedC ?? 23,
    roomC: choices.roomC,
    ...(choices.mixCupMl ? { mixCupMl: choices.mixCupMl } : {}),
    ...(rubber.pricePerKgMinor === null ? {} : { pricePerKgMinor: rubber.pricePerKgMinor }),
  };
}

function tryPlan(input: PlanInput | null): { planned?: SiliconePlan; refused?: string } {
  if (!input) return {};
  try {
    return { planned: plan(input) };
  } catch (error) {
    if (error instanceof Failure) return { refused: error.message };
    throw error;
  }
}

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
  const { text, money, workshop, taste } = useTaste();
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
  const rubber = rubbers.find((row) => row.id === rubberId) ?? rubbers[0];
  const input = rubber ? inputOf(master, rubber, choices) : null;
  const { planned, refused } = tryPlan(input);
  const stepMm = taste.system === 'us' ? 25.4 / 16 : 1;
  const step = (key: keyof typeof STARTING, by: number, least: number) =>
    setChoices({ ...choices, [key]: Math.max(least, Number(choices[key]) + by) });
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
        cavityMl: master.latest.volumeMl,
        rubberId: rubber?.id,
        planInput: input,
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
            onChange={(one) => setChoices({ ...choices, way: one })}
            className="w-32"
          />
          <SelectField
            label="Master"
            value={master.id}
            options={masters.map((row) => ({ value: row.id, label: `${row.name} v${row.latest.number}` }))}
            onChange={setMasterId}
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
            Weigh it or sink it first.
          </Link>
        </p>
      )}
      {refused && (
        <p className="heat font-bold text-lg" role="alert">
          {refused}
        </p>
      )}
      {planned && pour && rubber && (
        <div className="grid grid-cols-[minmax(540px,1fr)_430px] gap-8 items-start -mt-2">
          <div className="flex flex-col gap-4">
            <BoxDrawing
              plan={planned}
              master={{ ...master.latest, shape: master.shape }}
              count={choices.count}
              wallMm={choices.wallMm}
              twoPiece={choices.way === 'two-piece'}
            />
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
            <div className="grid grid-cols-3 gap-5 max-w-2xl">
              <QuantityField
                label="Room"
                dimension="temperature"
                value={choices.roomC}
                onChange={(c) => c !== null && setChoices({ ...choices, roomC: c })}
                isDefault={choices.roomC === workshop.roomC}
              />
              <QuantityField
                label="Mixing cup holds"
                dimension="volume"
                value={choices.mixCupMl}
                onChange={(mixCupMl) => setChoices({ ...choices, mixCupMl })}
                hint="empty: one mix"
              />
              <TextField label="Name of the mold" value={moldName} onChange={setName} />
            </div>
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
            <div className="flex">
              <Cylinder
                title="Part A"
                note="stir the tin first"
                ml={pour.mlA / pour.mixes}
                grams={pour.gramsA / pour.mixes}
                heightPx={230}
                widthPx={92}
              />
              <Cylinder
                title="Part B"
                note="into the same tared cup"
                ml={pour.mlB / pour.mixes}
                grams={pour.gramsB / pour.mixes}
                heightPx={230}
                widthPx={70}
              />
            </div>
            <p>
              Pot life at {text(choices.roomC, 'temperature')} is <b>{durationText(planned.potLifeMin * 60)}</b>
              {Math.abs(planned.potLifeMin - (rubber.potLifeMin ?? 0)) >= 1 && (
                <>, not the {rubber.potLifeMin} min on the tin</>
              )}
              ; demold after <b>{durationText(planned.demoldMin * 60)}</b>. Vacuum cup of at least{' '}
              <b>{text(planned.vacuumCupMl, 'volume')}</b>.
              {planned.costMinor !== undefined && (
                <>
                  {' '}
                  Rubber for <b>{money(planned.costMinor)}</b>.
                </>
              )}{' '}
              <Why
                reason={{
                  inputs: [
                    [
                      'block',
                      `${text(planned.boxLengthMm, 'length')} × ${text(planned.boxWidthMm, 'length')} × ${text(planned.boxHeightMm, 'length')}`,
                    ],
                    ['masters in it', text((master.latest.volumeMl ?? 0) * choices.count, 'volume')],
                    ['net rubber', text(pour.netMl, 'volume')],
                    ['rated at', text(rubber.ratedC ?? 23, 'temperature')],
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
            <p className="soft -mt-2">{RUBBER_ADVICE[choices.way]}</p>
            {rubber.levelG > 0 && planned.pours.length * (pour.gramsA + pour.gramsB) > rubber.levelG && (
              <p className="heat font-bold">
                The store holds {text(rubber.levelG, 'mass')}: not enough for this block.
              </p>
            )}
            <Refusal error={make.error} />
            <div className="flex gap-3">
              <button
                type="button"
                className="btn btn-primary btn-lg px-4"
                disabled={make.isPending}
                onClick={() => make.mutate(true)}
              >
                Mixed now: start the clocks
              </button>
              <button
                type="button"
                className="btn btn-line btn-lg px-4"
                disabled={make.isPending}
                onClick={() => make.mutate(false)}
              >
                Keep the plan
              </button>
            </div>
            <Caution about={['rubber']} />
          </div>
        </div>
      )}
    </Page>
  );
}
