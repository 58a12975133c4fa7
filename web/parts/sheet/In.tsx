import { type ReactNode, useEffect, useRef } from 'react';
import { Failure } from '../../../core/failure.ts';
import { type Kind, kindOf, lastName, wordFor } from '../../../core/fields.ts';
import { type FieldFacts, factsOf, fieldAt, titleAt } from '../../../core/schema.ts';
import { isDimension } from '../../../core/units/dimension.ts';
import { ApiError } from '../../api/client.ts';
import { Field } from '../Fields.tsx';
import { type Taste, useTaste } from '../taste.tsx';
import { valueAt } from './paths.ts';
import { useWithin } from './Sheet.tsx';

interface Props {
  /** Path in the schema: `lines.0.packs`. */
  at: string;
  hint?: ReactNode;
  /** Said in place of the schema's title, where the sheet knows more. */
  label?: string;
  autoFocus?: boolean;
  className?: string;
}

/** What one field of the sheet holds, says and is called. */
export function useIn(at: string, label?: string, written = false) {
  const { sheet, refusedAt, mounted, changed } = useWithin();
  const taste = useTaste();
  const path = at.split('.');
  if (!fieldAt(sheet.schema, path)) throw new Error(`${at} is no field of its schema`);
  useEffect(() => mounted({ path: at, written, label }), [mounted, at, written, label]);
  const value = valueAt(sheet.values, at);
  const refused = refusedAt(at);
  const fault = sheet.faults.find((one) => !one.missing && one.path.join('.') === at);
  const elsewhere = sheet.elsewhere.includes(path[0] as string) ? valueAt(sheet.seen, at) : undefined;
  const facts = factsOf(sheet.schema, path);
  return {
    taste,
    value,
    typed: sheet.typed[at],
    facts,
    kind: kindOf(lastName(path)),
    title: titled(label ?? titleAt(sheet.schema, path) ?? wordFor(lastName(path)), kindOf(lastName(path)), taste),
    error: refused instanceof ApiError ? taste.say(refused.said ?? refused.message) : fault && taste.say(fault.said),
    elsewhere,
    asBegun: value !== null && value !== undefined && value === valueAt(sheet.seen, at) && !(at in sheet.typed),
    isDefault: typeof facts.usual === 'number' && facts.usual === value && !(at in sheet.typed),
    set: (next: unknown) => {
      changed(at);
      sheet.set(at, next);
    },
    setTyped: (text: string | undefined) => {
      changed(at);
      sheet.setTyped(at, text);
    },
  };
}

const titled = (title: string, kind: Kind, taste: Taste) =>
  kind === 'money' ? `${title}, ${taste.workshop.currency}` : kind === 'percent' ? `${title}, %` : title;

/** Beside a field that was typed here: what it was changed to by another screen. */
const since = (field: { elsewhere: unknown }, shown: (value: unknown) => string) =>
  field.elsewhere === undefined || field.elsewhere === null || field.elsewhere === ''
    ? undefined
    : `changed elsewhere to ${shown(field.elsewhere)} meanwhile; yours is kept here`;

function useFocus<T extends HTMLElement>(wanted: boolean | undefined) {
  const ref = useRef<T>(null);
  useEffect(() => {
    if (wanted) ref.current?.focus();
  }, [wanted]);
  return ref;
}

export function TextIn({
  at,
  hint,
  label,
  autoFocus,
  className = '',
  type = 'text',
  options,
}: Props & { type?: 'text' | 'date' | 'color' /** Id of the list of what was written before. */; options?: string }) {
  const field = useIn(at, label, true);
  const input = useFocus<HTMLInputElement>(autoFocus);
  return (
    <Field
      label={field.title}
      hint={since(field, String) ?? hint}
      error={field.error}
      className={className}
      isDefault={field.isDefault}
    >
      {(ids) => (
        <input
          {...ids}
          data-field={at}
          ref={input}
          type={type}
          list={options}
          className={type === 'color' ? 'h-10 w-20 cursor-pointer' : 'input w-full'}
          value={(field.value as string | null | undefined) ?? ''}
          onChange={(event) => field.set(event.target.value)}
        />
      )}
    </Field>
  );
}

/** Several lines of text. */
export function NoteIn({ at, hint, label, className = '', rows = 3 }: Props & { rows?: number }) {
  const field = useIn(at, label, true);
  return (
    <Field label={field.title} hint={since(field, String) ?? hint} error={field.error} className={className}>
      {(ids) => (
        <textarea
          {...ids}
          data-field={at}
          rows={rows}
          className="textarea w-full"
          value={(field.value as string | null | undefined) ?? ''}
          onChange={(event) => field.set(event.target.value)}
        />
      )}
    </Field>
  );
}

export interface Choice {
  value: string;
  label: string;
}

/** Each value with its words. */
export const choices = <T extends string>(values: readonly T[], words: Record<T, string>): Choice[] =>
  values.map((value) => ({ value, label: words[value] }));

