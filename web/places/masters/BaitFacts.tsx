import { type Bait, baitBody } from '../../../contract/workshop.ts';
import { usual } from '../../../core/defaults.ts';
import { useWrite } from '../../api/write.ts';
import { PutAway } from '../../parts/PutAway.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

const SCALES = [
  { value: '00', label: '00, soft' },
  { value: 'A', label: 'A, firm' },
];

interface BaitTyped {
  name: string;
  packCount: number | null;
  priceMinor: number | null;
  wantedHardness: number | null;
  wantedScale: 'A' | '00';
  finishS: number | null;
  dryH: number | null;
}

const baitOf = ({ wantedScale, ...bait }: BaitTyped) => ({
  ...bait,
  wantedScale: bait.wantedHardness === null ? null : wantedScale,
});

export function BaitFacts({ bait }: { bait: Bait }) {
  const { name, packCount, priceMinor, wantedHardness, wantedScale, finishS, dryH } = bait;
  const sheet = useSheet<BaitTyped>({
    schema: baitBody,
    keep: `bait/${bait.id}`,
    seen: { name, packCount, priceMinor, wantedHardness, wantedScale: wantedScale ?? '00', finishS, dryH },
    body: baitOf,
  });
  const save = useWrite<Bait>(
    () => ({ path: `/baits/${bait.id}`, method: 'PATCH', version: bait.version, body: baitOf(sheet.values) }),
    sheet.done,
  );
  return (
    <section className="flex flex-col gap-3">
      <h2>As a bait</h2>
      <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="flex flex-col gap-3">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-4">
          <TextIn at="name" className="col-span-full" hint="the name it goes by in molds, pours and orders" />
          <FigureIn at="packCount" />
          <FigureIn at="priceMinor" hint="empty: not known yet" />
          <FigureIn at="wantedHardness" hint={`read after ${usual('cureH')} h`} />
          <ChoiceIn at="wantedScale" options={SCALES} />
          <FigureIn at="finishS" hint="eyes, paint, a clip; 0: none" />
          <FigureIn at="dryH" hint="before it is packed" />
        </div>
        <Send className="btn-sm" onlyChanged>
          Keep
        </Send>
      </Sheet>
      <PutAway kind="baits" row={bait} />
    </section>
  );
}
