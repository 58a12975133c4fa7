import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { type Mesh, moved, type Progress, together, type Vec3 } from '../shape/mesh.ts';
import { meshOf } from '../shape/solids.ts';
import { clampsOf, cornersOf, least, most } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import { boxes } from './boxes.ts';
import type { MoldWish } from './buildWish.ts';
import { type boreOf, channelsOf, type Gate } from './channels.ts';
import { decideMold } from './decide.ts';
import { electrodes } from './electrode.ts';
import { asFile, partOf as part } from './parts.ts';
import type { MoldPart } from './pieces.ts';
import { quartered } from './quarters.ts';
import { ml, type Pose, Shop } from './shop.ts';
import { type SlotInsert, slotInsert } from './slot.ts';
import { SPARK_LEAVE_MM } from './spark.ts';
import { blocksOf, type Split, seamAt } from './split.ts';
import { type Vent, ventSolids } from './vents.ts';

export interface BuiltMold {
  parts: MoldPart[];
  /** One cavity as it is cut, parting plane at 0: larger for shrinking, without a bore that a rod keeps free. */
  cavity: Mesh;
  /** What comes out of it: baits, gates, runner and sprue in one. */
  casting: Mesh;
  /** Of each of its triangles, how much of it a half holds back, 0 to 1; null where a slot or a rod stands in it. */
  castingCaught: Float32Array | null;
  /** Outside of the closed mold, length, width, height. */
  blockMm: Vec3;
  /** Heights of the lower and the upper half at the sprue's plane. */
  halfMm: [number, number];
  /** How deep the cavities lie in the lower and in the upper half. */
  depthMm: [number, number];
  /** How far a pin stands out of the lower half; 0 where there is none. */
  pinTallMm: number;
  /** From the mold's own origin to the block's lower left corner, turned round: what is added to be measured from there. */
  cornerMm: [x: number, y: number];
  /** Where things lie, from the block's lower left corner seen from above, mm. */
  layout: {
    /** Nose of each cavity, and which way its tail lies. */
    noses: { x: number; y: number; tail: 'right' | 'left' }[];
    pins: { x: number; y: number }[];
    /** In the order in which they are set: opposite corners first. */
    clamps: { x: number; y: number }[];
    runner: { x: number; fromY: number; toY: number } | null;
  };
  /** Middle of the first cavity across the mold: where a section shows the most. */
  sectionMm: number;
  /** How far the seam rises and falls; both 0 for a flat one. */
  seamMm: { low: number; high: number };
  /** The thinnest wall anywhere, and between what. */
  thinnestWall: { mm: number; where: string };
  /** One cavity, with its allowance for shrinking, and without what its slot insert or its rod takes. */
  cavityMl: number;
  /** Sprue, runner and gates. */
  channelsMl: number;
  ventsMl: number;
  /** What sockets are wider than pins or dowels, holes than inserts and rods, pry slots and ways for screws. */
  clearanceMl: number;
  /** Rubber into the box or boxes; 0 for a mold that is not cast. */
  rubberMl: number;
  direction: Vec3;
  planeMm: number;
  flatBack: boolean;
  /** What does not come free of its half in a straight pull, both together and each. */
  undercutMm2: number;
  caughtMm2: { upper: number; lower: number };
  /** Where a half does not come free, in the bait's axes. */
  caughtAtMm: Vec3[];
  vents: Vent[];
  /** The same as a maker would set them: from the nose's tip, and to the right of the gate. */
  ventsFrom: { kind: Vent['kind']; fromNoseMm: number; asideMm: number }[];
  /** What the builder left out or wants looked at. */
  notes: string[];
}

const PIN_TALL_MM = 5;
const PRY = { along: 12, deep: 4, tall: 2.5 };
/** What a rod's channel is wider than the rod, and how far it stands out to be held. */
export const ROD_FIT_MM = 0.2;
const ROD_GRIP_MM = 20;
/** A half's cavity is cut a little past the seam, so that no two faces of a cut fall together. */
const PAST_MM = 0.5;

