import { Link } from 'react-router';
import { eveningPatch, type Pour } from '../../../contract/pours.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

/** The evening that is under way: its cups in their order, light to dark unless somebody says otherwise, and its room. */
export function ThisEvening({ evening, linked = true }: { evening: Pour['evening']; linked?: boolean }) {
  const { text } = useTaste();
  const leads = evening.cups.filter((cup) => cup.leadId === null);
  const change = useWrite<object, { order: string[] }>((body) => ({
    path: `/evenings/${evening.id}`,
    method: 'PATCH',
    version: evening.version,
    body,
  }));
  const moved = (index: number, by: number) => {
    const order = leads.map((cup) => cup.id);
    const [taken] = order.splice(index, 1);
    order.splice(index + by, 0, taken as string);
    return order;
  };
  const ml = evening.cups.reduce((sum, cup) => sum + cup.cookMl, 0);
  return (
    <section>
      <div className="flex gap-6 items-end flex-wrap mb-2">
        <h2 className="text-2xl">
          This evening: {evening.cups.length} cups, <span className="figure">{text(ml, 'volume')}</span>
        </h2>
        {linked && leads[0] && (
          <Link to={`/pours/${leads[0].id}/evening`} className="btn btn-line">
            When it ends, and what to lay out
          </Link>
        )}
        <Room key={evening.version} evening={evening} />
      </div>
      <ol className="ruled border-y border-[var(--rule)]">
        {leads.map((lead, index) => (
          <li key={lead.id} className="flex gap-4 py-2 items-center flex-wrap">
            <span className="figure text-xl w-6">{index + 1}</span>
            {[lead, ...evening.cups.filter((cup) => cup.leadId === lead.id)].map((cup) => (
              <Link key={cup.id} to={`/pours/${cup.id}`} className="flex gap-2 items-center row-hover rounded px-1">
                <span className="w-6 h-6 rounded-full border-2 border-[var(--ink)]" style={{ background: cup.hex }} />
                <span>
                  <b>{cup.recipeName}</b> <span className="figure soft text-sm">{cup.code}</span>
                  <span className="label-small block">
                    {text(cup.cookMl, 'volume')}
                    {cup.closedAt ? ', closed' : cup.startedAt ? ', under way' : ''}
                  </span>
                </span>
              </Link>
            ))}
            <span className="ml-auto flex gap-1 items-center">
              {lead.closedAt === null && (
                <Link to={`/pours/${lead.id}/bench`} className="btn btn-primary">
                  To the bench
                </Link>
              )}
              <button
                type="button"
                className="btn btn-sm btn-ghost"
                aria-label={`${lead.recipeName} ${lead.code} earlier`}
                disabled={index === 0 || change.isPending}
                onClick={() => change.mutate({ order: moved(index, -1) })}
              >
                ↑
              </button>
              <button
                type="button"
                className="btn btn-sm btn-ghost"
                aria-label={`${lead.recipeName} ${lead.code} later`}
                disabled={index === leads.length - 1 || change.isPending}
                onClick={() => change.mutate({ order: moved(index, 1) })}
              >
                ↓
              </button>
            </span>
          </li>
        ))}
      </ol>
      <Refusal error={change.error} />
    </section>
  );
}

/** What the room's thermometer says, which molds and rubber feel. */
function Room({ evening }: { evening: Pour['evening'] }) {
  const sheet = useSheet<{ roomC: number | null }>({
    schema: eveningPatch,
    keep: `evening/${evening.id}`,
    seen: { roomC: evening.roomC },
  });
  const keep = useWrite<object>(
    () => ({
      path: `/evenings/${evening.id}`,
      method: 'PATCH',
      version: evening.version,
      body: sheet.values,
    }),
    () => sheet.done(),
  );
  return (
    <Sheet of={sheet} by={keep} onSend={() => keep.mutate()} className="flex gap-2 items-start">
      <FigureIn at="roomC" className="w-28" />
      {sheet.values.roomC !== evening.roomC && (
        <div className="mt-5">
          <Send className="">Keep</Send>
        </div>
      )}
    </Sheet>
  );
}
