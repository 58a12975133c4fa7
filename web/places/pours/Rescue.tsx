import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Waiting } from '../../../contract/pours.ts';
import type { Rescue as Found } from '../../../core/plastisol/rescue.ts';
import { durationText } from '../../../core/units/show.ts';
import { call } from '../../api/client.ts';
import { AMID, Dialog } from '../../parts/Dialog.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { AtTheCup } from './useAtTheCup.ts';

/** What this cup can still make before it leaves its window: of which mold, for whom. */
export function Rescue({ at: { pour, heat, folded } }: { at: AtTheCup }) {
  const [secondsLeft, setSeconds] = useState<number | null>(null);
  if (folded.heats.length === 0) return null;
  return (
    <div className="px-3.5">
      <button
        type="button"
        className="btn btn-line bench-target"
        onClick={() => setSeconds(Math.max(0, Math.round(heat?.leaves.inS ?? 0)))}
      >
        Rescue this cup
      </button>
      <Dialog
        open={secondsLeft !== null}
        onClose={() => setSeconds(null)}
        label="Rescue this cup"
        className={`${AMID} w-[760px]`}
      >
        <h2 className="mb-2">What this cup can still make</h2>
        {secondsLeft !== null && <Still pourId={pour.id} secondsLeft={secondsLeft} knows={heat !== null} />}
        <button type="button" className="btn btn-primary bench-target mt-4" onClick={() => setSeconds(null)}>
          Back to the cup
        </button>
      </Dialog>
    </div>
  );
}

function Still({ pourId, secondsLeft, knows }: { pourId: string; secondsLeft: number; knows: boolean }) {
  const { text } = useTaste();
  const { data: waiting, error } = useQuery({
    queryKey: ['pours', pourId, 'waiting'],
    queryFn: () => call<Waiting>(`/pours/${pourId}/waiting`),
    // As it is at this moment: another tablet may have filled a mold.
    staleTime: 0,
    gcTime: 0,
  });
  const asked =
    waiting && secondsLeft > 0 && waiting.molds.length > 0
      ? {
          availableMl: waiting.availableMl,
          secondsLeft,
          molds: waiting.molds.map(({ name: _, ...mold }) => mold),
        }
      : null;
  const rescue = useQuery({
    queryKey: ['pours', pourId, 'rescue', asked],
    queryFn: () => call<Found>('/calc/batch.rescue', { method: 'POST', body: asked }),
    enabled: asked !== null,
    retry: false,
    throwOnError: false,
  });
  if (!knows) return <p className="text-lg">Not known how long it lasts: read the cup first.</p>;
  if (secondsLeft === 0)
    return <p className="text-lg">It has left its window. Reheat it first, or let it go to its remelt bin.</p>;
  if (error) return <Refusal error={error} />;
  if (!waiting) return <p className="text-lg soft">Looking at what stands empty …</p>;
  if (waiting.molds.length === 0) return <p className="text-lg">No mold stands empty: open one first.</p>;
  const nameOf = (id: string) => waiting.molds.find((mold) => mold.id === id)?.name ?? '';
  return (
    <div className="flex flex-col gap-3 text-lg">
      <p>
        About <b className="figure text-2xl">{text(waiting.availableMl, 'volume')}</b> are left, for{' '}
        <b className="figure text-2xl">{durationText(secondsLeft)}</b>.
      </p>
      <Refusal error={rescue.error} />
      {rescue.isFetching && <p className="soft">Trying what fits …</p>}
      {rescue.data && (
        <>
          <ul className="ruled border-y border-[var(--rule)]">
            {rescue.data.shots.map(({ id, shots, baits, wanted }) => (
              <li key={id} className="flex flex-wrap gap-x-4 items-baseline py-2">
                <b className="figure text-3xl">{shots} ×</b>
                <b className="flex-1">{nameOf(id)}</b>
                <span>
                  <b className="figure">{baits}</b> baits
                  {wanted > 0 ? (
                    <>
                      , <b className="figure">{Math.min(wanted, baits)}</b> of them ordered
                    </>
                  ) : (
                    ', for the rack'
                  )}
                </span>
              </li>
            ))}
          </ul>
          <p>
            {durationText(rescue.data.seconds)} of hands; {text(rescue.data.leftMl, 'volume')} are left over.{' '}
            <span className="default-mark">default</span>
          </p>
        </>
      )}
    </div>
  );
}
