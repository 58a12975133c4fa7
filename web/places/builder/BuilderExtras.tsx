import type { MoldWish } from '../../../core/mold/buildWish.ts';
import { SPARK_LEAVE_MM, USUAL_SPARK } from '../../../core/mold/spark.ts';
import { MmField } from '../../parts/MmField.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Tick } from './Tick.tsx';

const SLOT: NonNullable<MoldWish['hookSlot']> = { fromNoseMm: 30, lengthMm: 20, depthMm: 4, widthMm: 1.5 };
const STOCK: NonNullable<MoldWish['stockMm']> = [200, 150, 50];

interface Props {
  wish: MoldWish;
  onChange(change: (now: MoldWish) => MoldWish): void;
}

/** What not every mold has: a wavy seam, four pieces, a hook slot, electrodes, the stock there is. */
export function BuilderExtras({ wish, onChange }: Props) {
  const set = (part: Partial<MoldWish>) => onChange((now) => ({ ...now, ...part }));
  const drop = (key: 'hookSlot' | 'stockMm') => onChange(({ [key]: _, ...rest }) => rest as MoldWish);
  const cast = wish.kind === 'silicone-box';
  const slot = wish.hookSlot;
  const stock = wish.stockMm;
  return (
    <>
      {!cast && (
        <>
          <Tick
            label="Seam follows the edge"
            on={wish.split === 'wavy'}
            onTick={(on) => set({ split: on ? 'wavy' : 'flat' })}
          />
          {wish.kind === 'printed' && (
            <Tick
              label="Four pieces (one cavity)"
              on={wish.pieces === 4}
              onTick={(on) => set(on ? { pieces: 4, count: 1 } : { pieces: 2 })}
            />
          )}
          <Tick
            label="Hook slot by an insert"
            on={slot !== undefined}
            onTick={(on) => (on ? set({ hookSlot: SLOT, pieces: 2 }) : drop('hookSlot'))}
          />
          {slot && (
            <>
              <MmField
                label="from the nose"
                value={slot.fromNoseMm}
                least={0}
                most={400}
                onChange={(fromNoseMm) => set({ hookSlot: { ...slot, fromNoseMm } })}
              />
              <MmField
                label="long"
                value={slot.lengthMm}
                least={2}
                most={200}
                onChange={(lengthMm) => set({ hookSlot: { ...slot, lengthMm } })}
              />
              <MmField
                label="deep"
                value={slot.depthMm}
                least={0.5}
                most={60}
                onChange={(depthMm) => set({ hookSlot: { ...slot, depthMm } })}
              />
              <MmField
                label="wide"
                value={slot.widthMm}
                least={0.5}
                most={15}
                onChange={(widthMm) => set({ hookSlot: { ...slot, widthMm } })}
              />
            </>
          )}
        </>
      )}
      {wish.kind === 'machined' && (
        <>
          <Electrodes wish={wish} onChange={onChange} />
          <Tick
            label="Must come out of my stock"
            on={stock !== undefined}
            onTick={(on) => (on ? set({ stockMm: STOCK }) : drop('stockMm'))}
          />
          {stock &&
            (['long', 'wide', 'high, both'] as const).map((name, k) => (
              <MmField
                key={name}
                label={`stock, ${name}`}
                value={stock[k] as number}
                least={10}
                most={1000}
                step={1}
                onChange={(size) => set({ stockMm: stock.map((one, at) => (at === k ? size : one)) as typeof stock })}
              />
            ))}
        </>
      )}
    </>
  );
}

/** Pairs of electrodes that spark one cavity: for finishing, and for roughing before. */
function Electrodes({ wish, onChange }: Props) {
  const { fine } = useTaste();
  const set = (part: Partial<MoldWish>) => onChange((now) => ({ ...now, ...part }));
  const none = () => onChange(({ sparkGapMm: _, sparkRoughGapMm: __, ...rest }) => rest);
  const finishingOnly = () => onChange(({ sparkRoughGapMm: _, ...rest }) => rest);
  return (
    <>
      <Tick
        label="Electrodes for sparking"
        on={wish.sparkGapMm !== undefined}
        onTick={(on) =>
          on ? set({ sparkGapMm: USUAL_SPARK.fine.gapMm, sparkRoughGapMm: USUAL_SPARK.rough.gapMm }) : none()
        }
      />
      {wish.sparkGapMm !== undefined && (
        <MmField
          label="Finishing gap a side"
          value={wish.sparkGapMm}
          least={0.01}
          most={1}
          step={0.01}
          fine
          onChange={(sparkGapMm) => set({ sparkGapMm })}
        />
      )}
      {wish.sparkGapMm !== undefined && (
        <Tick
          label="A pair for roughing too"
          on={wish.sparkRoughGapMm !== undefined}
          onTick={(on) => (on ? set({ sparkRoughGapMm: USUAL_SPARK.rough.gapMm }) : finishingOnly())}
        />
      )}
      {wish.sparkRoughGapMm !== undefined && (
        <>
          <MmField
            label="Roughing gap a side"
            value={wish.sparkRoughGapMm}
            least={0.01}
            most={1}
            step={0.01}
            fine
            onChange={(sparkRoughGapMm) => set({ sparkRoughGapMm })}
          />
          <p className="label-small">
            and {fine(SPARK_LEAVE_MM)} smaller, which finishing takes off <span className="default-mark">default</span>
          </p>
        </>
      )}
    </>
  );
}
