import { useState } from 'react';
import type { Pour } from '../../../contract/pours.ts';
import { Failure } from '../../../core/failure.ts';
import { balance } from '../../../core/yield/counts.ts';
import { useWrite } from '../../api/write.ts';
import { QuantityField, Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** The scale's figures at the end of a cup; what nobody can account for shows while they are typed. */
export function CloseForm({ pour, open, onDone }: { pour: Pour; open: boolean; onDone?: () => void }) {
  const { text } = useTaste();
  const before = pour.balance;
  // Salt, flake and colour lie on the scale with the plastisol.
  const plannedG = Math.round(pour.plan.cookG + pour.dosed.g);
  const [cookedG, setCooked] = useState<number | null>(before?.cookedG ?? plannedG);
  const [goodG, setGood] = useState<number | null>(before?.goodG ?? null);
  const [rejectG, setReject] = useState<number | null>(before?.rejectG ?? null);
  const [returnedG, setReturned] = useState<number | null>(before?.returnedG ?? null);
  const [residueG, setResidue] = useState<number | null>(before?.residueG ?? null);
  const marks = pour.shots.flatMap((shot) => shot.marks);
  const made = pour.shots.reduce(
    (sum, shot) => sum + (pour.molds.find((mold) => mold.moldId === shot.moldId)?.cavities ?? 0),
    0,
  );
  const good = marks.filter((mark) => mark.result === 'good').length;
  const bad = marks.filter((mark) => mark.result === 'bad').length;
  const body = {
    cookedG: cookedG ?? 0,
    goodG: goodG ?? 0,
    rejectG: rejectG ?? 0,
    returnedG: returnedG ?? 0,
    residueG: residueG ?? 0,
  };
  const close = useWrite<Pour>(() => ({ path: `/pours/${pour.id}/${before ? 'weigh' : 'close'}`, body }), onDone);
  let figures: ReturnType<typeof balance> | undefined;
  let refused: string | undefined;
  try {
    if (cookedG) figures = balance(body);
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    refused = error.message;
  }
  return (
    <section className="sheet p-5 no-print" id="close">
      <h2 className="text-2xl mb-1">{before ? 'Weighed again' : 'Close the cup'}</h2>
      <p className="mb-4">
        <b className="figure">{good}</b> good, <b className="figure">{bad}</b> bad of <b className="figure">{made}</b>{' '}
        made.
        {made > good + bad && <b className="warn"> {made - good - bad} are not marked yet.</b>}
      </p>
      <form
        className="grid grid-cols-2 sm:grid-cols-3 xl:grid-cols-[repeat(5,1fr)_auto] gap-4 items-start"
        onSubmit={(event) => {
          event.preventDefault();
          close.mutate();
        }}
      >
        <QuantityField
          label="Cooked"
          dimension="mass"
          value={cookedG}
          onChange={setCooked}
          isDefault={!before && cookedG === plannedG}
          hint={
            pour.dosed.g >= 1
              ? `as planned until weighed, with ${text(pour.dosed.g, 'mass')} dosed${pour.dosed.byDefault.length > 0 ? ` (${pour.dosed.byDefault.join(', ')} by a default)` : ''}`
              : 'as planned until weighed'
          }
        />
        <QuantityField label="Good baits" dimension="mass" value={goodG} onChange={setGood} autoFocus={open} />
        <QuantityField label="Rejects" dimension="mass" value={rejectG} onChange={setReject} />
        <QuantityField
          label="Sprues and leftover"
          dimension="mass"
          value={returnedG}
          onChange={setReturned}
          hint="to the remelt bin"
        />
        <QuantityField
          label="Left on the cup"
          dimension="mass"
          value={residueG}
          onChange={setResidue}
          hint="lost; empty: 0"
        />
        <button
          type="submit"
          className="btn btn-primary btn-lg mt-5"
          disabled={close.isPending || !cookedG || Boolean(refused)}
        >
          {before ? 'Keep' : 'Close'}
        </button>
      </form>
      {refused && (
        <p className="heat font-bold mt-2" role="alert">
          {refused}
        </p>
      )}
      {figures && goodG !== null && (
        <p className="mt-2">
          Yield <b className="figure text-xl">{(figures.yieldFraction * 100).toFixed(1)} %</b>, unaccounted{' '}
          <b className="figure text-xl">{text(figures.unaccountedG, 'mass')}</b> (
          {(figures.unaccountedFraction * 100).toFixed(1)} %)
        </p>
      )}
      <Refusal error={close.error} />
    </section>
  );
}
