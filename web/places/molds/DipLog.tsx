import { useState } from 'react';
import type { Mold } from '../../../contract/molds.ts';
import { Failure } from '../../../core/failure.ts';
import { dipPlan } from '../../../core/mold/dip.ts';
import { dipFit } from '../../../core/mold/dipFit.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { dateText } from '../../parts/dates.ts';
import { NumberField, QuantityField, Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useTakeBack } from './Weighings.tsx';
import { hundredths } from './words.ts';

const START = { wallPerDipMm: 0.7, perDegree: 0.03 };

/** How many dips make the wall, from what dips built here before. */
export function DipLog({ mold }: { mold: Mold }) {
  const taste = useTaste();
  const { text } = taste;
  const [rodMm, setRod] = useState<number | null>(6);
  const [tubeMm, setTube] = useState<number | null>(80);
  const [wallMm, setWall] = useState<number | null>(2);
  const [cupC, setCup] = useState<number | null>(155);
  const [tubes, setTubes] = useState<number | null>(mold.cavities * 2);
  const { dips: log } = mold.care;
  const fit =
    log.length > 0
      ? dipFit({
          log: log.map(({ dips, wallMm: wall, cupC: c }) => ({ dips, wallMm: wall, cupC: c })),
          priorPerDipMm: START.wallPerDipMm,
          priorPerDegree: START.perDegree,
          priorDips: 3,
        })
      : null;
  const plan = () => {
    if (!rodMm || !tubeMm || !wallMm || !cupC || !tubes) return null;
    try {
      return dipPlan({
        rodMm,
        lengthMm: tubeMm,
        wallMm,
        cupC,
        tubes: Math.round(tubes),
        wallPerDipMm: fit?.wallPerDipMm ?? START.wallPerDipMm,
        perDegree: fit?.perDegree ?? START.perDegree,
        noseMm: 2,
        dripFraction: 0.1,
        cupDiameterMm: 75,
      });
    } catch (error) {
      if (error instanceof Failure) return error.message;
      throw error;
    }
  };
  const planned = plan();
  return (
    <section className="flex flex-col gap-3">
      <h2>Dips</h2>
      <div className="grid grid-cols-2 sm:grid-cols-5 gap-3 max-w-2xl">
        <QuantityField label="Rod" dimension="length" value={rodMm} onChange={setRod} isDefault={rodMm === 6} />
        <QuantityField
          label="Tube, long"
          dimension="length"
          value={tubeMm}
          onChange={setTube}
          isDefault={tubeMm === 80}
        />
        <QuantityField
          label="Wall wanted"
          dimension="length"
          value={wallMm}
          onChange={setWall}
          isDefault={wallMm === 2}
        />
        <QuantityField label="Cup" dimension="temperature" value={cupC} onChange={setCup} isDefault={cupC === 155} />
        <NumberField label="Tubes" value={tubes} onChange={setTubes} min={1} />
      </div>
      {typeof planned === 'string' && <p className="heat font-bold">{planned}</p>}
      {planned && typeof planned !== 'string' && (
        <p className="text-lg">
          <b className="big">{planned.dips}</b> dips of {hundredths(planned.wallPerDip, taste)} each. Cook{' '}
          <b className="figure">{text(planned.cookMl, 'volume')}</b>: {text(planned.mlPerTube, 'volume')} a tube, the
          rest stands in the cup.
        </p>
      )}
      <p className="soft">
        {fit
          ? `${hundredths(fit.wallPerDipMm, taste)} a dip at ${text(155, 'temperature')}, ${(100 * fit.perDegree).toFixed(1)} % less each °C hotter, fitted from ${fit.readings} ${fit.readings === 1 ? 'reading' : 'readings'} here beside the starting values; a wall is missed by ${hundredths(fit.missMm, taste)}.`
          : `${hundredths(START.wallPerDipMm, taste)} a dip at ${text(155, 'temperature')} is a starting value: log what yours build.`}
      </p>
      <LogDip mold={mold} />
      <Caution about={['dip', 'hot']} />
    </section>
  );
}

function LogDip({ mold }: { mold: Mold }) {
  const taste = useTaste();
  const { text } = taste;
  const [dips, setDips] = useState<number | null>(3);
  const [wallMm, setWall] = useState<number | null>(null);
  const [cupC, setCup] = useState<number | null>(155);
  const add = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}/dips`, body: { dips, wallMm, cupC } }),
    () => setWall(null),
  );
  const back = useTakeBack(mold, 'dips');
  return (
    <>
      <form
        className="grid grid-cols-2 sm:grid-cols-[1fr_1fr_1fr_auto] gap-3 items-start max-w-2xl"
        onSubmit={(event) => {
          event.preventDefault();
          if (dips && wallMm && cupC) add.mutate();
        }}
      >
        <NumberField label="Dipped, times" value={dips} onChange={setDips} min={1} />
        <QuantityField label="Wall it built" dimension="length" value={wallMm} onChange={setWall} />
        <QuantityField label="Cup was at" dimension="temperature" value={cupC} onChange={setCup} />
        <button
          type="submit"
          className="btn btn-primary mt-[1.45rem]"
          disabled={!dips || !wallMm || !cupC || add.isPending}
        >
          Log it
        </button>
      </form>
      <Refusal error={add.error ?? back.error} />
      <ul className="ruled max-w-2xl">
        {mold.care.dips.map((row) => (
          <li key={row.id} className="flex gap-3 py-1 items-baseline">
            <span className="flex-1">
              <span className="figure">{row.dips}</span> dips at {text(row.cupC, 'temperature')}
            </span>
            <span className="figure">{hundredths(row.wallMm, taste)}</span>
            <span className="soft text-sm w-24 text-right">{dateText(row.at)}</span>
            <button type="button" className="link text-sm" onClick={() => back.mutate(row.id)}>
              take back
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
