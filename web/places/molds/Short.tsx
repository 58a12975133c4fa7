import type { Mold } from '../../../contract/molds.ts';
import { topUp } from '../../../core/mold/silicone.ts';
import { durationText } from '../../../core/units/show.ts';
import { Cylinder } from '../../parts/Cylinder.tsx';
import { QuantityField } from '../../parts/Fields.tsx';

interface Props {
  plan: NonNullable<Mold['plan']>;
  /** Since the newest mix, minutes. */
  sinceMin: number;
  missingMm: number | null;
  onMissing(mm: number | null): void;
  onToppedUp(): void;
}

/** What still has to be mixed when the rubber stands below its line, and whether it bonds. */
export function Short({ plan: { input, output }, sinceMin, missingMm, onMissing, onToppedUp }: Props) {
  const top =
    missingMm && missingMm < output.boxHeightMm
      ? topUp({
          mix: input.mix,
          boxLengthMm: output.boxLengthMm,
          boxWidthMm: output.boxWidthMm,
          missingDepthMm: missingMm,
          wasteFraction: input.wasteFraction,
          minutesSinceMixed: sinceMin,
          potLifeMin: output.potLifeMin,
        })
      : null;
  return (
    <div className="sheet p-4 flex flex-col gap-3">
      <QuantityField
        label="How far below the line does it stand?"
        dimension="length"
        value={missingMm}
        onChange={onMissing}
        autoFocus
      />
      {top && (
        <>
          <p className="text-lg font-bold" style={{ color: top.bondsToFirst ? 'var(--rest)' : 'var(--heat)' }}>
            {top.minutesLeft > 0
              ? `There is time: ${durationText(top.minutesLeft * 60)} of pot life left.`
              : top.bondsToFirst
                ? `Pot life is past by ${durationText(-top.minutesLeft * 60)}, but it still bonds. Do it now.`
                : 'Too late to bond: let it cure, scuff the top, and pour the rest as a layer of its own.'}
          </p>
          <div className="flex flex-wrap">
            <Cylinder title="Part A" note="" ml={top.mlA} grams={top.gramsA} heightPx={150} widthPx={72} />
            <Cylinder title="Part B" note="" ml={top.mlB} grams={top.gramsB} heightPx={150} widthPx={52} />
          </div>
          <button type="button" className="btn btn-primary self-start" onClick={onToppedUp}>
            Topped up
          </button>
        </>
      )}
    </div>
  );
}
