import type { Mold } from '../../../contract/molds.ts';
import { durationText } from '../../../core/units/show.ts';
import { useNow } from '../../api/now.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** Resin first: worked, the masters straightened while it firms, and only then rubber. */
export function Bed({ mold, bed }: { mold: Mold; bed: NonNullable<NonNullable<Mold['making']>['bed']> }) {
  const now = useNow();
  const { text } = useTaste();
  const event = useWrite<Mold>(() => ({ path: `/molds/${mold.id}/events`, body: { kind: 'bedded' } }));
  const at = mold.events.findLast((row) => row.kind === 'bedded')?.at;
  const sinceMin = at ? Math.max(0, (now - Date.parse(at)) / 60_000) : 0;
  const [say, leftMin] =
    sinceMin < bed.workMin
      ? ['Work it, set the masters', bed.workMin - sinceMin]
      : ['Keep them straight while it firms', bed.firmMin - sinceMin];
  return (
    <div className="sheet p-4 flex flex-col gap-2">
      <h2 className="text-2xl">
        Bed: {text(bed.gramsA, 'mass')} of A, {text(bed.gramsB, 'mass')} of B, {text(bed.depthMm, 'length')} deep
      </h2>
      {!at ? (
        <>
          <p className="soft">Masters sunk {text(bed.sinkMm, 'length')} into it. Tap when both parts are one colour.</p>
          <button
            type="button"
            className="btn btn-primary btn-lg self-start bench-target"
            disabled={event.isPending}
            onClick={() => event.mutate()}
          >
            Resin mixed now: start its clocks
          </button>
        </>
      ) : leftMin > 0 ? (
        <p>
          {say}: <b className="figure text-xl">{durationText(leftMin * 60)}</b>
        </p>
      ) : (
        <p className="font-bold rest">The bed is firm: seal its edge, then the rubber.</p>
      )}
      <Refusal error={event.error} />
      <Caution about={['resin']} />
    </div>
  );
}
