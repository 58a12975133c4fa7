import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import type { MakingPlan } from '../../../contract/molds.ts';
import { usual } from '../../../core/defaults.ts';
import { Failure, type Told } from '../../../core/failure.ts';
import { type BedPlan, bedPlan, volumeByFilling } from '../../../core/mold/bed.ts';
import type { School } from '../../../core/mold/bubbles.ts';
import { type PlanInput, plan, type SiliconePlan } from '../../../core/mold/silicone.ts';
import { gridPlaces, type Place, type Thinnest, thinnestWall } from '../../../core/mold/standing.ts';

export const POURS = {
  'open-face': { words: 'open face', kind: 'silicone-open', fill: 'open-pour' },
  wrap: { words: 'wrap', kind: 'silicone-wrap', fill: 'gravity' },
  'two-piece': { words: 'two-piece', kind: 'silicone-two-piece', fill: 'gravity' },
} as const;
export type Way = keyof typeof POURS;

export interface Choices {
  way: Way;
  count: number;
  wallMm: number;
  gapMm: number;
  coverMm: number;
  wastePercent: number;
  roomC: number;
  mixCupMl: number | null;
  hold: MakingPlan['hold'];
  bed: BedChoice;
  school: School;
  /** What a filling test took, where one was made. */
  filledMl: number | null;
  /** Where the masters were dragged to; null while they stand in their grid. */
  places: Place[] | null;
}

export interface BedChoice {
  depthMm: number;
  sinkMm: number;
  partA: number;
  partB: number;
  by: 'mass' | 'volume';
  workMin: number;
  firmMin: number;
}

export const STARTING: Omit<Choices, 'roomC' | 'way'> = {
  count: 3,
  wallMm: usual('siliconeWallMm'),
  gapMm: usual('siliconeGapMm'),
  coverMm: usual('siliconeCoverMm'),
  wastePercent: 100 * usual('siliconeWasteFraction'),
  mixCupMl: null,
  hold: 'glue',
  bed: { depthMm: 3, sinkMm: 1.5, partA: 2, partB: 1, by: 'volume', workMin: 20, firmMin: 120 },
  school: 'vacuum',
  filledMl: null,
  places: null,
};

/** Epoxies for flow: 2 to 1 by volume at these densities is usual; the bottle wins. */
const RESIN_G_PER_ML = { densityAGPerMl: 1.13, densityBGPerMl: 0.97 } as const;

export interface Planned {
  input: PlanInput;
  plan: SiliconePlan;
  bed: BedPlan | null;
  /** Of one master, as the rubber meets it. */
  master: { volumeMl: number; lengthMm: number; widthMm: number; heightMm: number };
  places: Place[];
  thinnest: Thinnest;
  making: MakingPlan;
}

type Sized = Pick<MasterRow['latest'], 'volumeMl' | 'lengthMm' | 'widthMm' | 'heightMm'>;

function planWith(size: Sized & { volumeMl: number }, rubber: Material, choices: Choices): Planned | null {
  if (!rubber.mix || !rubber.potLifeMin || !rubber.demoldMin) return null;
  const { densityAGPerMl = 1.1, densityBGPerMl = 1.1 } = rubber.mix;
  const { count, roomC, bed: wish } = choices;
  const { volumeMl, lengthMm, widthMm, heightMm } = size;
  const whole = { volumeMl, lengthMm, widthMm, heightMm };
  const inputOf = (master: typeof whole): PlanInput => ({
    pour: choices.way,
    masters: [{ ...master, count }],
    wallMm: choices.wallMm,
    gapMm: choices.gapMm,
    coverMm: choices.coverMm,
    wasteFraction: choices.wastePercent / 100,
    mix: { ...(rubber.mix as NonNullable<Material['mix']>), densityAGPerMl, densityBGPerMl },
    potLifeMin: rubber.potLifeMin as number,
    demoldMin: rubber.demoldMin as number,
    ratedC: rubber.ratedC ?? usual('ratedC'),
    roomC,
    ...(choices.mixCupMl ? { mixCupMl: choices.mixCupMl } : {}),
    ...(rubber.pricePerKgMinor === null ? {} : { pricePerKgMinor: rubber.pricePerKgMinor }),
  });
  const first = plan(inputOf(whole));
  // Two halves are bedded in clay: only what stands on a floor can stand in resin.
  const bedded = choices.hold === 'bed' && choices.way !== 'two-piece';
  const bed = bedded
    ? bedPlan({
        boxLengthMm: first.boxLengthMm,
        boxWidthMm: first.boxWidthMm,
        ...wish,
        masters: [{ volumeMl, heightMm, count }],
        mix: { by: wish.by, partA: wish.partA, partB: wish.partB, ...RESIN_G_PER_ML },
        ratedC: usual('ratedC'),
        roomC,
      })
    : null;
  const master = bed ? { ...whole, ...pick(bed.masters[0]) } : whole;
  const input = inputOf(master);
  const planned = plan(input);
  const places = choices.places ?? gridPlaces(planned, master, count, choices.gapMm);
  return {
    input,
    plan: planned,
    bed,
    master,
    places,
    thinnest: thinnestWall(places, planned, master),
    making: {
      hold: bedded ? 'bed' : choices.hold === 'bed' ? 'glue' : choices.hold,
      ...(bed
        ? {
            bed: {
              depthMm: wish.depthMm,
              sinkMm: wish.sinkMm,
              resinMl: bed.resinMl,
              gramsA: bed.gramsA,
              gramsB: bed.gramsB,
              workMin: bed.workMin,
              firmMin: bed.firmMin,
            },
          }
        : {}),
      bubbles: choices.school,
      ...(choices.places ? { places: choices.places } : {}),
    },
  };
}

const pick = (one: BedPlan['masters'][number] | undefined) =>
  one ? { volumeMl: one.volumeMl, heightMm: one.heightMm } : {};

/** The plan, or why there is none; a filling test stands in for a volume that is not known yet. */
export function tryPlan(
  size: Sized,
  rubber: Material | undefined,
  choices: Choices,
): { planned?: Planned; refused?: Told } {
  if (!rubber) return {};
  try {
    let { volumeMl } = size;
    if (choices.filledMl) {
      const block = planWith({ ...size, volumeMl: 1e-3 }, rubber, { ...choices, hold: 'glue' })?.plan;
      if (!block) return {};
      const blockMl = (block.boxLengthMm * block.boxWidthMm * block.boxHeightMm) / 1000;
      volumeMl = volumeByFilling(blockMl, choices.filledMl, choices.count);
    }
    if (!volumeMl) return {};
    const planned = planWith({ ...size, volumeMl }, rubber, choices);
    return planned ? { planned } : {};
  } catch (error) {
    if (error instanceof Failure) return { refused: error.told };
    throw error;
  }
}
