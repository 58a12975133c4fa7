import { Failure } from '../failure.ts';
import { boundsOf, cross, dot, type Mesh, unit, type Vec3 } from '../shape/mesh.ts';
import { mm, say } from '../units/say.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { endOf } from './ends.ts';
import type { Pose } from './shop.ts';
import type { Split } from './split.ts';

const tenth = (value: number) => Math.round(value * 10) / 10;

/** Room round a pin to the edge, and between it and a cavity. */
export const PIN_EDGE_MM = 3;
export const PIN_CLEAR_MM = 1.5;
export const SPRUE_CONE_MM = 14;
/** What a wall must be at the least: plastic blows through a thinner print, a cutter bends a thinner wall. */
export const LEAST_WALL_MM = { printed: 1.5, machined: 1, 'silicone-box': 1 } as const;
/** Clamps are set this near a corner, and no further apart along an edge. */
const CLAMP_IN_MM = 12;
const CLAMP_APART_MM = 90;

export const least = (...values: number[]) => Math.min(...values);
export const most = (...values: number[]) => Math.max(...values);

/** From the bait's axes to the mold's, scaled for shrinking: x from nose to tail, z along the pull, parting at 0. */
export function frameOf(direction: Vec3, planeMm: number, scale: number): (point: Vec3) => Vec3 {
  const ez = unit(direction);
  const along: Vec3 = Math.abs(ez[0]) > 0.7 ? [0, 0, 1] : [1, 0, 0];
  const share = dot(along, ez);
  const ex = unit([along[0] - share * ez[0], along[1] - share * ez[1], along[2] - share * ez[2]]);
  const ey = cross(ez, ex);
  return (p) => [scale * dot(p, ex), scale * dot(p, ey), scale * (dot(p, ez) - planeMm)];
}

/** How far a pin's middle has to stay from the middle of a channel, mm. */
const fromChannel = ({ pins }: MoldWish, channelMm: number) =>
  channelMm / 2 + pins.diameterMm / 2 + pins.clearanceMm + PIN_CLEAR_MM;

/** How far a pin's middle stands in from the edges of the block, mm. */
const insetOf = ({ pins }: Pick<MoldWish, 'pins'>) => pins.diameterMm / 2 + PIN_EDGE_MM;

