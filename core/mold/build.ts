import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { airTraps, terrainOf } from '../shape/airTraps.ts';
import { boundsOf, cross, dot, type Mesh, middleOf, moved, type Progress, unit, type Vec3 } from '../shape/mesh.ts';
import { bestParting, type Parting, parting } from '../shape/parting.ts';
import { Rays } from '../shape/rays.ts';
import { Bench, meshOf } from '../shape/solids.ts';
import type { MoldWish } from './buildWish.ts';

/** One piece of a mold, in the mold's own axes: z along the pull, the parting plane at 0. */
export interface MoldPart {
  name: 'lower half' | 'upper half' | 'lower box' | 'upper box' | 'core rod';
  mesh: Mesh;
  volumeMl: number;
}

export interface BuiltMold {
  parts: MoldPart[];
  /** What comes out of it: baits, gates, runner and sprue in one. */
  casting: Mesh;
  /** Outside of the closed mold, length, width, height. */
  blockMm: Vec3;
  /** Heights of the lower and the upper half. */
  halfMm: [number, number];
  /** From the mold's own origin to the block's lower left corner, turned round: what is added to be measured from there. */
  cornerMm: [x: number, y: number];
  /** Where things lie, from the block's lower left corner seen from above, mm. */
  layout: {
    /** Nose of each cavity, and which way its tail lies. */
    noses: { x: number; y: number; tail: 'right' | 'left' }[];
    pins: { x: number; y: number }[];
    runner: { x: number; fromY: number; toY: number } | null;
  };
  /** Middle of the first cavity across the mold: where a section shows the most. */
  sectionMm: number;
  /** One cavity, with its allowance for shrinking. */
  cavityMl: number;
  /** Sprue, runner and gates. */
  channelsMl: number;
  ventsMl: number;
  /** What sockets are wider than pins, and pry slots. */
  clearanceMl: number;
  /** Rubber into the box or boxes; 0 for a mold that is not cast. */
  rubberMl: number;
  direction: Vec3;
  planeMm: number;
  flatBack: boolean;
  undercutMm2: number;
  /** Where a half does not come free, in the bait's axes. */
  caughtAtMm: Vec3[];
  vents: { atMm: Vec3; kind: 'groove' | 'hole' }[];
  /** What the builder left out or wants looked at. */
  notes: string[];
}

/** Room round a pin to the edge, and between it and a cavity. */
const PIN_EDGE_MM = 3;
const PIN_CLEAR_MM = 1.5;
const PIN_TALL_MM = 5;
/** Depth of a vent scratched into the parting face: air leaves, plastisol sets in it. */
const GROOVE_MM = 0.2;
const PRY = { along: 12, deep: 4, tall: 2.5 };
const SPRUE_CONE_MM = 14;
/** A cast box: floor and sides. */
const BOX_MM = 3;
/** Radius of the humps that register two rubber halves; less than the floor that their dents are cut into. */
const KEY_MM = 2.4;
/** What a rod's channel is wider than the rod, and how far it stands out to be held. */
const ROD_FIT_MM = 0.2;
const ROD_GRIP_MM = 20;
const ROUND = 32;
const BITE_MM = 0.6;

/** From the bait's axes to the mold's, scaled for shrinking: x from nose to tail, z along the pull, parting at 0. */
function frameOf(direction: Vec3, planeMm: number, scale: number): (point: Vec3) => Vec3 {
  const ez = unit(direction);
  const along: Vec3 = Math.abs(ez[0]) > 0.7 ? [0, 0, 1] : [1, 0, 0];
  const share = dot(along, ez);
  const ex = unit([along[0] - share * ez[0], along[1] - share * ez[1], along[2] - share * ez[2]]);
  const ey = cross(ez, ex);
  return (p) => [scale * dot(p, ex), scale * dot(p, ey), scale * (dot(p, ez) - planeMm)];
}

interface Place {
  x: number;
  y: number;
  turned: boolean;
}

interface Plan {
  low: Vec3;
  high: Vec3;
  places: Place[];
  /** Where along y the runner ends. */
  runnerTo: number;
  min: Vec3;
  max: Vec3;
}

const least = (...values: number[]) => Math.min(...values);
const most = (...values: number[]) => Math.max(...values);