interface Cut {
  shop: Shop;
  wish: MoldWish;
  plan: Arranged;
  split: Split;
  /** One cavity in its own axes; filled where a rod goes through it. */
  cavity: Mesh;
  hollow: Manifold;
  slot: SlotInsert | null;
  /** What of the rod stands in a cavity and before it, in its own axes. */
  rod: Manifold | null;
  inCells: boolean;
}

/** Both halves, what of the block is neither half nor cavity, and the pins. */
function halvesOf(
  cut: Cut,
  { gate, channel }: Flow,
  { vents, air }: Airways,
  notes: string[],
): { lower: Manifold; upper: Manifold; clearanceMl: number } {
  const { shop, wish, plan, split, hollow, slot } = cut;
  const { low, high, places } = plan;
  const { pins } = wish;
  const corners = cornersOf(plan, wish);
  const seam = (x: number) => seamAt(split, plan, x);
  const tall = pinTallOf(plan, split);
  // What stands in a socket: a pin that is part of the lower half, or a dowel in a hole of both.
  const pegs = corners.map(([x, y]) => shop.rod('z', [x, y, seam(x) - 0.5], tall + 0.5, pins.diameterMm / 2));
  const below = corners.map(([x, y]) => shop.rod('z', [x, y, seam(x) - tall], tall + 1, pins.diameterMm / 2));
  const sockets = corners.map(([x, y]) =>
    shop.rod('z', [x, y, seam(x) - 0.5], tall + 0.5 + pins.clearanceMm, pins.diameterMm / 2 + pins.clearanceMm),
  );
  const pryAt = (x: number, y0: number, y1: number) =>
    shop.box([x - PRY.along / 2, y0, split.lowMm - 1], [x + PRY.along / 2, y1, seam(x) + PRY.tall]);
  const middle = (low[0] + high[0]) / 2;
  const pry =
    wish.wallMm > PRY.deep + 1
      ? [pryAt(middle + 14, low[1] - 1, low[1] + PRY.deep), pryAt(middle, high[1] - PRY.deep, high[1] + 1)]
      : [];
  if (pry.length === 0) notes.push('No pry slots: the wall is too thin for them.');
  const { lower: lowerBlock, upper: upperBlock } = blocksOf(shop, plan, split);
  const holes = slot ? [slot.hole, slot.screw] : [];
  const set = (solids: Manifold[]) => solids.flatMap((one) => places.map((place) => shop.set(one, place)));
  const lower = hollowed(
    cut,
    pins.dowels ? shop.less(lowerBlock, below) : shop.all([lowerBlock, ...pegs]),
    -1,
    [channel, ...air, ...set(holes)],
    [gate, ...vents, ...holes],
  );
  const upper = hollowed(cut, upperBlock, 1, [...sockets, ...pry, channel, ...air], [gate, ...vents]);
  const inUpper = (solids: Manifold[]) => shop.both([shop.all(solids), upperBlock]);
  const free = ml(shop.less(inUpper([...sockets, ...pry]), [channel, ...air])) - ml(inUpper(pegs));
  const round = slot
    ? places.length * ml(shop.less(slot.hole, [hollow, slot.insert])) +
      ml(shop.both([shop.less(shop.all(set([slot.screw])), set([slot.hole])), lowerBlock]))
    : 0;
  const clean = (half: Manifold) => (split.wavy ? shop.withoutCrumbs(half) : half);
  return { lower: clean(lower), upper: clean(upper), clearanceMl: free + round };
}

const pinTallOf = ({ high }: Arranged, split: Split) => least(PIN_TALL_MM, high[2] - split.highMm - 2);

/** How far round a cavity its cell reaches: never into the next one, nor out of the block. */
const CELL_MM = 0.6;

/**
 * A half with its cavities. Each cavity is cut once, into a cell of its own, and the cells are set into the half: the
 * modeller meets a bait's many triangles once a half instead of once a cavity. A wavy seam is cut all at once.
 * @param small what else is cut, in the mold's axes. @param own the same of one cavity, in its axes.
 */
