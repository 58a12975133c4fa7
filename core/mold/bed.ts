import { Failure } from '../failure.ts';
import { ml, mm, say } from '../units/say.ts';
import { type Mix, type Parts, roomFactor, splitMix } from './rubber.ts';

export interface BedWish {
  boxLengthMm: number;
  boxWidthMm: number;
  /** Depth of the resin, and how deep the masters sink into it. */
  depthMm: number;
  sinkMm: number;
  masters: { volumeMl: number; heightMm: number; count: number }[];
  mix: Mix;
  workMin: number;
  firmMin: number;
  ratedC: number;
  roomC: number;
}

export interface BedPlan extends Parts {
  resinMl: number;
  /** Of one master of each kind: what is under the resin, and what the rubber still meets. */
  masters: { sunkMl: number; volumeMl: number; heightMm: number }[];
  workMin: number;
  firmMin: number;
}

/**
 * A self-levelling epoxy bed that masters are pressed into: resin, its clocks, and what of the masters the rubber meets.
 * What is sunk is taken as even over the master's height. Lengths mm, volumes mL, masses g, times min.
 * @throws Failure `invalid-input` when masters sink deeper than the bed, or wholly.
 * Source: geometry; times by the ten-degree rule.
 */
export function bedPlan(wish: BedWish): BedPlan {
  const { depthMm, sinkMm } = wish;
  if (sinkMm > depthMm + 1e-9)
    throw new Failure(
      'invalid-input',
      say`A bed of ${mm(depthMm)} holds a master ${mm(depthMm)} deep at most.`,
      'sinkMm',
    );
  const shortest = Math.min(...wish.masters.map((one) => one.heightMm));
  if (sinkMm >= shortest)
    throw new Failure('invalid-input', say`A master ${mm(shortest)} high would drown; sink it less.`, 'sinkMm');
  const masters = wish.masters.map(({ volumeMl, heightMm }) => {
    const sunkMl = (volumeMl * sinkMm) / heightMm;
    return { sunkMl, volumeMl: volumeMl - sunkMl, heightMm: heightMm - sinkMm };
  });
  const sunk = masters.reduce((sum, one, i) => sum + one.sunkMl * (wish.masters[i]?.count ?? 1), 0);
  const resinMl = (wish.boxLengthMm * wish.boxWidthMm * depthMm) / 1000 - sunk;
  if (resinMl <= 0) throw new Failure('invalid-input', 'The masters fill the whole bed; make it deeper.', 'depthMm');
  const factor = roomFactor(wish.ratedC, wish.roomC);
  return {
    resinMl,
    ...splitMix(resinMl, wish.mix),
    masters,
    workMin: wish.workMin * factor,
    firmMin: wish.firmMin * factor,
  };
}

/**
 * Volume of each master from a filling test: what grain or water fills the box to the line round them, mL.
 * @throws Failure `invalid-input` when it took as much as the empty box holds, or more.
 * Source: what is not filled is the masters.
 */
export function volumeByFilling(blockMl: number, filledMl: number, count: number): number {
  if (filledMl >= blockMl)
    throw new Failure(
      'invalid-input',
      say`The empty box holds ${ml(blockMl)} to the line; it cannot take more round masters. Measure the box again.`,
      'filledMl',
    );
  return (blockMl - filledMl) / count;
}
