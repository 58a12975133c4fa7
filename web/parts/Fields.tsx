import { type ReactNode, useEffect, useId, useRef, useState } from 'react';
import { Failure } from '../../core/failure.ts';
import type { Dimension } from '../../core/units/dimension.ts';
import { ApiError } from '../api/client.ts';
import { useTaste, useTasteIfKnown } from './taste.tsx';

interface FieldProps {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
  /** Whether the value is one of ours and not yet the maker's. */
  isDefault?: boolean;
  /** In a row that says what it is: the label is only read out. */
  bare?: boolean;
  children(ids: { id: string; 'aria-describedby': string; 'aria-invalid': boolean }): ReactNode;
  className?: string;
}

/** A label close to its field, with the hint or the refusal under it. */
export function Field({ label, hint, error, isDefault, bare, children, className = '' }: FieldProps) {
  const id = useId();
  return (
    <div className={`flex flex-col gap-1 ${className}`}>
      <label htmlFor={id} className={bare ? 'sr-only' : 'label-small font-bold'}>
        {label} {isDefault && <span className="default-mark">default</span>}
      </label>
      {children({ id, 'aria-describedby': `${id}-hint`, 'aria-invalid': error !== undefined })}
      <p id={`${id}-hint`} className={`text-[0.8125rem] leading-tight ${error ? 'heat font-bold' : 'soft'}`}>
        {error ?? hint}
      </p>
    </div>
  );
}

type TextProps = Omit<FieldProps, 'children'> & {
  value: string;
  onChange(value: string): void;
  type?: 'text' | 'date' | 'password' | 'color';
  autoFocus?: boolean;
  placeholder?: string;
};

