import { outlineOf } from '../../../core/shape/outline.ts';
import { type Assumed, POINT_SHARE } from '../../../core/water/assumed.ts';
import { hookFit } from '../../../core/water/hook.ts';
import { MmField } from '../../parts/MmField.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Fact, type JudgeProps as Props } from './judging.tsx';
import { HookSwitch } from './Sink.tsx';

/** A hook laid through the bait, to scale. */
export function HookFit({ spec, assumed, onAssume }: Props) {
  const { text } = useTaste();
  const { hook } = assumed;
  const put = (part: Partial<Assumed['hook']>) => onAssume({ hook: { ...hook, ...part }, withHook: true });
  if (!spec) return <p className="soft">A hook is fitted to a sculpted shape, whose slot and bore are known.</p>;
  const { sectionAt, endMm } = outlineOf(spec);
  const slot = spec.topSlot ?? spec.bellySlot;
  const found = hookFit({
    outline: Array.from({ length: 60 }, (_, i) => {
      const xMm = (endMm * i) / 59;
      const { top, bottom } = sectionAt(xMm);
      return { xMm, topMm: top, bottomMm: -bottom };
    }),
    ...hook,
    pointShare: POINT_SHARE,
    ...(spec.bore ? { boreMm: spec.bore.diameterMm } : {}),
    ...(slot ? { slotMm: Math.abs(slot.toAt - slot.fromAt) * spec.bodyMm + slot.widthMm } : {}),
  });
  const over = found.pointOverBackMm;
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex items-end gap-3 mb-1">
        <p className="big whitespace-nowrap" data-testid="point">
          {over === null ? '—' : text(Math.abs(over), 'length')}
        </p>
        <p className="label-small pb-0.5">
          {over === null
            ? 'the point lies beyond the body'
            : over > 0
              ? 'the point stands over the back'
              : 'under the back: the point is buried'}
        </p>
      </div>
      <MmField
        label="Shank, eye to bend"
        value={hook.shankMm}
        least={4}
        most={300}
        step={0.5}
        onChange={(shankMm) => put({ shankMm })}
      />
      <MmField
        label="Gap, shank to point"
        value={hook.gapMm}
        least={1}
        most={100}
        step={0.5}
        onChange={(gapMm) => put({ gapMm })}
      />
      <MmField label="Eye across" value={hook.eyeMm} least={0.5} most={30} onChange={(eyeMm) => put({ eyeMm })} />
      <MmField label="Wire" value={hook.wireMm} least={0.2} most={8} onChange={(wireMm) => put({ wireMm })} />
      <MmField
        label="Eye sits, from the nose"
        value={hook.eyeXMm}
        least={-20}
        most={300}
        step={0.5}
        onChange={(eyeXMm) => put({ eyeXMm })}
      />
      <MmField
        label="Shank over the axis"
        value={hook.shankZMm}
        least={-50}
        most={50}
        step={0.5}
        onChange={(shankZMm) => put({ shankZMm })}
      />
      <ul className="ruled text-sm mt-1">
        <Fact
          label="Bend inside the body"
          value={found.bendInside ? 'yes' : 'no: it hangs out'}
          bad={!found.bendInside}
        />
        <Fact label="Slot it needs" value={text(found.slotNeededMm, 'length')} />
        <Fact
          label="Slot there is"
          value={
            found.slotSpareMm === null
              ? 'none'
              : found.slotSpareMm >= 0
                ? `${text(found.slotSpareMm, 'length')} to spare`
                : `${text(-found.slotSpareMm, 'length')} short`
          }
          bad={found.slotSpareMm !== null && found.slotSpareMm < 0}
        />
        <Fact
          label="Eye through the bore"
          value={
            found.boreSpareMm === null
              ? 'no bore'
              : found.boreSpareMm >= 0
                ? `${text(found.boreSpareMm, 'length')} to spare`
                : `${text(-found.boreSpareMm, 'length')} too wide`
          }
          bad={found.boreSpareMm !== null && found.boreSpareMm < 0}
        />
      </ul>
      <HookSwitch assumed={assumed} onAssume={onAssume} />
      <p className="label-small">
        Point drawn back {POINT_SHARE * 100} % of the shank, a default: measure yours. Points cut: cover them.
      </p>
    </div>
  );
}
