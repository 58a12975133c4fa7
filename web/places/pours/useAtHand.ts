import { useState } from 'react';
import type { ScaleStep } from '../../../contract/instruments.ts';
import type { Heat } from '../../../contract/pours.ts';
import { tried } from '../../../core/failure.ts';
import { type MayGoIn, type MayGoOut, type Seen, seenIn } from '../../../core/instruments/witness.ts';
import { goes } from '../../../core/plan/layers.ts';
import { doseGrams } from '../../../core/plastisol/weigh.ts';
import { isGelled } from '../../../core/process/heatNext.ts';
import type { Speaking } from '../../api/instruments.ts';
import { useTaste } from '../../parts/taste.tsx';
import { useBenchRoom } from './benchRoom.ts';
import type { AtTheCup } from './useAtTheCup.ts';

/** Whose figure may be taken: pointed at this cup, and believed. */
const taken = (one: Speaking | undefined) => (one?.now?.trust === 'fine' && one.now.value !== null ? one.now : null);

/** What a reading is by what was done before: the first is of the cooked cup, one after the oven of a reheated one. */
function kindOfReading(heats: Heat[], burstAt: string | undefined): Heat['kind'] {
  const last = heats.at(-1);
  if (!last || !isGelled({ heats })) return 'cook';
  return burstAt !== undefined && burstAt > last.at ? 'reheat' : 'reading';
}

/** The instruments at one cup, and what their figures come to: proposals, each acted on by a tap like any other. */
export function useAtHand(at: AtTheCup, burstAt?: string) {
  const { pour, lead, folded, cup, materials } = at;
  const { workshop, measures } = useTaste();
  const room = useBenchRoom();
  const all = room.useInstruments();
  const taps = room.useTaps();
  const { tap } = room;
  const [hidden, setHidden] = useState<string[]>([]);
  const of = (kind: Speaking['kind']) => {
    const some = all.filter((one) => one.kind === kind);
    return some.find((one) => one.pourId === pour.id) ?? some[0];
  };
  const thermometer = of('thermometer');
  const scale = of('scale');
  const here = (one: Speaking | undefined) => one?.pourId === pour.id;
  const reading = here(thermometer) ? taken(thermometer) : null;
  const read = () => {
    if (!thermometer || reading?.value == null) return;
    at.write.readBy(kindOfReading(folded.heats, burstAt), reading.value, thermometer);
  };
  const goesIn: MayGoIn[] = pour.plan.items.flatMap((item) => {
    const material = materials.find(({ id }) => id === item.materialId);
    if (!material) return [];
    const { value } = tried(() =>
      doseGrams({ amount: 1, unit: item.unit }, material, { dropsPerMl: workshop.dropsPerMl, measures }),
    );
    const put = folded.doses
      .filter((dose) => dose.materialId === item.materialId && dose.unit === item.unit)
      .reduce((sum, dose) => sum + (dose.reverses ? -1 : 1) * dose.amount, 0);
    return value
      ? [
          {
            materialId: item.materialId,
            name: item.materialName,
            unit: item.unit,
            gEach: value.g,
            left: item.amount - put,
          },
        ]
      : [];
  });
  const gPerMl = pour.plan.cookG / pour.cookMl;
  const share = (moldId: string) => {
    const planned = lead.plan.molds.find((mold) => mold.moldId === moldId);
    const mine = lead.cups.find(({ id }) => id === pour.id)?.layers ?? [];
    if (lead.layers.length < 2) return planned?.shotMl ?? 0;
    return mine.reduce((sum, layer) => sum + (planned?.layersMl?.[layer] ?? 0), 0);
  };
  const goesOut: MayGoOut[] = cup.molds.map(({ moldId, name }) => ({ moldId, name, grams: share(moldId) * gPerMl }));
  const said = new Set([
    ...folded.doses.map(({ id }) => id),
    ...cup.shots.map(({ id }) => id),
    ...cup.shots.flatMap(({ weighed }) => weighed.map(({ id }) => id)),
    ...taps.map(({ body }) => String(body.id)),
    ...hidden,
  ]);
  const steps = (here(scale) ? (scale?.now?.steps ?? []) : []).filter((step) => !said.has(step.id));
  const ofCup = steps.filter((step) => step.pourId === pour.id && step.shotId === null);
  return {
    all,
    thermometer,
    scale,
    here,
    reading,
    read,
    goesIn,
    /** What the scale saw of this cup and nobody has said yet. */
    steps: ofCup.map((step): ScaleStep & { seen: Seen } => ({ ...step, seen: seenIn(step, goesIn, goesOut) })),
    /** Of baits that are laid on it one by one. */
    baits: steps.filter((step) => step.shotId !== null && step.deltaG > 0),
    hide: (id: string) => setHidden((before) => [...before, id]),
    /** The step becomes the very tap that somebody would have made; tapped on two tablets it is one. */
    dosed: (step: ScaleStep, materialId: string, amount: number, unit: string) =>
      tap(`/ledgers/${pour.ledgerId}/doses`, { id: step.id, materialId, amount, unit }, `by the scale`, pour.id),
    drawn: (step: ScaleStep, moldId: string) => {
      const mold = cup.molds.find((one) => one.moldId === moldId);
      const into = cup.shots.find((shot) => shot.moldId === moldId && shot.gone < goes(lead.layers).length);
      if (!mold) return;
      at.write.drawn(mold, into?.gone ?? 0, into, step.id);
      // A further layer is no row of its own: the step is said all the same.
      if (into) setHidden((before) => [...before, step.id]);
    },
    weighedBait: (step: ScaleStep, shotId: string, cavity: number) =>
      tap(
        `/pours/${lead.id}/shots/${shotId}/weighed`,
        { id: step.id, cavity, grams: Math.round(step.deltaG * 10) / 10, instrumentId: scale?.id ?? null },
        `bait ${cavity} weighed`,
        lead.id,
      ),
  };
}

export type AtHand = ReturnType<typeof useAtHand>;