/** Cavities in rows, heads to the runner along y at x = 0, and the block round them. */
function planOf(cavity: Mesh, wish: MoldWish): Plan {
  const { min, max } = boundsOf(cavity.positions);
  const both = wish.layout ? wish.layout === 'both-sides' : wish.count > 3;
  const columns = both ? Math.ceil(wish.count / 2) : wish.count;
  const pitch = max[1] - min[1] + wish.gapMm;
  const gateLong = most(3, 1.5 * wish.gateMm);
  const out = (wish.count > 1 ? wish.runnerMm / 2 : 0) + gateLong;
  const places = Array.from({ length: wish.count }, (_, i): Place => {
    const turned = both && i % 2 === 1;
    const column = both ? Math.floor(i / 2) : i;
    const y = (column - (columns - 1) / 2) * pitch;
    const middle = (min[1] + max[1]) / 2;
    return { x: turned ? min[0] - out : out - min[0], y: turned ? y + middle : y - middle, turned };
  });
  const long = max[0] - min[0];
  const wide = (columns - 1) * pitch + (max[1] - min[1]);
  const head = wish.count > 1 ? 0 : SPRUE_CONE_MM;
  const left = both && wish.count > 1 ? -(out + long) : -most(wish.runnerMm / 2, head);
  const sideways = wish.count > 1 ? most(wish.wallMm, SPRUE_CONE_MM) : wish.wallMm;
  return {
    low: [left - (wish.count > 1 ? wish.wallMm : 0), -wide / 2 - sideways, least(min[2], 0) - wish.wallMm],
    high: [out + long + wish.wallMm, wide / 2 + wish.wallMm, most(max[2], 0) + wish.wallMm],
    places,
    runnerTo: wide / 2 - (max[1] - min[1]) / 2 + wish.runnerMm / 2,
    min,
    max,
  };
}

/** What cannot be built is said before anything is, with the smallest change that mends it. */
function mustFit(plan: Plan, wish: MoldWish): void {
  const size = plan.high.map((value, k) => value - (plan.low[k] as number)) as Vec3;
  const stock = wish.stockMm;
  if (stock && size.some((value, k) => value > (stock[k] as number) + 1e-9)) {
    const short = size.map((value, k) => value - (stock[k] as number));
    const axis = short.indexOf(Math.max(...short));
    throw new Failure(
      'does-not-fit',
      `It needs a block of ${size.map((mm) => mm.toFixed(1)).join(' × ')} mm, ${(short[axis] as number).toFixed(1)} mm more than the stock is ${['long', 'wide', 'high'][axis]}; take larger stock, fewer cavities or a thinner wall.`,
      'stockMm',
    );
  }
  const { diameterMm: d, clearanceMm } = wish.pins;
  const inset = d / 2 + PIN_EDGE_MM;
  const needs = inset + (d / 2 + clearanceMm + PIN_CLEAR_MM) / Math.SQRT2;
  if (wish.kind !== 'silicone-box' && wish.wallMm < needs)
    throw new Failure(
      'pins-overlap',
      `Pins of ${d} mm would come too near a cavity; a wall of ${(Math.ceil(needs * 10) / 10).toFixed(1)} mm or a thinner pin mends it.`,
      'wallMm',
    );
  const deepest = most(-plan.min[2], plan.max[2], 0);
  for (const [name, mm] of [
    ['sprue', wish.sprueMm],
    ['runner', wish.runnerMm],
    ['gate', wish.gateMm],
  ] as const) {
    if (mm / 2 > deepest + wish.wallMm - 1)
      throw new Failure(
        'breaks-through',
        `A ${name} of ${mm} mm would break through the block; ${(2 * (deepest + wish.wallMm - 1)).toFixed(1)} mm is the most here.`,
        `${name}Mm`,
      );
  }
  if (wish.runnerMm < wish.gateMm)
    throw new Failure(
      'invalid-input',
      'A gate wider than its runner fills nothing sooner; make it at most as wide.',
      'gateMm',
    );
}

