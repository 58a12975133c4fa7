import { type ReactNode, useState } from 'react';
import { useWrite } from '../api/write.ts';
import { Refusal } from './Fields.tsx';

type Kind = 'baits' | 'recipes' | 'colourways' | 'materials' | 'customers' | 'ledgers' | 'ladders' | 'bins';

/** Takes a record out of the lists, or back in; nothing that was made with it is touched. */
export function PutAway({
  kind,
  row,
  children,
}: {
  kind: Kind;
  row: { id: string; version: number; awayAt: string | null };
  /** What else can be done with it. */
  children?: ReactNode;
}) {
  const { id, version, awayAt } = row;
  const write = useWrite<object, boolean>((away) => ({
    path: `/away/${kind}/${id}`,
    method: 'PATCH',
    version,
    body: { away },
  }));
  return (
    <div className="flex flex-col gap-2 items-start no-print">
      <p className="flex gap-4 flex-wrap items-baseline">
        {awayAt && <b>Put away: in no list to pick from.</b>}
        <button type="button" className="link" disabled={write.isPending} onClick={() => write.mutate(awayAt === null)}>
          {awayAt ? 'Take it out again' : 'Put it away'}
        </button>
        {children}
      </p>
      <Refusal error={write.error} />
    </div>
  );
}

/** Throws out for good what nothing else names; asked once more before it is done. */
export function ThrowOut({
  kind,
  id,
  onGone,
}: {
  kind: Kind | 'measures' | 'kept' | 'molds';
  id: string;
  onGone?: () => void;
}) {
  const [asking, setAsking] = useState(false);
  const write = useWrite<object>(() => ({ path: `/away/${kind}/${id}`, method: 'DELETE' }), onGone);
  if (!asking)
    return (
      <button type="button" className="link text-sm no-print" onClick={() => setAsking(true)}>
        Throw it out
      </button>
    );
  return (
    <span className="flex gap-3 flex-wrap items-baseline">
      <button
        type="button"
        className="link text-sm heat font-bold"
        disabled={write.isPending}
        onClick={() => write.mutate()}
      >
        For good
      </button>
      <button type="button" className="link text-sm" onClick={() => setAsking(false)}>
        No, keep it
      </button>
      <Refusal error={write.error} />
    </span>
  );
}

/** The way to what is put away, under a list. */
export function Away({ count, children }: { count: number; children: ReactNode }) {
  if (count === 0) return null;
  return (
    <details className="no-print">
      <summary className="cursor-pointer soft">{count} put away</summary>
      <ul className="flex flex-wrap gap-x-6 gap-y-1 pt-2">{children}</ul>
    </details>
  );
}
