import { ChoiceIn, FigureIn } from '../../parts/sheet/In.tsx';
import { useTaste } from '../../parts/taste.tsx';

export interface Dimensions {
  lengthMm: number | null;
  widthMm: number | null;
  heightMm: number | null;
  thickestMm: number | null;
}

export const EMPTY: Dimensions = { lengthMm: null, widthMm: null, heightMm: null, thickestMm: null };
export const complete = (d: Dimensions): d is { [K in keyof Dimensions]: number } =>
  Object.values(d).every((value) => value !== null);

export function DimensionFields() {
  return (
    <div className="grid grid-cols-2 gap-4">
      <FigureIn at="lengthMm" />
      <FigureIn at="widthMm" hint="side to side" />
      <FigureIn at="heightMm" hint="off the board" />
      <FigureIn at="thickestMm" hint="sets baking and cooling" />
    </div>
  );
}

export interface Volume {
  how: 'later' | 'weighed' | 'displaced';
  grams: number | null;
  densityGPerMl: number | null;
  ml: number | null;
}

/** A volume as an empty sheet has it, to be weighed against this density. */
export const toWeigh = (densityGPerMl: number): Volume => ({ how: 'weighed', grams: null, densityGPerMl, ml: null });

/** The volume as it is sent; undefined where none was taken yet. */
export function volumeBodyOf({ how, grams, densityGPerMl, ml }: Volume) {
  if (how === 'weighed') return grams === null ? undefined : { how, grams, densityGPerMl };
  if (how === 'displaced') return { how, ml };
  return undefined;
}

export const volumeMlOf = ({ how, grams, densityGPerMl, ml }: Volume): number | null => {
  if (how === 'weighed') return grams !== null && densityGPerMl ? grams / densityGPerMl : null;
  return how === 'displaced' ? ml : null;
};

interface VolumeProps {
  /** Where the sheet has them: `volume.` or nothing. */
  under: string;
  value: Volume;
  usualDensity: number;
  canWait: boolean;
}

export function VolumeFields({ under, value, usualDensity, canWait }: VolumeProps) {
  const { text } = useTaste();
  const ml = volumeMlOf(value);
  return (
    <div className="flex flex-col gap-3">
      <ChoiceIn
        at={`${under}how`}
        label="Volume"
        options={[
          { value: 'weighed', label: 'Weighed, and the material’s density' },
          { value: 'displaced', label: 'Water displaced' },
          ...(canWait ? [{ value: 'later', label: 'Later' }] : []),
        ]}
      />
      {value.how === 'weighed' && (
        <div className="grid grid-cols-2 gap-4">
          <FigureIn at={`${under}grams`} />
          <FigureIn
            at={`${under}densityGPerMl`}
            isDefault={value.densityGPerMl === usualDensity}
            hint="the packet’s figure wins"
          />
        </div>
      )}
      {value.how === 'displaced' && (
        <FigureIn
          at={`${under}ml`}
          hint="sink it whole on a pin in a measuring cylinder; grams of water spilled are mL"
        />
      )}
      <p className="figure text-2xl" aria-live="polite">
        {ml === null ? '—' : text(ml, 'volume')}
      </p>
    </div>
  );
}