function hollowed(
  { shop, plan, split, hollow, inCells }: Cut,
  half: Manifold,
  way: 1 | -1,
  small: Manifold[],
  own: Manifold[],
): Manifold {
  const set = (one: Manifold) => plan.places.map((place) => shop.set(one, place));
  if (split.wavy || plan.places.length === 1 || !inCells)
    return shop.less(shop.done(shop.less(half, small)), [
      shop.beside(set(split.wavy ? hollow : shop.done(shop.beyond(hollow, [0, 0, way], -PAST_MM)))),
    ]);
  const { min, max } = plan;
  const [bottom, top] = way > 0 ? [0, Math.max(max[2], 0) + CELL_MM] : [Math.min(min[2], 0) - CELL_MM, 0];
  const cell = shop.box([min[0] - CELL_MM, min[1] - CELL_MM, bottom], [max[0] + CELL_MM, max[1] + CELL_MM, top]);
  // Small cuts are done first: taken together, they would be joined to the bait before it is cut.
  const cutCell = shop.done(shop.less(shop.done(shop.less(cell, own)), [hollow]));
  return shop.all([shop.done(shop.less(half, [...small, ...set(cell)])), ...set(cutCell)]);
}

/**
 * From a bait's closed mesh to the parts of its mold: cavities with their allowance for shrinking, heads to the runner,
 * sprue, gates, vents at the air traps, pins and sockets; a flat seam or one along the widest edge; two halves or four
 * pieces; or boxes to cast silicone in.
 * @param kit from `loadModeller`. @param mesh closed, mm.
 * @throws Failure `does-not-fit`, `pins-overlap`, `breaks-through`, `wall-too-thin`, `gate-misses`, `no-bore`: before
 *   anything is built.
 * Source: solids joined and cut by manifold-3d; shrink 1.5 % is a starting value.
 */
export function buildMold(kit: ManifoldToplevel, mesh: Mesh, wish: MoldWish, progress?: Progress): BuiltMold {
  const once = ({ raisedMm, inCells }: Attempt) => {
    const shop = new Shop(kit);
    try {
      const mold = built(shop, mesh, wish, progress, raisedMm, inCells);
      const files = mold.parts.map(asFile);
      return { mold, isSound: files.every(({ closed, shells }) => closed && shells === 1), files };
    } finally {
      shop.clear();
    }
  };
  const first = once({ raisedMm: 0, inCells: true });
  if (first.isSound) return first.mold;
  const flat = first.mold.flatBack;
  for (const attempt of attemptsFor(wish, flat)) {
    const again = once(attempt);
    if (again.isSound) return again.mold;
  }
  if (first.files.some(({ shells }) => shells > 1)) throw loosePart(wish);
  return {
    ...first.mold,
    notes: [
      ...first.mold.notes,
      'The seam grazes the bait: mend the files before use, or raise or lower the seam a little.',
    ],
  };
}

interface Attempt {
  /** How far the seam is moved, mm. */
  raisedMm: number;
  /** Each cavity in a cell of its own: quicker, but what crosses a cell's border may not meet to the last bit. */
  inCells: boolean;
}

/**
 * What is tried where files are not whole: everything cut at once; then the seam a hair aside, since one that grazes the bait
 * leaves slivers thinner than a file tells apart. A bait that lies flat on the seam is never lifted off it.
 */
const attemptsFor = (wish: MoldWish, flatBack: boolean): Attempt[] => [
  ...(wish.count > 1 && wish.split !== 'wavy' ? [{ raisedMm: 0, inCells: false }] : []),
  ...GRAZE_MM.filter((mm) => !flatBack || mm > 0).map((raisedMm) => ({ raisedMm, inCells: false })),
];

