import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { useNavigate } from 'react-router';
import { type Master, masterBody, type Revision, revisionBody } from '../../../contract/masters.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { ChoiceIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { type Difference, inWords } from './words.ts';

interface KeepProps {
  spec: ShapeSpec;
  master?: Master | undefined;
  revision?: Revision | undefined;
  startShape?: string | undefined;
  /** The revision that a tail was taken over from. */
  tailFrom: string;
  changes: Difference[];
  onKept(): void;
  onClose(): void;
}

interface Typed {
  name: string;
  reason: string;
  secondParentId: string | null;
}

export function Keep({ spec, master, revision, startShape, tailFrom, changes, onKept, onClose }: KeepProps) {
  const navigate = useNavigate();
  const taste = useTaste();
  const [begun] = useState<Typed>({ name: '', reason: '', secondParentId: tailFrom || null });
  const bodyOf = useCallback(
    ({ name, reason, secondParentId }: Typed) =>
      master
        ? {
            reason,
            parentId: (revision ?? master.latest).id,
            ...(secondParentId === null ? {} : { secondParentId }),
            spec,
          }
        : { name, kind: 'print', shape: startShape ?? 'stick', flatBack: spec.cutFlatMm !== null, spec },
    [master, revision, spec, startShape],
  );
  const sheet = useSheet<Typed>({
    schema: master ? revisionBody : masterBody,
    keep: `sculpted/${master?.id ?? 'new'}`,
    seen: begun,
    body: bodyOf,
  });
  const others = useQuery(queries.masters).data?.items.filter((row) => row.id !== master?.id) ?? [];
  const save = useWrite<Master>(
    () => ({ path: master ? `/masters/${master.id}/revisions` : '/masters', body: bodyOf(sheet.values) }),
    (kept) => {
      sheet.done();
      onKept();
      navigate(`/masters/${kept.id}`);
    },
  );
  const parents = [
    ...(master?.revisions ?? [])
      .filter((row) => row.id !== revision?.id)
      .map((row) => ({ value: row.id, label: `v${row.number}: ${row.reason}` })),
    ...others.map((row) => ({ value: row.latest.id, label: `${row.name} v${row.latest.number}` })),
  ];
  const said = changes.slice(0, 4).map((change) => {
    const { what, from, to } = inWords(change, taste);
    return `${what} ${from} → ${to}`;
  });
  return (
    <Sheet
      of={sheet}
      by={save}
      onSend={() => save.mutate()}
      className="px-6 py-3 border-b border-[var(--rule)] bg-[var(--sheet)] flex gap-5 items-start flex-wrap"
    >
      {master ? (
        <TextIn at="reason" className="flex-1 max-w-md" autoFocus hint={said.join(', ') || 'nothing has changed yet'} />
      ) : (
        <TextIn at="name" className="flex-1 max-w-md" autoFocus hint="the name it goes by in molds, pours and orders" />
      )}
      {master && (
        <ChoiceIn at="secondParentId" className="w-64" options={[{ value: '', label: 'nothing else' }, ...parents]} />
      )}
      <div className="flex gap-2 pt-6 items-start">
        <Send className="">{save.isPending ? 'Measuring …' : 'Keep it'}</Send>
        <button type="button" className="btn btn-line" onClick={onClose}>
          Not yet
        </button>
      </div>
    </Sheet>
  );
}
