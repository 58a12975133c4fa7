import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type Mold, rebuildBody } from '../../../contract/molds.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

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
  const [asking, setAsking] = useState(false);
  const retire = useWrite<Mold, boolean>((retired) => ({
    path: `/molds/${mold.id}`,
    method: 'PATCH',
    version: mold.version,
    body: { retired },
  }));
  if (mold.after)
    return (
      <Link to={`/molds/${mold.after.id}`} className="btn btn-line">
        Made anew as {mold.after.name}
      </Link>
    );
  if (asking) return <Successor mold={mold} onDone={() => setAsking(false)} />;
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

/** The name of the one that takes its place. */
function Successor({ mold, onDone }: { mold: Mold; onDone(): void }) {
  const navigate = useNavigate();
  const sheet = useSheet({
    schema: rebuildBody,
    keep: `mold/${mold.id}/rebuild`,
    seen: { name: successorName(mold.name) },
  });
  const rebuild = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}/rebuilds`, body: sheet.values }),
    (made) => {
      sheet.done();
      onDone();
      navigate(`/molds/${made.id}`);
    },
  );
  return (
    <Sheet of={sheet} by={rebuild} onSend={() => rebuild.mutate()} className="flex gap-2 items-start flex-wrap">
      <TextIn at="name" autoFocus className="w-64" />
      <div className="mt-[1.35rem] flex gap-2 items-start">
        <Send className="">Retire this, make that</Send>
        <button type="button" className="btn btn-line" onClick={onDone}>
          No
        </button>
      </div>
    </Sheet>
  );
}