/** Cavities in rows, heads to the runner along y at x = 0, and the block round them; wide enough that no channel meets a pin. */
export function arrange(cavity: Mesh, wish: MoldWish, split: Split): Arranged {
  const { min, max } = boundsOf(cavity.positions);
  const both = wish.layout ? wish.layout === 'both-sides' : wish.count > 3 && wish.rodHeld !== 'both';
  const columns = both ? Math.ceil(wish.count / 2) : wish.count;
  const pitch = max[1] - min[1] + wish.gapMm;
  const gateLong = most(3, 1.5 * wish.gateMm);
  const out = (wish.count > 1 ? wish.runnerMm / 2 : 0) + gateLong;
  const places = Array.from({ length: wish.count }, (_, i): Pose => {
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
  // A box that is cast in has no pins.
  const clear =
    wish.kind === 'silicone-box'
      ? 0
      : fromChannel(wish, wish.count > 1 ? most(wish.sprueMm, wish.runnerMm) : wish.sprueMm) + insetOf(wish);
  const before = wish.count > 1 ? most(wish.wallMm - left, clear) : -left;
  const gateY = endOf(cavity, -1)[1];
  const nose = wish.count > 1 ? 0 : gateY - (min[1] + max[1]) / 2;
  const aside = wish.count > 1 ? 0 : clear - wide / 2;
  const sideways = wish.count > 1 ? most(wish.wallMm, SPRUE_CONE_MM) : most(wish.wallMm, aside - nose);
  return {
    low: [-before, -wide / 2 - sideways, least(min[2], split.lowMm, 0) - wish.wallMm],
    high: [
      out + long + wish.wallMm,
      wide / 2 + most(wish.wallMm, aside + nose),
      most(max[2], split.highMm, 0) + wish.wallMm,
    ],
    places,
    // As far as the last gate, wherever in its bait the nose lies.
    runnerTo: most(...places.map(({ y, turned }) => (turned ? y - gateY : y + gateY))) + wish.runnerMm / 2,
    min,
    max,
  };
}

export type Corner = [x: number, y: number];

/** How much nearer to the end one pin stands: more than any socket is wider. */
export const PIN_OFF_MM = 1;

/** One pin stands a little off, so that the halves only go together one way. */
export function cornersOf({ low, high }: Arranged, { pins }: MoldWish): Corner[] {
  const inset = insetOf({ pins });
  return [
    [low[0] + inset, low[1] + inset],
    [high[0] - inset, low[1] + inset],
    [low[0] + inset, high[1] - inset],
    [high[0] - inset + PIN_OFF_MM, high[1] - inset],
  ];
}

/** Clamps on opposite corners first, then the other two, then between them along the long edges; from the block's corner. */
export function clampsOf({ low, high }: Pick<Arranged, 'low' | 'high'>): { x: number; y: number }[] {
  const [long, wide] = [high[0] - low[0], high[1] - low[1]];
  const [left, right] = [least(CLAMP_IN_MM, long / 4), most(long - CLAMP_IN_MM, (3 * long) / 4)];
  const first = [
    { x: left, y: 0 },
    { x: right, y: wide },
    { x: right, y: 0 },
    { x: left, y: wide },
  ];
  const between = Math.ceil((right - left) / CLAMP_APART_MM) - 1;
  const more = Array.from({ length: between }, (_, i) => left + ((right - left) * (i + 1)) / (between + 1)).flatMap(
    (x) => [
      { x, y: 0 },
      { x, y: wide },
    ],
  );
  return [...first, ...more];
}

/** What cannot be built is said before anything is, with the smallest change that mends it. */
export function mustFit(plan: Arranged, wish: MoldWish): void {
  const size = plan.high.map((value, k) => value - (plan.low[k] as number)) as Vec3;
  const stock = wish.stockMm;
  if (stock && size.some((value, k) => value > (stock[k] as number) + 1e-9)) {
    const short = size.map((value, k) => value - (stock[k] as number));
    const axis = short.indexOf(Math.max(...short));
    throw new Failure(
      'does-not-fit',
      say`It needs a block of ${mm(tenth(size[0]))} × ${mm(tenth(size[1]))} × ${mm(tenth(size[2]))}, ${mm(tenth(short[axis] as number))} more than the stock is ${['long', 'wide', 'high'][axis] as string}; take larger stock, fewer cavities or a thinner wall.`,
      'stockMm',
    );
  }
  const thin = LEAST_WALL_MM[wish.kind];
  for (const [name, wide] of [
    ['wall', wish.wallMm],
    ['gap', wish.gapMm],
  ] as const)
    if (wide < thin && (name === 'wall' || wish.count > 1))
      throw new Failure(
        'wall-too-thin',
        say`A ${name === 'wall' ? 'wall' : 'wall between cavities'} of ${mm(wide)} is too thin for a ${wish.kind} mold; ${mm(thin)} is the least.`,
        `${name}Mm`,
      );
  const { diameterMm: d, clearanceMm } = wish.pins;
  const inset = insetOf(wish);
  const needs = inset + (d / 2 + clearanceMm + PIN_CLEAR_MM) / Math.SQRT2;
  if (wish.kind !== 'silicone-box' && wish.wallMm < needs)
    throw new Failure(
      'pins-overlap',
      say`Pins of ${mm(d)} would come too near a cavity; a wall of ${mm(Math.ceil(needs * 10) / 10)} or a thinner pin mends it.`,
      'wallMm',
    );
  const deepest = most(-plan.min[2], plan.max[2], 0);
  for (const [name, wide] of [
    ['sprue', wish.sprueMm],
    ['runner', wish.runnerMm],
    ['gate', wish.gateMm],
  ] as const) {
    if (wide / 2 > deepest + wish.wallMm - 1)
      throw new Failure(
        'breaks-through',
        say`A ${name} of ${mm(wide)} would break through the block; ${mm(Math.floor(20 * (deepest + wish.wallMm - 1)) / 10)} is the most here.`,
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
