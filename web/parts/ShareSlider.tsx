interface Props {
  /** Of a hundred. */
  value: number;
  min: number;
  onChange(value: number): void;
  /** Said after the figure: "of the plastic". */
  says: string;
  before?: string;
}

/** A share, drawn along with a finger. */
export const ShareSlider = ({ value, min, onChange, says, before = '' }: Props) => (
  <label className="pb-5">
    <span className="label-small block">
      {before}
      <b className="figure">{value} %</b> {says}
    </span>
    <input
      type="range"
      min={min}
      max={100}
      step={5}
      value={value}
      onChange={(event) => onChange(Number(event.target.value))}
      className="w-56"
    />
  </label>
);