class Shop extends Bench {
  box(low: Vec3, high: Vec3): Manifold {
    const size = high.map((value, k) => value - (low[k] as number)) as Vec3;
    return this.keep(this.keep(this.kit.Manifold.cube(size)).translate(low));
  }
  /** From one place to another along x or y, its radius growing from `r0` to `r1`. */
  rod(axis: 'x' | 'y' | 'z', from: Vec3, long: number, r0: number, r1 = r0): Manifold {
    const up = this.keep(this.kit.Manifold.cylinder(long, r0, r1, ROUND));
    const turned = axis === 'z' ? up : this.keep(up.rotate(axis === 'x' ? [0, 90, 0] : [-90, 0, 0]));
    return this.keep(turned.translate(from));
  }
  ball(at: Vec3, radius: number): Manifold {
    return this.keep(this.keep(this.kit.Manifold.sphere(radius, ROUND)).translate(at));
  }
  all(parts: Manifold[]): Manifold {
    return this.keep(this.kit.Manifold.union(parts));
  }
  less(one: Manifold, parts: Manifold[]): Manifold {
    return parts.length === 0 ? one : this.keep(this.kit.Manifold.difference([one, ...parts]));
  }
  set(solid: Manifold, { x, y, turned }: Place): Manifold {
    const faced = turned ? this.keep(solid.rotate([0, 0, 180])) : solid;
    return this.keep(faced.translate([x, y, 0]));
  }
}

/** The middle of what lies at the nose's end (−1) or the tail's (1): a flat end has no tip. */
function endOf({ positions: p }: Mesh, way: 1 | -1): Vec3 {
  let x = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < p.length; i += 3) x = most(x, way * (p[i] as number));
  const near = (i: number) => way * (p[i] as number) > x - 0.3;
  const middle = (k: 1 | 2) => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = 0; i < p.length; i += 3) {
      if (!near(i)) continue;
      low = least(low, p[i + k] as number);
      high = most(high, p[i + k] as number);
    }
    return (low + high) / 2;
  };
  return [way * x, middle(1), middle(2)];
}

/** Where the gate meets the bait: along its nose's own line at the parting plane. */
function gateAt(cavity: Mesh, min: Vec3): { y: number; from: number; to: number } {
  const rays = new Rays(cavity);
  const nose = endOf(cavity, -1);
  const hit = rays.first([min[0] - 5, nose[1] + 1e-4, 1e-4], [1, 0, 0], false);
  if (!hit)
    throw new Failure(
      'gate-misses',
      'At the parting plane there is no bait behind its nose to fill; choose another pull or plane.',
      'planeMm',
    );
  return { y: nose[1], from: min[0], to: min[0] - 5 + hit.distance + BITE_MM };
}

/** The bore along the bait, seen from the tail: its bottom, its middle and its width, in the bait's axes. */
function boreOf(mesh: Mesh): { bottom: Vec3; radius: number; end: number } {
  const rays = new Rays(mesh);
  const { min, max } = boundsOf(mesh.positions);
  const [y, z] = [(min[1] + max[1]) / 2 + 1e-4, (min[2] + max[2]) / 2 + 1e-4];
  const hit = rays.first([max[0] + 5, y, z], [-1, 0, 0], false);
  const bottom = max[0] + 5 - (hit?.distance ?? 0);
  const wall = rays.first([max[0] - 1, y, z], [0, 1, 0], false);
  if (!hit || bottom > max[0] - 2 || !wall)
    throw new Failure('no-bore', 'A core rod needs a bait with a bore that is open at the tail.', 'coreRodMm');
  return { bottom: [bottom, y, z], radius: wall.distance, end: max[0] };
}

/** The pull that is asked for, or the best; a rod along the bait leaves only those across it. */
function pullOf(mesh: Mesh, wish: MoldWish, rod: boolean, progress: Progress): Parting {
  if (wish.direction) return parting(mesh, wish.direction as Vec3, progress);
  if (!rod) return bestParting(mesh, progress).best;
  const [up, aside] = [parting(mesh, [0, 0, 1], (done) => progress(done / 2)), parting(mesh, [0, 1, 0])];
  return aside.undercutMm2 < up.undercutMm2 ? aside : up;
}

/** The largest caught places, a few of them, each away from the others. */
function caughtPlaces(mesh: Mesh, { caughtPerTriangle }: Parting): Vec3[] {
  const order = [...caughtPerTriangle.keys()]
    .filter((t) => (caughtPerTriangle[t] as number) > 0.5)
    .map((t) => middleOf(mesh, t));
  const places: Vec3[] = [];
  for (const at of order) {
    if (places.every((other) => Math.hypot(...at.map((value, k) => value - (other[k] as number))) > 6)) places.push(at);
    if (places.length === 5) break;
  }
  return places;
}

const ml = (solid: Manifold) => solid.volume() / 1000;

