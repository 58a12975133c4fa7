import type { Material } from '../../../contract/materials.ts';
import { usual } from '../../../core/defaults.ts';
import type { SiliconePlan } from '../../../core/mold/silicone.ts';
import { durationText } from '../../../core/units/show.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Cylinder } from '../../parts/Cylinder.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Why } from '../../parts/Why.tsx';
import { HighPoints } from './HighPoints.tsx';
import { RubberFit } from './RubberFit.tsx';
import type { Laid } from './usePlanning.ts';

/** What is mixed for the block, how long it can be poured, and the mold that it becomes. */
export function MixSide({ planning, rubbers }: { planning: Laid; rubbers: Material[] }) {
  const { text } = useTaste();
  const { found, rubber, master, choices, make } = planning;
  const pour = found.plan.pours[0] as SiliconePlan['pours'][number];
  const needG = found.plan.pours.length * (pour.gramsA + pour.gramsB);
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-2xl">
        Mix {text(pour.mixMl, 'volume')}
        {found.plan.pours.length > 1 && ' for each half'}, {pour.mixes === 1 ? 'in one go' : `in ${pour.mixes} mixes`}
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
      <Times planning={planning} netMl={pour.netMl} />
      {rubber.levelG > 0 && needG > rubber.levelG && (
        <p className="heat font-bold">The store holds {text(rubber.levelG, 'mass')}: not enough for this block.</p>
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
  );
}

function Times({ planning: { found, rubber, choices }, netMl }: { planning: Laid; netMl: number }) {
  const { text } = useTaste();
  const { potLifeMin, demoldMin, vacuumCupMl, boxLengthMm, boxWidthMm, boxHeightMm } = found.plan;
  const sides = [boxLengthMm, boxWidthMm, boxHeightMm].map((mm) => text(mm, 'length'));
  return (
    <p>
      Pot life at {text(choices.roomC, 'temperature')} is <b>{durationText(potLifeMin * 60)}</b>
      {Math.abs(potLifeMin - (rubber.potLifeMin ?? 0)) >= 1 && <>, not the {rubber.potLifeMin} min on the tin</>}
      {'; demold after '}
      <b>{durationText(demoldMin * 60)}</b>. Vacuum cup of at least <b>{text(vacuumCupMl, 'volume')}</b>.{' '}
      <Why
        reason={{
          inputs: [
            ['block', sides.join(' × ')],
            ['masters in it', text(found.master.volumeMl * choices.count, 'volume')],
            ['net rubber', text(netMl, 'volume')],
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
  );
}
