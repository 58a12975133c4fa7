import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal, TextField } from '../../parts/Fields.tsx';
import type { differences } from './words.ts';

interface KeepProps {
  spec: ShapeSpec;
  master?: Master | undefined;
  revision?: Revision | undefined;
  startShape?: string | undefined;
  /** The revision that a tail was taken over from. */
  tailFrom: string;
  changes: ReturnType<typeof differences>;
  onKept(): void;
  onClose(): void;
}

export function Keep({ spec, master, revision, startShape, tailFrom, changes, onKept, onClose }: KeepProps) {
  const navigate = useNavigate();
  const [words, setWords] = useState('');
  const [secondParentId, setSecond] = useState(tailFrom);
  const others = useQuery(queries.masters).data?.items.filter((row) => row.id !== master?.id) ?? [];
  const save = useWrite<Master>(
    () =>
      master
        ? {
            path: `/masters/${master.id}/revisions`,
            body: {
              reason: words,
              parentId: (revision ?? master.latest).id,
              ...(secondParentId ? { secondParentId } : {}),
              spec,
            },
          }
        : {
            path: '/masters',
            body: { name: words, kind: 'print', shape: startShape ?? 'stick', flatBack: spec.cutFlatMm !== null, spec },
          },
    (kept) => {
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
  return (
    <form
      className="px-6 py-3 border-b border-[var(--rule)] bg-[var(--sheet)] flex gap-5 items-start"
      onSubmit={(event) => {
        event.preventDefault();
        if (words.trim() !== '') save.mutate();
      }}
    >
      <TextField
        className="flex-1 max-w-md"
        label={master ? 'What was changed, and why' : 'Name of the bait'}
        value={words}
        onChange={setWords}
        autoFocus
        hint={
          master
            ? changes
                .slice(0, 4)
                .map((change) => `${change.what} ${change.from} → ${change.to}`)
                .join(', ') || 'nothing has changed yet'
            : 'the name it goes by in molds, pours and orders'
        }
      />
      {master && (
        <label className="flex flex-col gap-1 w-64">
          <span className="label-small font-bold">And a part of</span>
          <select className="select w-full" value={secondParentId} onChange={(event) => setSecond(event.target.value)}>
            <option value="">nothing else</option>
            {parents.map((one) => (
              <option key={one.value} value={one.value}>
                {one.label}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="flex gap-2 pt-6">
        <button type="submit" className="btn btn-primary" disabled={words.trim() === '' || save.isPending}>
          {save.isPending ? 'Measuring …' : 'Keep it'}
        </button>
        <button type="button" className="btn btn-line" onClick={onClose}>
          Not yet
        </button>
      </div>
      <Refusal error={save.error} />
    </form>
  );
}