export function TextField({ value, onChange, type = 'text', autoFocus, placeholder, ...field }: TextProps) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (autoFocus) input.current?.focus();
  }, [autoFocus]);
  return (
    <Field {...field}>
      {(ids) => (
        <input
          {...ids}
          ref={input}
          type={type}
          className={type === 'color' ? 'h-10 w-20 cursor-pointer' : 'input w-full'}
          value={value}
          placeholder={placeholder}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  );
}

type SelectProps<T extends string> = Omit<FieldProps, 'children'> & {
  value: T;
  options: { value: NoInfer<T>; label: string }[];
  onChange(value: NoInfer<T>): void;
};

export function SelectField<T extends string>({ value, options, onChange, ...field }: SelectProps<T>) {
  return (
    <Field {...field}>
      {(ids) => (
        <select
          {...ids}
          className="select w-full"
          value={value}
          onChange={(event) => onChange(event.target.value as T)}
        >
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

type QuantityProps = Omit<FieldProps, 'children' | 'error'> & {
  dimension: Dimension;
  value: number | null;
  onChange(value: number | null): void;
  error?: string | undefined;
  densityGPerMl?: number;
  autoFocus?: boolean;
  /** A gap or a clearance: two places more than a length has. */
  fine?: boolean;
};

/** Takes what a maker writes (`3 1/2 in`, `1/8 tsp`, `0,5 cup`) and hands on mm, mL, g or °C. */
export function QuantityField({
  dimension,
  value,
  onChange,
  error,
  densityGPerMl,
  hint,
  autoFocus,
  fine = false,
  ...field
}: QuantityProps) {
  const taste = useTaste();
  const shown = value === null ? '' : fine ? taste.fine(value) : taste.text(value, dimension);
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setProblem] = useState<string>();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (autoFocus) input.current?.focus();
  }, [autoFocus]);
  const change = (text: string) => {
    setDraft(text);
    if (text.trim() === '') {
      setProblem(undefined);
      onChange(null);
      return;
    }
    try {
      onChange(taste.parse(text, dimension, densityGPerMl));
      setProblem(undefined);
    } catch (failure) {
      if (!(failure instanceof Failure)) throw failure;
      setProblem(failure.message);
      onChange(null);
    }
  };
  return (
    <Field {...field} hint={hint} error={problem ?? error}>
      {(ids) => (
        <input
          {...ids}
          ref={input}
          className="input figure-input w-full"
          inputMode="text"
          autoComplete="off"
          value={draft ?? shown}
          placeholder={taste.unit(dimension)}
          onChange={(event) => change(event.target.value)}
          onBlur={() => {
            // Shown again in the maker's own unit once it was understood.
            if (!problem) setDraft(null);
          }}
        />
      )}
    </Field>
  );
}

type NumberProps = Omit<FieldProps, 'children'> & {
  value: number | null;
  onChange(value: number | null): void;
  min?: number;
};

/** A bare number: counts, Shore points, percentages. What is no number stays as it was typed, and says so. */
export function NumberField({ value, onChange, min, ...field }: NumberProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const read = (text: string) => {
    const parsed = Number(text.replace(',', '.'));
    return Number.isNaN(parsed) || (min !== undefined && parsed < min) ? null : parsed;
  };
  const wrong = draft !== null && draft.trim() !== '' && read(draft) === null;
  const problem = min === undefined ? 'Write a number here.' : `Write a number here, at least ${min}.`;
  return (
    <Field {...field} error={wrong ? problem : field.error}>
      {(ids) => (
        <input
          {...ids}
          className="input figure-input w-full"
          inputMode="decimal"
          value={draft ?? (value === null ? '' : String(value))}
          onChange={(event) => {
            const text = event.target.value;
            setDraft(text);
            onChange(text.trim() === '' ? null : read(text));
          }}
          onBlur={() => {
            if (!wrong) setDraft(null);
          }}
        />
      )}
    </Field>
  );
}

/** One number with a smaller and a larger beside it, for what is tried out while looking at a drawing. */
export function Stepper({
  label,
  shown,
  onStep,
  isDefault,
}: {
  label: string;
  shown: string;
  onStep(by: 1 | -1): void;
  isDefault?: boolean;
}) {
  return (
    <fieldset className="flex flex-col gap-1" aria-label={label}>
      <span className="label-small">
        {label} {isDefault && <span className="default-mark">default</span>}
      </span>
      <output className="figure text-xl">{shown}</output>
      <span className="flex gap-1.5">
        <button
          type="button"
          className="btn btn-sm bg-transparent border-[var(--edge)] w-10 text-lg"
          aria-label={`${label}: less`}
          onClick={() => onStep(-1)}
        >
          −
        </button>
        <button
          type="button"
          className="btn btn-sm bg-transparent border-[var(--edge)] w-10 text-lg"
          aria-label={`${label}: more`}
          onClick={() => onStep(1)}
        >
          +
        </button>
      </span>
    </fieldset>
  );
}

/** Refusals that only ask, and what is answered to do it all the same. */
const ASKS: Record<string, string> = {
  'contradicts-itself': 'Keep it all the same',
  'too-early': 'Done all the same',
};

/** The refusal of a write, where the write was made. */
interface RefusalProps {
  error: unknown;
  /** Keeps figures that contradict each other all the same. */
  onSure?: () => void;
}

export function Refusal({ error, onSure }: RefusalProps) {
  const taste = useTasteIfKnown();
  if (!error) return null;
  const message =
    error instanceof ApiError || error instanceof Failure
      ? (taste?.say(error.said ?? error.message) ?? error.message)
      : error instanceof Error
        ? error.message
        : 'Something broke; try again.';
  const sure = error instanceof ApiError && onSure ? ASKS[error.code] : undefined;
  if (sure) {
    return (
      <div role="alert" className="warn font-bold border-l-4 border-[var(--warn)] pl-3 py-1 flex flex-col gap-2">
        {message}
        <button type="button" className="btn btn-sm btn-line self-start" onClick={onSure}>
          {sure}
        </button>
      </div>
    );
  }
  return (
    <p role="alert" className="heat font-bold border-l-4 border-[var(--heat)] pl-3 py-1">
      {message}
    </p>
  );
}
