import { useState } from 'react';
import { kindOf, wordFor } from '../../../core/fields.ts';
import { NumberField, QuantityField, SelectField, TextField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { anotherRow, ifKnown, type Schema } from './schema.ts';

type Values = Record<string, unknown>;

interface Props {
  schema: Schema;
  value: Values;
  onChange(value: Values): void;
}

/** Every input of a calculator, defaults marked, in the maker's units. */
export function Form({ schema, value, onChange }: Props) {
  const properties = schema.properties ?? {};
  const set = (key: string) => (part: unknown) => {
    const unsaid = part === null && ifKnown(properties[key] ?? {}) !== undefined;
    const next = { ...value, [key]: part };
    if (unsaid) return onChange(next);
    if (part === undefined || part === null || part === '') delete next[key];
    onChange(next);
  };
  const entries = Object.entries(properties).map(([key, part]): [string, Schema] => [key, ifKnown(part) ?? part]);
  const isNested = (part: Schema) =>
    part.anyOf !== undefined || part.type === 'object' || (part.type === 'array' && !isFixed(part) && !isList(part));
  const simple = entries.filter(([, part]) => !isNested(part));
  const nested = entries.filter(([, part]) => isNested(part));
  return (
    <div className="flex flex-col gap-4">
      {simple.length > 0 && (
        <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-4 gap-y-1">
          {simple.map(([key, part]) => (
            <One key={key} name={key} schema={part} value={value[key]} onChange={set(key)} />
          ))}
        </div>
      )}
      {nested.map(([key, part]) =>
        part.anyOf ? (
          <Choice key={key} name={key} ways={part.anyOf} value={value[key] as Values | undefined} onChange={set(key)} />
        ) : part.type === 'array' ? (
          <Rows
            key={key}
            name={key}
            schema={part}
            value={(value[key] as Values[] | undefined) ?? []}
            required={schema.required?.includes(key) ?? false}
            onChange={set(key)}
          />
        ) : (
          <Group
            key={key}
            name={key}
            schema={part}
            value={value[key] as Values | undefined}
            optional={!schema.required?.includes(key)}
            onChange={set(key)}
          />
        ),
      )}
    </div>
  );
}

/** A list with a place for each number, such as x, y, z. */
const isFixed = (schema: Schema) => Array.isArray(schema.items);
/** A list of as many numbers as one likes. */
const isList = ({ type, items }: Schema) =>
  type === 'array' && !Array.isArray(items) && (items?.type === 'number' || items?.type === 'integer');

/** One of several ways to say a thing, each with fields of its own. */
function Choice({
  name,
  ways,
  value,
  onChange,
}: {
  name: string;
  ways: Schema[];
  value: Values | undefined;
  onChange(value: Values): void;
}) {
  const keyOf = (way: Schema) => Object.keys(way.properties ?? {})[0] ?? '';
  // A bare text or list stands for one of the ways that have a name.
  const named = ways.filter((way) => way.properties);
  const chosen = named.find((way) => value instanceof Object && keyOf(way) in value) ?? named[0];
  if (!chosen) return null;
  return (
    <fieldset className="border-l-4 border-[var(--rule)] pl-4 flex flex-col gap-2">
      <legend className="font-bold text-sm">{wordFor(name)}</legend>
      <SelectField
        label="Given as"
        value={keyOf(chosen)}
        options={named.map((way) => ({ value: keyOf(way), label: wordFor(keyOf(way)) }))}
        // Nothing is guessed for the other way: it stands empty until it is written.
        onChange={(key) => onChange({ [key]: undefined })}
      />
      <Form schema={chosen} value={value ?? {}} onChange={onChange} />
    </fieldset>
  );
}

/** Numbers in a list, written with commas. @param count how many there have to be; null: any. */
function Places({
  label,
  value,
  count,
  onChange,
}: {
  label: string;
  value: unknown;
  count: number | null;
  onChange(value: unknown): void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const shown = Array.isArray(value) ? value.join(', ') : '';
  return (
    <TextField
      label={label}
      value={draft ?? shown}
      onChange={(text) => {
        setDraft(text);
        const numbers = text
          .split(/[,;\s]+/)
          .filter((word) => word !== '')
          .map(Number);
        const isAll = count === null ? numbers.length > 0 : numbers.length === count;
        onChange(isAll && numbers.every((n) => Number.isFinite(n)) ? numbers : undefined);
      }}
      hint={count === null ? 'numbers' : `${count} numbers`}
    />
  );
}

function One({
  name,
  schema,
  value,
  onChange,
}: {
  name: string;
  schema: Schema;
  value: unknown;
  onChange(value: unknown): void;
}) {
  const { minorPerUnit, workshop } = useTaste();
  const isDefault = schema.default !== undefined && value === schema.default;
  const label = schema.title ?? wordFor(name);
  if (schema.enum)
    return (
      <SelectField
        label={label}
        value={String(value ?? '')}
        options={schema.enum.map((one) => ({ value: one, label: one }))}
        onChange={onChange}
        isDefault={isDefault}
      />
    );
  if (schema.type === 'boolean')
    return (
      <SelectField
        label={label}
        value={value === false ? 'no' : 'yes'}
        options={[
          { value: 'yes', label: 'yes' },
          { value: 'no', label: 'no' },
        ]}
        onChange={(text) => onChange(text === 'yes')}
        isDefault={isDefault}
      />
    );
  if (isFixed(schema)) return <Places label={label} value={value} count={3} onChange={onChange} />;
  if (isList(schema)) return <Places label={label} value={value} count={null} onChange={onChange} />;
  if (schema.type === 'string') return <TextField label={label} value={String(value ?? '')} onChange={onChange} />;
  const number = typeof value === 'number' ? value : null;
  const kind = kindOf(name);
  if (kind === 'length' || kind === 'volume' || kind === 'mass' || kind === 'temperature') {
    return <QuantityField label={label} dimension={kind} value={number} onChange={onChange} isDefault={isDefault} />;
  }
  if (kind === 'percent')
    return (
      <NumberField
        label={`${label}, %`}
        value={number === null ? null : Number((number * 100).toPrecision(6))}
        onChange={(percent) => onChange(percent === null ? null : percent / 100)}
        isDefault={isDefault}
      />
    );
  if (kind === 'money')
    return (
      <NumberField
        label={`${label}, ${workshop.currency}`}
        value={number === null ? null : number / minorPerUnit}
        onChange={(amount) => onChange(amount === null ? null : amount * minorPerUnit)}
        isDefault={isDefault}
      />
    );
  return <NumberField label={label} value={number} onChange={onChange} isDefault={isDefault} />;
}

function Group({
  name,
  schema,
  value,
  optional,
  onChange,
}: {
  name: string;
  schema: Schema;
  value: Values | undefined;
  optional: boolean;
  onChange(value: Values | undefined): void;
}) {
  if (!value && optional) {
    return (
      <button
        type="button"
        className="link self-start text-sm"
        onClick={() =>
          onChange(
            Object.fromEntries(Object.entries(schema.properties ?? {}).map(([key, part]) => [key, part.default])),
          )
        }
      >
        {wordFor(name)} …
      </button>
    );
  }
  return (
    <fieldset className="border-l-4 border-[var(--rule)] pl-4">
      <legend className="font-bold text-sm">
        {wordFor(name)}{' '}
        {optional && schema.default === undefined && (
          <button type="button" className="link font-normal" onClick={() => onChange(undefined)}>
            leave it out
          </button>
        )}
      </legend>
      <Form schema={schema} value={value ?? {}} onChange={onChange} />
    </fieldset>
  );
}

function Rows({
  name,
  schema,
  value,
  required,
  onChange,
}: {
  name: string;
  schema: Schema;
  value: Values[];
  required: boolean;
  onChange(value: Values[] | undefined): void;
}) {
  const rowSchema = (schema.items as Schema | undefined) ?? {};
  const least = required ? 1 : 0;
  return (
    <fieldset className="border-l-4 border-[var(--rule)] pl-4 flex flex-col gap-2">
      <legend className="font-bold text-sm">{schema.title ?? wordFor(name)}</legend>
      {value.map((row, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows of a trial have no identity but their place
        <div key={index} className="grid grid-cols-[1fr_auto] gap-2 items-start">
          <Form
            schema={rowSchema}
            value={row}
            onChange={(next) => onChange(value.map((one, i) => (i === index ? next : one)))}
          />
          <button
            type="button"
            className="btn btn-ghost btn-sm mt-6"
            aria-label="Take this row out"
            disabled={value.length <= least}
            onClick={() => onChange(value.filter((_, i) => i !== index))}
          >
            ✕
          </button>
        </div>
      ))}
      <button
        type="button"
        className="link self-start text-sm"
        onClick={() => onChange([...value, anotherRow(value, rowSchema)])}
      >
        one more
      </button>
    </fieldset>
  );
}
