import type { MoldWish } from '../../../core/mold/buildWish.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import { MmField } from '../../parts/MmField.tsx';
import { Tick } from './Tick.tsx';

/** What a rod begins with where nobody told how wide the bore is, mm. */
const ROD_MM = 4;

interface Props {
  wish: MoldWish;
  spec: ShapeSpec | null;
  onChange(how: (now: MoldWish) => MoldWish): void;
}

/** What keeps a bore free, and what of the bait the mold casts solid. */
export function LeftOut({ wish, spec, onChange }: Props) {
  const out = (part: MoldWish['without'][number], on: boolean) =>
    onChange(({ coreRodMm, ...now }) => ({
      ...now,
      ...((part === 'bore' && on) || coreRodMm === undefined ? {} : { coreRodMm }),
      without: on ? [...now.without, part] : now.without.filter((one) => one !== part),
    }));
  const boreMm = spec?.bore?.diameterMm;
  const slots = spec !== null && (spec.bellySlot !== null || spec.topSlot !== null);
  const noBore = wish.without.includes('bore');
  const rod = wish.coreRodMm !== undefined;
  // A mesh that was brought may have a bore that nobody told of.
  const mayBeBored = boreMm !== undefined || spec === null;
  return (
    <>
      {slots && (
        <Tick label="Cast without its slots" on={wish.without.includes('slots')} onTick={(on) => out('slots', on)} />
      )}
      {mayBeBored && <Tick label="Cast without its bore" on={noBore} onTick={(on) => out('bore', on)} />}
      {mayBeBored && !noBore && wish.kind !== 'silicone-box' && (
        <Tick
          label="A rod through its bore"
          on={rod}
          onTick={(on) =>
            onChange(({ coreRodMm: _, ...now }) =>
              on ? { ...now, coreRodMm: boreMm ?? ROD_MM } : { ...now, rodHeld: 'tail' },
            )
          }
        />
      )}
      {rod && !noBore && wish.kind !== 'silicone-box' && (
        <>
          <MmField
            label="Core rod"
            value={wish.coreRodMm as number}
            least={1}
            most={40}
            onChange={(coreRodMm) => onChange((now) => ({ ...now, coreRodMm }))}
          />
          {boreMm === undefined && wish.coreRodMm === ROD_MM && (
            <p className="label-small">
              <span className="default-mark">default</span>: measure the bore of the mesh
            </p>
          )}
          <Tick
            label="Held before the nose too"
            on={wish.rodHeld === 'both'}
            onTick={(on) =>
              onChange(({ layout: _, ...now }) =>
                on ? { ...now, rodHeld: 'both', count: Math.max(2, now.count) } : { ...now, rodHeld: 'tail' },
              )
            }
          />
          {wish.rodHeld === 'both' && (
            <MmField
              label="Pin through nose and gate"
              value={wish.rodPinMm}
              least={0.8}
              most={10}
              step={0.1}
              onChange={(rodPinMm) => onChange((now) => ({ ...now, rodPinMm }))}
            />
          )}
        </>
      )}
    </>
  );
}
