/** One thing that a mold has or has not. */
export function Tick({ label, on, onTick }: { label: string; on: boolean; onTick(on: boolean): void }) {
  return (
    <label className="flex items-center justify-between gap-2 text-sm leading-tight min-h-7">
      {label}
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        checked={on}
        onChange={(event) => onTick(event.target.checked)}
      />
    </label>
  );
}
