import { usual } from '../defaults.ts';
import { type ShapeSpec, USUAL_STRANDS, WITHOUT_MORE } from '../shape/spec.ts';
import { ADDED_MASS, beam, onset, STROUHAL } from './kick.ts';

export interface LadderWish {
  scale: 'A' | '00';
  hardness: number;
  wristHeightMm: number;
  wristLengthMm: number;
  paddleDiameterMm: number;
  paddleThicknessMm: number;
  walkingMPerS: number;
  strouhal?: number;
  addedMassCoefficient?: number;
}

export interface LadderStep {
  wristThicknessMm: number;
  wristHeightMm: number;
  wristLengthMm: number;
  paddleDiameterMm: number;
  paddleThicknessMm: number;
}

/**
 * Where each step's expected onset lies, as a share of walking pace, with its paddle: the middle one is in doubt, the
 * outer ones are not; thick and thin paddles tell the moved water from the moved plastic.
 */
const STEPS = [
  { share: 0.5, wide: 1, thick: 1 },
  { share: 0.75, wide: 1.1, thick: 0.7 },
  { share: 1, wide: 1, thick: 1 },
  { share: 1.35, wide: 0.9, thick: 1.5 },
  { share: 1.9, wide: 1, thick: 1 },
] as const;

const tenth = (mm: number) => Math.max(0.6, Math.round(mm * 10) / 10);

/**
 * Five tails that between them span the walking pace: wrist thickness found from the model, to a tenth of a millimetre.
 * @throws Failure `out-of-range` for the hardness.
 */
export function ladderSteps(wish: LadderWish): LadderStep[] {
  return STEPS.map(({ share, wide, thick }) => {
    const step = {
      wristHeightMm: tenth(wish.wristHeightMm),
      wristLengthMm: tenth(wish.wristLengthMm),
      paddleDiameterMm: tenth(wish.paddleDiameterMm * wide),
      paddleThicknessMm: tenth(wish.paddleThicknessMm * thick),
    };
    const at = (wristThicknessMm: number) =>
      onset(
        beam({
          tail: 'end-paddle',
          scale: wish.scale,
          hardness: wish.hardness,
          wristThicknessMm,
          ...step,
          plastisolDensityGPerMl: usual('plastisolGPerMl'),
          waterDensityGPerMl: usual('waterGPerMl'),
        }),
        wish.addedMassCoefficient ?? ADDED_MASS,
        wish.strouhal ?? STROUHAL,
      ).onsetMPerS;
    // Onset grows with the wrist: halve the interval.
    let [low, high] = [0.6, Math.max(12, wish.wristHeightMm * 1.6)];
    for (let turn = 0; turn < 40; turn++) {
      const middle = (low + high) / 2;
      if (at(middle) < share * wish.walkingMPerS) low = middle;
      else high = middle;
    }
    return { wristThicknessMm: tenth((low + high) / 2), ...step };
  });
}

/** How far a stub's belly lies under its paddle, and what is cut off it to stand on, mm. */
const STANDS_MM = 0.6;
const FLAT_MM = 0.6;

/** A stub body to hold on to, with the step's wrist and paddle; flat underneath, to stand five on one board. */
export function stubSpec(step: LadderStep): ShapeSpec {
  const tall = Math.max(10, step.wristHeightMm + 3);
  // Lower than the paddle, so that it stands on its belly.
  const bottomMm = Math.max(tall / 2, step.paddleDiameterMm / 2 + STANDS_MM) + FLAT_MM;
  return {
    bodyMm: 26,
    noseMm: 3,
    stations: [
      { at: 0, topMm: tall / 2, bottomMm, widthMm: 10 },
      { at: 0.7, topMm: tall / 2, bottomMm, widthMm: 10 },
    ],
    flatBelly: 0.4,
    ribs: null,
    wrist: { thicknessMm: step.wristThicknessMm, heightMm: step.wristHeightMm, lengthMm: step.wristLengthMm },
    tail: {
      kind: 'paddle',
      lengthMm: step.paddleThicknessMm,
      acrossMm: step.paddleDiameterMm,
      thicknessMm: step.paddleThicknessMm,
      angleDeg: 0,
      strands: USUAL_STRANDS,
    },
    limbs: [],
    fin: null,
    ...WITHOUT_MORE,
    eyes: null,
    bellySlot: null,
    topSlot: null,
    // A hole for the line to draw it by.
    bore: { diameterMm: 1.6, fromAt: 0, toAt: 0.9, upMm: 0 },
    inserts: [],
    cutFlatMm: FLAT_MM,
    carved: { taper: 0, bendMm: 0 },
  };
}