export function ChoiceIn({
  at,
  hint,
  label,
  className = '',
  options,
  onPicked,
}: Props & { options: Choice[]; onPicked?: (value: string) => void }) {
  const field = useIn(at, label);
  const word = (value: unknown) => options.find((one) => one.value === value)?.label ?? String(value);
  return (
    <Field
      label={field.title}
      hint={since(field, word) ?? hint}
      error={field.error}
      className={className}
      isDefault={field.isDefault}
    >
      {(ids) => (
        <select
          {...ids}
          data-field={at}
          className="select w-full"
          value={(field.value as string | null | undefined) ?? ''}
          onChange={(event) => {
            field.set(event.target.value === '' ? null : event.target.value);
            onPicked?.(event.target.value);
          }}
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

export function TickIn({ at, hint, label }: Props) {
  const field = useIn(at, label);
  return (
    <label className="flex gap-3 items-start min-h-11 py-2">
      <input
        type="checkbox"
        className="checkbox"
        data-field={at}
        checked={field.value === true}
        onChange={(event) => field.set(event.target.checked)}
      />
      <span>
        {field.title}
        {hint && <span className="soft block text-[0.8125rem]">{hint}</span>}
      </span>
    </label>
  );
}

const tidy = (value: number) => String(Number(value.toPrecision(10)));

/** How a stored figure is written in a field, and read from one. */
function written(kind: Kind, value: number, taste: Taste): string {
  if (isDimension(kind)) return taste.text(value, kind);
  if (kind === 'money') return (value / taste.minorPerUnit).toFixed(Math.round(Math.log10(taste.minorPerUnit)));
  return tidy(kind === 'percent' ? value * 100 : value);
}

const BARE = /^[-−]?(\d+([.,]\d*)?|[.,]\d+)$/;

function readAs(kind: Kind, text: string, taste: Taste, facts: FieldFacts, densityGPerMl: number | undefined): number {
  if (isDimension(kind)) return taste.parse(text, kind, densityGPerMl);
  const plain = text.trim().replace(/\s*%$/, '');
  if (!BARE.test(plain)) throw new Failure('not-a-measure', 'Write a number here.');
  const value = Number(plain.replace(',', '.').replace('−', '-'));
  if (kind === 'money') return Math.round(value * taste.minorPerUnit);
  if (kind === 'percent') return value / 100;
  if (facts.whole && !Number.isInteger(value)) throw new Failure('not-a-measure', 'Write a whole number here.');
  return value;
}

/** A figure: written in any unit of its kind, shown in the maker's own, never emptied because it was not understood. */
export function FigureIn({
  at,
  hint,
  label,
  autoFocus,
  className = '',
  densityGPerMl,
  isDefault,
  starts = false,
  bare = false,
  pieces = false,
}: Props & {
  densityGPerMl?: number | undefined;
  isDefault?: boolean;
  /** What the sheet began with is one of ours, until it is changed. */
  starts?: boolean;
  /** In a row that says what it is: the label is only read out. */
  bare?: boolean;
  /** Of what is counted: the amount is no mass here. */
  pieces?: boolean;
}) {
  const field = useIn(at, label, true);
  const { taste } = field;
  const kind = pieces ? 'plain' : field.kind;
  const facts = pieces ? { ...field.facts, whole: true } : field.facts;
  const input = useFocus<HTMLInputElement>(autoFocus);
  /** The text as it is being written, and the value that was read from it. */
  const draft = useRef<{ text: string; value: unknown } | null>(null);
  const shown = typeof field.value === 'number' ? written(kind, field.value, taste) : '';
  const read = (text: string) => readAs(kind, text, taste, facts, densityGPerMl);
  const problem = field.typed === undefined ? undefined : whyNot(() => read(field.typed as string));
  // What was sent, merged or followed from elsewhere since is shown, not what was written before it.
  const beingWritten = draft.current?.value === field.value ? draft.current?.text : undefined;
  const change = (text: string) => {
    let value: number | null = null;
    const wrong =
      text.trim() === ''
        ? undefined
        : whyNot(() => {
            value = read(text);
          });
    draft.current = { text, value };
    // Nothing is worked out from a figure that stands there no more: where it is not understood, there is none.
    field.set(value);
    field.setTyped(wrong === undefined ? undefined : text);
  };
  const unit = isDimension(kind) ? taste.unit(kind) : '';
  return (
    <Field
      label={field.title}
      hint={since(field, (value) => written(kind, value as number, taste)) ?? hint ?? (pieces ? 'pieces' : undefined)}
      error={problem ?? field.error}
      className={className}
      isDefault={isDefault ?? (field.isDefault || (starts && field.asBegun))}
      bare={bare}
    >
      {(ids) => (
        <input
          {...ids}
          data-field={at}
          ref={input}
          className="input figure-input w-full"
          inputMode={unit ? 'text' : 'decimal'}
          autoComplete="off"
          placeholder={unit}
          value={field.typed ?? beingWritten ?? shown}
          onChange={(event) => change(event.target.value)}
          onBlur={() => {
            // Shown again in the maker's own unit once it was understood.
            draft.current = null;
            field.setTyped(field.typed);
          }}
        />
      )}
    </Field>
  );
}

function whyNot(attempt: () => unknown): string | undefined {
  try {
    attempt();
    return undefined;
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    return error.message;
  }
}
