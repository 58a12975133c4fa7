import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Mold } from '../../../contract/molds.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal, TextField } from '../../parts/Fields.tsx';

/** Sandlance × 4 → Sandlance × 4, 2nd; and so on. */
export function successorName(name: string): string {
  const found = /^(.*), (\d+)(st|nd|rd|th)$/.exec(name);
  const n = found ? Number(found[2]) + 1 : 2;
  const tens = n % 100;
  const ending = tens > 10 && tens < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${found?.[1] ?? name}, ${n}${ending}`;
}

/** Retire a worn mold, or make it again of the same revision. */
export function Renew({ mold }: { mold: Mold }) {
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const [name, setName] = useState(successorName(mold.name));
  const retire = useWrite<Mold, boolean>((retired) => ({
    path: `/molds/${mold.id}`,
    method: 'PATCH',
    version: mold.version,
    body: { retired },
  }));
  const rebuild = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}/rebuilds`, body: { name } }),
    (made) => {
      setAsking(false);
      navigate(`/molds/${made.id}`);
    },
  );
  if (mold.after)
    return (
      <Link to={`/molds/${mold.after.id}`} className="btn btn-line">
        Made anew as {mold.after.name}
      </Link>
    );
  if (asking)
    return (
      <form
        className="flex gap-2 items-start"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) rebuild.mutate();
        }}
      >
        <TextField label="The new one is called" value={name} onChange={setName} autoFocus className="w-64" />
        <button type="submit" className="btn btn-primary mt-[1.35rem]" disabled={!name.trim() || rebuild.isPending}>
          Retire this, make that
        </button>
        <button type="button" className="btn btn-line mt-[1.35rem]" onClick={() => setAsking(false)}>
          No
        </button>
        <Refusal error={rebuild.error} />
      </form>
    );
  return (
    <>
      <Refusal error={retire.error} />
      <button type="button" className="btn btn-line" onClick={() => retire.mutate(!mold.retiredAt)}>
        {mold.retiredAt ? 'Back to work' : 'Retire'}
      </button>
      <button type="button" className="btn btn-line" onClick={() => setAsking(true)}>
        Make it anew
      </button>
    </>
  );
}
