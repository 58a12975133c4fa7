import { usual } from '../defaults.ts';
import { type BedPlan, bedPlan, volumeByFilling } from './bed.ts';
import type { School } from './bubbles.ts';
import { type PlanInput, plan, type SiliconePlan } from './silicone.ts';
import { gridPlaces, type Place, type Thinnest, thinnestWall } from './standing.ts';

export type Way = PlanInput['pour'];
/** How masters are held in the box. */
export type Hold = 'glue' | 'bed' | 'box-over';

export interface Choices {
  way: Way;
  /** Of a wrap: the master stands on end in its block, or lies in it. */
  onEnd: boolean;
  count: number;
  wallMm: number;
  gapMm: number;
  coverMm: number;
  wastePercent: number;
  roomC: number;
  mixCupMl: number | null;
  hold: Hold;
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

/** A self-levelling epoxy bed as one begins with it: 3 mm, half of it sunk, 2 to 1 by volume. The bottle wins. */
export const USUAL_BED: BedChoice = {
  depthMm: 3,
  sinkMm: 1.5,
  partA: 2,
  partB: 1,
  by: 'volume',
  workMin: 20,
  firmMin: 120,
};

/** What a plan begins with; the room is the workshop's. */
export const STARTING: Omit<Choices, 'roomC' | 'way'> = {
  onEnd: true,
  count: 3,
  wallMm: usual('siliconeWallMm'),
  gapMm: usual('siliconeGapMm'),
  coverMm: usual('siliconeCoverMm'),
  // Tenths of a percent: 100 × 0.07 is not 7.
  wastePercent: Math.round(1000 * usual('siliconeWasteFraction')) / 10,
  mixCupMl: null,
  hold: 'glue',
  bed: USUAL_BED,
  school: 'vacuum',
  filledMl: null,
  places: null,
};

const EPOXY = { densityAGPerMl: usual('epoxyAGPerMl'), densityBGPerMl: usual('epoxyBGPerMl') } as const;

export interface Planned {
  input: PlanInput;
  plan: SiliconePlan;
  bed: BedPlan | null;
  /** Of one master, as the rubber meets it. */
  master: { volumeMl: number; lengthMm: number; widthMm: number; heightMm: number };
  places: Place[];
  thinnest: Thinnest;
  making: Making;
}

/** A master as it was measured; its volume may not be known yet. */
export interface Sized {
  volumeMl: number | null;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

/** What the tin of a rubber says; null where nobody wrote it down. */
export interface Rubber {
  mix:
    | (Pick<PlanInput['mix'], 'partA' | 'partB' | 'by'> & {
        densityAGPerMl?: number | undefined;
        densityBGPerMl?: number | undefined;
      })
    | null;
  potLifeMin: number | null;
  demoldMin: number | null;
  ratedC: number | null;
  pricePerKgMinor: number | null;
}

/** How the masters are held, the bed that is mixed for them, how bubbles are kept out, and where each was dragged to. */
export interface Making {
  hold: Hold;
  bed?: Pick<BedChoice, 'depthMm' | 'sinkMm'> & Pick<BedPlan, 'resinMl' | 'gramsA' | 'gramsB' | 'workMin' | 'firmMin'>;
  bubbles: School;
  /** Masters stand on end in their block. */
  onEnd?: boolean;
  places?: Place[];
}

function planWith(size: Sized & { volumeMl: number }, rubber: Rubber, choices: Choices): Planned | null {
  if (!rubber.mix || !rubber.potLifeMin || !rubber.demoldMin) return null;
  const { densityAGPerMl = usual('rubberGPerMl'), densityBGPerMl = usual('rubberGPerMl') } = rubber.mix;
  const { count, roomC, bed: wish } = choices;
  const { volumeMl, widthMm } = size;
  const onEnd = choices.way === 'wrap' && choices.onEnd;
  // On end its length is what is upright.
  const [lengthMm, heightMm] = onEnd ? [size.heightMm, size.lengthMm] : [size.lengthMm, size.heightMm];
  const whole = { volumeMl, lengthMm, widthMm, heightMm };
  const inputOf = (master: typeof whole): PlanInput => ({
    pour: choices.way,
    masters: [{ ...master, count }],
    wallMm: choices.wallMm,
    gapMm: choices.gapMm,
    coverMm: choices.coverMm,
    wasteFraction: choices.wastePercent / 100,
    mix: { ...(rubber.mix as NonNullable<Rubber['mix']>), densityAGPerMl, densityBGPerMl },
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
        mix: { by: wish.by, partA: wish.partA, partB: wish.partB, ...EPOXY },
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
      ...(onEnd ? { onEnd } : {}),
      ...(choices.places ? { places: choices.places } : {}),
    },
  };
}

const pick = (one: BedPlan['masters'][number] | undefined) =>
  one ? { volumeMl: one.volumeMl, heightMm: one.heightMm } : {};

/**
 * The block for so many of a master in this rubber: box, mix for each pour, bed, where each stands.
 * @returns null while the master's volume (mL; a filling test stands in for it) or what the tin says is not known.
 * @throws Failure `invalid-input` where these figures make no block.
 * Source: geometry (`mold.plan`); a bed's resin and times by `bedPlan`; a filling test by `volumeByFilling`.
 */
export function planBlock(size: Sized, rubber: Rubber, choices: Choices): Planned | null {
  let { volumeMl } = size;
  if (choices.filledMl) {
    const block = planWith({ ...size, volumeMl: 1e-3 }, rubber, { ...choices, hold: 'glue' })?.plan;
    if (!block) return null;
    const blockMl = (block.boxLengthMm * block.boxWidthMm * block.boxHeightMm) / 1000;
    volumeMl = volumeByFilling(blockMl, choices.filledMl, choices.count);
  }
  return volumeMl ? planWith({ ...size, volumeMl }, rubber, choices) : null;
}
