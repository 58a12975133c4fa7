import type { Manifold } from 'manifold-3d';
import { Failure } from '../failure.ts';
import type { Vec3 } from '../shape/mesh.ts';
import { mm, say } from '../units/say.ts';
import { PIN_EDGE_MM } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { partOf } from './parts.ts';
import type { MoldPart } from './pieces.ts';
import { ml, type Shop } from './shop.ts';

const PIN_TALL_MM = 5;

/**
 * Where the pins between left and right pieces stand: in the walls before the nose and behind the tail, over and under.
 * @throws Failure `pins-overlap` where the sprue leaves them no room.
 */
export function seamPins({ low, high }: Arranged, { pins, sprueMm, wallMm }: MoldWish): Vec3[] {
  const inset = pins.diameterMm / 2 + PIN_EDGE_MM;
  const over = Math.min(-low[2], high[2]) - inset;
  const needs = sprueMm / 2 + pins.diameterMm / 2 + pins.clearanceMm + 1;
  if (over < needs)
    throw new Failure(
      'pins-overlap',
      say`The pins between left and right pieces would meet the sprue; a wall of ${mm(Math.ceil(10 * (wallMm + needs - over)) / 10)} or a thinner sprue mends it.`,
      'wallMm',
    );
  return [low[0] + inset, high[0] - inset].flatMap((x) => [
    [x, 0, high[2] - inset] as Vec3,
    [x, 0, low[2] + inset] as Vec3,
  ]);
}

/** Each half sawn along the bait, pins from its left piece into its right one. */
export function quartered(shop: Shop, lower: Manifold, upper: Manifold, wish: MoldWish, yMm: number, at: Vec3[]) {
  const { diameterMm, clearanceMm } = wish.pins;
  let clearance = 0;
  const saw = (half: Manifold, name: 'lower' | 'upper', places: Vec3[]): MoldPart[] => {
    const pegs = places.map(([x, , z]) => shop.rod('y', [x, yMm - 0.5, z], PIN_TALL_MM + 0.5, diameterMm / 2));
    const sockets = places.map(([x, , z]) =>
      shop.rod('y', [x, yMm - 0.5, z], PIN_TALL_MM + 0.5 + clearanceMm, diameterMm / 2 + clearanceMm),
    );
    const leftHalf = shop.beyond(half, [0, -1, 0], -yMm);
    const rightHalf = shop.beyond(half, [0, 1, 0], yMm);
    const left = shop.all([leftHalf, ...pegs]);
    const right = shop.less(rightHalf, sockets);
    clearance += ml(shop.both([shop.all(sockets), rightHalf])) - ml(shop.beyond(shop.all(pegs), [0, 1, 0], yMm));
    return [partOf(`${name} left`, left), partOf(`${name} right`, right)];
  };
  const over = at.filter(([, , z]) => z > 0);
  const under = at.filter(([, , z]) => z < 0);
  return { parts: [...saw(lower, 'lower', under), ...saw(upper, 'upper', over)], clearanceMl: clearance };
}