/** Something would stand free, held by nothing; which of the two it is, the pieces do not tell. */
const loosePart = (wish: MoldWish) =>
  new Failure(
    'does-not-fit',
    wish.kind === 'silicone-box'
      ? 'Part of a box would stand loose: a bore or hollow needs a core that no box holds. Leave the bore out, or build printed or machined halves with a core rod; of a bait without one, raise or lower the seam a little.'
      : 'Part of a half would stand loose: a bore or hollow needs a core that no half holds. Give it a core rod, or leave the bore out; of a bait without one, raise or lower the seam a little.',
    wish.kind === 'silicone-box' ? 'kind' : 'coreRodMm',
  );

const GRAZE_MM = [0.03, -0.03, 0.1, -0.1, 0.3, -0.3];

function built(
  shop: Shop,
  mesh: Mesh,
  wish: MoldWish,
  progress: Progress | undefined,
  raisedMm: number,
  inCells: boolean,
): BuiltMold {
  const decided = decideMold(shop, mesh, wish, (done) => progress?.(0.5 * done), raisedMm);
  const { bore, found, planeMm, frame, cavity, split, plan, gate, corners, vents, caught, notes } = decided;
  const hollow = shop.solid(cavity);
  const rodAt = bore && frame(bore.bottom);
  const rod = rodAt && rodIn(shop, wish, plan, rodAt);
  const slot = wish.hookSlot ? slotInsert(shop, hollow, plan, wish.hookSlot, gate.y) : null;
  const block = shop.box(plan.low, plan.high);
  const cut: Cut = { shop, wish, plan, split, cavity, hollow, slot, rod, inCells };
  const flow = flowOf(cut, gate, block);
  const { low, high, min, max } = plan;
  const first = plan.places[0] as Pose;
  const inIt = [...(slot ? [slot.blade] : []), ...(rod ? [rod] : [])];
  const takenMl = inIt.length > 0 ? ml(shop.both([shop.all(inIt), hollow])) : 0;
  const common = {
    cavity,
    casting: castingOf(cut, flow),
    castingCaught: null as Float32Array | null,
    blockMm: high.map((value, k) => value - (low[k] as number)) as Vec3,
    halfMm: [-low[2], high[2]] as [number, number],
    depthMm: [most(-min[2], 0), most(max[2], 0)] as [number, number],
    pinTallMm: wish.kind === 'silicone-box' || wish.pins.dowels ? 0 : pinTallOf(plan, split),
    sectionMm: first.y + (first.turned ? -1 : 1) * ((min[1] + max[1]) / 2),
    seamMm: { low: split.lowMm, high: split.highMm },
    thinnestWall: decided.thinnestWall,
    cavityMl: ml(hollow) - takenMl,
    channelsMl: ml(flow.free),
    direction: found.direction,
    planeMm,
    flatBack: found.flatBack,
    undercutMm2: caught.upperMm2 + caught.lowerMm2,
    caughtMm2: { upper: caught.upperMm2, lower: caught.lowerMm2 },
    caughtAtMm: decided.caughtAtMm,
    vents,
    ventsFrom: vents.map(({ atMm: [x, y], kind }) => ({ kind, fromNoseMm: x - min[0], asideMm: y - gate.y })),
    cornerMm: [-low[0], -low[1]] as [number, number],
    layout: {
      noses: plan.places.map(({ x, y, turned }) => ({
        x: x + (turned ? -min[0] : min[0]) - low[0],
        y: y + (turned ? -gate.y : gate.y) - low[1],
        tail: turned ? ('left' as const) : ('right' as const),
      })),
      pins: wish.kind === 'silicone-box' ? [] : corners.map(([x, y]) => ({ x: x - low[0], y: y - low[1] })),
      clamps: wish.kind === 'silicone-box' ? [] : clampsOf(plan),
      runner: wish.count > 1 ? { x: -low[0], fromY: 0, toY: plan.runnerTo - low[1] } : null,
    },
    notes,
  };
  progress?.(0.65);
  if (inIt.length === 0) {
    common.castingCaught = new Float32Array(common.casting.triangles.length / 3);
    plan.places.forEach((_, i) => {
      common.castingCaught?.set(caught.perTriangle, i * caught.perTriangle.length);
    });
  }
  if (wish.kind === 'silicone-box') {
    const voids = shop.all([shop.beside(plan.places.map((place) => shop.set(hollow, place))), flow.channel]);
    const { parts, rubberMl } = boxes(shop, plan, wish, voids);
    progress?.(1);
    return { ...common, parts, ventsMl: 0, clearanceMl: 0, rubberMl };
  }

  const beside = rodAt ? rodWaysOf(cut, rodAt, flow.channel, block) : { ways: [], clearanceMl: 0 };
  const air = airwaysOf(cut, ventSolids(shop, vents, plan, wish, split), beside.ways, flow.channel, block);
  progress?.(0.75);
  const { lower, upper, clearanceMl } = halvesOf(cut, flow, air, notes);
  progress?.(0.9);
  const pieces =
    wish.pieces === 4
      ? quartered(shop, lower, upper, wish, (first.turned ? -1 : 1) * gate.y + first.y, decided.pinsAside)
      : { parts: [part('lower half', lower), part('upper half', upper)], clearanceMl: 0 };
  const parts = [...pieces.parts, ...extraParts(cut, bore)];
  progress?.(1);
  return {
    ...common,
    parts,
    ventsMl: air.ventsMl,
    clearanceMl: clearanceMl + pieces.clearanceMl + beside.clearanceMl,
    rubberMl: 0,
  };
}