/**
 * From a bait's closed mesh to the parts of its mold: cavities with their allowance for shrinking, heads to the runner,
 * sprue, gates, vents at the air traps, pins and sockets; or boxes to cast silicone in.
 * @param kit from `loadModeller`. @param mesh closed, mm.
 * @throws Failure `does-not-fit`, `pins-overlap`, `breaks-through`, `gate-misses`, `no-bore`: before anything is built.
 * Source: solids joined and cut by manifold-3d; shrink 1.5 % is a starting value.
 */
export function buildMold(kit: ManifoldToplevel, mesh: Mesh, wish: MoldWish, progress?: Progress): BuiltMold {
  const shop = new Shop(kit);
  try {
    // A rod fills the bore: what is cut into the halves has none.
    const bore = wish.coreRodMm === undefined ? null : boreOf(mesh);
    if (bore && wish.direction && Math.abs(unit(wish.direction as Vec3)[0]) > 0.7)
      throw new Failure('invalid-input', 'A mold with a core rod is pulled apart across the bait.', 'direction');
    const filled = bore
      ? meshOf(shop.all([shop.solid(mesh), shop.rod('x', bore.bottom, bore.end - bore.bottom[0], bore.radius + 0.01)]))
      : mesh;
    const found = pullOf(filled, wish, bore !== null, (done) => progress?.(0.4 * done));
    const planeMm = wish.planeMm ?? found.planeMm;
    const frame = frameOf(found.direction, planeMm, 1 + wish.shrinkFraction);
    const cavity = moved(filled, frame);
    const plan = planOf(cavity, wish);
    mustFit(plan, wish);
    const pins = wish.pins;
    const { min, max, low, high } = plan;
    const gate = gateAt(cavity, min);
    const notes: string[] = [];
    if (bore && wish.coreRodMm && Math.abs(2 * bore.radius - wish.coreRodMm) > 0.3)
      notes.push(`The bore is ${(2 * bore.radius).toFixed(1)} mm: a rod of ${wish.coreRodMm} mm leaves a step.`);
    const rodAt = bore ? frame(bore.bottom) : null;
    const hollow = shop.solid(cavity);
    const cavities = plan.places.map((place) => shop.set(hollow, place));
    progress?.(0.5);

    const channels = channelsOf(shop, plan, wish, gate);
    const vents: BuiltMold['vents'] = [];
    const venting = wish.ventMm > 0 ? ventsOf(shop, cavity, plan, wish, vents, notes) : [];
    const rods = rodAt
      ? plan.places.map((place) => {
          const from: Vec3 = [max[0] - 1, rodAt[1], rodAt[2]];
          return shop.set(shop.rod('x', from, high[0] - low[0], ((wish.coreRodMm as number) + ROD_FIT_MM) / 2), place);
        })
      : [];
    progress?.(0.6);

    const block = shop.box(low, high);
    const inset = pins.diameterMm / 2 + PIN_EDGE_MM;
    // One pin stands a little off, so that the halves only go together one way.
    const corners: [number, number][] = [
      [low[0] + inset, low[1] + inset],
      [high[0] - inset, low[1] + inset],
      [low[0] + inset, high[1] - inset],
      [high[0] - inset - 2, high[1] - inset],
    ];
    // The fewer booleans meet the cavities' many triangles the sooner it is done: small parts are joined among themselves.
    const within = (solids: Manifold[]) => shop.keep(kit.Manifold.intersection([shop.all(solids), block]));
    const channel = within(channels);
    const voids = shop.all([...cavities, channel]);
    const cavityMl = ml(hollow);
    const channelsMl = ml(voids) - plan.places.length * cavityMl;
    const common = {
      casting: meshOf(voids),
      blockMm: high.map((value, k) => value - (low[k] as number)) as Vec3,
      halfMm: [-low[2], high[2]] as [number, number],
      sectionMm: (plan.places[0] as Place).y + ((plan.places[0] as Place).turned ? -1 : 1) * ((min[1] + max[1]) / 2),
      cavityMl,
      channelsMl,
      direction: found.direction,
      planeMm,
      flatBack: found.flatBack,
      undercutMm2: found.undercutMm2,
      caughtAtMm: caughtPlaces(filled, found),
      vents,
      cornerMm: [-low[0], -low[1]] as [number, number],
      layout: {
        noses: plan.places.map(({ x, y, turned }) => ({
          x: x + (turned ? -min[0] : min[0]) - low[0],
          y: y + (turned ? -gate.y : gate.y) - low[1],
          tail: turned ? ('left' as const) : ('right' as const),
        })),
        pins: wish.kind === 'silicone-box' ? [] : corners.map(([x, y]) => ({ x: x - low[0], y: y - low[1] })),
        runner: wish.count > 1 ? { x: -low[0], fromY: 0, toY: plan.runnerTo - low[1] } : null,
      },
      notes,
    };
    if (wish.kind === 'silicone-box') {
      const { parts, rubberMl } = boxes(shop, plan, wish, voids);
      progress?.(1);
      return { ...common, parts, ventsMl: 0, clearanceMl: 0, rubberMl };
    }

    const airways = [...venting, ...rods].length > 0 ? [within([...venting, ...rods])] : [];
    const ventsMl = airways.reduce((sum, one) => sum + ml(shop.less(one, [voids])), 0);
    const tall = least(PIN_TALL_MM, high[2] - 2);
    const pegs = corners.map(([x, y]) => shop.rod('z', [x, y, -0.5], tall + 0.5, pins.diameterMm / 2));
    const sockets = corners.map(([x, y]) =>
      shop.rod('z', [x, y, -0.5], tall + 0.5 + pins.clearanceMm, pins.diameterMm / 2 + pins.clearanceMm),
    );
    const pry =
      wish.wallMm > PRY.deep + 1
        ? [
            shop.box(
              [-PRY.along / 2 + (low[0] + high[0]) / 2 + 14, low[1] - 1, -0.01],
              [PRY.along / 2 + (low[0] + high[0]) / 2 + 14, low[1] + PRY.deep, PRY.tall],
            ),
            shop.box(
              [-PRY.along / 2 + (low[0] + high[0]) / 2, high[1] - PRY.deep, -0.01],
              [PRY.along / 2 + (low[0] + high[0]) / 2, high[1] + 1, PRY.tall],
            ),
          ]
        : [];
    if (pry.length === 0) notes.push('No pry slots: the wall is too thin for them.');
    progress?.(0.75);
    const lowerBlock = shop.box(low, [high[0], high[1], 0]);
    const upperBlock = shop.box([low[0], low[1], 0], high);
    const lower = shop.less(shop.all([lowerBlock, ...pegs]), [voids, ...airways]);
    progress?.(0.85);
    const upper = shop.less(shop.less(upperBlock, [...sockets, ...pry]), [voids, ...airways]);
    progress?.(0.95);
    const inUpper = (solids: Manifold[]) => shop.keep(kit.Manifold.intersection([shop.all(solids), upperBlock]));
    const clearanceMl = ml(shop.less(inUpper([...sockets, ...pry]), [channel, ...airways])) - ml(inUpper(pegs));
    const parts: MoldPart[] = [
      { name: 'lower half', mesh: meshOf(lower), volumeMl: ml(lower) },
      { name: 'upper half', mesh: meshOf(upper), volumeMl: ml(upper) },
    ];
    if (bore && wish.coreRodMm) {
      const long = (bore.end - bore.bottom[0]) * (1 + wish.shrinkFraction) + wish.wallMm + ROD_GRIP_MM;
      const rod = shop.rod('x', [0, 0, 0], long, wish.coreRodMm / 2);
      parts.push({ name: 'core rod', mesh: meshOf(rod), volumeMl: ml(rod) });
    }
    progress?.(1);
    return { ...common, parts, ventsMl, clearanceMl, rubberMl: 0 };
  } finally {
    shop.clear();
  }
}

