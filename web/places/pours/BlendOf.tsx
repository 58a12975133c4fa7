import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Bin } from '../../../contract/bins.ts';
import { type Blend, type BlendWish, PLASTIC_KINDS, type Plastics } from '../../../contract/blend.ts';
import type { Material } from '../../../contract/materials.ts';
import { usual } from '../../../core/defaults.ts';
import { type Layer, takeFromBin } from '../../../core/plastisol/bin.ts';
import { plasticGPerMl, remeltGPerMl } from '../../../core/plastisol/density.ts';
import {
  blendAsk,
  blendShares,
  canBlend,
  cupState,
  mixHardness,
  type Telling,
  withShare,
} from '../../../core/plastisol/parts.ts';
import { gramsPerMl } from '../../../core/plastisol/weigh.ts';
import { percentText } from '../../../core/units/show.ts';
import { post } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { NumberField, Refusal, SelectField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { BlendSaid } from './BlendSaid.tsx';

/** What a cup can be made of: plastics of the store by their opened lot, and what lies in the bins. */
interface Choice extends Omit<Telling, 'share'> {
  id: string;
  label: string;
  part: Omit<BlendWish[number], 'share'>;
  materialId: string | null;
  gPerMl: number;
  /** Whether nobody weighed a mL of it. */
  byDefault: boolean;
  pricePerKgMinor: number | null;
  /** Of remelt: what lies in its bin. */
  layers: Layer[] | null;
}

const isPlastic = (material: Material) =>
  (PLASTIC_KINDS as readonly string[]).includes(material.kind) && material.awayAt === null && material.lots.length > 0;

function choicesOf(materials: Material[], bins: Bin[], plastics: Plastics): Choice[] {
  const fresh = materials.filter(isPlastic).flatMap((material): Choice[] => {
    const own = plastics.items.find((one) => one.materialId === material.id);
    const about = {
      materialId: material.id,
      hardness: own?.hardness ?? null,
      sd: own?.sd ?? null,
      pointsPerPercent: plastics.additives.find((one) => one.materialId === material.id)?.pointsPerPercent ?? null,
      ...gramsPerMl(material),
      pricePerKgMinor: material.pricePerKgMinor,
      layers: null,
    };
    const holding = material.lots.filter((lot) => lot.levelG > 0);
    // Several drums are open: which one it is, is picked.
    if (holding.length > 1)
      return holding.map((lot) => ({
        ...about,
        id: lot.id,
        label: `${material.name}, lot ${lot.code}`,
        part: { lotId: lot.id },
      }));
    return [{ ...about, id: material.id, label: material.name, part: { materialId: material.id } }];
  });
  const remelt = bins
    .filter((bin) => bin.awayAt === null && bin.grams > 0)
    .map(
      (bin): Choice => ({
        id: bin.id,
        label: `remelt: ${bin.name}`,
        part: { binId: bin.id },
        materialId: null,
        hardness: null,
        sd: null,
        pointsPerPercent: null,
        gPerMl: remeltGPerMl(bin.layers),
        byDefault: true,
        pricePerKgMinor: null,
        layers: bin.layers,
      }),
    );
  // A plastisol first: it is what a cup is made of where nothing is said.
  return [...fresh.sort((a, b) => Number(b.hardness !== null) - Number(a.hardness !== null)), ...remelt];
}

interface Wanted {
  scale: 'A' | '00';
  value: number;
}

interface Blended {
  fractions: Record<string, number>;
}

/** What the cup's plastic is blended of; each share can be changed, and the others give way. */
export function BlendOf({
  blend,
  cookMl,
  wanted,
  onChange,
}: {
  blend: BlendWish | undefined;
  /** Of plastic; what it weighs is a matter of what it is made of. */
  cookMl: number;
  /** What the bait is to read, where that was written down. */
  wanted: Wanted | null;
  onChange(blend: BlendWish): void;
}) {
  const { text } = useTaste();
  const [scale, setScale] = useState(wanted?.scale ?? '00');
  // Those of the other scale stay until these are here, and with them what was typed.
  const plastics = useQuery({ ...queries.plastics(scale), placeholderData: keepPreviousData }).data;
  const materials = useQuery(queries.materials).data?.items;
  const bins = useQuery(queries.bins).data?.items;
  const choices = plastics && materials && bins ? choicesOf(materials, bins, plastics) : [];
  const knowns = knownOf(plastics, choices);
  // Laid out without a word, a cup is blended for what its bait wants: that stands here before.
  const asWanted = useQuery({
    queryKey: [
      'pours',
      'plastics',
      scale,
      'blend',
      wanted?.value,
      knowns.known.map((one) => `${one.materialId} ${one.hardness}`),
      knowns.additives.map((one) => `${one.materialId} ${one.pointsPerPercent}`),
    ],
    queryFn: () => blendFor(wanted as Wanted, knowns, choices),
    enabled:
      blend === undefined && wanted !== null && wanted.scale === scale && canBlend(knowns.known, knowns.additives),
  });
  if (!plastics || !materials || !bins) return null;
  const first = choices.find((one) => one.hardness !== null) ?? choices[0];
  if (!first) return <p className="soft">No plastisol is in the store: nothing is drawn from a lot.</p>;
  const parts = blend ?? asWanted.data ?? [{ ...first.part, share: 1 }];
  const chosen = parts.flatMap((part) => {
    const choice = choiceOf(choices, part);
    return choice ? [{ share: part.share, gPerMl: choice.gPerMl, byDefault: choice.byDefault }] : [];
  });
  const gPerMl = plasticGPerMl(chosen);
  const cookG = cookMl * gPerMl;
  return (
    <section className="flex flex-col gap-3 border-t border-[var(--rule)] pt-3">
      <h2>Of which plastic</h2>
      <Shares parts={parts} choices={choices} cookG={cookG} onChange={onChange} />
      <p>
        <b className="figure">{text(cookG, 'mass')}</b> of plastic in {text(cookMl, 'volume')}
        {chosen.some((one) => one.byDefault) && (
          <span className="default-mark"> default, {Number(gPerMl.toFixed(3))} g/mL</span>
        )}
      </p>
      <BlendFor
        scale={scale}
        onScale={setScale}
        wanted={wanted}
        plastics={plastics}
        choices={choices}
        onBlend={onChange}
      />
      <BlendSaid
        blend={blended(parts, choices, plastics, cookG)}
        wanted={wanted}
        leftOut={plastics.leftOut}
        costMinor={costOf(parts, choices, cookG)}
      />
    </section>
  );
}

const idOf = (part: BlendWish[number]) => part.lotId ?? part.materialId ?? part.binId;
const choiceOf = (choices: Choice[], part: BlendWish[number]) =>
  choices.find((one) => one.id === idOf(part)) ??
  choices.find((one) => one.materialId !== null && one.materialId === part.materialId);

function Shares({
  parts,
  choices,
  cookG,
  onChange,
}: {
  parts: BlendWish;
  choices: Choice[];
  cookG: number;
  onChange(blend: BlendWish): void;
}) {
  const { text } = useTaste();
  const unused = choices.filter((choice) => !parts.some((part) => choiceOf(choices, part)?.id === choice.id));
  const without = (index: number) => withShare(parts, index, 0).filter((_, i) => i !== index);
  return (
    <>
      <ul className="ruled">
        {parts.map((part, index) => (
          <li key={idOf(part)} className="grid grid-cols-[1fr_72px_auto_76px_auto] gap-x-2 items-center py-1">
            <span className="font-bold">{choiceOf(choices, part)?.label ?? 'a lot'}</span>
            <NumberField
              label="Share, %"
              bare
              value={Number((100 * part.share).toFixed(1))}
              min={0}
              onChange={(percent) => {
                if (percent !== null && percent > 0 && percent < 100 && parts.length > 1)
                  onChange(withShare(parts, index, percent / 100));
              }}
            />
            <span>%</span>
            <span className="figure text-right">{text(part.share * cookG, 'mass')}</span>
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              aria-label="Take this part out"
              disabled={parts.length < 2}
              onClick={() => onChange(without(index))}
            >
              ✕
            </button>
          </li>
        ))}
      </ul>
      {unused.length > 0 && (
        <SelectField<string>
          label="With some"
          value=""
          options={[{ value: '', label: 'nothing more' }, ...unused.map(({ id, label }) => ({ value: id, label }))]}
          onChange={(id) => {
            const added = unused.find((one) => one.id === id);
            if (added) onChange(withShare([...parts, { ...added.part, share: 0 }], parts.length, 0.25));
          }}
        />
      )}
    </>
  );
}

interface Knowns {
  known: Plastics['items'];
  additives: Plastics['additives'];
}

/** Plastics whose hardness is known and what changes it, as far as there is some. */
const knownOf = (plastics: Plastics | undefined, choices: Choice[]): Knowns => {
  const there = (one: { materialId: string }) => choices.some(({ materialId }) => materialId === one.materialId);
  return {
    known: plastics?.items.filter((one) => one.hardness !== null && there(one)) ?? [],
    additives: plastics?.additives.filter(there) ?? [],
  };
};

/** Shares of what is known for a wanted hardness, at the least price. */
async function blendFor({ scale, value }: Wanted, { known, additives }: Knowns, choices: Choice[]): Promise<BlendWish> {
  const { fractions } = await post<Blended>('/calc/hardness.blend', blendAsk({ scale, value }, known, additives));
  return blendShares(fractions).map(({ materialId, share }) => ({
    ...(choices.find((one) => one.materialId === materialId)?.part ?? { materialId }),
    share,
  }));
}

/** The blend that reaches a wanted hardness at the least price, of whole plastisols whose hardness is known. */
function BlendFor({
  scale,
  onScale,
  wanted,
  plastics,
  choices,
  onBlend,
}: {
  scale: 'A' | '00';
  onScale(scale: 'A' | '00'): void;
  wanted: Wanted | null;
  plastics: Plastics;
  choices: Choice[];
  onBlend(blend: BlendWish): void;
}) {
  const [target, setTarget] = useState<number | null>(wanted?.value ?? null);
  const knowns = knownOf(plastics, choices);
  const find = useMutation({
    mutationFn: (value: number) => blendFor({ scale, value }, knowns, choices),
    onSuccess: onBlend,
  });
  if (plastics.items.length + plastics.additives.length < 2) return null;
  const named = (hasPrice: boolean) =>
    knowns.additives.filter((one) => (one.pricePerKgMinor !== null) === hasPrice).map((one) => one.name);
  const [priced, unpriced] = [named(true), named(false)];
  const few = !canBlend(knowns.known, knowns.additives);
  return (
    <div className="flex gap-3 items-start flex-wrap">
      <SelectField
        label="Shore"
        value={scale}
        options={(['00', 'A'] as const).map((one) => ({ value: one, label: one }))}
        onChange={onScale}
        className="w-20"
      />
      <NumberField label="Wanted" value={target} onChange={setTarget} min={0} className="w-24" />
      <button
        type="button"
        className="btn btn-line mt-5"
        disabled={few || target === null || find.isPending}
        onClick={() => target !== null && find.mutate(target)}
      >
        {few ? `No two are known on ${scale}` : target === null ? 'Blend: say how hard' : `Blend for ${target}`}
      </button>
      <Refusal error={find.error} />
      {priced.length > 0 && (
        <p className="basis-full">
          At most {percentText(usual('additiveMost'))} of {priced.join(' or ')}{' '}
          <span className="default-mark">default</span>
        </p>
      )}
      {unpriced.length > 0 && (
        <p className="basis-full soft">
          Not of {unpriced.join(' nor ')}: what it costs is not written down in the store.
        </p>
      )}
    </div>
  );
}

/** What these parts would be, worked out as the cup itself is; doses come later. */
function blended(parts: BlendWish, choices: Choice[], { scale, n }: Plastics, cookG: number): Blend {
  const known = parts.map(({ share }, i) => ({
    share,
    grams: share * cookG,
    choice: choiceOf(choices, parts[i] as BlendWish[number]),
  }));
  const remelt = known.flatMap(({ grams, choice }) => (choice?.layers ? takeFromBin(choice.layers, grams) : []));
  const freshG = known.reduce((sum, { grams, choice }) => sum + (choice?.layers ? 0 : grams), 0);
  const mixed = mixHardness(
    known.map(({ share, choice }) => ({
      share,
      hardness: choice?.hardness ?? null,
      sd: choice?.sd ?? null,
      pointsPerPercent: choice?.pointsPerPercent ?? null,
    })),
  );
  return {
    ...cupState({ cupG: cookG, freshG, remelt, dosedSaltG: 0 }),
    hardness: mixed && { scale, ...mixed, n },
  };
}

/** What the fresh of it costs; null where a price was not written down. */
function costOf(parts: BlendWish, choices: Choice[], cookG: number): number | null {
  let minor = 0;
  for (const part of parts) {
    const choice = choiceOf(choices, part);
    if (choice?.layers) continue;
    if (!choice || choice.pricePerKgMinor === null) return null;
    minor += (part.share * cookG * choice.pricePerKgMinor) / 1000;
  }
  return Math.round(minor);
}