interface Flow {
  /** One cavity's gate, in its own axes. */
  gate: Manifold;
  /** All gates, runner and sprue, as far as the block reaches; and the same without what lies in a cavity. */
  channel: Manifold;
  free: Manifold;
}

/** What the plastic flows through. */
function flowOf({ shop, wish, plan, hollow, rod }: Cut, gate: Gate, block: Manifold): Flow {
  const { gate: own, trunk } = channelsOf(shop, plan, wish, gate);
  const within = (one: Manifold) =>
    shop.both([shop.all([...plan.places.map((place) => shop.set(one, place)), ...trunk]), block]);
  const free = within(shop.done(shop.less(own, [hollow])));
  // A pin through the nose stands in the gate and in the runner.
  const pins = rod && wish.rodHeld === 'both' ? plan.places.map((place) => shop.set(rod, place)) : [];
  return { gate: own, channel: within(own), free: shop.done(shop.less(free, pins)) };
}

/** How deep the pin of a rod stands in the wall before the runner, mm; never through it. */
const seatMm = ({ wallMm }: MoldWish) => least(5, wallMm / 2);

/** Where a pin through the nose ends, in a cavity's own axes. */
const seatEnd = (wish: MoldWish, plan: Arranged) => -(plan.places[0] as Pose).x - wish.runnerMm / 2 - seatMm(wish);

/** The rod as it stands in a cavity, with its pin where it is held before the nose too. */
function rodIn(shop: Shop, wish: MoldWish, plan: Arranged, [x, y, z]: Vec3): Manifold {
  const rod = shop.rod('x', [x, y, z], plan.max[0] - x + 1, (wish.coreRodMm as number) / 2);
  if (wish.rodHeld !== 'both') return rod;
  const from = seatEnd(wish, plan);
  return shop.all([rod, shop.rod('x', [from, y, z], x - from + 0.5, wish.rodPinMm / 2)]);
}

/** The ways that rods lie in beyond their cavities, and what those are wider than the steel. */
function rodWaysOf({ shop, wish, plan, hollow, rod }: Cut, [, y, z]: Vec3, channel: Manifold, block: Manifold) {
  const { low, high, max, places } = plan;
  const behind = (mm: number) => shop.rod('x', [max[0] - 1, y, z], high[0] - low[0], mm / 2);
  const coreMm = wish.coreRodMm as number;
  const from = seatEnd(wish, plan);
  const seat = shop.rod('x', [from, y, z], -(places[0] as Pose).x - from, (wish.rodPinMm + ROD_FIT_MM) / 2);
  const ways = [behind(coreMm + ROD_FIT_MM), ...(wish.rodHeld === 'both' ? [seat] : [])];
  const within = (solids: Manifold[]) => {
    const own = shop.done(shop.less(shop.all(solids), [hollow]));
    return ml(shop.less(shop.both([shop.all(places.map((place) => shop.set(own, place))), block]), [channel]));
  };
  return { ways, clearanceMl: within(ways) - within([behind(coreMm), rod as Manifold]) };
}