/** Sprue, runner and gates as one set of rods in the parting plane. */
function channelsOf(shop: Shop, plan: Plan, wish: MoldWish, gate: ReturnType<typeof gateAt>): Manifold[] {
  const { low, places, runnerTo } = plan;
  const gates = places.map((place) => {
    const long = gate.to - gate.from + most(3, 1.5 * wish.gateMm) + (wish.count > 1 ? wish.runnerMm / 2 : 1);
    const from: Vec3 = [gate.to - long, gate.y, 0];
    return shop.set(shop.rod('x', from, long, wish.gateMm / 2), place);
  });
  if (wish.count === 1) {
    const y = gate.y + (places[0] as Place).y;
    return [...gates, shop.rod('x', [low[0] - 1, y, 0], -low[0] + 1, wish.sprueMm / 2, wish.gateMm / 2)];
  }
  const edge = low[1];
  return [
    ...gates,
    shop.rod('y', [0, edge, 0], runnerTo - edge, wish.runnerMm / 2),
    shop.ball([0, runnerTo, 0], wish.runnerMm / 2),
    shop.rod('y', [0, edge - 1, 0], SPRUE_CONE_MM + 1, wish.sprueMm / 2, wish.runnerMm / 2),
  ];
}

/** A scratch from each tail tip to the edge, and a hole up or down from every other place where air stays, nose up. */
function ventsOf(
  shop: Shop,
  cavity: Mesh,
  plan: Plan,
  wish: MoldWish,
  said: BuiltMold['vents'],
  notes: string[],
): Manifold[] {
  const { low, high, max, places } = plan;
  const tip = endOf(cavity, 1);
  const radius = wish.ventMm / 2;
  const out: Manifold[] = [];
  const reach = high[0] - low[0];
  const end = new Rays(cavity).first([max[0] + 5, tip[1] + 1e-4, 1e-4], [-1, 0, 0], false);
  if (end) {
    const from = max[0] + 5 - end.distance - 0.5;
    const groove = shop.box([from, tip[1] - radius, 0], [max[0] + reach, tip[1] + radius, GROOVE_MM]);
    for (const place of places) out.push(shop.set(groove, place));
    said.push({ atMm: [from + 0.5, tip[1], 0], kind: 'groove' });
  } else notes.push('The tail’s tip lies off the parting plane: it has no vent of its own.');
  const traps = airTraps(terrainOf(cavity), [-1, 0, 0]).filter((trap) => !trap.pour);
  for (const { pointMm } of traps.slice(0, 12)) {
    const up = pointMm[2] >= 0;
    const from: Vec3 = [pointMm[0] + radius, pointMm[1], up ? pointMm[2] - 0.3 : low[2] - 1];
    const long = up ? high[2] - from[2] + 1 : pointMm[2] + 0.3 - from[2];
    const hole = shop.rod('z', from, long, radius);
    for (const place of places) out.push(shop.set(hole, place));
    said.push({ atMm: pointMm, kind: 'hole' });
  }
  if (traps.length > 12) notes.push(`${traps.length} places keep air: only the twelve largest are vented.`);
  return out;
}

