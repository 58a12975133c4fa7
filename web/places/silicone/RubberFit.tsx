import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Planned, Way } from '../../../core/mold/blockPlan.ts';
import { pairing, suits } from '../../../core/mold/suitable.ts';
import { useTaste } from '../../parts/taste.tsx';

/** Rubbers of the store, those that suit this mold first. */
export function rankRubbers(rubbers: Material[], way: Way): Material[] {
  const miss = (rubber: Material) => suits(rubber, { pour: way, undercutMm2: 0 }).miss ?? 5;
  return [...rubbers].sort((a, b) => miss(a) - miss(b));
}

/** Whether this rubber suits the mold, what the master does to its cure, what it costs and how many a kit makes. */
export function RubberFit({
  rubber,
  rubbers,
  master,
  way,
  planned,
}: {
  rubber: Material;
  rubbers: Material[];
  master: MasterRow;
  way: Way;
  planned: Planned;
}) {
  const { text, money } = useTaste();
  const need = { pour: way, undercutMm2: 0 };
  const suited = suits(rubber, need);
  const better = rankRubbers(rubbers, way)[0];
  const betterMiss = better ? suits(better, need).miss : null;
  const cure = pairing(master.kind, rubber.cure);
  const grams = planned.plan.pours.reduce((sum, pour) => sum + pour.gramsA + pour.gramsB, 0);
  const kitG = Math.max(0, ...rubber.lots.map((lot) => lot.levelG));
  const { pricePerKgMinor } = rubber;
  return (
    <div className="flex flex-col gap-1.5">
      <p className={suited.miss !== null && suited.miss > 3 ? 'warn font-bold' : ''}>
        {suited.say}
        {suited.miss !== null &&
          suited.miss > 3 &&
          better &&
          better.id !== rubber.id &&
          betterMiss !== null &&
          betterMiss < suited.miss && <> {better.name} suits it better.</>}
      </p>
      <p className={cure.risk === 'fine' ? 'soft' : 'font-bold'}>
        <span className={cure.risk === 'stops' ? 'heat' : ''}>
          {rubber.cure === 'tin'
            ? 'Tin cure'
            : rubber.cure === 'platinum'
              ? 'Platinum cure'
              : 'Cure not written down, taken for platinum'}
          : {cure.why}
        </span>
        {way === 'two-piece' && rubber.cure !== 'tin' && ' The clay of the bed must be free of sulphur.'}
      </p>
      <p>
        {pricePerKgMinor !== null && (
          <>
            <b>{money(pricePerKgMinor)}</b> a kilogram, <b>{money((grams / 1000) * pricePerKgMinor)}</b> this block of{' '}
            {text(grams, 'mass')}.{' '}
          </>
        )}
        {rubber.levelG > 0 && (
          <>
            The store’s {text(rubber.levelG, 'mass')} make <b className="figure">{Math.floor(rubber.levelG / grams)}</b>{' '}
            of them{rubber.lots.length > 1 && kitG > 0 && <>, the fullest kit {Math.floor(kitG / grams)}</>}; a kilogram{' '}
            {grams <= 1000 ? <b className="figure">{Math.floor(1000 / grams)}</b> : 'does not make one'}.
          </>
        )}
      </p>
    </div>
  );
}
