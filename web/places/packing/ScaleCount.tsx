import type { OrderLine } from '../../../contract/orders.ts';
import type { BaitMass, packCount } from '../../../core/plan/packCount.ts';
import { useAim, useStandIn } from '../../api/instruments.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { PackScale } from './useScale.ts';

type Counted = ReturnType<typeof packCount>;
const n = (count: number, thing: string) => `${count} ${thing}${count === 1 ? '' : 's'}`;

/** What the scale makes of the bag, in a packer's words. */
export function verdictText({ verdict, count, least, most, offBaits }: Counted, wanted: number): string {
  if (verdict === 'right') return `${wanted}, all of them whole`;
  if (verdict === 'unsure')
    return least < most
      ? `${least} to ${most}: count this bag, its weight counts the next`
      : `${wanted}; half a bait would not show yet`;
  if (verdict === 'short') return `${count}: ${n(wanted - count, 'bait')} short`;
  if (verdict === 'over') return `${count}: ${n(count - wanted, 'bait')} too many`;
  const part = Math.abs(offBaits).toFixed(1);
  return offBaits < 0
    ? `${part} of a bait is missing: one is torn, hollow or another`
    : `${part} of a bait too much: one is another, or something else lies there`;
}

/** The scale counts: a bait too few, half a one or a wrong one is said before the bag is shut. */
export function ScaleCount({ scale, line, mass }: { scale: PackScale; line: OrderLine; mass: BaitMass | null }) {
  const { text } = useTaste();
  const aim = useAim();
  const { one, here, said, grams, trust, full } = scale;
  if (!one) return null;
  if (!here)
    return (
      <div>
        <button
          type="button"
          className="btn btn-line bench-target"
          disabled={aim.isPending}
          onClick={() => aim.mutate({ id: one.id, pourId: null, orderId: scale.orderId })}
        >
          Let {one.name} count
        </button>
        <Refusal error={aim.error} />
      </div>
    );
  const wrong = said && said.verdict !== 'right' && said.verdict !== 'unsure';
  return (
    <div
      className="border-l-4 pl-4 flex flex-col gap-1 flex-1 min-w-56"
      style={{ borderColor: wrong ? 'var(--heat)' : 'var(--edge)' }}
    >
      <p className="figure text-5xl leading-none" data-testid="on-the-scale">
        {grams === null ? '–' : text(grams, 'mass')}
      </p>
      <p className={`bench-text ${wrong ? 'heat font-bold' : said ? 'rest font-bold' : 'soft'}`} role="status">
        {grams === null
          ? trust === null
            ? 'The scale says nothing.'
            : 'The scale is not to be believed now: count them.'
          : mass === null
            ? 'What one weighs is not known: weigh a bag of counted ones.'
            : said
              ? verdictText(said, line.perPack)
              : full
                ? 'Packed: take it off.'
                : 'Lay them on it, without the bag.'}
      </p>
      {mass && (
        <p className="soft">
          One weighs {text(mass.eachG, 'mass')}
          {mass.bags > 0 ? (
            `, by ${n(mass.bags, 'bag')}`
          ) : (
            <>
              {' '}
              <span className="default-mark">by its volume</span>
            </>
          )}
        </p>
      )}
    </div>
  );
}

/** A bait differs from another by so much in a stand-in's world. */
const SOME_LIGHTER = [1, 0.985, 1.018, 0.99, 1.01, 1.005, 0.995, 1];

/** Hands for a scale that is not there. */
export function Hands({ scale, mass }: { scale: PackScale; mass: BaitMass | null }) {
  const hands = useStandIn();
  const { one, grams } = scale;
  if (one?.how !== 'stand-in' || !scale.here || !mass) return null;
  const lay = (addG: number) => hands.mutate({ id: one.id, addG: Math.round(addG * 100) / 100 });
  const how = 'btn btn-ghost border border-dashed border-[var(--edge)] h-16 min-h-16 px-3 font-normal';
  const lying = Math.max(0, Math.round((grams ?? 0) / mass.eachG));
  return (
    <div className="flex gap-2 flex-wrap items-center pt-1">
      <button
        type="button"
        className={how}
        onClick={() => lay(mass.eachG * (SOME_LIGHTER[lying % SOME_LIGHTER.length] as number))}
      >
        lay a bait on it
      </button>
      <button type="button" className={how} onClick={() => lay(mass.eachG / 2)}>
        half a bait
      </button>
      <button type="button" className={how} onClick={() => hands.mutate({ id: one.id, tare: true })}>
        take all off
      </button>
      <Refusal error={hands.error} />
    </div>
  );
}
