import { Failure } from '../failure.ts';
import { askewCost, lieOf } from '../shape/lies.ts';
import { dot, type Mesh, moved, type Progress, unit, type Vec3 } from '../shape/mesh.ts';
import { bestParting, type Parting, parting } from '../shape/parting.ts';
import { Rays } from '../shape/rays.ts';
import { meshOf } from '../shape/solids.ts';
import { mm, say } from '../units/say.ts';
import { arrange, type Corner, cornersOf, frameOf, mustFit } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { boreOf, type Gate, gateAt, plugOf } from './channels.ts';
import { endOf } from './ends.ts';
import { seamPins } from './quarters.ts';
import type { Shop } from './shop.ts';
import { type Caught, caughtBy, FLAT, type Split, wavySplit } from './split.ts';
import { thinnestOf } from './thinnest.ts';
import { type Vent, ventsByHand, ventsMustHold, ventsOf } from './vents.ts';

/** The pull that is asked for, or the best; a rod along the bait leaves only those across it, a hook slot the one down. */
function pullOf(mesh: Mesh, wish: MoldWish, rod: boolean, progress: Progress): Parting {
  if (wish.direction) return parting(mesh, wish.direction as Vec3, progress);
  if (wish.hookSlot) return parting(mesh, [0, 0, 1], progress);
  if (!rod) return bestParting(mesh, progress).best;
  const [up, aside] = [parting(mesh, [0, 0, 1], (done) => progress(done / 2)), parting(mesh, [0, 1, 0])];
  return aside.undercutMm2 < up.undercutMm2 ? aside : up;
}

/** From the mold's axes back to the bait's. */
function backTo({ direction }: Parting, planeMm: number, scale: number): (point: Vec3) => Vec3 {
  const frame = frameOf(direction, 0, 1);
  const axes = ([0, 1, 2] as const).map((k) => frame([0, 1, 2].map((j) => (j === k ? 1 : 0)) as Vec3));
  return ([x, y, z]) => axes.map((axis) => dot(axis, [x / scale, y / scale, z / scale + planeMm])) as Vec3;
}

/** All that is decided about a mold before any of it is cut. */
export interface Decided {
  bore: ReturnType<typeof boreOf> | null;
  found: Parting;
  planeMm: number;
  /** From the bait's axes to one cavity's. */
  frame: (point: Vec3) => Vec3;
  /** One cavity in its own axes; filled where a rod goes through it. */
  cavity: Mesh;
  split: Split;
  plan: Arranged;
  gate: Gate;
  corners: Corner[];
  vents: Vent[];
  pinsAside: Vec3[];
  caught: Caught;
  caughtAtMm: Vec3[];
  thinnestWall: { mm: number; where: string };
  notes: string[];
}

/** Said of a bait that lies further off than this, and whose block is so much larger for it; a bent back is no slant. */
const ASKEW_DEG = 8;
const ASKEW_COSTS = 1.3;

/** What has to stay free round a pin in its gate, mm a side. */
const LEAST_ROUND_PIN_MM = 0.8;

function mustMakeSense(wish: MoldWish): void {
  const along = wish.direction && Math.abs(unit(wish.direction as Vec3)[0]) > 0.7;
  if (wish.coreRodMm !== undefined && along)
    throw new Failure('invalid-input', 'A mold with a core rod is pulled apart across the bait.', 'direction');
  if (wish.hookSlot && wish.direction && Math.abs(unit(wish.direction as Vec3)[2]) < 0.7)
    throw new Failure(
      'invalid-input',
      'A hook slot is cut into the belly, and halves that part sideways meet there: pull them up and down.',
      'hookSlot',
    );
  if (wish.rodHeld === 'both' && wish.coreRodMm !== undefined) {
    if (wish.count < 2)
      throw new Failure(
        'invalid-input',
        'A single cavity is filled through its nose, where the pin would stand: hold the rod at the tail, or make two on a runner.',
        'rodHeld',
      );
    if (wish.layout === 'both-sides')
      throw new Failure(
        'invalid-input',
        'Noses that face each other leave a pin no wall to stand in: lay them to one side.',
        'layout',
      );
    if (wish.rodPinMm > wish.gateMm - 2 * LEAST_ROUND_PIN_MM)
      throw new Failure(
        'invalid-input',
        say`A pin of ${mm(wish.rodPinMm)} fills the gate; a gate of ${mm(Math.ceil(10 * (wish.rodPinMm + 2 * LEAST_ROUND_PIN_MM)) / 10)} or a thinner pin leaves room to fill.`,
        'rodPinMm',
      );
  }
  if (wish.coreRodMm !== undefined && wish.without.includes('bore'))
    throw new Failure('invalid-input', 'A bore that is left out needs no rod.', 'coreRodMm');
  if (wish.sparkRoughGapMm !== undefined && wish.sparkGapMm === undefined)
    throw new Failure('invalid-input', 'Roughing comes before finishing: give its gap too.', 'sparkGapMm');
  if (wish.pieces === 4 && wish.count > 1)
    throw new Failure('invalid-input', 'Four pieces open round one cavity; make it one, or two halves.', 'count');
  if (wish.pieces === 4 && wish.hookSlot)
    throw new Failure('invalid-input', 'The seam of four pieces runs where the slot insert would sit.', 'hookSlot');
  for (const [name, on] of [
    ['pieces', wish.pieces === 4],
    ['hookSlot', wish.hookSlot !== undefined],
    ['split', wish.split === 'wavy'],
  ] as const)
    if (on && wish.kind === 'silicone-box')
      throw new Failure('invalid-input', 'Boxes to cast silicone in have one flat floor and no inserts.', name);
}

