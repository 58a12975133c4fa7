import { useForm, useStore } from '@tanstack/react-form';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type * as v from 'valibot';
import { type Fault, faults } from '../../../core/validate.ts';
import { dropDraft, readDraft, writeDraft } from './drafts.ts';
import { merge } from './merge.ts';

export interface Sheet<V extends object = object> {
  schema: v.GenericSchema;
  values: V;
  /** What stands in the record, or where an empty sheet begins. */
  seen: V;
  set(path: string, value: unknown): void;
  /** Takes a row out of a list; what was typed into the rows after it goes with them. */
  takeOut(list: keyof V & string, index: number): void;
  /** What was typed into a field and is no figure. */
  typed: Record<string, string>;
  setTyped(path: string, text: string | undefined): void;
  faults: Fault[];
  /** Fields that were typed here and were changed elsewhere meanwhile. */
  elsewhere: string[];
  changed: boolean;
  /** What had been typed before is here again. */
  restored: boolean;
  /** Whether a reload would bring it back. */
  kept: boolean;
  /** It was sent: nothing is left to be kept. */
  done(): void;
  startAfresh(): void;
}

interface Options<V> {
  /** What travels; titles, units, bounds and defaults of the fields are its. */
  schema: v.GenericSchema;
  /** Where what is typed is kept until it is sent. */
  keep: string;
  seen: V;
  /** What is sent of the values; paths of its faults are those of the fields. */
  body?(values: V): unknown;
}

interface Held<V> {
  values: V;
  typed: Record<string, string>;
  elsewhere: string[];
  restored: boolean;
}

function opened<V extends object>(keep: string, seen: V): Held<V> {
  const draft = readDraft<V>(keep);
  if (!draft) return { values: seen, typed: {}, elsewhere: [], restored: false };
  return { ...merge(draft.seen, { ...seen, ...draft.values }, seen), typed: draft.typed, restored: true };
}

/** Texts by field, once a row of a list is gone: its own go, those of the rows after it move up. */
function withoutRow(typed: Record<string, string>, list: string, index: number): Record<string, string> {
  const moved = Object.entries(typed).flatMap(([path, text]) => {
    const [head, row, ...rest] = path.split('.');
    const at = Number(row);
    if (head !== list || at < index) return [[path, text]];
    return at === index ? [] : [[[list, at - 1, ...rest].join('.'), text]];
  });
  return Object.fromEntries(moved);
}

/** One form: what is typed, kept over Back and reload, beside what the record says meanwhile. */
export function useSheet<V extends object>({ schema, keep, seen, body }: Options<V>): Sheet<V> {
  const [first] = useState(() => opened(keep, seen));
  const form = useForm({ defaultValues: first.values as Record<string, unknown> });
  // Field by field: a reset would go back to what was restored when the sheet was opened.
  const fill = (all: V) => {
    for (const [key, value] of Object.entries(all)) form.setFieldValue(key as never, value as never);
  };
  const values = useStore(form.store, (state) => state.values) as V;
  const [typed, setTypedAll] = useState(first.typed);
  const [elsewhere, setElsewhere] = useState(first.elsewhere);
  const [restored, setRestored] = useState(first.restored);
  const [kept, setKept] = useState(true);
  const base = useRef(seen);
  const sent = useRef(false);

  const seenText = JSON.stringify(seen);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when the record says something else
  useEffect(() => {
    if (JSON.stringify(base.current) === seenText) return;
    const merged = merge(base.current, form.state.values as V, seen);
    base.current = seen;
    fill(merged.values);
    setElsewhere((before) => [
      ...new Set([...before.filter((key) => !sent.current && key in merged.values), ...merged.elsewhere]),
    ]);
  }, [seenText]);

  const changed = JSON.stringify(values) !== JSON.stringify(base.current) || Object.keys(typed).length > 0;
  useEffect(() => {
    if (sent.current) return;
    if (changed) setKept(writeDraft(keep, { values, seen: base.current, typed }));
    else dropDraft(keep);
  }, [changed, keep, typed, values]);

  const set = useCallback(
    (path: string, value: unknown) => {
      sent.current = false;
      form.setFieldValue(path as never, value as never);
    },
    [form],
  );
  const setTyped = useCallback((path: string, text: string | undefined) => {
    sent.current = false;
    setTypedAll(({ [path]: _, ...rest }) => (text === undefined ? rest : { ...rest, [path]: text }));
  }, []);
  const takeOut = (list: keyof V & string, index: number) => {
    set(
      list,
      (values[list] as unknown[]).filter((_, other) => other !== index),
    );
    setTypedAll((before) => withoutRow(before, list, index));
  };
  const found = useMemo(() => faults(schema, body ? body(values) : values), [schema, body, values]);
  const clean = () => {
    setTypedAll({});
    setElsewhere([]);
    setRestored(false);
    dropDraft(keep);
  };
  return {
    schema,
    values,
    seen: base.current,
    set,
    takeOut,
    typed,
    setTyped,
    faults: found,
    elsewhere,
    changed,
    restored,
    kept,
    done: () => {
      sent.current = true;
      clean();
    },
    startAfresh: () => {
      fill(base.current);
      clean();
    },
  };
}