interface Airways {
  /** Of one cavity, in its own axes. */
  vents: Manifold[];
  /** Of all, as far as the block reaches. */
  air: Manifold[];
  ventsMl: number;
}

/** @param ways of rods, which are cut with the vents but are none. */
function airwaysOf(
  { shop, plan, hollow }: Cut,
  own: Manifold[],
  ways: Manifold[],
  channel: Manifold,
  block: Manifold,
): Airways {
  if (own.length + ways.length === 0) return { vents: [], air: [], ventsMl: 0 };
  const whole = shop.done(shop.all([...own, ...ways]));
  const set = (one: Manifold) => shop.both([shop.all(plan.places.map((place) => shop.set(one, place))), block]);
  const vents =
    own.length === 0 ? 0 : ml(shop.less(set(shop.done(shop.less(shop.all(own), [hollow, ...ways]))), [channel]));
  return { vents: [whole], air: [set(whole)], ventsMl: vents };
}

/** What comes out of the mold, baits and channels beside each other as they touch. */
function castingOf({ shop, plan, hollow, slot, rod, cavity }: Cut, { free }: Flow): Mesh {
  const inIt = [...(slot ? [slot.blade] : []), ...(rod ? [rod] : [])];
  const bait = inIt.length > 0 ? meshOf(shop.less(hollow, inIt)) : cavity;
  const baits = plan.places.map(({ x, y, turned }) =>
    moved(bait, ([a, b, c]) => (turned ? [x - a, y - b, c] : [x + a, y + b, c])),
  );
  return together(...baits, meshOf(free));
}

/** Rods, inserts and electrodes that go with the halves. */
function extraParts(
  { shop, wish, plan, cavity, slot, split }: Cut,
  bore: ReturnType<typeof boreOf> | null,
): MoldPart[] {
  const parts: MoldPart[] = [];
  if (bore && wish.coreRodMm) {
    const long = (bore.end - bore.bottom[0]) * (1 + wish.shrinkFraction) + wish.wallMm + ROD_GRIP_MM;
    const core = shop.rod('x', [0, 0, 0], long, wish.coreRodMm / 2);
    const pin = bore.bottom[0] * (1 + wish.shrinkFraction) - seatEnd(wish, plan);
    const whole =
      wish.rodHeld === 'both' ? shop.all([core, shop.rod('x', [-pin, 0, 0], pin + 0.5, wish.rodPinMm / 2)]) : core;
    parts.push({ ...part('core rod', whole), count: wish.count });
  }
  if (wish.pins.dowels) {
    const tall = pinTallOf(plan, split);
    const dowel = shop.rod('z', [0, 0, 0], 2 * tall, wish.pins.diameterMm / 2);
    parts.push({ ...part('dowel', dowel), count: cornersOf(plan, wish).length });
  }
  if (slot) parts.push({ ...part('slot insert', shop.set(slot.insert, plan.places[0] as Pose)), count: wish.count });
  if (wish.sparkGapMm) {
    const { lower, upper } = electrodes(shop, cavity, plan, wish.sparkGapMm);
    parts.push(part('lower electrode', lower), part('upper electrode', upper));
    if (wish.sparkRoughGapMm) {
      // As much smaller as the depths to stop at reckon with.
      const rough = electrodes(shop, cavity, plan, wish.sparkRoughGapMm + SPARK_LEAVE_MM);
      parts.push(part('lower roughing electrode', rough.lower), part('upper roughing electrode', rough.upper));
    }
  }
  return parts;
}