/**
 * Judges a bait for its mold and lays it out: pull, seam, cavities, gates, vents, pins, what is caught.
 * @throws Failure as `buildMold` does: whatever cannot be built is told from here.
 */
export function decideMold(shop: Shop, mesh: Mesh, wish: MoldWish, progress?: Progress, raisedMm = 0): Decided {
  mustMakeSense(wish);
  // A rod fills the bore: what is cut into the halves has none.
  const bore = wish.coreRodMm === undefined ? null : boreOf(mesh);
  const filled = bore ? meshOf(shop.all([shop.solid(mesh), shop.rod('x', ...plugOf(bore))])) : mesh;
  const found = pullOf(filled, wish, bore !== null, (done) => progress?.(0.6 * done));
  const scale = 1 + wish.shrinkFraction;
  const wavy = wish.split === 'wavy';
  // A wavy seam begins at the nose's own height, where the gate meets it.
  const seamMm = wish.planeMm ?? (wavy ? endOf(moved(filled, frameOf(found.direction, 0, 1)), -1)[2] : found.planeMm);
  const planeMm = wavy ? seamMm : seamMm + raisedMm;
  const frame = frameOf(found.direction, planeMm, scale);
  const cavity = moved(filled, frame);
  const split = wavy ? wavySplit(cavity, raisedMm) : FLAT;
  const plan = arrange(cavity, wish, split);
  mustFit(plan, wish);
  const rays = new Rays(cavity);
  const gate = gateAt(cavity, plan.min, rays);
  const notes: string[] = [];
  const lie = lieOf(filled);
  const costs = askewCost(filled, lie);
  if (lie.askewDeg !== null && lie.askewDeg > ASKEW_DEG && costs > ASKEW_COSTS)
    notes.push(
      `The bait lies ${lie.askewDeg.toFixed(0)}° askew in its block, which is ${((costs - 1) * 100).toFixed(0)} % larger for it: turn the mesh where it is brought in.`,
    );
  if (bore && wish.coreRodMm && Math.abs(2 * bore.radius - wish.coreRodMm) > 0.3)
    notes.push(`The bore is ${(2 * bore.radius).toFixed(1)} mm: a rod of ${wish.coreRodMm} mm leaves a step.`);
  if (wavy && split.highMm - split.lowMm < 0.3) notes.push('Its edge lies in one plane: a flat seam does the same.');
  const corners = cornersOf(plan, wish);
  const rodAt = bore && frame(bore.bottom);
  const rod = rodAt && { y: rodAt[1], radiusMm: (wish.coreRodMm as number) / 2 };
  const vented = wish.ventMm > 0 && wish.kind !== 'silicone-box';
  const vents = !vented
    ? []
    : wish.ventsAt
      ? ventsByHand(wish.ventsAt, rays, plan, split, gate.y)
      : ventsOf(cavity, rays, plan, split, notes, rod);
  if (wish.kind !== 'silicone-box') ventsMustHold(vents, plan, wish, corners);
  const pinsAside = wish.pieces === 4 ? seamPins(plan, wish) : [];
  progress?.(0.8);
  const caught = caughtBy(cavity, split, wish.pieces === 4 ? gate.y : null);
  progress?.(1);
  return {
    bore,
    found,
    planeMm,
    frame,
    cavity,
    split,
    plan,
    gate,
    corners,
    vents,
    pinsAside,
    caught,
    caughtAtMm: caught.places.map(backTo(found, planeMm, scale)),
    thinnestWall: thinnestOf(plan, wish, rays, corners, gate.y),
    notes,
  };
}
