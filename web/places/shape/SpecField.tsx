import { createContext, type ReactNode, useContext, useState } from 'react';
import { factsOf } from '../../../core/schema.ts';
import { type ShapeSpec, shapeSpecSchema } from '../../../core/shape/spec.ts';
import { USUAL_PART } from '../../../core/shape/starts.ts';
import { MmField } from '../../parts/MmField.tsx';
import { changed, valueAt } from '../../parts/sheet/paths.ts';

interface Within {
  spec: ShapeSpec;
  /** `about` names the figure, so that a hand that goes on turning it is undone at once. */
  set(spec: ShapeSpec, about: string | null): void;
  onSettle(): void;
}

export const SpecContext = createContext<Within | null>(null);

export function useSpec(): Within {
  const within = useContext(SpecContext);
  if (!within) throw new Error('a figure outside its shape');
  return within;
}

interface FieldProps {
  /** Path in the schema, which knows the bounds: `wrist.thicknessMm`. */
  at: string;
  label: string;
  step?: number;
  /** No length: a count, a share, degrees or grams. */
  plain?: boolean;
  /** What else follows from it. */
  follow?(spec: ShapeSpec, value: number): ShapeSpec;
}

/** One figure of a shape, bounded by the schema that it is kept by. */
export function SpecField({ at, label, follow, ...more }: FieldProps) {
  const { spec, set, onSettle } = useSpec();
  const path = at.split('.');
  const { least = 0, most = 0, whole } = factsOf(shapeSpecSchema, path);
  return (
    <MmField
      label={label}
      value={valueAt(spec, at) as number}
      least={least}
      most={most}
      {...(whole ? { step: 1, plain: true } : {})}
      {...more}
      onSettle={onSettle}
      onChange={(value) => {
        const next = changed(spec, path, whole ? Math.round(value) : value);
        set(follow ? follow(next, value) : next, at);
      }}
    />
  );
}

/** A place along the body, typed as a distance from the nose. */
export function SpecPlace({ at, label }: Pick<FieldProps, 'at' | 'label'>) {
  const { spec, set, onSettle } = useSpec();
  const path = at.split('.');
  const { least = 0, most = 1 } = factsOf(shapeSpecSchema, path);
  return (
    <MmField
      label={label}
      value={(valueAt(spec, at) as number) * spec.bodyMm}
      least={least * spec.bodyMm}
      most={most * spec.bodyMm}
      step={0.5}
      onSettle={onSettle}
      onChange={(value) => set(changed(spec, path, value / spec.bodyMm), at)}
    />
  );
}

/** One of a few words of a shape. */
export function ChoiceField({
  at,
  label,
  options,
}: {
  at: string;
  label: string;
  options: [key: string, words: string][];
}) {
  const { spec, set } = useSpec();
  return (
    <label className="flex items-center gap-2 text-sm">
      <span className="flex-1">{label}</span>
      <select
        className="select select-sm w-32"
        value={String(valueAt(spec, at))}
        onChange={(event) => set(changed(spec, at.split('.'), event.target.value), null)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

export function Section({ title, open = false, children }: { title: string; open?: boolean; children: ReactNode }) {
  return (
    <details open={open} className="border-b border-[var(--rule)] py-1.5">
      <summary className="cursor-pointer font-display font-bold text-[0.9375rem] py-0.5">{title}</summary>
      <div className="flex flex-col gap-1 pt-1 pb-2">{children}</div>
    </details>
  );
}

interface SwitchProps {
  title: string;
  of: keyof typeof USUAL_PART;
  children: ReactNode;
}

/** A part that a bait has or has not; its figures behind one tap. */
export function Switch({ title, of, children }: SwitchProps) {
  const { spec, set } = useSpec();
  const [open, setOpen] = useState(false);
  const on = spec[of] !== null;
  return (
    <div className="border-b border-[var(--rule)] py-1.5">
      <div className="flex items-center gap-2">
        <label className="flex items-center gap-2 cursor-pointer font-display font-bold text-[0.9375rem] flex-1 py-0.5">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={on}
            onChange={(event) => {
              set({ ...spec, [of]: event.target.checked ? USUAL_PART[of] : null }, null);
              setOpen(event.target.checked);
            }}
          />
          {title}
        </label>
        {on && (
          <button type="button" className="link text-sm soft" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'less' : 'figures'}
          </button>
        )}
      </div>
      {on && open && <div className="flex flex-col gap-1 pt-1 pb-2">{children}</div>}
    </div>
  );
}

export const SMALL = 'btn btn-xs bg-transparent border-[var(--edge)]';
