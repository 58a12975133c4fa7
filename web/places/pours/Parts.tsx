import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type BlendWish, type Part, weighInBody } from '../../../contract/blend.ts';
import type { Pour } from '../../../contract/pours.ts';
import { queries } from '../../api/queries.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { BlendOf } from './BlendOf.tsx';
import { BlendSaid } from './BlendSaid.tsx';

/** What the cup's plastic is made of: as planned, as weighed in, and what that makes. */
export function Parts({ pour }: { pour: Pour }) {
  const [changing, setChanging] = useState<BlendWish>();
  const materials = useQuery(queries.materials).data?.items ?? [];
  const severalLots = new Set(
    materials.filter((row) => row.lots.filter((lot) => lot.levelG > 0).length > 1).map((row) => row.id),
  );
  const weighed = pour.parts.some((part) => part.weighedG !== null);
  const change = useWrite<Pour, BlendWish>(
    (blend) => ({ path: `/pours/${pour.id}`, method: 'PATCH', version: pour.version, body: { blend } }),
    () => setChanging(undefined),
  );
  const began = () =>
    pour.parts.map(({ materialId, lotId, binId, share }) => ({
      ...(binId
        ? { binId }
        : severalLots.has(materialId as string)
          ? { lotId: lotId as string }
          : { materialId: materialId as string }),
      share,
    }));
  return (
    <section>
      <h2 className="mb-1">What it is made of</h2>
      {pour.parts.length === 0 && <p className="soft">No plastisol was in the store: nothing is drawn from a lot.</p>}
      <ul className="ruled border-y border-[var(--rule)]">
        {pour.parts.map((part) => (
          <PartRow key={part.id} pour={pour} part={part} />
        ))}
      </ul>
      {pour.parts.length > 0 && <BlendSaid blend={pour.blend} wanted={pour.wanted} />}
      {!pour.closedAt && !weighed && !changing && (
        <button type="button" className="link no-print" onClick={() => setChanging(began())}>
          change the blend
        </button>
      )}
      {changing && (
        <div className="sheet p-4 mt-2 flex flex-col gap-3 max-w-xl no-print">
          <BlendOf
            blend={changing.length > 0 ? changing : undefined}
            cookMl={pour.cookMl}
            wanted={pour.wanted}
            onChange={setChanging}
          />
          <div className="flex gap-3">
            <button
              type="button"
              className="btn btn-primary"
              disabled={changing.length === 0 || change.isPending}
              onClick={() => change.mutate(changing)}
            >
              Blend it so
            </button>
            <button type="button" className="btn btn-line" onClick={() => setChanging(undefined)}>
              As it was
            </button>
          </div>
          <Refusal error={change.error} />
        </div>
      )}
    </section>
  );
}

function PartRow({ pour, part }: { pour: Pour; part: Part }) {
  const { text } = useTaste();
  const undo = useUndo();
  return (
    <li className="py-1.5 flex gap-x-4 gap-y-1 items-center flex-wrap">
      <span className="flex-1 min-w-44">
        <b>{part.kind === 'remelt' ? `Remelt, ${part.name}` : part.name}</b>
        {part.lotCode && <span className="soft"> lot {part.lotCode}</span>}
        <span className="figure soft"> {(100 * part.share).toFixed(1)} %</span>
      </span>
      <span>
        <span className="figure text-lg">{text(part.plannedG, 'mass')}</span>
        {part.gPerMlByDefault && part.weighedG === null && <span className="default-mark"> default</span>}
      </span>
      {part.weighedG !== null ? (
        <span>
          weighed <b className="figure">{text(part.weighedG, 'mass')}</b>{' '}
          {!pour.closedAt && (
            <button
              type="button"
              className="link text-sm no-print"
              onClick={() => part.weighingId && undo.mutate(part.weighingId)}
            >
              take back
            </button>
          )}
        </span>
      ) : pour.closedAt ? (
        <span className="soft text-sm">not weighed in</span>
      ) : (
        <WeighIn key={part.id} pour={pour} part={part} />
      )}
      <Refusal error={undo.error} />
    </li>
  );
}

/** What stands on the scale once this part is in: as planned, unless another figure is typed. */
function WeighIn({ pour, part }: { pour: Pour; part: Part }) {
  const { text, parse } = useTaste();
  // As it is shown: nobody weighs places that do not stand there.
  const [begun] = useState<{ partId: string; grams: number | null }>(() => ({
    partId: part.id,
    grams: parse(text(part.plannedG, 'mass'), 'mass'),
  }));
  const sheet = useSheet({ schema: weighInBody, keep: `part/${part.id}`, seen: begun });
  const weigh = useWrite<Pour>(() => ({ path: `/pours/${pour.id}/weighed`, body: sheet.values }), sheet.done);
  return (
    <Sheet of={sheet} by={weigh} onSend={() => weigh.mutate()} className="flex gap-2 items-start no-print">
      <FigureIn at="grams" bare className="w-28" />
      <Send className="btn-sm h-10">Weighed in</Send>
    </Sheet>
  );
}