/** Boxes with a floor at the parting plane and half of everything standing on it, to pour silicone into. */
function boxes(shop: Shop, plan: Plan, wish: MoldWish, voids: Manifold) {
  const { low, high, min, max } = plan;
  const outer = (tall: number) =>
    shop.box([low[0] - BOX_MM, low[1] - BOX_MM, -BOX_MM], [high[0] + BOX_MM, high[1] + BOX_MM, tall]);
  const made = (name: MoldPart['name'], standing: Manifold, deep: number, keys: 'up' | 'down') => {
    const tall = deep + wish.wallMm;
    const room = shop.box([low[0], low[1], 0], [high[0], high[1], tall + 1]);
    const inset = BOX_MM + 4;
    const places: [number, number][] = [
      [low[0] + inset, low[1] + inset],
      [high[0] - inset, high[1] - inset],
    ];
    const balls = places.map(([x, y]) => shop.ball([x, keys === 'down' ? y : low[1] + high[1] - y, 0], KEY_MM));
    const tray = shop.less(outer(tall), [room]);
    // Humps in one box make dents in its rubber; the other box has dents, whose rubber fills them.
    const whole = keys === 'up' ? shop.all([tray, standing, ...balls]) : shop.less(shop.all([tray, standing]), balls);
    const clipped = shop.keep(shop.kit.Manifold.intersection([whole, outer(tall)]));
    const filled = shop.box([low[0], low[1], 0], [high[0], high[1], tall]);
    // What fills the dents is rubber too.
    const rubber = shop.less(keys === 'down' ? shop.all([filled, ...balls]) : filled, [clipped]);
    return { part: { name, mesh: meshOf(clipped), volumeMl: ml(clipped) } as MoldPart, rubberMl: ml(rubber) };
  };
  const above = shop.keep(voids.trimByPlane([0, 0, 1], 0));
  const flipped = shop.keep(voids.rotate([180, 0, 0]));
  const parts = [made('upper box', above, most(max[2], 0), 'up')];
  // A flat back needs no second box: the rubber is poured over it.
  if (min[2] < -0.3) parts.push(made('lower box', shop.keep(flipped.trimByPlane([0, 0, 1], 0)), -min[2], 'down'));
  return { parts: parts.map((one) => one.part), rubberMl: parts.reduce((sum, one) => sum + one.rubberMl, 0) };
}
