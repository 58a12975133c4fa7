import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { type Kept, keptPatch } from '../../../contract/workshop.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { ThrowOut } from '../../parts/PutAway.tsx';
import { TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { Headline } from './Headline.tsx';

/** Results that somebody wanted to find again: opened, called otherwise, thrown out. */
export function KeptResults({ titleOf }: { titleOf(calculator: string): string }) {
  const kept = useQuery(queries.kept).data?.items ?? [];
  if (kept.length === 0) return null;
  return (
    <section>
      <h2 className="mb-2">Kept</h2>
      <ul className="ruled">
        {kept.map((row) => (
          <Row key={row.id} row={row} tool={titleOf(row.calculator)} />
        ))}
      </ul>
    </section>
  );
}

function Row({ row, tool }: { row: Kept; tool: string }) {
  const [naming, setNaming] = useState(false);
  return (
    <li className="flex gap-4 items-baseline flex-wrap">
      {naming ? (
        <Name row={row} onDone={() => setNaming(false)} />
      ) : (
        <>
          <Link to={`/tools/${row.calculator}?kept=${row.id}`} className="flex gap-4 py-2 row-hover flex-1">
            <span className="font-bold flex-1">{row.title}</span>
            <span>{tool}</span>
            <span className="w-52 text-right">
              <Headline name={row.calculator} output={row.output} />
            </span>
            <span className="soft w-28 text-right">{dateText(row.createdAt)}</span>
          </Link>
          <button type="button" className="link text-sm" onClick={() => setNaming(true)}>
            Rename it
          </button>
          <ThrowOut kind="kept" id={row.id} />
        </>
      )}
    </li>
  );
}

function Name({ row, onDone }: { row: Kept; onDone(): void }) {
  const sheet = useSheet({
    schema: keptPatch,
    keep: `kept/${row.id}`,
    seen: { title: row.title },
  });
  const save = useWrite<Kept>(
    () => ({ path: `/kept/${row.id}`, method: 'PATCH', version: row.version, body: sheet.values }),
    () => {
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="flex gap-3 items-start flex-wrap py-2">
      <TextIn at="title" className="w-72" autoFocus />
      <div className="mt-5 flex gap-2">
        <Send className="" onlyChanged>
          Rename it
        </Send>
        <button type="button" className="btn btn-line" onClick={onDone}>
          Not now
        </button>
      </div>
    </Sheet>
  );
}
