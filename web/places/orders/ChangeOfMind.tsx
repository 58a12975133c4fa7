import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { inUse } from '../../../contract/fields.ts';
import { addLineBody, type Order, type OrderLine } from '../../../contract/orders.ts';
import { usual } from '../../../core/defaults.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal, TextField } from '../../parts/Fields.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

interface Change {
  lineId: string;
  packs?: number;
  takeOut?: true;
}

/** A customer thought again: more or fewer packs, a line more, a line less; each is told with what it was. */
export function ChangeOfMind({ order }: { order: Order }) {
  const [why, setWhy] = useState('');
  const change = useWrite<Order, Change>(
    ({ lineId, takeOut, ...body }) => ({
      path: `/orders/${order.id}/lines/${lineId}${takeOut ? '/take-out' : ''}`,
      body: { ...body, why },
    }),
    () => setWhy(''),
  );
  if (order.state === 'sent' || order.state === 'cancelled' || order.lines.length === 0) return null;
  return (
    <details className="no-print">
      <summary className="cursor-pointer font-bold text-lg">They thought again</summary>
      <div className="flex flex-col gap-5 pt-3">
        <TextField label="Why, if they said" className="max-w-md" value={why} onChange={setWhy} />
        <ul className="ruled border-y border-[var(--rule)]">
          {order.lines.map((line) => (
            <Line
              key={line.id}
              line={line}
              only={order.lines.length === 1}
              busy={change.isPending}
              onChange={(body) => change.mutate({ lineId: line.id, ...body })}
            />
          ))}
        </ul>
        <Refusal error={change.error} />
        <OneMore order={order} />
        {order.lines.length > 1 && <IntoOneBag order={order} />}
      </div>
    </details>
  );
}

interface LineProps {
  line: OrderLine;
  only: boolean;
  busy: boolean;
  onChange(body: Omit<Change, 'lineId'>): void;
}

function Line({ line, only, busy, onChange }: LineProps) {
  const { packs, packed } = line;
  return (
    <li className="py-2 flex gap-3 items-center flex-wrap">
      <span className="flex-1 min-w-48">
        <b>{line.baitName}</b> {line.colourwayName}
        {packed > 0 && <span className="soft">, {packed} packed</span>}
      </span>
      <button
        type="button"
        className="btn btn-line bench-target"
        aria-label={`one pack of ${line.baitName} ${line.colourwayName} less`}
        disabled={busy || packs <= Math.max(1, packed)}
        onClick={() => onChange({ packs: packs - 1 })}
      >
        −
      </button>
      <span className="figure text-xl w-10 text-center">{packs}</span>
      <button
        type="button"
        className="btn btn-line bench-target"
        aria-label={`one pack of ${line.baitName} ${line.colourwayName} more`}
        disabled={busy}
        onClick={() => onChange({ packs: packs + 1 })}
      >
        +
      </button>
      <button
        type="button"
        className="btn btn-ghost bench-target"
        disabled={busy || only || packed > 0}
        onClick={() => onChange({ takeOut: true })}
      >
        Take it out
      </button>
    </li>
  );
}

function OneMore({ order }: { order: Order }) {
  const baits = inUse(useQuery(queries.baits).data?.items ?? []);
  const colours = inUse(useQuery(queries.colourways).data?.items ?? []);
  const [first] = baits;
  const sheet = useSheet({
    schema: addLineBody,
    keep: `order/${order.id}/more`,
    seen: {
      baitId: first?.id ?? '',
      colourwayId: colours[0]?.id ?? '',
      packs: 1,
      perPack: first?.packCount ?? usual('packCount'),
      why: '',
    },
  });
  const add = useWrite<Order>(
    () => ({ path: `/orders/${order.id}/lines`, body: sheet.values }),
    () => {
      sheet.startAfresh();
      sheet.done();
    },
  );
  return (
    <Sheet
      of={sheet}
      by={add}
      onSend={() => add.mutate()}
      className="grid grid-cols-2 lg:grid-cols-[90px_1fr_1fr_110px_1fr_auto] gap-3 items-start"
    >
      <FigureIn at="packs" />
      <ChoiceIn
        at="baitId"
        options={baits.map(({ id, name }) => ({ value: id, label: name }))}
        onPicked={(id) => sheet.set('perPack', baits.find((one) => one.id === id)?.packCount ?? usual('packCount'))}
      />
      <ChoiceIn at="colourwayId" options={colours.map(({ id, name }) => ({ value: id, label: name }))} />
      <FigureIn at="perPack" />
      <TextIn at="why" label="Why, if they said" />
      <div className="mt-5">
        <Send className="">Add the line</Send>
      </div>
    </Sheet>
  );
}

/** Several colours in one bag, or a set: lines with as many packs each. */
function IntoOneBag({ order }: { order: Order }) {
  const [name, setName] = useState('');
  const [chosen, choose] = useState<string[]>([]);
  const together = useWrite<Order, { name: string; lineIds: string[] }>(
    (body) => ({ path: `/orders/${order.id}/sets`, body }),
    () => {
      setName('');
      choose([]);
    },
  );
  const free = order.lines.filter(({ packed, setName: own }) => packed === 0 && own === null);
  const sets = [...new Set(order.lines.flatMap(({ setName: own }) => (own === null ? [] : [own])))];
  return (
    <section className="flex flex-col gap-2" aria-label="Into one bag">
      <h3>Into one bag</h3>
      {sets.map((own) => (
        <p key={own}>
          <b>{own}</b>:{' '}
          {order.lines
            .filter((line) => line.setName === own)
            .map(({ perPack, baitName, colourwayName }) => `${perPack} ${baitName} ${colourwayName}`)
            .join(', ')}{' '}
          <button
            type="button"
            className="link text-sm"
            onClick={() =>
              together.mutate({
                name: '',
                lineIds: order.lines.flatMap((line) => (line.setName === own ? [line.id] : [])),
              })
            }
          >
            each in its own again
          </button>
        </p>
      ))}
      {free.length > 1 && (
        <>
          <div className="flex gap-x-5 gap-y-1 flex-wrap">
            {free.map((line) => (
              <label key={line.id} className="flex gap-2 items-center min-h-11">
                <input
                  type="checkbox"
                  className="checkbox"
                  checked={chosen.includes(line.id)}
                  onChange={({ target }) =>
                    choose(target.checked ? [...chosen, line.id] : chosen.filter((id) => id !== line.id))
                  }
                />
                {line.packs} × {line.perPack} {line.baitName} {line.colourwayName}
              </label>
            ))}
          </div>
          <div className="flex gap-3 items-end flex-wrap">
            <TextField label="The set is called" className="w-64" value={name} onChange={setName} />
            <button
              type="button"
              className="btn btn-line"
              disabled={chosen.length < 2 || name.trim() === '' || together.isPending}
              onClick={() => together.mutate({ name, lineIds: chosen })}
            >
              Pack {chosen.length < 2 ? 'these' : `these ${chosen.length}`} together
            </button>
          </div>
        </>
      )}
      <Refusal error={together.error} />
    </section>
  );
}
