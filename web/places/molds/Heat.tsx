import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo, useState } from 'react';
import type { Mold } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { type Told, tried } from '../../../core/failure.ts';
import { moldsToKeepBusy } from '../../../core/heat/demold.ts';
import { methodWindow, middleOf } from '../../../core/heat/window.ts';
import { type Opening, openingSchema, opensAfter, STUFF_OF, wallOf } from '../../../core/process/opening.ts';
import type { Waits } from '../../../core/process/waits.ts';
import { durationText, percentText } from '../../../core/units/show.ts';
import { check } from '../../../core/validate.ts';
import { queries } from '../../api/queries.ts';
import { NumberField, QuantityField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Why } from '../../parts/Why.tsx';

const SHOTS = 6;

interface Wish {
  /** Not known: waits by the kind of mold alone. */
  thicknessMm: number | undefined;
  wallMm: number;
  pourC: number;
  demoldC: number;
  openS: number;
}

function waits({ kind, fill }: Mold, wish: Wish, air: Partial<Opening> & { roomC: number }): Waits | { refused: Told } {
  const { value, refused } = tried(() =>
    opensAfter(check(openingSchema, { kind, fill, ...wish, ...air, shots: SHOTS })),
  );
  return value ?? { refused };
}

/** How long a bait waits in this mold, how that grows over an evening, and how many such molds keep one person busy. */
export function Heat({ mold }: { mold: Mold }) {
  const { text, workshop, say } = useTaste();
  const [own, setOwn] = useState<Partial<Wish>>({});
  const learnt = useQuery(queries.hands()).data?.items.find(({ moldId }) => moldId === mold.id)?.wait;
  const known: Wish = {
    thicknessMm: mold.facts.thicknessMm ?? undefined,
    wallMm: mold.facts.wallMm ?? wallOf(mold.kind),
    pourC: middleOf(methodWindow(mold)),
    demoldC: usual('demoldC'),
    openS: usual('openBetweenS'),
  };
  const wish = useDeferredValue({ ...known, ...own });
  const roomC = workshop.roomC;
  const key = JSON.stringify(wish);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the wish is compared by what it says
  const found = useMemo(
    () => ({
      plain: waits(mold, wish, { roomC }),
      fan: waits(mold, wish, { roomC, outerWPerM2K: usual('fanAirWPerM2K') }),
      warm: waits(mold, wish, { roomC, moldC: roomC + 20 }),
    }),
    [mold.kind, mold.fill, key, roomC],
  );
  if (!STUFF_OF[mold.kind]) return null;
  const set = (part: Partial<Wish>) => setOwn({ ...own, ...part });
  const { plain, fan, warm } = found;
  const handS = usual('fillS') + usual('fillSPerCavity') * mold.cavities + wish.openS;
  const lastOf = (waits: Waits | { refused: Told }) => ('refused' in waits ? null : (waits.waitS.at(-1) as number));
  const last = lastOf(plain);
  const against = (other: Waits | { refused: Told }) => {
    const wait = lastOf(other);
    if (wait === null || last === null) return '—';
    const change = wait - last;
    return `${durationText(Math.abs(change))} ${change < 0 ? 'shorter' : 'longer'}`;
  };
  return (
    <section className="flex flex-col gap-3" aria-label="Waits">
      <h2>How long it waits</h2>
      <div className="grid grid-cols-2 sm:grid-cols-3 gap-4">
        <QuantityField
          label="Thickest section"
          dimension="length"
          value={wish.thicknessMm ?? null}
          onChange={(thicknessMm) => set({ thicknessMm: thicknessMm ?? undefined })}
          hint={wish.thicknessMm === undefined ? 'not known: by its kind alone' : ''}
        />
        <QuantityField
          label="Wall"
          dimension="length"
          value={own.wallMm ?? known.wallMm}
          onChange={(wallMm) => wallMm !== null && set({ wallMm })}
          isDefault={own.wallMm === undefined && mold.facts.wallMm === null}
        />
        <QuantityField
          label="Poured at"
          dimension="temperature"
          value={own.pourC ?? known.pourC}
          onChange={(pourC) => pourC !== null && set({ pourC })}
          isDefault={own.pourC === undefined}
        />
        <QuantityField
          label="Opened at, mean"
          dimension="temperature"
          value={own.demoldC ?? known.demoldC}
          onChange={(demoldC) => demoldC !== null && set({ demoldC })}
          isDefault={own.demoldC === undefined}
        />
        <NumberField
          label="Open between shots, s"
          value={own.openS ?? known.openS}
          onChange={(openS) => openS !== null && set({ openS })}
          min={0}
          isDefault={own.openS === undefined}
        />
      </div>
      {'refused' in plain ? (
        <p className="heat font-bold">{say(plain.refused)}</p>
      ) : plain.basis === 'kind' ? (
        <p>
          <b className="figure text-xl">{durationText(last ?? 0)}</b> after each shot, the usual time of its kind.{' '}
          <span className="default-mark">default</span> Type its thickest section, and it is computed.
        </p>
      ) : (
        <>
          <WaitBars waitS={plain.waitS} />
          <p>
            By then <b className="figure">{moldsToKeepBusy(last ?? 0, handS)}</b> such{' '}
            {moldsToKeepBusy(last ?? 0, handS) === 1 ? 'mold keeps' : 'molds keep'} one person busy. A fan on it:{' '}
            <b>{against(fan)}</b> by shot {SHOTS}. Preheated to {text(roomC + 20, 'temperature')}:{' '}
            <b>{against(warm)}</b>, and thin tails fill.{' '}
            <Why
              reason={{
                inputs: [
                  ['room and mold', text(roomC, 'temperature')],
                  ['material', `${STUFF_OF[mold.kind]}, typical figures`],
                  ['hands, a shot', durationText(handS)],
                ],
                formula:
                  'Heat conducts from the bait through the wall into the air; the wall keeps what the last shot left in it.',
                grounds: [
                  'One dimension, perfect contact; a thick clamp or plate is not in it.',
                  `${text(usual('demoldC'), 'temperature')} mean is a starting guess: makers open while the heart is hot. Correct it by what you see.`,
                  'The bench starts its clock by the same figures, as they are recorded.',
                ],
                change: 'A thicker wall first takes more heat, then holds it longer.',
              }}
            />
          </p>
        </>
      )}
      {learnt && learnt.openings > 0 && (
        <p>
          Of that it needs <b className="figure">{percentText(Math.round(learnt.factor * 100) / 100)}</b>, by{' '}
          {learnt.openings} {learnt.openings === 1 ? 'opening' : 'openings'} here: good baits needed no more than they
          had, bent or torn ones did. The bench’s clock goes by it.
        </p>
      )}
    </section>
  );
}

/** The wait of each shot as a bar: the mold warms, and they grow. */
function WaitBars({ waitS }: Pick<Waits, 'waitS'>) {
  return (
    <ol className="flex flex-col gap-1">
      {waitS.map((seconds, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: shots come in order
        <li key={i} className="flex items-center gap-3">
          <span className="w-16 text-sm">shot {i + 1}</span>
          <span
            className="h-4 bg-[var(--liquid)] border-r-4 border-[var(--rest)]"
            style={{ width: `${(62 * seconds) / Math.max(1, ...waitS)}%` }}
            aria-hidden
          />
          <span className="figure">{durationText(seconds)}</span>
        </li>
      ))}
    </ol>
  );
}
