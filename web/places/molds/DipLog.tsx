import { useState } from 'react';
import { dipBody, type Mold } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { Failure } from '../../../core/failure.ts';
import { dipPlan, dipSchema } from '../../../core/mold/dip.ts';
import { dipFit, dipFitSchema } from '../../../core/mold/dipFit.ts';
import { check } from '../../../core/validate.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { dateText } from '../../parts/dates.ts';
import { NumberField, QuantityField, Refusal } from '../../parts/Fields.tsx';
import { FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

/** How many dips make the wall, from what dips built here before. */
export function DipLog({ mold }: { mold: Mold }) {
  const taste = useTaste();
  const { text } = taste;
  const [rodMm, setRod] = useState<number | null>(6);
  const [tubeMm, setTube] = useState<number | null>(80);
  const [wallMm, setWall] = useState<number | null>(2);
  const [cupC, setCup] = useState<number | null>(usual('dipC'));
  const [tubes, setTubes] = useState<number | null>(mold.cavities * 2);
  const { dips: log } = mold.care;
  const fit =
    log.length > 0
      ? dipFit(
          check(dipFitSchema, { log: log.map(({ dips, wallMm: wall, cupC: c }) => ({ dips, wallMm: wall, cupC: c })) }),
        )
      : null;
  const plan = () => {
    if (!rodMm || !tubeMm || !wallMm || !cupC || !tubes) return null;
    try {
      return dipPlan(
        check(dipSchema, {
          rodMm,
          lengthMm: tubeMm,
          wallMm,
          cupC,
          tubes: Math.round(tubes),
          ...(fit ? { wallPerDipMm: fit.wallPerDipMm, perDegree: fit.perDegree } : {}),
        }),
      );
    } catch (error) {
      if (error instanceof Failure) return taste.say(error.told);
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
        <QuantityField
          label="Cup"
          dimension="temperature"
          value={cupC}
          onChange={setCup}
          isDefault={cupC === usual('dipC')}
        />
        <NumberField label="Tubes" value={tubes} onChange={setTubes} min={1} />
      </div>
      {typeof planned === 'string' && <p className="heat font-bold">{planned}</p>}
      {planned && typeof planned !== 'string' && (
        <p className="text-lg">
          <b className="big">{planned.dips}</b> dips of {taste.fine(planned.wallPerDip)} each. Cook{' '}
          <b className="figure">{text(planned.cookMl, 'volume')}</b>: {text(planned.mlPerTube, 'volume')} a tube, the
          rest stands in the cup.
        </p>
      )}
      <p className="soft">
        {fit
          ? `${taste.fine(fit.wallPerDipMm)} a dip at ${text(usual('dipC'), 'temperature')}, ${(100 * fit.perDegree).toFixed(1)} % less each °C hotter, fitted from ${fit.readings} ${fit.readings === 1 ? 'reading' : 'readings'} here beside the starting values; a wall is missed by ${taste.fine(fit.missMm)}.`
          : `${taste.fine(usual('dipWallMm'))} a dip at ${text(usual('dipC'), 'temperature')} is a starting value: log what yours build.`}
      </p>
      <LogDip mold={mold} />
      <Caution about={['dip', 'hot']} />
    </section>
  );
}

function LogDip({ mold }: { mold: Mold }) {
  const taste = useTaste();
  const { text } = taste;
  const [begun] = useState({ dips: 3, wallMm: null, cupC: usual('dipC') });
  const sheet = useSheet({ schema: dipBody, keep: `mold/${mold.id}/dip`, seen: begun });
  const add = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}/dips`, body: sheet.values }),
    () => {
      sheet.set('wallMm', null);
      sheet.done();
    },
  );
  const back = useUndo();
  return (
    <>
      <Sheet
        of={sheet}
        by={add}
        onSend={() => add.mutate()}
        className="grid grid-cols-2 sm:grid-cols-3 gap-3 items-start max-w-2xl"
      >
        <FigureIn at="dips" starts />
        <FigureIn at="wallMm" />
        <FigureIn at="cupC" starts />
        <div className="col-span-full">
          <Send className="">Log it</Send>
        </div>
      </Sheet>
      <Refusal error={back.error} />
      <ul className="ruled max-w-2xl">
        {mold.care.dips.map((row) => (
          <li key={row.id} className="flex gap-3 py-1 items-baseline">
            <span className="flex-1">
              <span className="figure">{row.dips}</span> dips at {text(row.cupC, 'temperature')}
            </span>
            <span className="figure">{taste.fine(row.wallMm)}</span>
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
